"""Screens from a phone's to the widest: everything can be reached, and nothing lies over another."""

from collections.abc import Callable, Iterator

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person

pytestmark = pytest.mark.browser
Resize = Callable[..., None]

_COVERED = """
const covered = [];
const scrolledAway = (row, x, y) => {
  for (let around = row.parentElement; around; around = around.parentElement) {
    if (getComputedStyle(around).overflowY === "visible") continue;
    const box = around.getBoundingClientRect();
    if (x < box.left || x > box.right || y < box.top || y > box.bottom) return true;
  }
  return false;
};
for (const row of document.querySelectorAll(arguments[0])) {
  if (row.disabled || row.ariaDisabled === "true" || row.type === "file") continue;
  if (!row.checkVisibility({ contentVisibilityAuto: true })) continue;
  const box = row.getClientRects()[0] ?? row.getBoundingClientRect(); // of words on two lines, the first
  const [x, y] = [box.left + box.width / 2, box.top + box.height / 2];
  if (box.width === 0 || row.closest(".sr-only") || scrolledAway(row, x, y)) continue;
  const top = document.elementFromPoint(x, y);
  const label = row.closest('label');
  if (!top || !(row.contains(top) || top.contains(row) && top === label || label?.contains(top)))
    covered.push((row.getAttribute('aria-label') ?? row.textContent).slice(0, 60));
}
return covered;
"""
_TOO_WIDE = "return document.documentElement.scrollWidth - innerWidth"


@pytest.fixture
def resize(person: Person) -> Iterator[Resize]:
    """Gives the window another size, with or without touch; afterwards it is as it was."""

    def to(width: int, height: int, *, touch: bool = False) -> None:
        metrics = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": touch}
        person.driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
        person.driver.execute_cdp_cmd("Emulation.setTouchEmulationEnabled", {"enabled": touch})

    yield to
    to(1280, 800)


def _covered(person: Person, css: str) -> list[str]:
    return list(person.driver.execute_script(_COVERED, css))


def test_on_the_bench_every_control_is_reached(person: Person, resize: Resize) -> None:
    capture_id = person.stored("/departures")
    for _ in range(8):
        person.change("POST", f"/captures/{capture_id}/cuts")
    person.open_bench(capture_id)
    person.add_slot("Thumb")
    person.see("[data-output][data-state=done]")
    for width in (1024, 1280, 2560):
        resize(width, 800)
        person.open_bench(capture_id)
        person.see("[data-output][data-state=done]")
        controls = "header :is(a, button, textarea), main :is(button, input, a, select)"
        assert _covered(person, controls) == [], width
        person.type_into("[data-output] button", "c")
        person.see("[data-compare]")
        assert _covered(person, controls) == [], width


def _swipe(person: Person, across: int) -> None:
    start = {"x": 195, "y": 500}
    touch = "Input.dispatchTouchEvent"
    person.driver.execute_cdp_cmd(touch, {"type": "touchStart", "touchPoints": [start]})
    for part in (0.3, 0.7, 1):
        point = {"x": start["x"] + round(across * part), "y": 502}
        person.driver.execute_cdp_cmd(touch, {"type": "touchMove", "touchPoints": [point]})
    person.driver.execute_cdp_cmd(touch, {"type": "touchEnd", "touchPoints": []})


@pytest.mark.long
def test_a_phone_shows_shelf_sweeps_proofs_and_the_large_view(person: Person, resize: Resize) -> None:
    sweep_id = person.sweep("/departures", "/planning", screens=3)
    resize(390, 844, touch=True)
    for path in ("/", "/shelf", "/sweeps", f"/sweeps/{sweep_id}", "/shelf/deleted"):
        person.open(path)
        person.see("h1")
        assert person.driver.execute_script(_TOO_WIDE) <= 0, path
        assert _covered(person, "header :is(a, button), main :is(a, button, input, h1)") == [], path
    person.open(f"/sweeps/{sweep_id}")
    person.click_on("[data-shot][data-state=done]")
    person.see("[data-large] [data-picture] img")
    assert _covered(person, "[data-large] :is(button, a)") == []
    picture = "return document.querySelector('[data-picture] img').getBoundingClientRect().width"
    assert person.driver.execute_script(picture) <= 390
    shown = person.see("[data-large] [data-shown]").get_attribute("data-shown")
    _swipe(person, -200)
    person.until(lambda _: person.see("[data-large] [data-shown]").get_attribute("data-shown") != shown)
    _swipe(person, 200)
    person.until(lambda _: person.see("[data-large] [data-shown]").get_attribute("data-shown") == shown)
    person.click("Close")
    person.until(lambda _: not person.all("[data-large]"))


@pytest.mark.long
def test_the_large_view_holds_the_focus_and_gives_it_back(person: Person) -> None:
    sweep_id = person.begin_sweep("/departures", "/planning", screens=1, pause_ms=5_000)
    person.open(f"/sweeps/{sweep_id}")
    person.click_on("[data-shot][data-state=done]")
    person.see("[data-large] [data-picture] img")
    inside = "return document.activeElement.closest('[data-large]') !== null"
    assert person.driver.execute_script(inside)
    person.driver.execute_script("document.querySelector('[data-large]').opened = true")
    for presses in (1, 1, 2, 3, 1, 4, 1, 1, 2, 1):
        # Several at once come faster than the screen is drawn.
        ActionChains(person.driver).send_keys(Keys.TAB * presses).perform()
        # A mark at each end hands the focus round, or to the browser's own bars; never to what is behind.
        marks = "document.activeElement.matches('body, [data-base-ui-focus-guard]')"
        assert person.driver.execute_script(f"{inside} || {marks}")
    behind = person.driver.execute_script(
        "return document.elementFromPoint(60, 20).closest('[data-large]') !== null"
    )
    assert behind, "what is behind cannot be pressed"
    person.see_text("ended")
    person.until(lambda _: len(person.all("[data-shot][data-state=done]")) == 2, what="both pictures")
    still = "return document.querySelector('[data-large]').opened"
    assert person.driver.execute_script(still), "the sweep's end does not open the view anew"
    person.press("k")
    person.until(lambda _: person.ask(f"/sweeps/{sweep_id}")["count"]["by_filter"].get("keep") == 1)
    person.press(Keys.ESCAPE)
    person.until(lambda _: not person.all("[data-large]"))
    focus = "return document.activeElement.hasAttribute('data-proofs')"
    person.until(lambda driver: driver.execute_script(focus), what="the proofs in hand again")


@pytest.mark.long
def test_heads_of_columns_stay_and_going_back_returns_to_the_place(person: Person) -> None:
    pages = [f"/notices/{number}" for number in range(6)]
    sweep_id = person.sweep(*pages, screens=1)
    person.open(f"/sweeps/{sweep_id}")
    person.see("[data-shot][data-state=done]")
    scrolled = "const p = document.querySelector('[data-proofs]'); p.scrollTo(0, 500); return p.scrollTop"
    left = person.driver.execute_script(scrolled)
    assert left > 300
    top = "return document.querySelector('[data-heads]').getBoundingClientRect().top"
    edge = "return document.querySelector('[data-proofs]').getBoundingClientRect().top"
    assert person.driver.execute_script(top) == person.driver.execute_script(edge)
    shots = "[data-shot][data-state=done]"
    person.until(lambda _: len(person.all(shots)) > 2)
    person.driver.execute_script("[...document.querySelectorAll(arguments[0])].at(-1).click()", shots)
    person.see("[data-large] [data-picture] img")
    person.click("Open on the Bench")
    person.see("[data-frame]")
    person.driver.back()
    person.see("[data-large] [data-picture] img")
    person.press(Keys.ESCAPE)
    now = "return document.querySelector('[data-proofs]').scrollTop"
    person.until(lambda driver: abs(driver.execute_script(now) - left) < 5, what="the place it was left at")
