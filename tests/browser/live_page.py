"""A live page under a person's hands."""

from __future__ import annotations

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person

_ADDRESS = "[aria-label='Address of the live page']"
_WIDTH_PX = 1_280


def at(person: Person, x_px: int, y_px: int) -> ActionChains:
    """The pointer on a place of a live page on a desk's screen, however large it is shown."""
    canvas = person.see("canvas")
    scale = canvas.size["width"] / _WIDTH_PX
    right = round(x_px * scale - canvas.size["width"] / 2)
    down = round(y_px * scale - canvas.size["height"] / 2)
    return ActionChains(person.driver, duration=50).move_to_element_with_offset(canvas, right, down)


def open_live(person: Person, path: str) -> None:
    """Open a page of the demo site on the screen of live pages, and wait until it is seen."""
    person.type_into(_ADDRESS, f"{person.application.site}{path}", Keys.ENTER)
    see_frame(person)
    see_at(person, path)


def see_frame(person: Person) -> None:
    """Wait until something of the page is seen."""
    person.until(lambda _: person.see("canvas").get_attribute("data-frames"), what="a frame")


def see_at(person: Person, path: str) -> None:
    """Wait until the page is at an address, and has loaded."""
    person.until(lambda _: str(person.see(_ADDRESS).get_attribute("value")).endswith(path), what=path)
    person.until(lambda _: person.button("Open"), what="the end of loading")


def press_without_pointing(person: Person, words: str) -> None:
    """Press a button by the keyboard: the pointer stays where it is on the page."""
    person.driver.execute_script("arguments[0].focus()", person.button(words))
    person.press(Keys.ENTER)
