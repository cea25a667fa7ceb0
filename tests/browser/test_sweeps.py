"""Many pages at once: from a messy list to a ZIP."""

import json
import zipfile
from pathlib import Path

import pytest
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person

pytestmark = pytest.mark.browser


def _worded(person: Person, words: str, tag: str = "button") -> None:
    """Press what holds these words now; it may move while a sweep goes on."""
    xpath = f"//{tag}[contains(normalize-space(.), '{words}')]"
    person.until(
        lambda driver: next(
            (row for row in driver.find_elements(By.XPATH, xpath) if row.is_displayed()), None
        ),
        what=words,
    )
    person.driver.execute_script(
        "document.evaluate(arguments[0], document, null, 9, null).singleNodeValue.click()", xpath
    )


def _check(person: Person, text: str) -> None:
    person.open("/sweeps/new")
    person.type_into("[aria-label='Pages, pasted']", text)
    person.click("Check the list")
    person.see("[aria-label='The list']")


def _begin(person: Person) -> int:
    _worded(person, "picture", "button[contains(., 'Take')]")
    person.see("[data-proofs]")
    return int(person.driver.current_url.rsplit("/", 1)[1])


def _ended(person: Person, sweep_id: int) -> dict:
    person.until(lambda _: person.ask(f"/sweeps/{sweep_id}")["finished_at"], what="the sweep's end")
    return person.ask(f"/sweeps/{sweep_id}")["count"]


def _saved_zip(person: Person) -> Path:
    return person.until(lambda _: next(person.downloads.glob("*.zip"), None), what="the ZIP")


def test_a_messy_list_becomes_a_zip_with_a_manifest_that_fits(person: Person) -> None:
    site = person.application.site
    _check(
        person,
        f"Please take these:\n{site}/notices/3\nTimetable  {site}/timetable\n{site}/notices/3#old\n"
        f"http://nobody.invalid/dead",
    )
    person.see_text("3 pages, 1 duplicate left out")
    person.see_text("1 line is no address")
    pattern = person.see("[aria-label='Pattern for names']")
    pattern.send_keys(Keys.CONTROL, "a")
    pattern.send_keys("{section}/{title} {width}")
    person.see_text("top/Timetable 1280.png")
    sweep_id = _begin(person)
    count = _ended(person, sweep_id)
    assert (count["taken"], count["failed"]) == (2, 1)

    person.see_text("2 of 3 pictures taken")
    _worded(person, "Failed")
    person.until(lambda _: len(person.all("[data-shot]")) == 1, what="only what failed")
    _worded(person, "All")
    person.until(lambda _: len(person.all("[data-shot][data-state=done]")) == 2, what="all of it")
    person.press(Keys.ENTER)
    person.see("[aria-label='Large view']")
    person.press("k")
    person.see("[data-shot] [aria-label=kept]")
    person.press(Keys.ESCAPE)
    person.until(lambda _: not person.all("[aria-label='Large view']"), what="the proofs again")
    person.press(Keys.ARROW_LEFT)
    person.press("u")
    person.until(lambda _: not person.all("[aria-label=kept]"), what="nothing kept")

    person.open_panel("Retake")
    person.see_text("1 failed. What was taken")
    wait = person.see("[aria-label='Seconds to wait']")
    wait.send_keys(Keys.CONTROL, "a")
    wait.send_keys("1")
    person.click("Retake 1 like this")
    person.until(lambda _: not person.ask(f"/sweeps/{sweep_id}")["finished_at"], what="going on")
    assert _ended(person, sweep_id)["failed"] == 1
    person.open_panel("Save")
    _worded(person, "as ZIP", "a")
    with zipfile.ZipFile(_saved_zip(person)) as archive:
        rows = json.loads(archive.read("manifest.json"))
        files = [row["file"] for row in rows if row["file"]]
        assert sorted(files) == sorted(name for name in archive.namelist() if name.endswith(".png"))
        assert all(len(archive.read(row["file"])) == row["bytes"] for row in rows if row["file"])
        assert [row["address"] for row in rows if row["error"]] == ["http://nobody.invalid/dead"]


@pytest.mark.long
def test_a_sitemap_is_filtered_and_a_sweep_of_it_paused_and_gone_on_with(person: Person) -> None:
    person.open("/sweeps/new")
    person.type_into(
        "[aria-label='Sitemap, or a page with links']", f"{person.application.site}/sitemap.xml\n"
    )
    person.see_text("121 pages")
    _worded(person, "/notices")
    person.see_text("9 pages on 1 screen")
    for words in ("archive", "islands", "fleet", "notices", "winter"):
        filter_field = person.see("[aria-label='Filter the list']")
        filter_field.send_keys(Keys.CONTROL, "a")
        filter_field.send_keys(words)
        _worded(person, "Untick shown")
    person.see_text("4 pages on 1 screen")
    sweep_id = _begin(person)
    _worded(person, "Pause")
    person.see_text("paused")
    person.until(lambda _: person.ask(f"/sweeps/{sweep_id}")["count"]["under_way"] == 0, what="at rest")
    before = person.ask(f"/sweeps/{sweep_id}")["count"]
    assert before["taken"] < 4
    _worded(person, "Resume")
    assert _ended(person, sweep_id)["taken"] == 4
    assert person.ask(f"/sweeps/{sweep_id}/rows")["total"] == 4
