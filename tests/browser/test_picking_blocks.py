"""Blocks picked by mouse and by keyboard, of a page and of a picture; the page looked at from close by."""

from typing import Any

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.core.segmenting.test_segmenting import CARD, PHOTO, dropped_page

pytestmark = pytest.mark.browser

VIEW = "[data-zoom]"


@pytest.fixture
def taken_id(person: Person) -> int:
    return person.stored("/notices/3")


def _block(person: Person, capture_id: int, role: str, number: int = 0) -> dict[str, Any]:
    blocks = [row for row in person.ask(f"/captures/{capture_id}/map") if row["role"] == role]
    return dict(blocks[number])


def _box(block: dict[str, Any]) -> tuple[int, int, int, int]:
    return block["x_px"], block["y_px"], block["width_px"], block["height_px"]


def _press(person: Person, block: dict[str, Any], *, joining: bool = False) -> None:
    """Press a block, which is scrolled to first, once it is lit under the mouse."""
    script = """
        const [x, y] = arguments;
        const view = document.querySelector('[data-zoom]');
        const zoom = Number(view.dataset.zoom);
        view.scrollTo({ top: y * zoom - 200 });
        const page = document.querySelector('[data-page]').getBoundingClientRect();
        return [page.left + x * zoom, page.top + y * zoom];
    """
    x, y, width, height = _box(block)
    place = person.driver.execute_script(script, x + min(width, 60) // 2, y + height // 2)

    def lit(_: object) -> bool:
        for by in (1, 0):
            mouse = ActionChains(person.driver, duration=50)
            mouse.w3c_actions.pointer_action.move_to_location(round(place[0]) + by, round(place[1]))
            mouse.perform()
        return bool(person.all("[data-block]"))

    person.until(lit, what="a block that is lit")
    if joining:
        ActionChains(person.driver).key_down(Keys.SHIFT).perform()
    mouse = ActionChains(person.driver)
    mouse.w3c_actions.pointer_action.click()
    mouse.perform()
    if joining:
        ActionChains(person.driver).key_up(Keys.SHIFT).perform()


def test_two_blocks_and_a_margin_become_the_frame(person: Person, taken_id: int) -> None:
    heading, paragraph = _block(person, taken_id, "heading"), _block(person, taken_id, "paragraph", 1)
    person.open_bench(taken_id)
    _press(person, heading)
    person.see_frame(*_box(heading))
    _press(person, paragraph, joining=True)
    left = min(heading["x_px"], paragraph["x_px"])
    top = min(heading["y_px"], paragraph["y_px"])
    right = max(row["x_px"] + row["width_px"] for row in (heading, paragraph))
    bottom = max(row["y_px"] + row["height_px"] for row in (heading, paragraph))
    person.see_frame(left, top, right - left, bottom - top)
    person.type_into("[aria-label='Margin around a block in px']", Keys.CONTROL, "a")
    person.type_into("[aria-label='Margin around a block in px']", "12", Keys.ENTER)
    framed = left - 12, top - 12, right - left + 24, bottom - top + 24
    person.see_frame(*framed)
    assert person.stored_frame(taken_id) == framed
    person.click("Undo")
    person.see_frame(left, top, right - left, bottom - top)


@pytest.mark.long
def test_a_block_is_found_and_framed_by_keys_alone(person: Person, taken_id: int) -> None:
    heading = _block(person, taken_id, "heading")
    person.open_bench(taken_id)
    person.tab_to("button[aria-label='Blocks of the page']")
    person.press(Keys.ENTER)
    person.see("[aria-label='Find a block']")
    person.until(lambda _: person.all("[aria-label=Blocks] button"), what="the blocks")
    person.press(f"heading {heading['text'].split()[0]}")
    person.until(
        lambda _: all(row.text.startswith("heading") for row in person.all("[aria-label=Blocks] button")),
        what="headings alone",
    )
    person.tab_to("[aria-label=Blocks] button")
    person.press(Keys.ENTER)
    person.see_frame(*_box(heading))
    person.press(Keys.ESCAPE)
    person.until(lambda _: not person.all("[role=dialog]"))
    person.tab_to(VIEW)
    person.press("[")
    person.until(lambda _: person.frame() != _box(heading), what="the block around it")
    x, y, width, height = person.frame()
    assert x <= heading["x_px"]
    assert y <= heading["y_px"]
    assert width * height > heading["width_px"] * heading["height_px"]
    person.press("]")
    person.until(lambda _: person.frame() != (x, y, width, height), what="a block inside")


@pytest.mark.long
def test_a_dropped_picture_has_blocks_too(person: Person) -> None:
    picture_id = person.picture(dropped_page())
    person.open_bench(picture_id)
    for wanted in (CARD, PHOTO):
        block = {"x_px": wanted.x_px, "y_px": wanted.y_px, "width_px": 12, "height_px": 24}
        _press(person, block)
        person.until(lambda _, box=wanted: abs(person.frame()[2] - box.width_px) <= 3, what=f"{wanted}")
        assert abs(person.frame()[3] - wanted.height_px) <= 3


def _zoom(person: Person) -> float:
    return float(person.see(VIEW).get_attribute("data-zoom") or 0)


def _wheel(person: Person, notches: int, x: int, y: int) -> None:
    """Turn the wheel with Ctrl held, over a place of the window."""
    for _ in range(abs(notches)):
        person.driver.execute_cdp_cmd(
            "Input.dispatchMouseEvent",
            {
                "type": "mouseWheel", "x": x, "y": y, "modifiers": 2,
                "deltaX": 0, "deltaY": -100 if notches > 0 else 100,
            },
        )  # fmt: skip


@pytest.mark.long
def test_the_wheel_goes_to_16_times_at_the_pointer_and_back(person: Person, taken_id: int) -> None:
    person.open_bench(taken_id)
    first = _zoom(person)
    view = person.see(VIEW).rect
    x, y = round(view["x"] + view["width"] * 0.3), round(view["y"] + view["height"] * 0.6)
    under = """
        const page = document.querySelector('[data-page]').getBoundingClientRect();
        const zoom = Number(document.querySelector('[data-zoom]').dataset.zoom);
        return [(arguments[0] - page.left) / zoom, (arguments[1] - page.top) / zoom];
    """
    before = person.driver.execute_script(under, x, y)
    _wheel(person, 25, x, y)
    person.until(lambda _: _zoom(person) == 16, what="16 times")
    person.see_text("1600 %")
    person.see("[data-pixel-grid]")
    assert person.driver.execute_script(under, x, y) == pytest.approx(before, abs=2)
    ActionChains(person.driver).key_down(Keys.SPACE).perform()
    mouse = ActionChains(person.driver, duration=50)
    mouse.w3c_actions.pointer_action.move_to_location(x, y)
    mouse.w3c_actions.pointer_action.pointer_down()
    mouse.w3c_actions.pointer_action.move_to_location(x - 160, y - 80)
    mouse.w3c_actions.pointer_action.pointer_up()
    mouse.perform()
    ActionChains(person.driver).key_up(Keys.SPACE).perform()
    moved = person.driver.execute_script(under, x, y)
    assert moved == pytest.approx([before[0] + 10, before[1] + 5], abs=2.5)
    assert person.frame()[:2] == (0, 0), "the frame is not touched"
    _wheel(person, -25, x, y)
    person.until(lambda _: _zoom(person) <= first, what="as far away as before")
    person.press("0")
    person.until(lambda _: _zoom(person) == first, what="the width fitted")
    person.press("9")
    person.until(lambda _: _zoom(person) < first, what="the whole page")


@pytest.mark.long
def test_a_block_pressed_before_the_blocks_have_come_is_framed_once_they_have(
    person: Person, taken_id: int
) -> None:
    heading = _block(person, taken_id, "heading")
    held_back = """
        const fetched = window.fetch;
        const gate = new Promise((resolve) => { window.letBlocksCome = resolve; });
        window.fetch = async (asked, more) => {
          if ((asked.url ?? asked).includes("/map")) await gate;
          return fetched(asked, more);
        };
    """
    source = {"source": held_back}
    added = person.driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", source)
    person.open_bench(taken_id)
    # The window is used by other tests, too.
    person.driver.execute_cdp_cmd("Page.removeScriptToEvaluateOnNewDocument", added)
    person.click("1:1")
    page = person.see("[data-pointer-layer]").rect
    mouse = ActionChains(person.driver)
    x, y, _, height = _box(heading)
    mouse.w3c_actions.pointer_action.move_to_location(
        round(page["x"]) + x + 10, round(page["y"]) + y + height // 2
    )
    mouse.w3c_actions.pointer_action.click()
    mouse.perform()
    assert person.frame()[:2] == (0, 0)
    person.driver.execute_script("window.letBlocksCome()")
    person.see_frame(*_box(heading))
