"""Files that are divided, that follow the frame, and that are looked at closely."""

import zipfile

import pytest
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from tests.browser.person import Person
from tests.pictures import decoded

pytestmark = pytest.mark.browser


def _fitted(person: Person, count: int) -> None:
    person.until(lambda _: len(person.all("[data-output][data-state=done]")) == count, what=f"{count} files")


def _add_own(person: Person, width: str, limit: str) -> None:
    person.type_into("[placeholder='720']", width)
    person.type_into("[placeholder='90']", limit, Keys.ENTER)


@pytest.mark.long
def test_a_page_is_divided_and_the_break_moved(person: Person) -> None:
    person.open_bench(person.stored("/timetable"))
    _add_own(person, "320", "60")
    _fitted(person, 1)
    person.click("One leaf more")
    person.see_text("2 leaves")
    _fitted(person, 1)
    person.see("[data-spine] [data-weight-line]")
    on_spine = person.see("[data-spine] [data-break]")
    before = int(on_spine.get_attribute("aria-valuenow"))
    on_spine.send_keys(Keys.SHIFT, Keys.ARROW_DOWN)
    moved = person.until(
        lambda _: (
            (now := int(person.see("[data-spine] [data-break]").get_attribute("aria-valuenow"))) != before
            and now
        )
    )
    assert moved == before + 10

    def first_leaf_px() -> int:
        size = person.all("[aria-label=Leaves] li .figure")[1].text
        return int(size.partition("× ")[2].replace(",", ""))

    person.see_text("Automatic")
    person.until(
        lambda _: abs(first_leaf_px() - moved * 320 / 1_280) <= 1, what="the leaves of the moved break"
    )
    person.click("Save all")
    archive = person.until(lambda _: next(iter(person.downloads.glob("*.zip")), None), what="the ZIP")
    with zipfile.ZipFile(archive) as file:
        shapes = [decoded(file.read(name)).shape for name in file.namelist()]
    assert [width for _, width, _ in shapes] == [320, 320]
    assert abs(shapes[0][0] - round(moved * 320 / 1_280)) <= 1
    person.click("Automatic")
    person.see_text("One file")
    person.until(lambda _: not person.all("[data-spine] [data-break]"), what="the page is whole again")


@pytest.mark.long
def test_a_file_fills_a_box_and_says_what_it_shows(person: Person) -> None:
    person.open_bench(person.stored("/departures"))
    sizes = next(row for row in person.all("select") if "By width" in row.text)
    Select(sizes).select_by_visible_text("Fill a box")
    for label, text in (("Width, px", "300"), ("Height, px", "200"), ("Limit, kB", f"40{Keys.ENTER}")):
        person.field(label).send_keys(text)
    _fitted(person, 1)
    person.see_text("300 × 200 px, filled")
    assert not person.all("[aria-label=Leaves]")
    person.click("Save file")
    file = person.until(lambda _: person.saved_file())
    assert decoded(file.read_bytes()).shape == (200, 300, 3)


@pytest.mark.long
def test_a_changed_frame_is_fitted_to_by_itself(person: Person) -> None:
    person.open_bench(person.stored("/departures"))
    person.add_slot("720 px")
    _fitted(person, 1)
    row = person.see("[data-output] > button")
    height = person.see("[data-field=height_px]")
    height.send_keys(Keys.CONTROL, "a")
    height.send_keys("640", Keys.ENTER)
    person.until(lambda _: "720 × 360" in row.text, what="the file of the new frame")
    assert "has changed" not in person.see("[data-output]").text


@pytest.mark.long
def test_original_and_result_are_compared_closely(person: Person) -> None:
    person.open_bench(person.stored("/departures"))
    person.add_slot("720 px")
    person.add_slot("600 px")
    _fitted(person, 2)
    # The other one is lossless: it has no worst place.
    story = "//*[@data-output][contains(., 'Story')]//*[self::a or self::button][contains(., 'Compare')]"
    person.driver.find_element(By.XPATH, story).click()
    person.see("[data-compare=split] img")
    person.press("n")
    person.see("[data-worst-place='0']")
    person.see("[data-place]")
    person.click("4:1")
    person.until(
        lambda driver: driver.execute_script(
            "const box = document.querySelector('[data-place]').getBoundingClientRect();"
            "return box.top < 800 && box.bottom > 136 && box.left < 940 && box.right > 0;"
        ),
        what="the place stays in view",
    )
    person.press("2")
    panes = person.until(
        lambda _: person.all("[data-compare] img[data-side]") and person.all("[data-compare]")
    )
    assert [pane.get_attribute("data-compare") for pane in panes] == ["original", "result"]
    person.press("3")
    person.until(
        lambda _: person.see("img[data-side=difference]").get_property("naturalWidth") > 0, what="difference"
    )
    address = person.driver.current_url
    Select(person.see("select")).select_by_index(0)
    person.until(lambda driver: driver.current_url != address, what="the other file")
    person.see("[data-compare=difference]")
