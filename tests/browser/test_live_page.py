"""A page used in the server's browser: signed in to, its menu open, taken, and again; and what goes wrong."""

from __future__ import annotations

import json

import psutil
import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person

pytestmark = [pytest.mark.browser, pytest.mark.xdist_group(__name__)]
_ADDRESS = "[aria-label='Address of the live page']"
_MENU_PX, _NAME_PX = (320, 215), (400, 280)


def _at(person: Person, place_px: tuple[int, int]) -> ActionChains:
    """The pointer on a place of the live page."""
    canvas = person.see("canvas")
    scale = canvas.size["width"] / 1_280
    right = round(place_px[0] * scale - canvas.size["width"] / 2)
    down = round(place_px[1] * scale - canvas.size["height"] / 2)
    return ActionChains(person.driver, duration=50).move_to_element_with_offset(canvas, right, down)


def _open(person: Person, path: str) -> None:
    person.type_into(
        "[aria-label='Address of the live page']", f"{person.application.site}{path}", Keys.ENTER
    )
    person.until(lambda _: person.see("canvas").get_attribute("data-frames"), what="a frame")
    _until_at(person, path)


def _until_at(person: Person, path: str) -> None:
    person.until(lambda _: str(person.see(_ADDRESS).get_attribute("value")).endswith(path), what=path)
    person.until(lambda _: person.button("Open"), what="the end of loading")


def _seen_words(person: Person, capture_id: int) -> str:
    return json.dumps(person.ask(f"/captures/{capture_id}/map"))


def test_the_crew_room_is_signed_in_to_and_taken_with_its_menu_open_and_again(person: Person) -> None:
    person.open("/")
    person.click("a live page")
    _open(person, "/sign-in")
    _at(person, _NAME_PX).click().send_keys("Ola", Keys.TAB, "kettle", Keys.ENTER).perform()
    _until_at(person, "/crew")
    _at(person, (5, 600)).perform()
    _at(person, _MENU_PX).perform()
    person.until(lambda _: person.all("[data-steps='1']"), what="the menu as a step")
    before = person.newest_capture()
    # By the keyboard: the pointer stays where it is.
    person.driver.execute_script("arguments[0].focus()", person.button("Whole page"))
    person.press(Keys.ENTER)
    first = person.see_taken(before, what="the crew room")
    assert "Swap a watch" in _seen_words(person, first)
    told = person.ask(f"/captures/{first}")
    assert told["final_address"].endswith("/crew")
    assert [step["kind"] for step in told["settings"]["steps"]] == ["hover"]
    person.click("Save this sign-in")
    person.see_text("opened signed in from now on")
    again = person.change("POST", f"/captures/{first}/retake")["id"]
    person.until(lambda _: person.ask(f"/captures/{again}")["job"]["state"] == "done", what="the retake")
    assert "Swap a watch" in _seen_words(person, again)
    assert person.ask(f"/captures/{again}")["signed_in"]
    (saved,) = person.ask("/sign-ins")
    person.change("DELETE", f"/sign-ins/{saved['id']}")
    person.click("Close the page")
    person.see_text("Use a page before it is taken")


def test_parts_are_pointed_at_drawn_and_taken_after_some_seconds(person: Person) -> None:
    person.open("/live")
    _open(person, "/timetable")
    before = person.newest_capture()
    person.click("An element")
    _at(person, (400, 230)).perform()
    person.see("[data-outlined]")
    ActionChains(person.driver).click().perform()
    element = person.see_taken(before, what="an element")
    assert person.ask(f"/captures/{element}")["settings"]["extent"] == "element"
    person.driver.execute_script("arguments[0].focus()", person.see("canvas"))
    person.press(Keys.F6)
    typing = "return document.activeElement.matches('[data-live-typing]')"
    assert person.driver.execute_script(typing), "the keyboard leaves the page"
    person.click("An area")
    _at(person, (100, 100)).click_and_hold().perform()
    _at(person, (500, 400)).release().perform()
    area = person.see_taken(element, what="an area")
    frame = person.ask(f"/captures/{area}")["cuts"][0]["document"]["frame"]
    assert (frame["width_px"], frame["height_px"]) == pytest.approx((400, 300), abs=4)
    person.all("[aria-labelledby=take] select")[1].send_keys("3 times")
    person.click("What is seen")
    person.until(lambda _: person.all("[data-taken='5']"), what="a series of three")
    person.click("Close the page")


def test_a_live_page_that_went_says_so_and_opens_again(person: Person) -> None:
    person.open("/live")
    _open(person, "/planning")
    live = [row for row in psutil.process_iter() if _is_live_browser(row, person)]
    assert live
    for row in live:
        row.kill()
    person.see_text("The browser has ended.")
    person.click("Open it again")
    person.until(lambda _: person.see("canvas").get_attribute("data-frames"), what="a frame")
    person.open("/live")  # the tab is loaded anew: the page is still there
    _until_at(person, "/planning")
    person.until(lambda _: person.see("canvas").get_attribute("data-frames"), what="a frame")
    person.click("Close the page")


def _is_live_browser(process: psutil.Process, person: Person) -> bool:
    """Whether it is the browser of a live page of this application: one that draws as a display shows."""
    try:
        words = " ".join(process.cmdline())
        if "chrom" not in process.name() or "--type=" in words or "--disable-frame-rate-limit" in words:
            return False
        home = str(person.application.home)
        return any(parent.environ().get("TALLPAGE_HOME") == home for parent in process.parents())
    except psutil.Error:
        return False
