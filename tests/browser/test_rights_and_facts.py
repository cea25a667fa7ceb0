"""The question before what is not cleared leaves, and the facts that go along with an outlet's files."""

from __future__ import annotations

import io
import json
import zipfile
from typing import Any

import pytest
from PIL import Image
from selenium.webdriver.common.by import By

from tests.browser.person import Person
from tests.pictures import text_page

pytestmark = pytest.mark.browser


def _note(person: Person, state: str) -> None:
    panel = person.open_panel("Rights")
    choice = f".//label[normalize-space()='{state}']/input"
    person.until(lambda _: panel.find_elements(By.XPATH, choice), what=state)[0].click()
    person.click("Note it")


def _row_for(person: Person, capture_id: int, slot_id: int) -> dict[str, Any]:
    (cut,) = person.ask(f"/captures/{capture_id}")["cuts"]
    made = person.change("POST", f"/cuts/{cut['id']}/outputs", {"slot_id": slot_id})

    def there(_: object) -> dict[str, Any] | None:
        rows = person.ask(f"/cuts/{cut['id']}/outputs")
        return next((row for row in rows if row["id"] == made["id"] and row["job"]["state"] == "done"), None)

    row: dict[str, Any] = person.until(there, what="the file")
    return row


@pytest.mark.long
def test_an_outlets_facts_go_along_and_what_is_not_cleared_is_asked_about_once(person: Person) -> None:
    outlet = person.change("POST", "/outlets", {"name": "Skerrin Almanac"})
    slot = {"name": "Plate", "width_px": 300, "limit_bytes": 60_000, "formats": ["webp"]}
    slot_id = person.change("POST", f"/outlets/{outlet['id']}/slots", slot)["id"]
    person.open("/outlets")
    person.click_on(f"[data-facts-of='{outlet['id']}'] button")
    person.type_into("form[aria-label='Facts of Skerrin Almanac'] input", "Skerrin Sound Ferries")
    for box in person.all("form[aria-label='Facts of Skerrin Almanac'] input[type=checkbox]"):
        box.click()
    person.click("Save the facts")
    person.see_text("the credit “Skerrin Sound Ferries” go along in the files and as a JSON beside each")

    capture_id = person.picture(text_page(600, 400))
    row = _row_for(person, capture_id, slot_id)
    person.open_bench(capture_id)
    _note(person, "Not cleared")
    person.until(lambda _: person.ask(f"/captures/{capture_id}")["rights"]["state"] == "not_cleared")

    person.open_panel(f"Hand over {row['label']}")
    person.see_text("The rights are not cleared")
    assert not person.all("[role=dialog] [data-way]"), "no way out before the answer"
    person.click("Hand over all the same")
    person.click("Own disk")
    person.click_on("[role=dialog] [data-way] button[type=submit]")
    person.until(lambda _: list(person.downloads.glob("*.zip")), what="the ZIP")
    (file,) = person.downloads.glob("*.zip")
    with zipfile.ZipFile(file) as archive:
        data = archive.read(row["file_name"])
        said = json.loads(archive.read(f"{row['file_name']}.json"))
        listed = json.loads(archive.read("manifest.json"))
    with Image.open(io.BytesIO(data)) as picture:
        description = picture.getxmp()["RDF"]["Description"]
    assert description["creator"]["Seq"]["li"] == said["credit"] == "Skerrin Sound Ferries"
    assert [said["rights"], listed[0]["rights"]] == ["not cleared", "not cleared"]
    (line,) = person.ask(f"/captures/{capture_id}/log")
    assert line["uncleared"]
    person.close_panels()

    person.click("Save file")
    person.see_text("The rights are not cleared: not cleared.")
    assert not list(person.downloads.glob("*.webp")), "it waits for the answer"
    person.click("Save all the same")
    person.until(lambda _: list(person.downloads.glob("*.webp")), what="the file")
