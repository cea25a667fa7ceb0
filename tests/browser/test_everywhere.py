"""What holds on every screen: keys, access for all, ways that lead nowhere."""

from pathlib import Path

import pytest
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person

pytestmark = [pytest.mark.browser, pytest.mark.xdist_group("browser")]
AXE = Path(__file__).parents[2] / "frontend" / "node_modules" / "axe-core" / "axe.min.js"

_OPEN_ALL = "for (const row of document.querySelectorAll('details')) row.open = true;"


def test_the_main_path_works_without_a_mouse(person: Person) -> None:
    capture_id = person.take("/departures")
    person.open("/shelf")
    person.see(f"article[data-capture='{capture_id}'][data-state=done]")
    person.press("g")
    person.until(lambda driver: driver.current_url.endswith("/"))
    person.press(Keys.ESCAPE)
    link = person.see(f"article[data-capture='{capture_id}'] a")
    link.send_keys(Keys.ENTER)
    person.see("[data-frame]")
    slot = person.see("#add-slot")
    person.until(lambda _: person.all("#add-slot option:not([disabled])"))
    slot.send_keys("Thumb")
    person.press(Keys.TAB)
    person.press(Keys.ENTER)
    person.see("[data-output][data-state=done]")
    assert len(person.all("[data-output]")) == 1, "going through the list by keys adds nothing"
    person.see("[data-output] button").send_keys("c")
    person.until(lambda driver: "/compare/" in driver.current_url)
    person.press(Keys.ESCAPE)
    person.see("[data-frame]")
    person.until(lambda _: person.all("[data-output][data-state=done]"))
    person.press("d")
    person.until(lambda _: person.saved_file())


def test_the_question_mark_shows_every_key_but_not_while_typing(person: Person) -> None:
    person.open("/")
    field = person.see("[data-address-field]")
    field.send_keys("?")
    assert field.get_attribute("value") == "?"
    assert not person.all("dialog[open]")
    person.open("/shelf")
    person.see("h1")
    person.press("?")
    person.until(lambda _: "fit the width" in person.see("dialog[open]").text)


@pytest.mark.parametrize("theme", ["tallpage", "tallpage-night"])
def test_every_screen_passes_the_access_checks(person: Person, theme: str) -> None:
    capture_id = person.take("/departures")
    person.driver.execute_script("localStorage.setItem('tallpage.theme', arguments[0])", theme)
    for path in ("/", "/shelf", "/outlets", "/sign-ins", f"/captures/{capture_id}"):
        person.open(path)
        person.see("h1")
        person.driver.execute_script(_OPEN_ALL)
        assert person.driver.execute_script("return document.documentElement.dataset.theme") == theme
        person.driver.execute_script(AXE.read_text("utf-8"))
        found = person.driver.execute_async_script(
            "axe.run(document).then((r) => arguments[0](r.violations))"
        )
        assert [(row["id"], [node["html"][:160] for node in row["nodes"]]) for row in found] == [], path


def test_an_address_that_leads_nowhere_says_so(person: Person) -> None:
    person.open("/nonsense")
    person.see_text("There is no such screen")
