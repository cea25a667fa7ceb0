"""A frame of an exact size of the file, and what is measured on the page."""

import json

import pytest
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.core.segmenting.test_segmenting import CARD, PHOTO, dropped_page

pytestmark = pytest.mark.browser

PAGE = "[data-pointer-layer]"


@pytest.fixture
def picture_id(person: Person) -> int:
    return person.picture(dropped_page())


def _zoom(person: Person) -> float:
    return float(person.see("[data-zoom]").get_attribute("data-zoom") or 0)


def test_a_frame_gives_a_file_of_an_exact_size_however_it_is_drawn(person: Person, picture_id: int) -> None:
    person.open_bench(picture_id)
    person.open_panel("Shape of the frame")
    for name, value in (("Width of the shape", "600"), ("Height of the shape", "315")):
        person.type_into(f"[aria-label='{name}']", Keys.CONTROL, "a")
        person.type_into(f"[aria-label='{name}']", value, Keys.TAB)
    person.click("Use")
    person.until(lambda _: abs(person.frame()[3] - 820 * 315 / 600) < 1, what="the shape")
    person.close_panels()
    person.type_number("width_px", 400)
    person.see_frame(0, 0, 400, 210)
    person.open_panel("Shape of the frame")
    person.see_text("a file of 600 would be enlarged")
    person.close_panels()
    person.type_number("width_px", 700)
    zoom = _zoom(person)
    corner = round(700 * zoom), round(person.frame()[3] * zoom)
    person.drag(PAGE, corner, (-70, -10))
    person.until(lambda _: person.frame()[2] != 700, what="another width")
    _, _, width, height = person.frame()
    assert abs(height - width * 315 / 600) <= 0.5
    cut = person.ask(f"/captures/{picture_id}")["cuts"][0]
    person.see_saved()
    rules = {"way": "fill", "width_px": 600, "height_px": 315, "limit_bytes": 900_000, "formats": ["png"]}
    person.change("POST", f"/cuts/{cut['id']}/outputs", {"rules": rules})
    person.until(lambda _: person.ask(f"/cuts/{cut['id']}/outputs")[-1]["job"]["state"] == "done", what="it")
    person.open_bench(picture_id)
    person.until(lambda _: "600 × 315" in person.see("[data-frame-sizes]").text, what="the file's size")
    kept = json.loads(person.driver.execute_script("return localStorage.getItem('tallpage-shapes')"))
    assert kept[0]["name"] == "600 × 315 px"


@pytest.mark.long
def test_numbers_count_from_the_corner_that_is_chosen(person: Person, picture_id: int) -> None:
    person.open_bench(picture_id)
    person.type_number("width_px", 200)
    person.type_number("height_px", 100)
    person.open_panel("Shape of the frame")
    person.type_into("[role=dialog] select", "lower right")
    person.close_panels()
    person.type_number("x_px", 30)
    person.type_number("y_px", 40)
    assert person.stored_frame(picture_id) == (820 - 30 - 200, 900 - 40 - 100, 200, 100)


@pytest.mark.long
def test_a_ruler_goes_from_edge_to_edge_and_stays(person: Person, picture_id: int) -> None:
    person.open_bench(picture_id)
    person.until(lambda _: person.ask(f"/captures/{picture_id}/map"), what="blocks")
    person.press("q")
    person.until(
        lambda _: person.see("button[aria-pressed=true][title^='Measure']"), what="the ruler in hand"
    )
    zoom = _zoom(person)
    # A few px beside both edges of the gap between photograph and card.
    from_x, to_x, y = PHOTO.right_px - 3, CARD.x_px + 3, PHOTO.y_px + 60
    start = round(from_x * zoom), round(y * zoom)
    person.begin_drag(PAGE, start, (round(to_x * zoom) - start[0], 0))
    person.see("[data-magnifier]")
    person.let_go()
    gap = CARD.x_px - PHOTO.right_px
    person.until(
        lambda _: any(
            abs(float(row.text.split()[0]) - gap) <= 2 for row in person.all("[data-ruler] [role=status]")
        ),
        what=f"{gap} px",
    )
    assert not person.all("[data-magnifier]")
    person.press(Keys.ESCAPE)
    assert person.all("[data-ruler]"), "what was measured stays"
    person.press("q")
    person.drag(PAGE, start, (0, 0))
    person.until(lambda _: not person.all("[data-ruler]"), what="no ruler")
