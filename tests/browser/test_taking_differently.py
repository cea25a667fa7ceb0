"""Pages that need something first: steps, a sign-in, a screen of one's own, timeouts."""

import json
from pathlib import Path

import pytest
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from tests.browser.person import Person

pytestmark = pytest.mark.browser


def _usual_again(person: Person) -> None:
    person.driver.execute_script("localStorage.clear()")


@pytest.mark.long
def test_steps_are_put_together_kept_with_the_capture_and_changed(person: Person) -> None:
    person.open("/")
    person.open_how_to_take()
    person.click("Add a step")
    person.click("Add a step")
    Select(person.see("[data-step='0'] select")).select_by_visible_text("Wait until there is")
    person.type_into("[aria-label='On what, step 1']", '"Timetable"')
    person.type_into("[aria-label='On what, step 2']", "#nowhere-at-all")
    person.click_on("[aria-label='Move step 2 up']")
    capture = person.ask(f"/captures/{person.take('/timetable')}")
    assert capture["done_before"] == ['wait for "Timetable"']
    assert capture["warnings"] == ["This step could not be done: click #nowhere-at-all."]

    person.open_bench(capture["id"])
    person.click("1 warning")
    person.see_text("This step could not be done")
    person.click("Take again with changes")
    field = person.see("[data-address-field]")
    assert field.get_attribute("value") == capture["address"]
    person.click_on("[aria-label='Remove step 1']")
    field.send_keys(Keys.ENTER)
    person.until(lambda _: person.newest_capture() > capture["id"])
    again_id = person.newest_capture()
    person.until(lambda _: person.ask(f"/captures/{again_id}")["job"]["state"] == "done")
    again = person.ask(f"/captures/{again_id}")
    assert (again["warnings"], again["done_before"]) == ([], ['wait for "Timetable"'])
    _usual_again(person)


@pytest.mark.long
def test_what_is_missing_of_a_page_is_said_and_taken_with_one_press(person: Person) -> None:
    board_id = person.stored("/departures")
    person.open("/")
    card = person.see(f"[data-capture='{board_id}'][data-state=done]")
    assert "Not whole" in card.text
    assert "2 left out" in card.text
    person.driver.execute_script(
        "document.querySelector(arguments[0]).click()", f"[data-capture='{board_id}'] a[href$='?report']"
    )
    person.see_text("words of the page are not in the picture")
    person.see_text("A panel scrolls by itself")
    person.click("Take this panel in its whole length")
    person.until(lambda driver: f"/captures/{board_id}" not in driver.current_url, what="the new capture")
    panel_id = int(person.driver.current_url.rsplit("/", 1)[1].partition("?")[0])
    person.until(lambda _: person.ask(f"/captures/{panel_id}")["job"]["state"] == "done", what="the panel")
    board, panel = (person.ask(f"/captures/{number}") for number in (board_id, panel_id))
    assert panel["whole"]
    assert panel["height_px"] > 2 * board["height_px"]

    person.open(f"/captures/{board_id}?report")
    person.click("Take the page with them")
    person.until(lambda driver: f"/captures/{board_id}" not in driver.current_url, what="the new capture")
    with_id = int(person.driver.current_url.rsplit("/", 1)[1].partition("?")[0])
    person.until(lambda _: person.ask(f"/captures/{with_id}")["job"]["state"] == "done", what="the page")
    assert person.ask(f"/captures/{with_id}")["left_out"] == []


@pytest.mark.long
def test_a_page_for_members_leads_to_saving_a_sign_in_and_is_taken_again(person: Person) -> None:
    stranger_id = person.take("/crew")
    person.open_bench(stranger_id)
    person.click("1 warning")
    person.see_text("A sign-in page was met instead")
    person.click("Save a sign-in")
    person.see("main form")
    for label, text in (("Name", "purser"), ("Password", "kettle")):
        person.field(label).send_keys(text)
    person.click("Save sign-in")
    person.see_text("The sign-in for skerrin-ferries.localhost")
    assert "kettle" not in person.driver.page_source
    crew = person.ask(f"/captures/{person.take('/crew')}")
    assert (crew["signed_in"], crew["warnings"]) == (True, [])
    person.open("/sign-ins")
    person.click_on("[data-sign-in] button")
    person.see_text("No sign-in is saved yet")


@pytest.mark.long
def test_cookies_are_brought_from_a_file_or_refused_in_words(person: Person, tmp_path: Path) -> None:
    cookie = {"name": "crew", "value": "aboard", "domain": "crew.example"}
    good, bad = tmp_path / "cookies.json", tmp_path / "other.json"
    good.write_text(json.dumps([cookie]))
    bad.write_text("{}")
    person.open("/sign-ins?host=crew.example")
    person.see("main form")
    next(row for row in person.all("main form label") if "Cookies from a file" in row.text).click()
    person.type_into("main form input[type=file]", str(bad))
    person.click("Save sign-in")
    person.see_text("The file holds no cookies.")
    person.type_into("main form input[type=file]", str(good))
    person.click("Save sign-in")
    person.see_text("brings 1 cookie")
    person.click_on("[data-sign-in] button")
    person.see_text("No sign-in is saved yet")


@pytest.mark.long
def test_a_screen_of_ones_own_is_added_used_and_removed(person: Person) -> None:
    person.open("/")
    person.click("Screen")
    for label, text in (("Name", "Kiosk"), ("Width, px", "600"), ("Height, px", "20")):
        person.field(label).send_keys(text)
    person.click("Add screen")
    person.see_text("cannot be simulated")
    height = person.field("Height, px")
    height.send_keys(Keys.CONTROL, "a")
    height.send_keys("900", Keys.ENTER)
    person.see("[aria-label='Remove the screen Kiosk']")
    person.click("desk")
    capture = person.ask(f"/captures/{person.take('/timetable')}")
    assert capture["width_px"] == 600
    person.click_on("[aria-label='Remove the screen Kiosk']")
    person.until(lambda _: not person.all("[aria-label='Remove the screen Kiosk']"))
    assert person.see("[aria-pressed=true]").text.startswith("Desk")
    _usual_again(person)


@pytest.mark.long
def test_what_there_is_of_a_page_is_looked_at_and_kept(person: Person) -> None:
    person.open("/")
    before = person.newest_capture()
    person.click("phone")
    person.click("desk")
    person.type_into("[data-address-field]", f"{person.application.site}/archive", Keys.ENTER)
    person.until(lambda _: person.newest_capture() > before)
    capture_id = person.newest_capture()
    person.open(f"/captures/{capture_id}")
    person.until(lambda _: person.see("[data-strip-so-far='0']").get_property("naturalHeight"))
    person.click("Stop and keep")
    person.see("[data-frame]")
    capture = person.ask(f"/captures/{capture_id}")
    assert capture["truncated"]
    assert "it was stopped there" in capture["warnings"][0]
    person.click("1 warning")
    person.click("Take what lies further down")
    person.see_text("What lies further down is being taken.")
    further_id = person.newest_capture()
    assert person.ask(f"/captures/{further_id}")["settings"]["from_px"] == capture["bottom_px"]
    _usual_again(person)
