"""Several cuts of one page: called, duplicated, put in order, deleted and put back."""

import numpy as np
import pytest
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person

pytestmark = pytest.mark.browser


def _names(person: Person, capture_id: int) -> list[str]:
    return [row["name"] for row in person.ask(f"/captures/{capture_id}")["cuts"]]


def _named(person: Person, capture_id: int, *names: str) -> None:
    person.until(lambda _: _names(person, capture_id) == [*names], what=f"{names}")


@pytest.mark.long
def test_cuts_are_called_duplicated_ordered_deleted_and_put_back(person: Person) -> None:
    page_id = person.picture(np.full((900, 600, 3), 230, dtype=np.uint8))
    person.open_bench(page_id)
    person.type_number("height_px", 300)
    person.see_saved()
    person.open_panel("Cuts of this page")
    person.type_into("[aria-label='Name of Cut 1']", Keys.CONTROL, "a")
    person.type_into("[aria-label='Name of Cut 1']", "Header", Keys.ENTER)
    _named(person, page_id, "Header")
    person.click("Duplicate Header")
    _named(person, page_id, "Header", "Header again")
    person.until(lambda driver: not driver.current_url.endswith(f"/captures/{page_id}"), what="the other cut")
    person.see_frame(0, 0, 600, 300)
    person.see("[data-other-cut]")
    person.open_panel("Cuts of this page")
    person.click("Move Header again up")
    _named(person, page_id, "Header again", "Header")
    person.click("Delete Header again")
    _named(person, page_id, "Header")
    person.click_on("[aria-label=Notices] .btn-accent")
    _named(person, page_id, "Header again", "Header")
