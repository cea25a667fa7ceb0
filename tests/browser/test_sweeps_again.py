"""The same pages once more: what changed, at set times, and into a folder of the server."""

import sqlite3
from contextlib import closing
from pathlib import Path

import pytest
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tallpage.demo.site_server import DemoSite
from tests.browser.person import Person

pytestmark = pytest.mark.browser


def _take(person: Person, site: DemoSite, *numbers: int) -> int:
    person.open("/sweeps/new")
    pages = "\n".join(f"http://127.0.0.1:{site.server_port}/notices/{number}" for number in numbers)
    person.type_into("[aria-label='Pages, pasted']", pages)
    person.click("Check the list")
    person.see("[aria-label='The list']")
    person.click(f"Take {len(numbers)} picture")
    return _seen(person)


def _seen(person: Person, *, beside: int = 0) -> int:
    """The sweep that is shown, once it is another than ``beside`` and all of it was looked at."""

    def looked_at(_: object) -> int:
        number = person.driver.current_url.partition("/sweeps/")[2].partition("?")[0]
        if (
            not number.isdigit()
            or int(number) == beside
            or not person.ask(f"/sweeps/{number}")["finished_at"]
        ):
            return 0
        by_filter = person.ask(f"/sweeps/{number}")["count"]["by_filter"]
        known = sum(by_filter[name] for name in ("changed", "unchanged", "gone", "new"))
        return int(number) if not beside or known == by_filter["arrived"] else 0

    return int(person.until(looked_at, what="the sweep's end"))


@pytest.mark.long
def test_a_second_time_shows_what_changed_and_where(person: Person, own_site: DemoSite) -> None:
    first = _take(person, own_site, 3, 4, 7)
    own_site.edition = 2
    person.open_panel("Take all again")
    person.click("Take all again now")
    second = _seen(person, beside=first)
    count = person.ask(f"/sweeps/{second}")["count"]["by_filter"]
    assert {name: count[name] for name in ("changed", "unchanged", "gone", "new")} == {
        "changed": 1,
        "unchanged": 1,
        "gone": 1,
        "new": 0,
    }
    person.see("[data-change=gone]")
    person.click("Changed")
    person.until(lambda _: len(person.all("[data-shot]")) == 1, what="only what changed")
    person.press(Keys.ENTER)
    person.see_text("changed, in 1 place")
    outline = person.see("[data-changed-here]").rect
    assert outline["width"] > 100
    person.click("Go to the first")
    person.see_text("1 passage added, 0 removed")
    person.press("b")
    person.see("[aria-pressed=true][title=B]:not(:first-child)")


@pytest.mark.long
def test_set_times_are_kept_and_a_sweep_begins_by_itself(person: Person, own_site: DemoSite) -> None:
    first = _take(person, own_site, 5)
    person.open_panel("Take all again")
    person.driver.find_element(By.XPATH, "//label[contains(., 'every week')]/input").click()
    person.see_text("next ")
    person.click("Set the times")
    person.see_text("Set: next Mon")
    schedule = person.ask(f"/sweeps/{first}")["schedule"]
    assert (schedule["cron"], schedule["problem"]) == ("0 6 * * 1", "")
    with closing(sqlite3.connect(person.application.home / "tallpage.sqlite3", timeout=20)) as database:
        database.execute("update sweeps_schedule set next_at = '2026-01-05 06:00:00'")  # its time has come
        database.commit()
    person.until(lambda _: person.ask("/sweeps")[0]["id"] != first, what="another sweep")
    second = person.ask("/sweeps")[0]
    assert second["schedule"]["next_at"] > second["created_at"]
    person.open("/sweeps")
    person.see_text("again Mon")
    person.open(f"/sweeps/{second['id']}")
    person.open_panel("Take all again")
    person.click("Turn schedule off")
    person.until(lambda _: person.ask(f"/sweeps/{second['id']}")["schedule"] is None, what="no more times")


@pytest.mark.long
def test_a_sweep_is_saved_into_a_folder_of_the_server_and_then_deleted(
    person: Person, own_site: DemoSite
) -> None:
    sweep_id = _take(person, own_site, 6)
    person.open_panel("Save")
    person.see("[role=dialog] input:not([type])").send_keys("For Monday")
    person.click("Save all there")
    person.see_text("Saved in")
    folder = Path(person.ask(f"/sweeps/{sweep_id}")["saving"]["folder"])
    assert folder.name == "For Monday"
    assert (folder / "contact-sheet.pdf").read_bytes().startswith(b"%PDF-")
    assert len(list(folder.rglob("*.png"))) == 1
    person.open_panel("Delete")
    person.click("Delete the sweep")
    person.until(lambda _: person.driver.current_url.endswith("/sweeps"), what="the list of sweeps")
    assert sweep_id not in [row["id"] for row in person.ask("/sweeps")]
    assert person.ask("/captures/deleted")["total"] >= 1
