"""A page used in the server's browser: signed in to, its menu open, taken, and again; and what goes wrong."""

from __future__ import annotations

import json

import psutil
import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.live_page import at, open_live, press_without_pointing, see_at, see_frame
from tests.browser.person import Person

pytestmark = pytest.mark.browser
_MENU_PX, _NAME_PX = (320, 215), (400, 280)


def _close(person: Person) -> None:
    """Close the page, and wait until it is closed: the next to come finds none."""
    person.click("Close the page")
    person.until(lambda _: not person.all("canvas"), what="no page")


def _seen_words(person: Person, capture_id: int) -> str:
    return json.dumps(person.ask(f"/captures/{capture_id}/map"))


def test_the_crew_room_is_signed_in_to_and_taken_with_its_menu_open_and_again(person: Person) -> None:
    person.open("/")
    person.click("a live page")
    open_live(person, "/sign-in")
    at(person, *_NAME_PX).click().send_keys("Ola", Keys.TAB, "kettle", Keys.ENTER).perform()
    see_at(person, "/crew")
    at(person, 5, 600).perform()
    at(person, *_MENU_PX).perform()
    person.until(lambda _: person.all("[data-steps='1']"), what="the menu as a step")
    before = person.newest_capture()
    press_without_pointing(person, "Whole page")
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
    _close(person)
    person.see_text("Use a page before it is taken")


@pytest.mark.long
def test_parts_are_pointed_at_drawn_and_taken_after_some_seconds(person: Person) -> None:
    person.open("/live")
    open_live(person, "/timetable")
    before = person.newest_capture()
    person.click("An element")
    at(person, 400, 230).perform()
    person.see("[data-outlined]")
    ActionChains(person.driver).click().perform()
    element = person.see_taken(before, what="an element")
    assert person.ask(f"/captures/{element}")["settings"]["extent"] == "element"
    person.driver.execute_script("arguments[0].focus()", person.see("canvas"))
    person.press(Keys.F6)
    typing = "return document.activeElement.matches('[data-live-typing]')"
    assert person.driver.execute_script(typing), "the keyboard leaves the page"
    person.click("An area")
    at(person, 100, 100).click_and_hold().perform()
    at(person, 500, 400).release().perform()
    area = person.see_taken(element, what="an area")
    frame = person.ask(f"/captures/{area}")["cuts"][0]["document"]["frame"]
    assert (frame["width_px"], frame["height_px"]) == pytest.approx((400, 300), abs=4)
    person.all("[aria-labelledby=take] select")[1].send_keys("3 times")
    person.click("What is seen")
    person.until(lambda _: person.all("[data-taken='5']"), what="a series of three")
    _close(person)


@pytest.mark.long
def test_an_address_that_is_none_is_told_and_stays_to_be_mended(person: Person) -> None:
    person.open("/live")
    for typed, told in (("two words", "spaces"), ("file:///etc/passwd", "never opened")):
        person.see("[aria-label='Address of the live page']").clear()
        person.type_into("[aria-label='Address of the live page']", typed, Keys.ENTER)
        person.see_text(told)
        assert not person.all("canvas")
    person.see("[aria-label='Address of the live page']").clear()
    open_live(person, "/planning")
    _close(person)


@pytest.mark.long
def test_a_live_page_that_went_says_so_and_opens_again(person: Person) -> None:
    person.open("/live")
    open_live(person, "/planning")
    live = [row for row in psutil.process_iter() if _is_live_browser(row, person)]
    assert live
    for row in live:
        row.kill()
    person.see_text("The browser has ended.")
    person.click("Open it again")
    see_frame(person)
    person.open("/live")  # the tab is loaded anew: the page is still there
    see_at(person, "/planning")
    see_frame(person)
    _close(person)


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
