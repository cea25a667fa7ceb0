"""One's own screen: a tab is shared, grabbed, scrolled into one tall picture; sharing ends."""

from __future__ import annotations

import itertools
import re
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from selenium import webdriver

from tests.browser.person import Person
from tests.browser.stack import Application, open_window

pytestmark = pytest.mark.browser
_SHARED = "Timetable"


@pytest.fixture
def sharing_person(application: Application, tmp_path: Path) -> Iterator[tuple[Person, str]]:
    """Somebody with a tab of the timetable beside Tall Page, which the browser shares without asking."""
    with open_window(f"--auto-select-tab-capture-source-by-title={_SHARED}") as driver:
        driver.get(f"{application.site}/timetable")
        shared = driver.current_window_handle
        driver.switch_to.new_window("tab")
        person = Person(driver, application, tmp_path)
        person.open("/grab")
        person.click("Share a tab, window or screen")
        person.see("[data-sharing=tab]")
        yield person, shared


def _grabbed(person: Person, least: int) -> None:
    person.until(
        lambda _: (
            (rows := person.all("[data-grabbed]"))
            and int(str(rows[0].get_attribute("data-grabbed"))) >= least
        ),
        what=f"{least} pictures",
    )


def _scroll(driver: webdriver.Chrome, shared: str, top_px: int) -> None:
    own = driver.current_window_handle
    driver.switch_to.window(shared)
    driver.execute_script(f"scrollTo({{ top: {top_px}, behavior: 'instant' }})")
    driver.switch_to.window(own)


def test_a_tab_is_grabbed_at_once_and_in_series(sharing_person: tuple[Person, str]) -> None:
    person, _ = sharing_person
    before = person.newest_capture()
    person.click("Grab now")
    _grabbed(person, 1)
    person.press("p")
    _grabbed(person, 2)
    person.click("Grab every 3 s")
    _grabbed(person, 4)
    person.click("Enough")
    newest = person.ask(f"/captures/{before + 1}")
    assert person.newest_capture() >= before + 4
    assert newest["name"].startswith("Shared tab")
    assert newest["width_px"] == 1_280
    assert person.driver.current_url.endswith("/grab"), "the Bench opens when it is asked for"


@pytest.mark.long
def test_a_tab_is_scrolled_into_one_tall_picture(sharing_person: tuple[Person, str]) -> None:
    person, shared = sharing_person
    person.click("Grab while I scroll")
    _grabbed(person, 1)
    for number in range(1, 5):
        _scroll(person.driver, shared, 220 * number)
        _grabbed(person, number + 1)
    person.see_text("Joined so far")
    _scroll(person.driver, shared, 2_400)
    person.see_text("A piece is missing below picture")
    for number, top_px in enumerate(range(2_180, 879, -260)):
        _scroll(person.driver, shared, top_px)
        _grabbed(person, 7 + number)
    person.see_text("Joined so far")
    person.click("Enough")
    person.click("Join into one tall picture")
    person.see_text("nothing missing")
    join = person.ask(f"/joins/{person.driver.current_url.rsplit('/', 1)[1]}")
    assert join["height_px"] == 2_400 + join["pieces"][0]["height_px"]


@pytest.mark.long
def test_sharing_that_ends_is_said_and_what_was_grabbed_stays(sharing_person: tuple[Person, str]) -> None:
    person, shared = sharing_person
    person.click("Grab now")
    _grabbed(person, 1)
    own = person.driver.current_window_handle
    person.driver.switch_to.window(shared)
    person.driver.close()
    person.driver.switch_to.window(own)
    person.see_text("Sharing was ended.")
    assert not person.all("[data-sharing]")
    _grabbed(person, 1)


def _shared_pixels(person: Person) -> Any:
    """The picture of what is shared, made small."""
    return person.driver.execute_script(
        """
        const small = Object.assign(document.createElement("canvas"), { width: 32, height: 20 });
        const drawn = small.getContext("2d");
        drawn.drawImage(document.querySelector("video"), 0, 0, 32, 20);
        return small.toDataURL();
        """
    )


def _seconds_of_clip(person: Person) -> int:
    found = re.search(r"(\d+) s of a clip", person.see("main").text)
    return int(found[1]) if found else 0


def _clip_taken(person: Person) -> Any:
    person.see("canvas[data-drawn]")
    return person.ask(f"/clips/{person.see('main[data-clip]').get_attribute('data-clip')}")


@pytest.mark.long
def test_a_tab_becomes_a_clip_also_where_sharing_ends_in_the_middle(
    sharing_person: tuple[Person, str],
) -> None:
    person, shared = sharing_person
    person.click("Take a clip")
    person.see_text("1 s of a clip")
    before = _shared_pixels(person)
    tops_px = itertools.count(600, 40)

    def is_moving(driver: webdriver.Chrome) -> bool:
        # A busy browser may leave out the one picture after a single step, and a page at rest gives no other.
        _scroll(driver, shared, next(tops_px))
        return bool(_shared_pixels(person) != before)

    person.until(is_moving, what="another picture of the tab")
    seconds = _seconds_of_clip(person)
    person.until(lambda _: _seconds_of_clip(person) >= seconds + 2, what="two seconds more")
    person.click("Enough")
    clip = _clip_taken(person)
    assert clip["frame_count"] >= 20
    assert len(set(clip["files"])) >= 2
    assert clip["files"][0] != clip["files"][-1]

    person.open("/grab")
    person.click("Share a tab, window or screen")
    person.click("Take a clip")
    person.see_text("1 s of a clip")
    person.click("End sharing")
    assert _clip_taken(person)["frame_count"] >= 10
