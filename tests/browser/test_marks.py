"""Pointing, hiding and dressing on the Bench, as far as the pixels of the files."""

import io
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from PIL import Image
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.long import long_but
from tests.pictures import Pixels, decoded

pytestmark = pytest.mark.browser

PAGE = "[data-pointer-layer]"
GREY = (200, 200, 200)


def _see_marks(person: Person, picture_id: int, *kinds: str) -> list[dict[str, Any]]:
    def marks() -> list[dict[str, Any]]:
        return person.document(picture_id)["marks"]

    person.until(lambda _: [mark["kind"] for mark in marks()] == list(kinds), what=f"marks {kinds} saved")
    return marks()


def _draw(person: Person, key: str, start: tuple[int, int], by: tuple[int, int]) -> None:
    person.press(key)
    person.drag(PAGE, start, by)


def _chord(person: Person, key: str) -> None:
    ActionChains(person.driver).key_down(Keys.CONTROL).send_keys(key).key_up(Keys.CONTROL).perform()


def _pick_colour(person: Person, name: str, colour: str) -> None:
    person.click_on(f"button[aria-label^='{name}:']")
    person.type_into(f"[aria-label='{name}, in figures']", Keys.CONTROL, "a")
    person.type_into(f"[aria-label='{name}, in figures']", colour, Keys.ENTER)
    person.until(lambda _: not person.all(f"[aria-label='{name}, in figures']"))


def _file(person: Person, picture_id: int, width_px: int = 600, *, enlarge: bool = False) -> Pixels:
    """The pixels of a lossless file of the first cut."""
    cut = person.ask(f"/captures/{picture_id}")["cuts"][0]["id"]
    rules = {"width_px": width_px, "enlarge": enlarge, "limit_bytes": 900_000, "formats": ["png"]}
    row = person.change("POST", f"/cuts/{cut}/outputs", {"rules": rules})["id"]

    def made() -> Any:
        found = next(found for found in person.ask(f"/cuts/{cut}/outputs") if found["id"] == row)
        return found["job"]["state"] == "done" and found

    person.until(lambda _: made(), what="the file")
    return decoded(person.fetch(f"/outputs/{row}/file"))


def test_an_arrow_of_two_colours_and_a_text_are_in_the_file(person: Person, picture_id: int) -> None:
    person.open_bench(picture_id)
    person.click("Point")
    _draw(person, "r", (100, 300), (200, 0))
    person.see("[data-held]")
    _pick_colour(person, "Filling", "#0000FF")
    _pick_colour(person, "Outline colour", "#FFFF00")
    _draw(person, "t", (100, 400), (0, 0))
    person.see("[data-text-editor]")
    person.press("Sail at noon")
    person.press(Keys.ESCAPE)
    arrow, text = _see_marks(person, picture_id, "arrow", "text")
    assert (arrow["filling"], arrow["outline_colour"]) == ("#0000FF", "#FFFF00")
    assert text["text"] == "Sail at noon"
    pixels = _file(person, picture_id)
    y, x = round(arrow["from_y_px"]), round(arrow["from_x_px"]) + 60
    assert tuple(pixels[y, x]) == (0, 0, 255)
    assert tuple(pixels[y - 5, x]) == (255, 255, 0)
    assert tuple(pixels[y - 20, x]) == GREY
    top, left = round(text["y_px"]), round(text["x_px"])
    assert (pixels[top + 4 : top + 30, left + 4 : left + 120] < 90).any()
    # What the last arrow looked like is remembered for the next.
    _draw(person, "r", (100, 200), (200, 0))
    assert _see_marks(person, picture_id, "arrow", "text", "arrow")[2]["filling"] == "#0000FF"


@pytest.mark.long
def test_numbers_count_begin_again_and_close_up(person: Person, picture_id: int) -> None:
    person.open_bench(picture_id)
    person.press("u")
    for x_px in (100, 160, 220):
        person.drag(PAGE, (x_px, 200), (0, 0))
        person.see("[data-held]")
    person.open_panel("More settings of the mark")
    person.click("New sequence")
    person.press(Keys.ESCAPE)
    person.until(lambda _: not person.all("[role=dialog]"))
    person.type_into("[aria-label='Caption of the number']", "Choose the day.", Keys.ENTER)
    person.press(Keys.ESCAPE)
    _see_marks(person, picture_id, "badge", "badge", "badge")
    person.drag(PAGE, (100, 200), (0, 0))
    person.press(Keys.DELETE)
    marks = _see_marks(person, picture_id, "badge", "badge")
    assert [mark.get("sequence", 1) for mark in marks] == [1, 2]
    assert marks[1]["caption"] == "Choose the day."
    person.see("[data-mark]")
    shapes = person.driver.execute_script(
        "return [...document.querySelectorAll('[data-mark] path:nth-child(3)')]"
        ".map((row) => row.getBBox().width)"
    )
    assert len(shapes) == 2
    assert shapes[0] == pytest.approx(shapes[1])  # both say 1


def test_what_is_hidden_is_in_no_file_and_no_view(person: Person, picture_id: int) -> None:
    person.open_bench(picture_id)
    person.click("Hide")
    person.drag(PAGE, (100, 100), (200, 80))
    person.until(lambda _: len(person.document(picture_id)["hidden"]) == 1)
    (area,) = person.document(picture_id)["hidden"]
    rows = slice(area["y_px"], area["y_px"] + area["height_px"])
    columns = slice(area["x_px"], area["x_px"] + area["width_px"])
    assert (_file(person, picture_id)[rows, columns] == (0x1D, 0x2B, 0x2A)).all()
    cut = person.ask(f"/captures/{picture_id}")["cuts"][0]["id"]
    seen = decoded(person.fetch(f"/cuts/{cut}/dressed?width_px=600"))[rows, columns].astype(int)
    assert np.abs(seen - (0x1D, 0x2B, 0x2A)).max() < 12
    # It is taken, hidden otherwise, and shown again.
    person.drag(PAGE, (150, 140), (0, 0))
    person.click("Blur")
    person.until(lambda _: person.document(picture_id)["hidden"][0]["how"] == "blur")
    # It is made larger by its corner, and moved by the keys.
    person.drag(PAGE, (area["x_px"] + area["width_px"], area["y_px"] + area["height_px"]), (40, 30))
    person.press(Keys.ARROW_RIGHT)
    larger = {
        "x_px": area["x_px"] + 1,
        "width_px": area["width_px"] + 40,
        "height_px": area["height_px"] + 30,
    }
    person.until(
        lambda _: larger.items() <= person.document(picture_id)["hidden"][0].items(), what="a larger area"
    )
    person.press(Keys.DELETE)
    person.until(lambda _: person.document(picture_id)["hidden"] == [])


@pytest.mark.long
def test_the_rest_is_dimmed_in_the_file_as_on_the_screen(person: Person, picture_id: int) -> None:
    person.open_bench(picture_id)
    _draw(person, "m", (150, 150), (200, 100))
    (mark,) = _see_marks(person, picture_id, "dim")
    pixels = _file(person, picture_id)
    x, y = round(mark["x_px"]), round(mark["y_px"])
    assert tuple(pixels[y + 20, x + 20]) == GREY
    assert pixels[y - 20, x - 20].max() < 130


@pytest.mark.long
def test_marks_are_copied_to_another_cut(person: Person, picture_id: int) -> None:
    person.open_bench(picture_id)
    _draw(person, "b", (100, 100), (120, 60))
    _draw(person, "e", (100, 300), (120, 60))
    _see_marks(person, picture_id, "box", "ellipse")
    person.press(Keys.ESCAPE)
    _chord(person, "a")
    _chord(person, "c")
    person.click("New cut")
    person.until(lambda _: len(person.ask(f"/captures/{picture_id}")["cuts"]) == 2)
    person.until(lambda driver: "/cuts/" in driver.current_url)
    person.see("[data-frame]")
    person.click("Point")
    _chord(person, "v")
    person.until(lambda _: len(person.document(picture_id, 1)["marks"]) == 2, what="pasted marks")
    first, second = (person.document(picture_id, cut)["marks"] for cut in (0, 1))
    assert [{**mark, "id": ""} for mark in first] == [{**mark, "id": ""} for mark in second]
    assert {mark["id"] for mark in first}.isdisjoint(mark["id"] for mark in second)


@pytest.mark.long
def test_a_cut_is_saved_as_a_file_and_opened_again(person: Person, picture_id: int, tmp_path: Path) -> None:
    person.open_bench(picture_id)
    _draw(person, "b", (100, 100), (120, 60))
    (mark,) = _see_marks(person, picture_id, "box")
    cut = person.ask(f"/captures/{picture_id}")["cuts"][0]["id"]
    path = tmp_path / "saved.json"
    path.write_bytes(person.fetch(f"/cuts/{cut}/file"))
    person.driver.find_element(By.CSS_SELECTOR, "[aria-label='Open a cut from a file']").send_keys(str(path))
    person.until(lambda driver: "/cuts/" in driver.current_url)
    person.see("[data-mark]")
    assert person.document(picture_id, 1)["marks"] == [mark]
    path.write_text("no cut")
    person.driver.find_element(By.CSS_SELECTOR, "[aria-label='Open a cut from a file']").send_keys(str(path))
    person.see_text("The cut is not JSON.")


@pytest.mark.long
def test_ten_steps_are_undone_after_a_reload(person: Person, picture_id: int) -> None:
    person.open_bench(picture_id)
    for number in range(5):
        _draw(person, "b", (60 + 40 * number, 100 + 60 * number), (60, 40))
        person.see("[data-held]")
        person.press(Keys.ARROW_RIGHT)
    _see_marks(person, picture_id, *["box"] * 5)
    person.open_bench(picture_id)
    for _ in range(10):
        _chord(person, "z")
    person.until(lambda _: person.document(picture_id)["marks"] == [], what="everything undone")


@pytest.mark.long
def test_a_picture_is_dressed_at_the_exact_width_of_its_place(person: Person, picture_id: int) -> None:
    person.open_bench(picture_id)
    person.click("Dress")
    for part in ("Caption", "Border", "Torn edge", "Stamp"):
        person.open_panel(part)
        person.click_on("[role=dialog] input[type=checkbox]")
        person.until(lambda _: person.all("[role=dialog] input[type=checkbox]:checked"))
        person.press(Keys.ESCAPE)
        person.until(lambda _: not person.all("[role=dialog]"))
    person.until(lambda _: len(person.document(picture_id).get("dressing") or {}) == 4)
    person.see("img[alt='The picture with what is around it']")
    pixels = _file(person, picture_id, 300)
    assert pixels.shape[1] == 300
    assert pixels.shape[0] > 296 * 1_500 // 600
    assert tuple(pixels[300, 0]) == (0xD5, 0xCB, 0xB5)


@pytest.mark.long
def test_the_screen_shows_marks_as_the_file_does(person: Person, picture_id: int) -> None:
    person.open_bench(picture_id)
    person.press("1")
    _draw(person, "r", (80, 100), (220, 60))
    _draw(person, "e", (80, 200), (200, 90))
    _draw(person, "t", (80, 330), (0, 0))
    person.press("Noon: Ωλ Жщ 14:35")
    person.press(Keys.ESCAPE)
    _draw(person, "h", (330, 120), (200, 0))
    person.drag(PAGE, (330, 200), (0, 0))
    _see_marks(person, picture_id, "arrow", "ellipse", "text", "highlighter")
    person.click("Part")
    person.until(lambda _: len(person.all("[data-mark]")) == 4)
    pixels = _file(person, picture_id)
    box = person.see(PAGE).rect
    left, top = round(box["x"]), round(box["y"])
    screen = np.asarray(Image.open(io.BytesIO(person.driver.get_screenshot_as_png())).convert("RGB"))
    shown = screen[top + 20 : top + 420, left + 20 : left + 560].astype(int)
    drawn = pixels[20:420, 20:560].astype(int)
    apart = np.abs(shown - drawn)
    assert apart.max() <= 48
    assert apart.mean() <= 1
    assert (drawn != GREY).any(axis=2).mean() > 0.02


ALL_KINDS: list[dict[str, Any]] = [
    {"kind": "arrow", "from_x_px": 90, "from_y_px": 120, "to_x_px": 260, "to_y_px": 200, "bend_px": 20},
    {"kind": "line", "from_x_px": 300, "from_y_px": 120, "to_x_px": 460, "to_y_px": 180, "dashes": "dashes"},
    {"kind": "box", "x_px": 90, "y_px": 230, "width_px": 140, "height_px": 50, "angle_deg": 12},
    {"kind": "ellipse", "x_px": 270, "y_px": 220, "width_px": 150, "height_px": 60, "filling": "#F5C451"},
    {"kind": "pen", "points": [[90, 420], [140, 450], [190, 410], [240, 440]]},
    {"kind": "highlighter", "points": [[280, 430], [460, 434]]},
    {
        "kind": "text",
        "x_px": 90,
        "y_px": 470,
        "text": "Noon: \u03a9\u03bb \u0416\u0449 14:35",
        "spot_x_px": 300,
        "spot_y_px": 540,
    },
    {"kind": "badge", "x_px": 380, "y_px": 490},
    {
        "kind": "sticker",
        "x_px": 420,
        "y_px": 470,
        "width_px": 60,
        "height_px": 60,
        "sign": "star",
        "angle_deg": 20,
    },
    {
        "kind": "box",
        "x_px": 120,
        "y_px": 640,
        "width_px": 300,
        "height_px": 60,
        "corner_px": 14,
        "outline_px": 9,
    },
]
FRAME = {"x_px": 60, "y_px": 80, "width_px": 460, "height_px": 660}
FOLDS = [{"top_px": 300, "height_px": 80}, {"top_px": 580, "height_px": 40}]
NEAR_AN_EDGE_PX = 12
"""Handles of the frame and of folds are drawn on the screen there."""


@pytest.mark.long
@pytest.mark.parametrize("zoom", long_but([2], [0.5, 2]))
def test_a_frame_with_folds_at_another_size_is_shown_as_the_file_has_it(
    person: Person, picture_id: int, zoom: float
) -> None:
    """At each zoom, the page lies on whole px of the screen; so edges are smoothed in the same way."""
    if zoom < 1:
        picture_id = _shown_in_half(person, picture_id)
    grown = 2 if zoom < 1 else 1
    cut = person.ask(f"/captures/{picture_id}")["cuts"][0]
    frame = {name: value * grown for name, value in FRAME.items()}
    folds = [{name: value * grown for name, value in fold.items()} for fold in FOLDS]
    marks = [{"id": f"m{number}", **_grown(mark, grown)} for number, mark in enumerate(ALL_KINDS)]
    document = {"version": 1, "frame": {**frame, "folds": folds}, "marks": marks}
    person.change("PATCH", f"/cuts/{cut['id']}", {"version": cut["version"], "document": document})
    person.open_bench(picture_id)
    if zoom > 1:
        person.press("2")
    person.until(lambda _: person.see("[data-zoom]").get_attribute("data-zoom") == str(zoom), what="the zoom")
    person.until(lambda _: len(person.all("[data-mark]")) == len(marks), what="all marks")
    pixels = _file(person, picture_id, round(frame["width_px"] * zoom), enlarge=True).astype(int)

    def at(page_px: int) -> int:
        return round(page_px * zoom)

    left = at(frame["x_px"])
    compared, row = [], 0
    stretches = [(frame["y_px"], folds[0]), (folds[0]["top_px"] + folds[0]["height_px"], folds[1])]
    for top_px, fold in stretches:
        height = at(fold["top_px"]) - at(top_px)
        shown = _screen(person, left, at(top_px), pixels.shape[1], height)
        inner = slice(NEAR_AN_EDGE_PX, -NEAR_AN_EDGE_PX)
        drawn = pixels[row : row + height, : shown.shape[1]]
        compared.append((shown[inner, inner], drawn[inner, inner]))
        row += height
    for shown, drawn in compared:
        assert (drawn != GREY).any(axis=2).mean() > 0.02
        apart = np.abs(shown - drawn)
        assert apart.max() <= 48
        assert apart.mean() <= 1


@pytest.mark.long
def test_a_page_that_just_fits_is_shown_in_every_stage(person: Person, picture_id: int) -> None:
    """A page nearly as high as the room below the strip of the stage: no scrollbar may come and go."""
    person.open_bench(picture_id)
    person.click("Point")
    person.see("[aria-label='Draw']")
    view = "const view = document.querySelector('[data-zoom]'); return"
    width, height = person.driver.execute_script(f"{view} [view.clientWidth - 36, view.clientHeight - 36]")
    for spare_px in (2, 5, 8):
        size = 2 * (height - spare_px), 2 * width, 3
        person.open_bench(person.picture(np.full(size, 200, dtype=np.uint8)))
        for stage, there in (("Point", "[aria-label='Draw']"), ("Hide", "[aria-label='How it is hidden']")):
            person.click(stage)
            person.see(there)
            assert "cannot be shown" not in person.driver.page_source


def _grown(mark: dict[str, Any], times: int) -> dict[str, Any]:
    """A mark on a page that is so many times larger; its look stays."""
    lengths = {name: value * times for name, value in mark.items() if name.endswith("_px")}
    points = [[x * times, y * times] for x, y in mark.get("points", [])]
    return {**mark, **lengths, **({"points": points} if points else {})}


def _shown_in_half(person: Person, picture_id: int) -> int:
    """A dropped picture that is twice as wide as there is room for it."""
    person.open_bench(picture_id)
    room_px = (
        person.driver.execute_script("return document.querySelector('[data-zoom]').clientWidth") - 2 * 18
    )
    return person.picture(np.full((1_600, room_px * 2, 3), 200, dtype=np.uint8))


def _screen(person: Person, left: int, top: int, width: int, height: int) -> Pixels:
    """What the screen shows of the page, in px of the screen from the page's corner."""
    person.driver.execute_script(
        "document.querySelector('[data-zoom]').scrollTo({ top: arguments[0], left: 0 })", max(0, top - 40)
    )
    box = person.see(PAGE).rect
    data = person.driver.get_screenshot_as_png()
    screen = np.asarray(Image.open(io.BytesIO(data)).convert("RGB")).astype(int)
    x, y = round(box["x"]) + left, round(box["y"]) + top
    seen = "const box = document.querySelector('[data-zoom]').getBoundingClientRect(); return box.left"
    right = round(person.driver.execute_script(f"{seen} + document.querySelector('[data-zoom]').clientWidth"))
    return screen[y : y + height, x : min(x + width, right)]
