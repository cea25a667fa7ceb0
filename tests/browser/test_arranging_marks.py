"""Marks brought to their place and look: drawn to edges, turned, in line, in a style with a name, legible."""

from typing import Any

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.pictures import decoded

pytestmark = pytest.mark.browser

PAGE = "[data-pointer-layer]"


def _marks(person: Person, picture_id: int, count: int) -> list[dict[str, Any]]:
    """The marks, once so many are saved."""

    def marks() -> list[dict[str, Any]]:
        person.see_saved()
        return list(person.ask(f"/captures/{picture_id}")["cuts"][0]["document"]["marks"])

    person.until(lambda _: len(marks()) == count, what=f"{count} marks saved")
    return marks()


def _draw(person: Person, key: str, start: tuple[int, int], by: tuple[int, int]) -> None:
    person.press(key)
    person.drag(PAGE, start, by)
    person.see("[data-held]")


def test_a_dragged_mark_meets_the_edge_of_another_and_a_guide_shows_it(
    person: Person, picture_id: int
) -> None:
    person.open_bench(picture_id)
    _draw(person, "b", (100, 100), (120, 60))
    _draw(person, "b", (300, 300), (80, 40))
    person.press(Keys.ESCAPE)
    person.begin_drag(PAGE, (300, 320), (-196, 0))
    person.see("[data-guide=x]")
    person.let_go()
    person.until(lambda _: not person.all("[data-guide]"))
    first, second = _marks(person, picture_id, 2)
    assert second["x_px"] == first["x_px"]
    # Switched off, it goes where it is dragged.
    person.click("Snap to edges")
    person.drag(PAGE, (round(second["x_px"]), 320), (4, 100))
    person.until(
        lambda _: _marks(person, picture_id, 2)[1]["x_px"] == first["x_px"] + 4, what="moved by 4 px"
    )


@pytest.mark.long
def test_a_mark_is_turned_by_its_handle_and_sized_as_it_is_turned(person: Person, picture_id: int) -> None:
    person.open_bench(picture_id)
    _draw(person, "b", (200, 300), (160, 80))
    handle = person.see("[data-mark-handle=turn]").rect
    page = person.see(PAGE).rect
    start = round(handle["x"] - page["x"] + 5), round(handle["y"] - page["y"] + 5)
    person.drag(PAGE, start, (280 + 64 - start[0], 340 - start[1]))
    (mark,) = _marks(person, picture_id, 1)
    person.until(lambda _: _marks(person, picture_id, 1)[0].get("angle_deg") == 90, what="a quarter turn")
    assert (mark["width_px"], mark["height_px"]) == (160, 80)
    corner = person.see("[data-mark-handle=se]").rect
    start = round(corner["x"] - page["x"] + 5), round(corner["y"] - page["y"] + 5)
    person.drag(PAGE, start, (-40, 60))
    person.until(lambda _: abs(_marks(person, picture_id, 1)[0]["width_px"] - 220) <= 1, what="a longer side")
    assert abs(_marks(person, picture_id, 1)[0]["height_px"] - 120) <= 1


@pytest.mark.long
def test_three_marks_come_into_line_and_to_equal_gaps(person: Person, picture_id: int) -> None:
    person.open_bench(picture_id)
    person.click("Point")
    person.click("Snap to edges")
    for x_px, y_px in ((100, 100), (180, 210), (320, 450)):
        _draw(person, "b", (x_px, y_px), (60, 30))
    person.press(Keys.ESCAPE)
    ActionChains(person.driver).key_down(Keys.CONTROL).send_keys("a").key_up(Keys.CONTROL).perform()
    person.open_panel("Arrange the marks in hand")
    person.click("Left edges")
    person.until(lambda _: len({mark["x_px"] for mark in _marks(person, picture_id, 3)}) == 1, what="in line")
    person.click("One below the other")

    def gaps() -> list[float]:
        first, second, third = (mark["y_px"] for mark in _marks(person, picture_id, 3))
        return [second - first - 30, third - second - 30]

    person.until(lambda _: abs(gaps()[0] - gaps()[1]) < 0.3, what="equal gaps")
    person.press(Keys.ESCAPE)
    ActionChains(person.driver).key_down(Keys.CONTROL).send_keys("zz").key_up(Keys.CONTROL).perform()
    person.until(
        lambda _: [mark["x_px"] for mark in _marks(person, picture_id, 3)] == [100, 180, 320], what="undone"
    )


@pytest.mark.long
def test_a_look_is_kept_under_a_name_and_the_next_mark_begins_with_it(
    person: Person, picture_id: int
) -> None:
    person.open_bench(picture_id)
    _draw(person, "b", (100, 100), (120, 60))
    person.type_into("[aria-label='outline']", Keys.CONTROL, "a")
    person.type_into("[aria-label='outline']", "12", Keys.ENTER)
    person.until(lambda _: _marks(person, picture_id, 1)[0].get("outline_px") == 12)
    person.open_panel("Styles of marks")
    person.type_into("[role=dialog] input", "Broad", Keys.ENTER)
    person.click_on("[aria-label^='Broad: the usual one']")
    person.see("[aria-label^='Broad: the usual one'][aria-pressed=true]")
    person.press(Keys.ESCAPE)
    person.until(lambda _: not person.all("[role=dialog]"))
    person.type_into("[aria-label='outline']", Keys.CONTROL, "a")
    person.type_into("[aria-label='outline']", "2", Keys.ENTER)
    _draw(person, "b", (100, 300), (120, 60))
    first, second = _marks(person, picture_id, 2)
    assert (first["style"], first["outline_px"]) == ("Broad", 2)
    assert second["style"] == "Broad"
    assert "outline_px" not in second
    document = person.ask(f"/captures/{picture_id}")["cuts"][0]["document"]
    assert document["styles"]["Broad"]["outline_px"] == 12
    person.open_panel("Styles of marks")
    person.click_on("[aria-label='Forget Broad']")
    person.until(lambda _: person.ask("/marks/styles") == [], what="forgotten")
    assert person.ask(f"/captures/{picture_id}")["cuts"][0]["document"]["styles"] == document["styles"]


@pytest.mark.long
def test_captions_are_a_list_and_small_letters_are_kept_legible(person: Person, picture_id: int) -> None:
    person.open_bench(picture_id)
    person.press("u")
    for x_px, caption in ((100, "Pick a day"), (200, "Pay")):
        person.drag(PAGE, (x_px, 200), (0, 0))
        person.see("[data-held]")
        person.type_into("[aria-label='Caption of the number']", caption, Keys.ENTER)
    _marks(person, picture_id, 2)
    person.open_panel("Captions of the numbers")
    assert [row.text for row in person.all("[data-captions] li")] == ["1. Pick a day", "2. Pay"]
    person.press(Keys.ESCAPE)
    cut = person.ask(f"/captures/{picture_id}")["cuts"][0]["id"]
    rules = {"width_px": 150, "limit_bytes": 90_000, "formats": ["png"]}
    row = person.change("POST", f"/cuts/{cut}/outputs", {"rules": rules})["id"]
    person.open_bench(picture_id)
    person.until(lambda _: person.ask(f"/cuts/{cut}/outputs")[0]["job"]["state"] == "done", what="the file")
    if not person.all("[data-letters]"):
        person.click_on(f"[data-output='{row}'] button[aria-expanded]")
    assert person.see("[data-letters]").get_attribute("data-letters") == "5.6"
    small = decoded(person.fetch(f"/outputs/{row}/file"))
    person.click_on("[data-letters] input")
    person.until(lambda _: person.ask(f"/cuts/{cut}/outputs")[0]["letters_px"] == 9, what="legible letters")
    large = decoded(person.fetch(f"/outputs/{row}/file"))
    assert (large != 200).any(axis=2).sum() > 2 * (small != 200).any(axis=2).sum()
