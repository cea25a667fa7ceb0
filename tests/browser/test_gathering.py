"""Pages and pictures come in, land on the shelf, and are kept there."""

from datetime import UTC, datetime
from pathlib import Path

import numpy as np
import pytest
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.pictures import as_png, assert_same_pixels, decoded, gradient, photograph

pytestmark = pytest.mark.browser


def test_a_page_is_taken_by_pasting_its_address(person: Person) -> None:
    person.open("/")
    field = person.see("[data-address-field]")
    assert field == person.driver.switch_to.active_element
    before = person.newest_capture()
    field.send_keys(f"{person.application.site}/timetable", Keys.ENTER)
    person.until(lambda _: field.get_attribute("value") == "", what="the field is free again")
    person.until(lambda _: person.newest_capture() > before, what="a new capture")
    card_id = person.newest_capture()
    done = person.see(f"article[data-capture='{card_id}'][data-state=done]")
    name = done.find_element(By.TAG_NAME, "h3").text
    host = person.application.site.removeprefix("http://")
    assert name.startswith("Timetable")
    assert host.partition(":")[0] in name
    assert host not in name, "the port says nothing to a person"
    assert name.endswith(datetime.now(UTC).date().isoformat())
    person.until(lambda _: done.find_element(By.TAG_NAME, "img").get_property("naturalWidth"))
    done.find_element(By.TAG_NAME, "a").click()
    person.see("[data-frame]")
    person.see_text("Files from this cut")


@pytest.mark.long
@pytest.mark.parametrize(
    ("typed", "sentence"),
    [
        ("", "There is no address."),
        ("two words", "is not an address"),
        ("file:///etc/passwd", "are never opened"),
        ("javascript:alert(1)", "are never opened"),
    ],
)
def test_a_bad_address_stays_in_the_field_with_its_reason(person: Person, typed: str, sentence: str) -> None:
    if typed == "two words":
        typed = "http://two%words:x/"
    person.open("/")
    field = person.see("[data-address-field]")
    field.send_keys(typed, Keys.ENTER)
    person.see_text(sentence)
    assert field.get_attribute("value") == typed


@pytest.mark.long
def test_a_dead_host_is_told_on_the_card_and_can_be_taken_again(person: Person, closed_port: int) -> None:
    person.open("/")
    person.type_into("[data-address-field]", f"http://127.0.0.1:{closed_port}/", Keys.ENTER)
    card = person.see("article[data-state=failed]")
    assert "refused the connection" in card.text
    assert "Take again" in card.text


@pytest.mark.long
def test_a_missing_page_is_taken_and_marked(person: Person) -> None:
    capture_id = person.take("/no-such-page")
    person.open_bench(capture_id)
    person.click("1 warning")
    person.see_text("The page answered with status 404.")


def test_a_picture_is_browsed_for_dropped_and_pasted(person: Person, tmp_path: Path) -> None:
    pixels = gradient(120, 90)
    path = tmp_path / "Pier at noon.png"
    path.write_bytes(as_png(pixels))
    person.open("/")
    before = person.captures()
    person.see("[data-address-field]")
    person.all("input[type=file]")[0].send_keys(str(path))
    person.see_text("Pier at noon.png is on its way")
    for kind in ("drop", "paste"):
        person.driver.execute_script(_HAND_OVER, list(path.read_bytes()), kind)
    person.until(lambda _: person.captures() == before + 3, what="three pictures")
    person.until(
        lambda _: all(row["job"]["state"] == "done" for row in person.ask("/captures?limit=3")["captures"])
    )
    for row in person.ask("/captures?limit=3")["captures"]:
        picture = person.driver.execute_async_script(_FETCH, f"/api/captures/{row['id']}/strips/0")
        assert_same_pixels(decoded(bytes(picture)), pixels)
    assert person.ask("/captures?limit=3")["captures"][2]["name"].startswith("Pier at noon – ")


_HAND_OVER = """
const [bytes, kind] = arguments;
const data = new DataTransfer();
data.items.add(new File([new Uint8Array(bytes)], `${kind}.png`, { type: "image/png" }));
const target = document.querySelector("main");
const made = kind === "paste"
  ? new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true })
  : new DragEvent("drop", { dataTransfer: data, bubbles: true, cancelable: true });
target.dispatchEvent(made);
"""
_FETCH = """
const [address, done] = arguments;
fetch(address).then((answer) => answer.arrayBuffer()).then((data) => done([...new Uint8Array(data)]));
"""


@pytest.mark.long
def test_what_is_no_picture_is_refused_in_words(person: Person, tmp_path: Path) -> None:
    cut_off = tmp_path / "cut off.png"
    cut_off.write_bytes(as_png(photograph(90, 60))[:2_000])
    text = tmp_path / "minutes.doc"
    text.write_text("not a picture")
    person.open("/")
    person.see("[data-address-field]")
    person.all("input[type=file]")[0].send_keys(str(text))
    person.see_text("minutes.doc: The file is not a picture")
    person.all("input[type=file]")[0].send_keys(str(cut_off))
    person.see_text("damaged or incomplete")


@pytest.mark.long
def test_the_shelf_renames_and_deletes_with_undo(person: Person) -> None:
    capture_id = person.stored("/")
    person.open("/shelf")
    css = f"article[data-capture='{capture_id}']"
    person.see(css).find_element(By.CSS_SELECTOR, "[aria-label^=Rename]").click()
    field = person.see(f"{css} input")
    field.send_keys(Keys.CONTROL, "a")
    name = "Sailings, as sent to the Gazette"
    field.send_keys(name, Keys.ENTER)
    person.until(
        lambda _: person.ask(f"/captures/{capture_id}")["name"] == "Sailings, as sent to the Gazette"
    )
    person.see(css).find_element(By.CSS_SELECTOR, "[aria-label^=Delete]").click()
    person.until(lambda _: not person.all(css), what="it is gone")
    person.click("Undo")
    assert name in person.see(css).text


@pytest.mark.long
def test_what_is_deleted_is_put_back_or_cleared_from_the_disk(person: Person) -> None:
    kept_id, gone_id = person.stored("/"), person.stored("/departures")
    person.open("/shelf")
    for capture_id in (kept_id, gone_id):
        css = f"article[data-capture='{capture_id}']"
        person.click_on(f"{css} [aria-label^=Delete]")
        person.until(lambda _, css=css: not person.all(css), what="it is gone")
    person.driver.find_element(By.LINK_TEXT, "Deleted").click()
    person.click_on(f"[data-deleted='{kept_id}'] button")
    person.until(lambda _: not person.all(f"[data-deleted='{kept_id}']"), what="it is back")
    assert person.ask(f"/captures/{kept_id}")["id"] == kept_id
    folders = person.application.home / "captures"
    before = len(list(folders.iterdir()))
    person.open_panel("Clear all")
    person.click("Clear all, for good")
    person.see_text("Nothing is deleted.")
    person.until(lambda _: len(list(folders.iterdir())) < before, what="the disk is free")


@pytest.mark.long
def test_the_shelf_is_searched_by_what_a_page_said(person: Person) -> None:
    capture_id = person.stored("/islands")
    other_id = person.stored("/departures")
    person.open("/shelf")
    person.see(f"article[data-capture='{capture_id}']")
    person.press("/")
    person.press("otters cross it at du")
    person.until(lambda _: not person.all(f"article[data-capture='{other_id}']"))
    person.see(f"article[data-capture='{capture_id}']")
    person.see_text("Otters cross it at dusk")
    person.type_into("[data-shelf-search]", " zebra")
    person.see_text("Nothing on the shelf says")
    person.click("Show everything")
    person.until(lambda _: len(person.all("article")) > 1)


@pytest.mark.long
def test_settings_are_out_of_the_way_until_asked_for_and_then_kept(person: Person) -> None:
    person.open("/")
    assert not person.all("[data-how-to-take] textarea")
    person.open_how_to_take()
    person.type_into("[aria-label='Greatest height in px']", "500")
    person.type_into("[aria-label='CSS selectors to leave out']", "header")
    person.see_text("2 set")
    capture = person.ask(f"/captures/{person.take('/timetable')}")
    assert (capture["height_px"], capture["settings"]["leave_out"]) == (500, ["header"])
    person.open_bench(capture["id"])
    person.click("1 warning")
    person.click("Take again, the same way")
    person.see_text("being taken again")
    person.until(lambda _: person.newest_capture() > capture["id"])
    person.open("/")
    person.open_how_to_take()
    person.click("Reset")
    person.until(lambda driver: "2 set" not in driver.find_element(By.TAG_NAME, "main").text)


@pytest.mark.long
def test_going_back_to_the_shelf_returns_to_where_it_was_left(person: Person, tmp_path: Path) -> None:
    pictures = [tmp_path / f"{number}.png" for number in range(6)]
    for number, path in enumerate(pictures):
        path.write_bytes(as_png(np.full((200, 300, 3), 30 * number, dtype=np.uint8)))
    person.open("/")
    before = person.captures()
    person.see("[data-address-field]")
    person.all("input[type=file]")[0].send_keys("\n".join(map(str, pictures)))
    person.until(lambda _: person.captures() == before + len(pictures), what="six pictures")
    taken = [row["id"] for row in person.ask("/captures?limit=6")["captures"][::-1]]
    person.open("/shelf")
    person.see(f"article[data-capture='{taken[0]}'][data-state=done]")
    scroller = "document.querySelector('main').parentElement"
    scrolled = f"{scroller}.scrollTo(0, 250); return {scroller}.scrollTop"
    left = person.until(lambda driver: driver.execute_script(scrolled) or None, what="a shelf that scrolls")
    card = f"article[data-capture='{taken[0]}']"
    person.driver.execute_script("document.querySelector(arguments[0]).click()", f"{card} h3 a")
    person.see("[data-frame]")
    person.driver.back()
    person.see(card)
    person.until(lambda driver: abs(driver.execute_script(f"return {scroller}.scrollTop") - left) < 5)
    person.press("o")
    person.until(lambda _: person.see("h1").text == "Outlets", what="the screen of outlets")
    assert person.driver.execute_script(f"return {scroller}.scrollTop") == 0, "a new screen begins at its top"
