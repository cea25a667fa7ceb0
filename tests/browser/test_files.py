"""From a cut to a file on disk, and the places that files are made for."""

import contextlib
import functools
import io
import threading
import zipfile
from collections.abc import Iterator
from http.server import SimpleHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path

import pytest
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select, WebDriverWait

from tests.browser.person import Person
from tests.browser.stack import open_window
from tests.pictures import decoded, text_page

pytestmark = pytest.mark.browser


def _bytes(person: Person) -> int:
    return int(person.see("[data-output] [data-bytes]").get_attribute("data-bytes"))


def _cut_upper_part(person: Person) -> None:
    field = person.see("[data-field=height_px]")
    field.send_keys(Keys.CONTROL, "a")
    field.send_keys("900", Keys.ENTER)


def test_a_slot_is_fitted_compared_overruled_and_saved(person: Person) -> None:
    person.open_bench(person.stored("/"))
    _cut_upper_part(person)
    person.add_slot("720 px")
    person.see("[data-output][data-state=done]")
    searched = _bytes(person)
    assert 0 < searched <= 90_000
    person.see_text("This cut is")

    person.click("Compare")
    for side in ("original", "result"):
        person.until(
            lambda _, side=side: person.see(f"img[data-side={side}]").get_property("naturalWidth") == 720,
            what=side,
        )
    split = person.see("[role=slider][aria-label^=Split]")
    before = int(split.get_attribute("aria-valuenow"))
    split.send_keys(Keys.ARROW_RIGHT, Keys.ARROW_RIGHT)
    person.until(lambda _: int(split.get_attribute("aria-valuenow")) == before + 2)
    person.press(Keys.ESCAPE)

    person.type_into("input[aria-label=Quality]", Keys.HOME)
    person.see_text("Chosen by hand")
    person.until(lambda _: _bytes(person) < searched)
    person.click("Back to automatic")
    person.see_text("This cut is")
    person.until(lambda _: _bytes(person) == searched)

    first_point = person.see("[data-tradeoffs] circle[role=button]")
    assert "about" in first_point.get_attribute("aria-label")
    person.type_into("[data-tradeoffs] circle[role=button]", Keys.ENTER)
    person.see_text("Chosen by hand")
    person.until(lambda _: _bytes(person) != searched)
    person.see(
        "[data-output][data-state=done] [data-tradeoffs]"
    )  # what the search found stays to choose from
    person.click("Back to automatic")
    person.until(lambda _: _bytes(person) == searched)

    person.click("Save file")
    saved = person.until(
        lambda _: [row for row in person.downloads.iterdir() if row.suffix in (".jpg", ".webp")]
    )
    file = saved[0]
    assert file.name.endswith(f"-720x506{file.suffix}")
    assert file.name.startswith("sailings-between-the-islands")
    assert file.stat().st_size == searched
    assert decoded(file.read_bytes()).shape == (506, 720, 3)


@pytest.mark.long
def test_all_slots_of_an_outlet_are_added_at_once(person: Person) -> None:
    person.open_bench(person.stored("/departures"))
    person.add_slot("All 2 slots")
    person.until(lambda _: len(person.all("[data-output][data-state=done]")) == 2)
    shown = [row.text for row in person.all("[data-output] > button")]
    assert [text.splitlines()[0] for text in shown] == ["Help pages: Standard", "Help pages: Sharp"]


@pytest.mark.long
def test_rules_of_ones_own_and_a_limit_that_cannot_be_met(person: Person) -> None:
    person.open_bench(person.stored("/"))
    _cut_upper_part(person)
    width, limit = person.see("[placeholder='720']"), person.see("[placeholder='90']")
    for typed, sentence in (
        ("0", "A width of 0 px"),
        ("10000000", "A width of 10,000,000 px"),
        ("x", "not a number"),
    ):
        width.send_keys(Keys.CONTROL, "a")
        width.send_keys(typed)
        limit.send_keys(Keys.CONTROL, "a")
        limit.send_keys("9", Keys.ENTER)
        person.see_text(sentence)
    width.send_keys(Keys.CONTROL, "a")
    width.send_keys("700")
    limit.send_keys(Keys.CONTROL, "a")
    limit.send_keys("0", Keys.ENTER)
    person.see_text("The limit is a size above 0")
    limit.send_keys(Keys.CONTROL, "a")
    limit.send_keys("4", Keys.ENTER)
    person.see("[data-output][data-state=done] [role=alert]")
    person.click("Fit at ")
    person.until(lambda _: len(person.all("[data-output][data-state=done]")) == 2)
    person.until(
        lambda _: 0 < min(int(row.get_attribute("data-bytes")) for row in person.all("[data-bytes]")) <= 4_000
    )


@pytest.mark.long
def test_a_long_search_says_what_it_expects_and_is_stopped_with_what_there_is(person: Person) -> None:
    capture_id = person.stored("/islands")
    person.open_bench(capture_id)
    person.type_into("aside input[placeholder='720']", "720")
    person.type_into("aside input[placeholder='90']", "90", Keys.ENTER)
    assert "xpected" in person.see("[data-verdict]").text, "first what a sample tells"
    assert person.see("[data-fitting] progress").get_attribute("aria-label") != "", "no bar without words"
    person.see("[data-best-so-far]")
    person.see("[data-bytes]")
    person.click("Stop and keep this")
    person.see("[data-output][data-state=stopped]")
    cut_id = person.ask(f"/captures/{capture_id}")["cuts"][0]["id"]
    (row,) = person.ask(f"/cuts/{cut_id}/outputs")
    assert 0 < row["bytes"] <= 90_000
    person.click("Save file")
    saved = person.until(lambda _: person.saved_file())
    assert saved.stat().st_size == row["bytes"]


def _want(person: Person, aim: str, *, fidelity: str = "", limit: str = "") -> None:
    """Ask for a file 480 px wide by rules of one's own."""
    width = person.see("aside input[placeholder='720']")
    width.send_keys(Keys.CONTROL, "a")
    width.send_keys("480")
    choices = next(row for row in person.all("aside select") if "under a limit" in row.text)
    Select(choices).select_by_value(aim)
    if fidelity:
        person.type_into("aside input[placeholder='85']", fidelity)
    field = person.see("aside input[placeholder='90'], aside input[placeholder='none']")
    field.send_keys(Keys.CONTROL, "a")
    field.send_keys(Keys.BACKSPACE, limit, Keys.ENTER)


@pytest.mark.long
def test_the_lightest_file_that_looks_so_good_is_asked_for_by_a_band_and_by_a_number(person: Person) -> None:
    capture_id = person.stored("/")
    person.open_bench(capture_id)
    _cut_upper_part(person)
    _want(person, "75")
    person.see("[data-output][data-state=done] [data-bytes]")
    assert "75 wanted" in person.see("[data-fidelity]").text
    assert "lightest" in person.see("[data-why]").text
    _want(person, "number", fidelity="86", limit="900")
    person.until(lambda _: len(person.all("[data-output][data-state=done]")) == 2)
    cut_id = person.ask(f"/captures/{capture_id}")["cuts"][0]["id"]
    band, number = person.ask(f"/cuts/{cut_id}/outputs")
    assert band["fidelity"] >= 75
    assert number["fidelity"] >= 86
    assert band["bytes"] < number["bytes"] <= 900_000
    _want(person, "88", limit="6")
    person.see_text("but does not look as good as fidelity 88")
    person.click("Fit under ")
    person.until(lambda _: len(person.all("[data-output][data-state=done]")) == 4)
    *_, tight, helped = person.ask(f"/cuts/{cut_id}/outputs")
    assert (tight["met"], helped["met"]) == (False, True)
    assert tight["bytes"] <= 6_000
    assert helped["fidelity"] >= 88
    person.press("c")
    person.see("aside[aria-label='The file']")
    assert "lightest at fidelity 88" in person.see("aside[aria-label='The file']").text


@pytest.mark.long
def test_three_slots_at_once_each_say_what_is_expected_before_any_has_come_to_its_end(
    person: Person,
) -> None:
    capture_id = person.stored("/islands")
    person.open_bench(capture_id)
    outlet = person.change("POST", "/outlets", {"name": "Lantern weekly"})
    for name, width_px in (("Wide", 720), ("Middle", 600), ("Small", 480)):
        slot = {"name": name, "width_px": width_px, "limit_bytes": 90_000, "formats": ["jpeg", "webp"]}
        person.change("POST", f"/outlets/{outlet['id']}/slots", slot)
    person.open_bench(capture_id)
    person.add_slot("All 3 slots")
    cut_id = person.ask(f"/captures/{capture_id}")["cuts"][0]["id"]

    def each_has_begun(_: object) -> bool:
        rows = person.ask(f"/cuts/{cut_id}/outputs")
        return len(rows) == 3 and all((row["job"]["told"] or {}).get("expected") for row in rows)

    person.until(each_has_begun)
    states = [row["job"]["state"] for row in person.ask(f"/cuts/{cut_id}/outputs")]
    assert "done" not in states[:2], "two of them wait for their turn with what they have said"
    assert len(person.all("[data-output]")) == 3
    last = person.all("[data-output] > button")[2]
    assert last.get_attribute("aria-expanded") == "true", "the row in hand"
    for row in person.ask(f"/cuts/{cut_id}/outputs"):
        person.change("POST", f"/outputs/{row['id']}/stop")
    person.until(lambda _: not person.all("[data-state=running], [data-state=queued]"))
    person.change("DELETE", f"/outlets/{outlet['id']}")


@pytest.mark.long
def test_an_outlet_is_added_changed_and_deleted(person: Person) -> None:
    person.open("/outlets")
    person.type_into("[aria-label='Name of the new outlet']", "Lighthouse letter", Keys.ENTER)
    section = person.see("section[aria-label='Lighthouse letter']")
    section.find_element(By.XPATH, ".//button[contains(., 'Add slot')]").click()
    for label, text in (("Name", "Front page"), ("Width, px", "640"), ("Limit, kB", "0")):
        section.find_element(By.XPATH, f".//label[contains(., '{label}')]/input").send_keys(text)
    person.click("Save slot")
    assert "above 0" in person.see("[role=alert]").text
    limit = section.find_element(By.XPATH, ".//label[contains(., 'Limit')]/input")
    limit.send_keys(Keys.CONTROL, "a")
    limit.send_keys("70 kB")
    person.click("Save slot")
    person.see_text("70.0 kB")
    slots = next(row for row in person.ask("/outlets") if row["name"] == "Lighthouse letter")["slots"]
    assert [(row["name"], row["width_px"], row["limit_bytes"]) for row in slots] == [
        ("Front page", 640, 70_000)
    ]
    person.click("Delete Lighthouse letter")
    person.click("Delete outlet")
    person.until(lambda _: all(row["name"] != "Lighthouse letter" for row in person.ask("/outlets")))


@pytest.mark.long
def test_outlets_are_copied_ordered_and_taken_in_from_a_file(person: Person) -> None:
    person.open("/outlets")
    person.click("Copy Noticeboard")
    person.see("section[aria-label='Noticeboard copy']")
    person.click("Move Noticeboard copy up")
    person.until(
        lambda _: [row["name"] for row in person.ask("/outlets")][-2:] == ["Noticeboard copy", "Noticeboard"]
    )
    person.click("Save as a file")
    file = person.downloads / "outlets.json"
    person.until(lambda _: file.exists() and file.read_text().endswith("}"))
    person.click("Delete Noticeboard copy")
    person.click("Delete outlet")
    person.until(lambda _: all(row["name"] != "Noticeboard copy" for row in person.ask("/outlets")))
    for text, sentence in (
        ("not a file of outlets", "The file is not JSON."),
        ('{"kind": "screens"}', "kind"),
        (file.read_text(), "Taken in: Noticeboard copy, Harbour Gazette"),
    ):
        file.write_text(text)
        person.all("[aria-label='File of outlets']")[0].send_keys(str(file))
        person.see_text(sentence)
    person.see("section[aria-label='Noticeboard copy']")
    person.click("Delete Noticeboard copy")
    person.click("Delete outlet")
    person.until(lambda _: all(row["name"] != "Noticeboard copy" for row in person.ask("/outlets")))


@pytest.mark.long
def test_a_snippet_shows_each_screen_the_file_that_fits(person: Person, tmp_path: Path) -> None:
    capture_id = person.picture(text_page(1_000, 600))
    (cut,) = person.ask(f"/captures/{capture_id}")["cuts"]
    for width_px in (400, 800):
        rules = {"width_px": width_px, "limit_bytes": 400_000, "formats": ["png"]}
        person.change("POST", f"/cuts/{cut['id']}/outputs", {"rules": rules})
    person.until(
        lambda _: [row["job"]["state"] for row in person.ask(f"/cuts/{cut['id']}/outputs")] == ["done"] * 2,
        what="two files",
    )
    person.open_bench(capture_id)
    panel = person.open_panel("Hand over 400 px")
    person.click("HTML snippet")
    person.until(lambda _: "2 files" in panel.text, what="both files")
    person.type_into("[role=dialog] label:nth-of-type(2) input", "The mail boat")
    person.until(lambda _: "The mail boat" in _html(person), what="the caption in the text")
    saved = person.see("[role=dialog] a[download]").get_attribute("href")
    archive = zipfile.ZipFile(io.BytesIO(person.fetch(saved.split("/api")[1])))
    archive.extractall(tmp_path)
    (tmp_path / "page.html").write_text(f"<!doctype html><meta charset=utf-8>{_html(person)}", "utf-8")
    shown = "const row = document.querySelector('img'); return row.complete && row.currentSrc"
    # A window of its own: the other journeys' keeps its size.
    with _served(tmp_path) as address, open_window() as window:
        for scale, wanted in ((1, "-400x240.png"), (2, "-800x480.png")):
            size = {"width": 1_000, "height": 700, "deviceScaleFactor": scale, "mobile": False}
            window.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", size)
            window.get(f"{address}/page.html?{scale}")
            WebDriverWait(window, 20).until(
                lambda driver, ending=wanted: str(driver.execute_script(shown)).endswith(ending), wanted
            )
            assert window.execute_script("return document.querySelector('img').width") == 400


def _html(person: Person) -> str:
    return str(person.see("[aria-label='HTML of the snippet']").get_property("value"))


@contextlib.contextmanager
def _served(folder: Path) -> Iterator[str]:
    """A folder as a site of its own."""
    handler = functools.partial(SimpleHTTPRequestHandler, directory=str(folder))
    with ThreadingHTTPServer(("127.0.0.1", 0), handler) as server:
        threading.Thread(target=server.serve_forever, daemon=True).start()
        yield f"http://127.0.0.1:{server.server_port}"
        server.shutdown()


@pytest.mark.long
def test_a_file_is_dragged_out_under_its_name(person: Person) -> None:
    capture_id = person.picture(text_page(600, 400))
    (cut,) = person.ask(f"/captures/{capture_id}")["cuts"]
    rules = {"width_px": 300, "limit_bytes": 400_000, "formats": ["jpeg"]}
    person.change("POST", f"/cuts/{cut['id']}/outputs", {"rules": rules})
    person.open_bench(capture_id)
    person.see("[data-output] a[download]")
    script = """
        const carried = new DataTransfer();
        const link = document.querySelector("[data-output] a[download]");
        link.dispatchEvent(new DragEvent("dragstart", { bubbles: true, dataTransfer: carried }));
        return carried.getData("DownloadURL");
    """
    media, name, address = person.driver.execute_script(script).split(":", 2)
    (row,) = person.ask(f"/cuts/{cut['id']}/outputs")
    assert (media, name) == ("image/jpeg", row["file_name"])
    assert decoded(person.fetch(address.split("/api")[1])).shape == (200, 300, 3)
