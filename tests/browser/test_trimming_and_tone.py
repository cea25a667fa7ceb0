"""Plain edges trimmed, and the tone of a page: on the Bench as in the file."""

import io
from typing import Any

import numpy as np
import pytest
from PIL import Image
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.long import long_but
from tests.pictures import decoded, noise, photograph

pytestmark = pytest.mark.browser

PAGE = "[data-pointer-layer]"
INNER = 60, 40, 400, 700


@pytest.fixture
def framed_id(person: Person) -> int:
    """A dropped photograph with plain edges of 60, 40, 140 and 160 px."""
    rows = np.full((900, 600, 3), (250, 248, 244), dtype=np.uint8)
    x, y, width, height = INNER
    rows[y : y + height, x : x + width] = photograph(width, height)
    return person.picture(rows)


def test_plain_edges_are_trimmed_one_or_all_and_undone(person: Person, framed_id: int) -> None:
    person.open_bench(framed_id)
    person.open_panel("Trim plain edges")
    person.click("Below")
    person.see_frame(0, 0, 600, 740)
    person.press(Keys.ESCAPE)
    person.until(lambda _: not person.all("[role=dialog]"))
    person.press("x")
    person.see_frame(*INNER)
    assert person.stored_frame(framed_id) == INNER
    person.press("x")
    person.see_text("There are no plain edges here.")
    person.click("Undo")
    person.see_frame(0, 0, 600, 740)


@pytest.mark.long
def test_empty_stretches_are_folded_at_once_and_unfolded_again(person: Person) -> None:
    rows = np.full((1_400, 600, 3), 250, dtype=np.uint8)
    rows[:200], rows[600:800], rows[850:1_000] = (noise(600, height) for height in (200, 200, 150))
    page_id = person.picture(rows)
    person.open_bench(page_id)
    person.open_panel("Folds")
    person.click("Fold empty")
    person.see_text("2 empty stretches folded away: 704 px.")
    person.see_saved()
    folds = person.ask(f"/captures/{page_id}")["cuts"][0]["document"]["frame"]["folds"]
    assert folds == [{"top_px": 224, "height_px": 352}, {"top_px": 1_024, "height_px": 352}]
    person.click("Fold empty")
    person.see_text("There is no empty stretch of 120 px or more in the frame.")
    person.close_panels()
    person.click("Undo")
    person.until(lambda _: not person.all("[data-fold]"), what="no fold")


@pytest.mark.long
@pytest.mark.parametrize("switch", long_but(["Inverted"], ["Grey", "Black and white", "Inverted"]))
def test_the_screen_has_the_tone_of_the_file(person: Person, framed_id: int, switch: str) -> None:
    person.open_bench(framed_id)
    person.open_panel("Tone of the page")
    for words, percent in (("Brightness", "110"), ("Contrast", "130")):
        person.type_into(f"[aria-label='{words} in percent']", Keys.CONTROL, "a")
        person.type_into(f"[aria-label='{words} in percent']", percent, Keys.ENTER)
    _check(person, switch)
    person.press(Keys.ESCAPE)
    person.until(lambda _: not person.all("[role=dialog]"))
    person.see_saved()
    cut = person.ask(f"/captures/{framed_id}")["cuts"][0]
    assert len(cut["document"]["tone"]) == 3
    pixels = _file(person, cut["id"]).astype(int)
    box = person.see(PAGE).rect
    left, top = round(box["x"]), round(box["y"])
    screen = np.asarray(Image.open(io.BytesIO(person.driver.get_screenshot_as_png())).convert("RGB")).astype(
        int
    )
    shown, drawn = screen[top + 60 : top + 520, left + 20 : left + 560], pixels[60:520, 20:560]
    apart = np.abs(shown - drawn)
    if switch == "Black and white":
        assert set(np.unique(drawn)) == {0, 255}
        assert (apart > 0).mean() < 0.01
    else:
        assert apart.max() <= 3
        assert np.abs(drawn - 128).mean() > 20


def _check(person: Person, words: str) -> None:
    label = next(row for row in person.all("[role=dialog] label") if row.text.strip() == words)
    label.click()
    person.see_saved()


def _file(person: Person, cut: int) -> Any:
    rules = {"width_px": 600, "limit_bytes": 2_000_000, "formats": ["png"]}
    row = person.change("POST", f"/cuts/{cut}/outputs", {"rules": rules})["id"]
    person.until(lambda _: person.ask(f"/cuts/{cut}/outputs")[-1]["job"]["state"] == "done", what="the file")
    return decoded(person.fetch(f"/outputs/{row}/file"))
