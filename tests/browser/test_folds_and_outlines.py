"""Folds both ways, a free outline, something mended: by hand, by keyboard, and as the file has it."""

import io
import math
import re
from typing import Any

import numpy as np
import pytest
from PIL import Image
from scipy.ndimage import binary_dilation
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.pictures import Pixels, text_page

pytestmark = pytest.mark.browser

PAGE = "[data-pointer-layer]"
GROUND = "#C9820A"


def _columns() -> Pixels:
    """Two columns of text with room between them, and below."""
    page = np.full((900, 620, 3), (250, 248, 244), dtype=np.uint8)
    page[20:400, 20:280] = text_page(260, 380)
    page[20:400, 340:600] = text_page(260, 380, seed=2)
    page[600:880, 20:280] = text_page(260, 280, seed=3)
    return page


def _png(person: Person, cut: int, width_px: int) -> Pixels:
    rules = {"width_px": width_px, "limit_bytes": 9_000_000, "formats": ["png"]}
    row = person.change("POST", f"/cuts/{cut}/outputs", {"rules": rules})["id"]
    person.until(lambda _: person.ask(f"/cuts/{cut}/outputs")[-1]["job"]["state"] == "done", what="the file")
    return np.asarray(Image.open(io.BytesIO(person.fetch(f"/outputs/{row}/file"))).convert("RGBA"))


def test_folds_go_across_and_down_with_a_seam_and_one_is_opened_again(person: Person) -> None:
    page_id = person.picture(_columns())
    person.open_bench(page_id)
    person.click("1:1")
    person.press("f")
    person.drag(PAGE, (200, 430), (0, 120))
    person.until(lambda _: len(person.all("[data-fold]")) == 1, what="a fold across")
    person.open_panel("Folds")
    person.click("Fold down the page")
    person.until(lambda _: not person.all("[role=dialog]"), what="the panel gone")
    # Not quite to the letters: the line comes to the first column in which nothing stands.
    person.drag(PAGE, (284, 300), (50, 0))
    person.until(lambda _: len(person.all("[data-fold-down]")) == 1, what="a fold down the page")
    assert person.document(page_id)["frame"]["folds_down"][0]["width_px"] == pytest.approx(50, abs=8)
    person.open_panel("Folds")
    person.type_into("[aria-label='First px of the fold']", "700")
    person.type_into("[aria-label='How many px are folded away']", "60", Keys.ENTER)
    person.until(lambda _: len(person.all("[data-fold]")) == 2, what="a fold by its numbers")
    person.type_into("[aria-label='First px of the fold']", "5000")
    person.type_into("[aria-label='How many px are folded away']", "60", Keys.ENTER)
    person.see_text("Nothing was folded away.")
    person.click("Torn edges")
    person.until(lambda _: person.document(page_id).get("seam") == {"look": "torn"}, what="a seam")
    person.close_panels()
    frame = person.document(page_id)["frame"]
    person.click("Unfold 60 px")
    person.until(lambda _: len(person.all("[data-fold]")) == 1, what="one fold less")
    edge = person.see("[data-fold-edge='down 0 bottom']")
    edge.send_keys(Keys.ARROW_RIGHT)
    wider = frame["folds_down"][0]["width_px"] + 1
    person.until(
        lambda _: person.document(page_id)["frame"]["folds_down"][0]["width_px"] == wider,
        what="a wider fold",
    )
    person.click("Undo")
    person.click("Undo")
    person.until(lambda _: len(person.all("[data-fold]")) == 2, what="the fold again")


def _press_at(person: Person, x: int, y: int) -> None:
    box = person.see(PAGE).rect
    mouse = ActionChains(person.driver, duration=20)
    mouse.w3c_actions.pointer_action.move_to_location(round(box["x"] + x), round(box["y"] + y))
    mouse.w3c_actions.pointer_action.click()
    mouse.perform()


def _circle(person: Person, middle: tuple[int, int], radius: int) -> None:
    box = person.see(PAGE).rect
    mouse = ActionChains(person.driver, duration=10)
    for step in range(41):
        angle = step * 2 * math.pi / 40
        mouse.w3c_actions.pointer_action.move_to_location(
            round(box["x"] + middle[0] + radius * math.cos(angle)),
            round(box["y"] + middle[1] + radius * math.sin(angle)),
        )
        if step == 0:
            mouse.w3c_actions.pointer_action.pointer_down()
    mouse.w3c_actions.pointer_action.pointer_up()
    mouse.perform()


@pytest.mark.long
def test_an_outline_is_drawn_by_hand_by_corners_and_by_numbers(person: Person) -> None:
    page_id = person.picture(_columns())
    person.open_bench(page_id)
    person.click("1:1")
    person.open_panel("Outline")
    person.click("Draw it by hand")
    person.until(lambda _: not person.all("[role=dialog]"), what="the panel gone")
    _circle(person, (200, 250), 100)
    person.until(lambda _: person.all("[data-outline]"), what="an outline")
    x, y, width, height = person.frame()
    assert (x, y) == (pytest.approx(100, abs=3), pytest.approx(150, abs=3))
    assert (width, height) == (pytest.approx(200, abs=4), pytest.approx(200, abs=4))
    (cut,) = person.ask(f"/captures/{page_id}")["cuts"]
    person.see_saved()
    file = _png(person, cut["id"], width)
    assert file[height // 2, width // 2, 3] == 255
    assert file[0, 0, 3] == 0

    person.open_panel("Outline")
    person.click("Press its corners")
    person.until(lambda _: not person.all("[role=dialog]"), what="the panel gone")
    for corner in ((50, 50), (300, 60), (280, 300)):
        _press_at(person, *corner)
    person.until(lambda _: person.all("[data-outline-draft='3']"), what="three corners")
    person.press(Keys.ENTER)
    person.until(lambda _: len(person.document(page_id)["outline"]["points"]) == 3, what="a triangle")
    # A corner between two others begins where a side is pressed.
    person.drag(PAGE, (175, 55), (0, -40))
    person.until(lambda _: len(person.document(page_id)["outline"]["points"]) == 4, what="a fourth corner")
    person.open_panel("Outline")
    corner_y = person.see("[aria-label='y of the corner in px']")
    corner_y.send_keys(Keys.CONTROL, "a")
    corner_y.send_keys("40", Keys.ENTER)
    person.until(lambda _: 40 in [row[1] for row in person.document(page_id)["outline"]["points"]], what="40")
    person.click_on("[role=dialog] input[type=checkbox]")
    person.until(lambda _: person.document(page_id)["outline"].get("smooth"), what="smooth lines")
    person.click("Remove it")
    person.until(lambda _: "outline" not in person.document(page_id), what="no outline")


@pytest.mark.long
def test_an_outline_that_crosses_itself_is_refused_with_a_word(person: Person) -> None:
    page_id = person.picture(_columns())
    person.open_bench(page_id)
    person.click("1:1")
    person.open_panel("Outline")
    person.click("Press its corners")
    person.until(lambda _: not person.all("[role=dialog]"), what="the panel gone")
    for corner in ((50, 50), (300, 300), (300, 50), (50, 300)):
        _press_at(person, *corner)
    person.until(lambda _: person.all("[data-outline-draft='4']"), what="four corners")
    person.press(Keys.ENTER)
    person.see_text("The outline crosses itself")
    assert "outline" not in person.document(page_id)


@pytest.mark.long
def test_a_stray_thing_is_mended_and_the_ground_goes_on(person: Person) -> None:
    rows = np.arange(500)[:, None, None]
    ground = np.where(rows // 12 % 2 > 0, (214, 226, 219), (188, 202, 210)).astype(np.uint8)
    whole = np.broadcast_to(ground, (500, 600, 3)).copy()
    page = whole.copy()
    page[200:240, 220:330] = 20
    page_id = person.picture(page)
    person.open_bench(page_id)
    person.click("1:1")
    person.click("Mend")
    person.drag(PAGE, (210, 190), (130, 60))
    person.until(lambda _: person.document(page_id)["hidden"], what="something mended")
    (cut,) = person.ask(f"/captures/{page_id}")["cuts"]
    assert np.abs(_png(person, cut["id"], 600)[..., :3].astype(int) - whole).max() <= 2


@pytest.mark.long
def test_screen_and_file_agree_with_all_of_it_at_once(person: Person) -> None:
    """Crop, folds both ways, an angle, a cleared colour, an outline."""
    page = _columns()[:520]
    page[np.all(page > 240, axis=2)] = 255
    page_id = person.picture(page)
    (cut,) = person.ask(f"/captures/{page_id}")["cuts"]
    document = {
        **cut["document"],
        "orientation": {"angle_deg": 4.0, "colour": "#ffffff"},
        "frame": {
            "x_px": 30,
            "y_px": 40,
            "width_px": 520,
            "height_px": 400,
            "folds": [{"top_px": 200, "height_px": 40}],
            "folds_down": [{"left_px": 310, "width_px": 36}],
        },
        "cleared": {"colours": [{"colour": "#ffffff"}]},
        "outline": {"points": [[60, 60], [520, 90], [480, 420], [90, 400]], "smooth": True},
    }
    person.change("PATCH", f"/cuts/{cut['id']}", {"version": cut["version"], "document": document})
    person.open_bench(page_id)
    person.click("1:1")
    person.open_panel("Clear a colour")
    person.click_on("[role=dialog] input[type=checkbox]:not(:checked)")
    person.close_panels()
    person.until(lambda _: person.all("[data-outside]"), what="what is outside")
    settled = "return [...document.querySelectorAll('[data-page] img')].every((row) => row.complete)"
    person.until(lambda driver: driver.execute_script(settled), what="all squares")
    person.driver.execute_script("document.querySelector('[data-zoom]').scrollTo(0, 0)")
    box = person.see("[data-page]").rect
    shot = np.asarray(Image.open(io.BytesIO(person.driver.get_screenshot_as_png())).convert("RGB"))
    left, top = round(box["x"]) + 30, round(box["y"]) + 40
    shown = np.delete(
        np.delete(shot[top : top + 400, left : left + 520], np.r_[160:200], axis=0), np.r_[280:316], axis=1
    )
    file = _png(person, cut["id"], 484)
    assert file.shape == (*shown.shape[:2], 4)
    opaque = file[..., 3:].astype(float) / 255
    ground = np.array([int(GROUND[at : at + 2], 16) for at in (1, 3, 5)])
    laid = file[..., :3] * opaque + ground * (1 - opaque)
    apart = np.abs(laid - shown).max(axis=2)
    # The Bench draws over the page: the frame and its handles, edges and labels of folds, the outline.
    seen = np.ones(apart.shape, dtype=bool)
    seen[:8] = seen[-8:] = seen[:, :8] = seen[:, -8:] = False
    seen[156:196] = seen[:, 276:490] = False
    line = person.driver.execute_script(
        "return document.querySelector('[data-outline] path').getAttribute('d')"
    )
    seen &= ~_near_path(line, apart.shape)
    assert seen.mean() > 0.3
    assert np.percentile(apart[seen], 99.5) <= 24
    assert apart[seen].mean() < 1


def _near_path(data: str, shape: tuple[int, ...]) -> np.ndarray[Any, np.dtype[np.bool_]]:
    """The px of the file near a curve on the page, whose frame begins at 30, 40."""
    numbers = [float(number) for number in re.findall(r"-?\d+(?:\.\d+)?", data)]
    points = list(zip(numbers[::2], numbers[1::2], strict=True))
    near = np.zeros(shape, dtype=bool)
    start, rest = points[0], points[1:]
    for at in range(0, len(rest) - 2, 3):
        first, second, end = rest[at : at + 3]
        for step in range(400):
            t = step / 400
            weights = ((1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t * t * (1 - t), t**3)
            x, y = np.array(weights) @ np.array((start, first, second, end))
            column, row = x - 30, y - 40
            column -= min(max(column - 280, 0), 36)
            row -= min(max(row - 160, 0), 40)
            if 0 <= row < shape[0] and 0 <= column < shape[1]:
                near[int(row), int(column)] = True
        start = end
    return binary_dilation(near, iterations=3)
