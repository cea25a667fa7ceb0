"""The shelf for many captures: chosen, labelled, moved, handed over together, deleted and put back."""

from __future__ import annotations

import io
import zipfile

import pytest
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from tests.browser.person import Person
from tests.pictures import gradient

pytestmark = pytest.mark.browser


def _chosen(person: Person, count: int) -> None:
    person.until(lambda _: person.see(f"[data-chosen-count='{count}']"), what=f"{count} chosen")


def test_four_are_chosen_labelled_moved_and_taken_away_in_one_zip(person: Person) -> None:
    person.open("/shelf")
    ids = [person.picture(gradient(60, 40)) for _ in range(5)]
    person.open("/shelf")
    person.until(
        lambda _: len(person.all(f"[data-capture='{ids[0]}'][data-state=done]")) == 1, what="the captures"
    )
    person.choose(ids[-1], Keys.CONTROL)
    _chosen(person, 1)
    person.choose(ids[1], Keys.SHIFT)
    _chosen(person, 4)
    person.open_panel("Label them")
    person.type_into("[role=dialog] input", "winter fares")
    person.click("Give it")
    person.see_text("Labelled 4 captures “winter fares”.")
    person.open_panel("Move them")
    person.type_into("[role=dialog] input", "Help pages")
    person.click("Make and move")
    person.see_text("Moved 4 captures into “Help pages”.")
    (folder,) = [row for row in person.ask("/folders") if row["name"] == "Help pages"]
    assert folder["count"] == 4

    person.open_panel("Hand over 4 captures")
    person.see("[data-way=disk]")
    person.until(lambda _: person.driver.find_elements(By.XPATH, "//label[contains(., 'the pictures')]"))
    person.driver.find_element(By.XPATH, "//label[contains(., 'the pictures')]/input").click()
    person.type_into("[data-way] input[maxlength]", "{number}-{title}")
    person.until(lambda _: "1-" in person.see("[data-examples]").text, what="names by the pattern")
    person.click_on("[data-way] button[type=submit]")
    person.until(lambda _: list(person.downloads.glob("*.zip")), what="the archive")
    (file,) = person.downloads.glob("*.zip")
    with zipfile.ZipFile(io.BytesIO(file.read_bytes())) as archive:
        pictures = [name for name in archive.namelist() if name.endswith(".png")]
        assert len(pictures) == 4
        assert {"manifest.json", "manifest.csv"} <= set(archive.namelist())

    person.close_panels()
    person.click("Help pages")
    person.until(lambda _: len(person.all("[data-capture]")) == 4, what="what lies in the folder")
    Select(person.see("select[aria-label=Label]")).select_by_value("winter fares")
    person.until(lambda _: len(person.all("[data-capture]")) == 4, what="what has the label")
    person.click_on("[aria-label='Chosen captures'] button:has(svg.lucide-trash-2)")
    person.see_text("Deleted 4 captures.")
    person.until(lambda _: not person.all("[data-capture]"), what="nothing left")
    person.click("Undo")
    person.until(lambda _: len(person.all("[data-capture]")) == 4, what="all of them back")
    person.click_on("button[aria-label^='Delete the folder Help pages']")
    person.until(
        lambda _: all(row["name"] != "Help pages" for row in person.ask("/folders")), what="no folder"
    )
    assert {row["folder"] for row in person.ask("/captures?label=winter%20fares")["captures"]} == {None}


@pytest.mark.long
def test_the_shelf_as_a_list_is_sorted_and_a_search_is_kept(person: Person) -> None:
    small = person.uploaded(gradient(60, 40))
    tall = person.uploaded(gradient(60, 400))
    middle = person.uploaded(gradient(60, 200))
    # Other journeys leave taller pages on the shelf, which would push these out of sight.
    of_ours = {"ids": [small, tall, middle], "action": "label", "label": "by height"}
    person.change("POST", "/captures/batch", of_ours)
    person.open("/shelf")
    person.click_on("[aria-label='As a list']")
    person.see("[data-shelf-list]")

    def order() -> list[int]:
        rows = [
            int(row.get_attribute("data-capture") or 0)
            for row in person.all("[data-shelf-list] [data-capture]")
        ]
        return [pk for pk in rows if pk in (small, tall, middle)]

    person.until(lambda _: order() == [middle, tall, small], what="the newest first")
    Select(person.see("select[aria-label=Label]")).select_by_value("by height")
    person.click("Size, px")
    person.until(lambda _: order() == [tall, middle, small], what="the tallest first")
    Select(person.see("[aria-label=State]")).select_by_visible_text("not whole")
    person.see_text("Nothing on the shelf is like that.")
    Select(person.see("[aria-label=State]")).select_by_visible_text("taken")
    person.until(lambda _: order() == [tall, middle, small], what="those that are taken")
    person.click("Keep this search")
    person.type_into("[aria-label='Name of the search']", "Tall ones")
    person.click("Keep it")
    person.see("[aria-label='Keep the search Tall ones no longer']")
    person.open("/")
    person.open("/shelf")
    person.until(lambda _: order() == [middle, tall, small], what="the list, newest first")
    person.click("Tall ones")
    person.until(lambda _: order() == [tall, middle, small], what="what was kept")
    person.click_on("[aria-label='Keep the search Tall ones no longer']")
    person.until(lambda _: person.ask("/searches") == [], what="it is kept no longer")
    person.click_on("[aria-label='As cards']")
    person.see("[data-shelf-grid]")


@pytest.mark.long
def test_captures_leave_as_an_archive_and_are_brought_in_again(person: Person) -> None:
    capture_id = person.uploaded(gradient(60, 90))
    person.open("/shelf")
    person.choose(capture_id, Keys.CONTROL)
    _chosen(person, 1)
    person.open_panel("Hand over 1 capture")
    person.click("Archive")
    person.see_text("also what cuts hide")
    assert not person.button("Save the archive").is_enabled()
    person.click_on("[data-way=archive] input[type=checkbox]")
    person.click("Save the archive")
    person.until(lambda _: list(person.downloads.glob("*-archive.zip")), what="the archive")
    (archive,) = person.downloads.glob("*-archive.zip")
    person.click_on("[aria-label='Choose none']")
    before = len(person.ask("/captures/ids")["ids"])
    person.open("/shelf/data")
    person.see("[data-kind=captures]")
    person.driver.find_element(By.CSS_SELECTOR, "[data-archive]").send_keys(str(archive))
    person.see_text("1 capture brought in.")
    assert len(person.ask("/captures/ids")["ids"]) == before + 1
    newest = person.ask("/captures")["captures"][0]
    assert newest["id"] != capture_id
    assert (newest["width_px"], newest["height_px"]) == (60, 90)
    person.open_panel("Clear thumbnails and the like")
    person.click_on("[role=dialog] button")
    person.until(lambda _: person.ask("/data-folder")["kinds"]["views"]["bytes"] == 0, what="they are gone")


@pytest.mark.long
def test_the_files_of_two_are_made_for_an_outlet_at_once(person: Person) -> None:
    ids = [person.uploaded(gradient(60, 70 + number)) for number in range(2)]
    (outlet, *_) = [row for row in person.ask("/outlets") if row["slots"]]
    person.open("/shelf")
    for capture_id in ids:
        person.choose(capture_id, Keys.CONTROL)
    _chosen(person, 2)
    person.open_panel("Make their files")
    person.click(outlet["name"])
    person.see_text("under way.")
    slots = {slot["id"] for slot in outlet["slots"]}
    for capture_id in ids:
        cut = person.ask(f"/captures/{capture_id}")["cuts"][0]["id"]
        person.until(
            lambda _, cut=cut: {row["slot_id"] for row in person.ask(f"/cuts/{cut}/outputs")} == slots,
            what="a row for each slot",
        )
    person.click("Take again")
    person.see_text("2 dropped pictures left out.")
