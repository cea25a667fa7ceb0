"""Pictures of one page, taken bit by bit, become one."""

from __future__ import annotations

from pathlib import Path

import numpy as np
import pytest
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.core.stitch.sequences import Views, scrolled, under_header
from tests.pictures import Pixels, as_png, decoded

pytestmark = pytest.mark.browser
WINDOW_PX = 1_200


def _page(person: Person) -> Pixels:
    """A page of the demo as it really looks."""
    capture_id = person.stored("/timetable")
    manifest = person.ask(f"/captures/{capture_id}")["strips"]
    strips = [person.fetch(f"/captures/{capture_id}/strips/{number}") for number in range(len(manifest))]
    return np.concatenate([decoded(strip)[:, :, :3] for strip in strips])


def _drop(person: Person, views: tuple[Pixels, ...]) -> list[int]:
    """Pictures dropped together, as the screens of a phone are; the ids of their captures in that order."""
    paths: list[Path] = []
    for number, view in enumerate(views):
        paths.append(person.downloads.parent / f"screen {number}.png")
        paths[-1].write_bytes(as_png(view))
    person.open("/")
    person.see("[data-address-field]")
    before = person.newest_capture()
    person.all("input[type=file]")[0].send_keys("\n".join(map(str, paths)))

    def all_there(_: object) -> list[int] | None:
        rows = person.ask(f"/captures?limit={len(paths)}")["captures"]
        done = [row for row in rows if row["id"] > before and row["job"]["state"] == "done"]
        by_name = {row["name"].partition(" – ")[0]: row["id"] for row in done}
        return [by_name[path.stem] for path in paths] if len(by_name) == len(paths) else None

    ids: list[int] = person.until(all_there, what="the dropped pictures")
    return ids


def _join(person: Person, ids: list[int]) -> None:
    person.open("/shelf")
    for capture_id in ids:
        person.choose(capture_id, Keys.CONTROL)
    person.see(f"[data-chosen-count='{len(ids)}']")
    person.click("Join")


@pytest.mark.long
def test_screens_of_a_phone_are_dropped_and_joined(person: Person) -> None:
    page = _page(person)
    views: Views = under_header(scrolled(page, [1_500.0, 0.0, 800.0], WINDOW_PX), 60)
    first, second, third = _drop(person, views.views)
    _join(person, [first, second, third])
    person.see_text("nothing missing")
    order = [int(str(row.get_attribute("data-piece"))) for row in person.all("[data-piece]")]
    assert order == [second, third, first]

    seam = person.see("[data-seam='1'] input[type=range]")
    at_px = int(str(seam.get_attribute("value")))
    seam.send_keys(Keys.ARROW_RIGHT)
    person.see(f"[data-seam-line='1'][aria-label='Seam 1, at row {at_px + 1}']")
    assert person.driver.switch_to.active_element == seam, "it is moved on by keys"
    person.press(Keys.ARROW_RIGHT)
    person.see(f"[data-seam-line='1'][aria-label='Seam 1, at row {at_px + 2}']")
    person.see_text(f"Seam at row {at_px + 2:,}")

    person.click("Keep as one capture")
    person.click("Open it")
    person.see("[data-frame]")
    kept = person.newest_capture()
    strips = person.ask(f"/captures/{kept}")["strips"]
    pixels = [decoded(person.fetch(f"/captures/{kept}/strips/{number}")) for number in range(len(strips))]
    assert np.array_equal(np.concatenate(pixels), views.whole)


@pytest.mark.long
def test_a_missing_piece_is_named_and_comes_in_by_another_picture(person: Person) -> None:
    page = _page(person)
    views = scrolled(page, [0.0, 900.0, 2_600.0, 1_700.0], WINDOW_PX)
    *first, filling = _drop(person, views.views)
    _join(person, first)
    person.see_text("A piece is missing here")
    assert not person.all("[data-joined]")
    person.see_text("A piece is missing.")
    _join(person, [*first, filling])
    person.see_text(f"{views.whole.shape[0]:,} px, nothing missing")
