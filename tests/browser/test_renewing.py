"""A page is taken again after its next edition, and its marks are where they belong, or asked about."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from tallpage.demo.site_server import DemoSite
from tests.browser.person import Person

pytestmark = pytest.mark.browser


def _block(blocks: list[dict[str, Any]], words: str) -> dict[str, Any]:
    """The innermost block that says these words."""
    return min((row for row in blocks if words in row["text"]), key=lambda row: len(row["text"]))


def _badge(id_: str, block: dict[str, Any]) -> dict[str, Any]:
    return {"kind": "badge", "id": id_, "x_px": block["x_px"] + 20, "y_px": block["y_px"] + 10}


def _pointed(person: Person, capture_id: int) -> dict[str, Any]:
    """The capture's cut with numbers on three things, and a file asked for."""
    cut = person.ask(f"/captures/{capture_id}")["cuts"][0]
    blocks = person.ask(f"/captures/{capture_id}/map")
    fares, moved, gone = (_block(blocks, words) for words in ("under sixteen", "New ramp at Ailsay", "5.60"))
    marks = [_badge("fares", fares), _badge("moved", moved), _badge("gone", gone)]
    rules = {"width_px": 320, "limit_bytes": 60_000, "formats": ["jpeg"]}
    document = {**cut["document"], "marks": marks}
    person.change("PATCH", f"/cuts/{cut['id']}", {"version": cut["version"], "document": document})
    person.change("POST", f"/cuts/{cut['id']}/outputs", {"rules": rules})
    return {row["id"]: row for row in marks}


@pytest.mark.long
def test_a_page_is_taken_again_and_what_is_in_doubt_is_looked_at(person: Person, own_site: DemoSite) -> None:
    first = person.take(f"http://127.0.0.1:{own_site.server_port}/")
    before = _pointed(person, first)
    own_site.edition = 2
    person.open_bench(first)
    person.click("Report")
    person.click("Take again, the same way")
    second = person.see_taken(first, what="the page taken again")
    (cut,) = person.ask(f"/captures/{second}")["cuts"]
    now = {row["id"]: row for row in cut["document"]["marks"]}
    blocks = person.ask(f"/captures/{second}/map")
    for name, words in (("fares", "under sixteen"), ("moved", "New ramp at Ailsay")):
        block = _block(blocks, words)
        assert (now[name]["x_px"], now[name]["y_px"]) == (block["x_px"] + 20, block["y_px"] + 10)
        assert now[name]["y_px"] != before[name]["y_px"]
    assert "gone" not in now

    person.open_bench(second)
    person.see("[data-review] [data-review-state=lost]")
    person.see_text("1 needs a look")
    assert not person.all("[data-output]"), "no file is made while something is in doubt"
    person.until(lambda _: person.see("[data-review] img").get_property("naturalWidth"), what="how it was")
    person.click("Put it here")
    person.see_text("Nothing is in doubt.")
    person.see("[data-output]")
    person.see_saved()
    marks = person.ask(f"/cuts/{cut['id']}")["document"]["marks"]
    assert [row["id"] for row in marks] == ["fares", "moved", "gone"]
    person.see("[data-review] [data-review-state=resized]")  # the frame: the page is longer now
    person.press("j")
    person.see("[data-review] [data-review-state=moved]")
    person.click("Close the review")
    person.until(lambda _: not person.all("[data-review]"), what="the review gone")
    person.see("[data-output][data-state=done]")


def test_a_cut_is_carried_over_to_another_capture(person: Person) -> None:
    first, second = person.stored("/"), person.stored("/")
    _pointed(person, first)
    person.open_bench(first)
    person.open_panel("Carry Cut 1 over to other captures")
    person.click_on("[role=dialog] li input[type=checkbox]")
    person.see_text("All 4 parts have their place")
    person.click("Carry Cut 1 over")
    person.until(lambda driver: f"/captures/{second}/cuts/" in driver.current_url, what="the other page")
    person.see_text("Nothing is in doubt.")
    assert {row["state"] for row in person.ask(f"/captures/{second}")["cuts"][-1]["review"]} == {"same"}


@pytest.mark.long
def test_a_frame_is_carried_to_three_captures_of_which_one_differs(person: Person) -> None:
    first, second, third = (person.stored("/") for _ in range(3))
    differs = person.uploaded(np.full((700, 500, 3), 230, dtype=np.uint8))
    cut = person.ask(f"/captures/{first}")["cuts"][0]
    block = _block(person.ask(f"/captures/{first}/map"), "under sixteen")
    frame = {name: block[name] for name in ("x_px", "y_px", "width_px", "height_px")}
    document = {**cut["document"], "frame": frame}
    person.change("PATCH", f"/cuts/{cut['id']}", {"version": cut["version"], "document": document})
    person.open_bench(first)
    person.open_panel("Carry Cut 1 over to other captures")
    for capture_id in (second, third, differs):
        person.until(
            lambda _, row=capture_id: _chosen(person, row),
            what=f"capture {capture_id}, chosen",
        )
    person.until(lambda _: len(person.all("[data-carried] img")) == 3, what="three pictures")
    person.until(
        lambda driver: driver.execute_script(
            "return [...document.querySelectorAll('[data-carried] img')].every((row) => row.naturalWidth > 0)"
        ),
        what="three pictures, drawn",
    )
    said = {row.get_attribute("data-carried"): row.text for row in person.all("[data-carried]")}
    assert "It has its place" in said[str(second)]
    assert "It has its place" in said[str(third)]
    assert "frame" in said[str(differs)]
    person.click("Carry Cut 1 over to 3 captures")
    person.see_text("Cut 1 is on 3 more captures now")
    for capture_id in (second, third):
        carried = person.ask(f"/captures/{capture_id}")["cuts"][-1]["document"]["frame"]
        assert {name: carried[name] for name in frame} == frame
    assert person.ask(f"/captures/{differs}")["cuts"][-1]["review"][0]["doubt"]


def _chosen(person: Person, capture_id: int) -> bool:
    """Whether a capture of the list is chosen; it is pressed where it is not."""
    boxes = person.all(f"[data-offered='{capture_id}'] input")
    if not boxes:  # the list is being fetched
        return False
    if not boxes[0].is_selected():
        boxes[0].click()
    return bool(boxes[0].is_selected())
