"""Ways out, walked from the files of a cut: disk, PDF, link, mail, upload, and the log of them."""

from __future__ import annotations

import urllib.request
from pathlib import Path
from typing import Any

import pypdfium2
import pypdfium2.raw as pdfium
import pytest
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select, WebDriverWait

from tests.browser.person import Person
from tests.browser.stack import open_window
from tests.pictures import decoded, text_page

pytestmark = pytest.mark.browser

PANEL = "[role=dialog] [data-way]"


def _row(person: Person, capture_id: int, **rules: Any) -> dict[str, Any]:
    """A file of a capture's first cut, once it is there."""
    (cut,) = person.ask(f"/captures/{capture_id}")["cuts"]
    usual = {"width_px": 300, "limit_bytes": 60_000, "formats": ["jpeg"]}
    made = person.change("POST", f"/cuts/{cut['id']}/outputs", {"rules": {**usual, **rules}})
    return _finished(person, cut["id"], made["label"])


def _finished(person: Person, cut_id: int, label: str) -> dict[str, Any]:
    def there(_: object) -> dict[str, Any] | None:
        rows = person.ask(f"/cuts/{cut_id}/outputs")
        return next((row for row in rows if row["label"] == label and row["job"]["state"] == "done"), None)

    row: dict[str, Any] = person.until(there, what="the file")
    return row


def _way(person: Person, row: dict[str, Any], way: str) -> None:
    person.open_panel(f"Hand over {row['label']}")
    person.see("[role=dialog] [aria-label='Ways out']")
    person.click(way)


def _came_back(person: Person, words: str) -> None:
    person.until(lambda _: any(words in row.text for row in person.all("[data-handed-over]")), what=words)


def _saved(person: Person, name: str) -> Path:
    place = person.downloads / name
    person.until(lambda _: place.exists(), what=name)
    return place


@pytest.mark.long
def test_a_file_is_saved_by_a_pattern_that_shows_what_comes_out(person: Person) -> None:
    capture_id = person.picture(text_page(600, 400))
    row = _row(person, capture_id)
    person.open_bench(capture_id)
    _way(person, row, "Own disk")
    person.until(lambda _: row["file_name"] in person.see("[data-examples]").text, what="the usual name")
    person.type_into(f"{PANEL} input", "Fähre/{width} {pier}")
    person.see_text("{pier} is no field of a name.")
    person.type_into(f"{PANEL} input", Keys.CONTROL, "a", Keys.NULL, "Fähre {width}")
    person.until(lambda _: person.see("[data-examples]").text == "Fähre 300.jpg", what="the name")
    person.click_on(f"{PANEL} button[type=submit]")
    assert decoded(_saved(person, "Fähre 300.jpg").read_bytes()).shape == (200, 300, 3)
    person.close_panels()
    _way(person, row, "Own disk")
    assert person.see(f"{PANEL} input").get_property("value") == "Fähre {width}", "the last one is remembered"


@pytest.mark.long
def test_a_page_becomes_a_pdf_in_which_words_are_found_and_links_lead_on(person: Person) -> None:
    capture_id = person.stored("/offices")
    person.open_bench(capture_id)
    (cut,) = person.ask(f"/captures/{capture_id}")["cuts"]
    person.open_panel(f"Hand over {cut['name']}")
    person.click("PDF and print")
    person.click("Make the PDF")
    _came_back(person, "1 page")
    sheet = person.see("[role=dialog] ol img")
    person.until(lambda _: sheet.get_property("naturalWidth") > 100, what="the first sheet")
    person.click_on("[role=dialog] a[download]")
    person.until(lambda _: list(person.downloads.glob("*.pdf")), what="the document")
    (file,) = person.downloads.glob("*.pdf")
    with pypdfium2.PdfDocument(file) as document:
        page = document[0].get_textpage()
        assert page.search("isa.marwick@skerrin-ferries.example").get_next()
        leads = _links(document)
    timetable = next(address for address in leads if address.endswith("/timetable"))
    with open_window() as window:
        window.get(timetable)
        assert "Winter timetable" in window.page_source
    person.close_panels()
    person.open_panel("Log: what left of this capture")
    person.until(lambda _: person.all("[data-log-line=pdf]"), what="the line of the log")


def _links(document: pypdfium2.PdfDocument) -> list[str]:
    found = []
    page, place, annotation = document[0], pdfium.c_int(0), pdfium.FPDF_LINK()
    while pdfium.FPDFLink_Enumerate(page, place, annotation):
        action = pdfium.FPDFLink_GetAction(annotation)
        size = pdfium.FPDFAction_GetURIPath(document, action, None, 0)
        buffer = (pdfium.c_char * size)()
        pdfium.FPDFAction_GetURIPath(document, action, buffer, size)
        found.append(bytes(buffer).rstrip(b"\0").decode())
    return found


@pytest.mark.long
def test_a_link_is_opened_by_a_stranger_and_taken_back(person: Person) -> None:
    capture_id = person.picture(text_page(600, 400))
    row = _row(person, capture_id)
    person.open_bench(capture_id)
    _way(person, row, "Link")
    person.type_into(f"{PANEL} textarea", "Is this the right one?")
    person.field("Asks for a word").send_keys("herring")
    person.click("Make the link")
    address = person.see("[data-link-state=open] a").get_attribute("href")
    with open_window() as stranger:
        wait = WebDriverWait(stranger, 20)
        stranger.get(address)
        stranger.find_element("css selector", "input").send_keys("cod\n")
        wait.until(lambda window: "That is not the word." in window.page_source)
        stranger.find_element("css selector", "input").send_keys("herring\n")
        shown = "const row = document.querySelector('img'); return row && row.complete && row.naturalWidth"
        wait.until(lambda window: window.execute_script(shown) == 300, "the picture")
        assert "Is this the right one?" in stranger.page_source
        complaints = [entry["message"] for entry in stranger.get_log("browser")]
        assert not [text for text in complaints if "Content Security Policy" in text]
        person.close_panels()
        person.open_panel("Log: what left of this capture")
        person.see_text("Opened once, asks for a word")
        person.click("Take it back")
        person.see_text("The link was taken back.")
        stranger.refresh()
        wait.until(lambda window: "leads nowhere" in window.page_source)


def test_mail_arrives_in_the_mail_room_with_the_file_intact(person: Person) -> None:
    capture_id = person.picture(text_page(600, 400))
    row = _row(person, capture_id)
    person.open_bench(capture_id)
    _way(person, row, "Mail")
    person.field("To").send_keys("isa@skerrin-ferries.example, odd@skerrin-ferries.example")
    person.field("Subject").send_keys("The winter fares, once more")
    person.click("Send")
    _came_back(person, "1 mail to isa@skerrin-ferries.example, odd@skerrin-ferries.example.")
    sent = person.fetch(f"/outputs/{row['id']}/file")
    with open_window() as window:
        window.get(person.application.mail_page)
        article = next(
            row for row in window.find_elements("css selector", "article") if "once more" in row.text
        )
        address = article.find_element("css selector", "a").get_attribute("href")
    with urllib.request.urlopen(address) as answer:
        assert answer.read() == sent


@pytest.mark.long
def test_an_upload_is_refused_for_its_width_taken_after_a_fit_and_not_published_twice(person: Person) -> None:
    outlet = person.change("POST", "/outlets", {"name": "Harbour News"})
    slot = {"name": "Notice", "width_px": 240, "limit_bytes": 60_000, "formats": ["jpeg"]}
    person.change("POST", f"/outlets/{outlet['id']}/slots", slot)
    person.open("/outlets")
    person.click_on(f"[data-upload-of='{outlet['id']}'] button")
    person.field("Address").send_keys(f"{person.application.publishing}/media")
    person.field("Token").send_keys("harbour-light")
    person.click("Save the upload")
    person.see_text(f"Uploads go to {person.application.publishing}/media")

    capture_id = person.picture(text_page(600, 400))
    wide = _row(person, capture_id)
    person.open_bench(capture_id)
    _way(person, wide, "Upload")
    Select(person.see(f"{PANEL} select")).select_by_visible_text("Harbour News")
    person.click("Upload to Harbour News")
    person.see_text("it is 300 px wide, and Harbour News: Notice takes 240.")
    person.close_panels()
    person.add_slot("Notice")
    (cut,) = person.ask(f"/captures/{capture_id}")["cuts"]
    fitted = _finished(person, cut["id"], "Harbour News: Notice")
    for words in ("Harbour News has taken 1 file.", "1 file was published there already."):
        _way(person, fitted, "Upload")
        person.until(lambda _: person.see("[data-examples]").text != "", what="the name")
        person.click("Upload to Harbour News")
        _came_back(person, words)
        person.close_panels()
    with urllib.request.urlopen(f"{person.application.publishing}/") as answer:
        page = answer.read().decode()
    assert page.count(f"<br>{fitted['file_name']}<br>") == 1
    published = f"{person.application.publishing}/media/{fitted['file_name']}"
    with urllib.request.urlopen(published) as answer:
        assert answer.read() == person.fetch(f"/outputs/{fitted['id']}/file")


def test_the_picture_and_its_places_go_into_the_clipboard(person: Person) -> None:
    capture_id = person.picture(text_page(600, 400))
    row = _row(person, capture_id)
    person.open_bench(capture_id)
    allowed = {
        "origin": person.application.address,
        "permissions": ["clipboardReadWrite", "clipboardSanitizedWrite"],
    }
    person.driver.execute_cdp_cmd("Browser.grantPermissions", allowed)
    _way(person, row, "Clipboard")
    person.click("Copy the picture")
    person.see_text("Copied: paste it where it is needed.")
    script = """
        const done = arguments[0];
        navigator.clipboard.read().then(async ([item]) => {
          const picture = await createImageBitmap(await item.getType("image/png"));
          done(`${picture.width} × ${picture.height}`);
        }, (error) => done(`${error}`));
    """
    assert person.driver.execute_async_script(script) == "300 × 200"
    person.click("Copy the path")
    person.until(lambda _: "Copied." in person.see("[role=dialog]").text, what="the path")
    read = "const done = arguments[0]; navigator.clipboard.readText().then(done, (error) => done(`${error}`))"
    path = Path(person.driver.execute_async_script(read))
    assert path.read_bytes() == person.fetch(f"/outputs/{row['id']}/file")
