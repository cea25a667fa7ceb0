"""What holds on every screen: keys, access for all, ways that lead nowhere."""

from pathlib import Path

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person

pytestmark = pytest.mark.browser
AXE = Path(__file__).parents[2] / "frontend" / "node_modules" / "axe-core" / "axe.min.js"

_OPEN_ALL = "for (const row of document.querySelectorAll('details')) row.open = true;"


def test_the_main_path_works_without_a_mouse(person: Person) -> None:
    person.open("/")
    person.see("[data-address-field]")
    before = person.newest_capture()
    person.press(f"{person.application.site}/departures{Keys.ENTER}")
    person.until(lambda _: person.newest_capture() > before)
    capture_id = person.newest_capture()
    person.tab_to("nav[aria-label=Screens] a[href='/shelf'], [data-how-to-take] summary")
    person.press("s")
    card = f"article[data-capture='{capture_id}']"
    person.see(f"{card}[data-state=done]")
    person.tab_to(f"{card} a[href='/captures/{capture_id}']")
    person.press(Keys.ENTER)
    person.see("[data-frame]")
    person.tab_to("[data-field=height_px]")
    person.press(f"300{Keys.ENTER}")
    person.see_frame(0, 0, 1_280, 300)
    person.tab_to("[data-zoom]")
    for keys in ((Keys.ALT, Keys.ARROW_DOWN), (Keys.SHIFT, Keys.ARROW_DOWN)):
        ActionChains(person.driver).key_down(keys[0]).send_keys(keys[1]).key_up(keys[0]).perform()
    person.see_frame(0, 10, 1_280, 301)
    person.tab_to("#add-slot")
    person.until(lambda _: person.all("#add-slot option:not([disabled])"))
    person.press("Thumb")
    person.tab_to("button:not([disabled])")
    person.press(Keys.ENTER)
    person.see("[data-output][data-state=done]")
    assert len(person.all("[data-output]")) == 1, "going through the list by keys adds nothing"
    person.press("c")
    person.until(lambda driver: "/compare/" in driver.current_url)
    person.see("[role=slider][aria-label^=Split]")
    person.press(Keys.ARROW_RIGHT)
    person.until(
        lambda _: person.see("[role=slider][aria-label^=Split]").get_attribute("aria-valuenow") != "50"
    )
    person.press(Keys.ESCAPE)
    person.see("[data-frame]")
    person.until(lambda _: person.all("[data-output][data-state=done]"))
    person.press("d")
    person.until(lambda _: person.saved_file())


@pytest.mark.long
def test_the_question_mark_shows_every_key_but_not_while_typing(person: Person) -> None:
    person.open("/")
    field = person.see("[data-address-field]")
    field.send_keys("?")
    assert field.get_attribute("value") == "?"
    assert not person.all("[role=dialog][aria-label=Keys]")
    person.open("/shelf")
    person.see("h1")
    person.press("?")
    person.until(lambda _: "fit the width" in person.see("[role=dialog][aria-label=Keys]").text)


def test_the_screens_of_the_main_path_pass_the_access_checks(person: Person) -> None:
    capture_id = person.stored("/departures")
    for path in ("/", "/shelf", f"/captures/{capture_id}", "/outlets"):
        person.open(path)
        person.see("[data-frame]" if "captures" in path else "h1")
        person.driver.execute_script(AXE.read_text("utf-8"))
        assert _violations(person) == [], path


@pytest.mark.long
def test_every_screen_passes_the_access_checks(person: Person) -> None:
    capture_id = person.stored("/departures")
    sweep_id = person.sweep("/departures", screens=1)
    person.open_bench(capture_id)
    person.add_slot("Thumb")
    person.see("[data-output][data-state=done]")
    (output,) = person.ask(f"/cuts/{person.ask(f'/captures/{capture_id}')['cuts'][0]['id']}/outputs")
    bench = f"/captures/{capture_id}"
    compare = f"{bench}/cuts/{output['cut_id']}/compare/{output['id']}"
    gone = person.stored("/planning")
    join = person.change("POST", "/joins", {"captures": [capture_id, gone]})
    person.until(lambda _: person.ask(f"/joins/{join['id']}")["state"] == "missing", what="the join")
    person.change("DELETE", f"/captures/{gone}")
    paths = ["/", "/shelf", "/shelf/deleted", "/outlets", "/sign-ins", "/sweeps", "/sweeps/new", "/nonsense"]
    routines = _screens_of_routines(person, capture_id)
    others = ["/keys", "/settings", "/grab", "/live", f"/joins/{join['id']}"]
    clip = _clip_with_a_file(person)
    screens = [*paths, bench, compare, *others, *routines, "/clips", f"/clips/{clip}", f"/sweeps/{sweep_id}"]
    for path in screens:
        person.open(path)
        person.see("h1")
        person.driver.execute_script(AXE.read_text("utf-8"))
        person.driver.execute_script(_OPEN_ALL)
        assert _violations(person) == [], path
        for button in person.all("button[aria-haspopup=dialog]"):
            button.click()
            person.see("[role=dialog]")
            assert _violations(person, "[role=dialog]") == [], (path, button.text)
            person.press(Keys.ESCAPE)
    person.click_on("[data-shot][data-state=done]")
    person.see("[data-large] [data-picture] img")
    assert _violations(person) == [], "the large view"


def _screens_of_routines(person: Person, capture_id: int) -> list[str]:
    """The list, a chain with a sample, and a run with a picture that was left out."""
    slot = {"kind": "slot", "width_px": 300, "limit_bytes": 60_000}
    steps = [{"kind": "trim"}, {"kind": "frame_block", "block": {"role": "video"}}, slot]
    document = {"version": 1, "name": "Looked at", "steps": steps}
    routine = person.change("POST", "/routines", {"document": document})
    run = person.change("POST", f"/routines/{routine['id']}/runs", {"captures": [capture_id]})
    person.until(lambda _: person.ask(f"/runs/{run['id']}")["finished"], what="the end of the run")
    return ["/routines", f"/routines/{routine['id']}?sample={capture_id}", f"/runs/{run['id']}"]


def _clip_with_a_file(person: Person) -> int:
    """A clip with a file that cannot be made so light, which says what would help."""
    asked = {
        "address": f"{person.application.site}/quay",
        "kind": "watch",
        "seconds": 0.4,
        "element": ".quay",
    }
    clip: int = person.change("POST", "/clips", asked)["id"]
    person.until(lambda _: person.ask(f"/clips/{clip}")["frame_count"], what="its frames")
    person.change("POST", f"/clips/{clip}/files", {"format": "gif", "limit_bytes": 500})
    person.until(
        lambda _: person.ask(f"/clips/{clip}")["outputs"][0]["job"]["state"] == "done", what="its file"
    )
    return clip


_THEMES = ("tallpage", "tallpage-night")
_CHECKS = """
const [css, asked, theme, done] = arguments;
const put = (name) => {
  document.documentElement.dataset.theme = name;
  for (const row of document.getAnimations()) if (row instanceof CSSTransition) row.finish();
};
put(theme);
axe.run(css, asked).then((found) => {
  put("tallpage");
  done(found.violations);
});
"""


def _violations(person: Person, css: str = "html") -> list[tuple[str, str, list[str]]]:
    """What the access checks have to say of what is shown there; at night only what colours can change."""
    found = []
    for theme in _THEMES:
        asked = {"runOnly": ["color-contrast"]} if theme == "tallpage-night" else {}
        for row in person.driver.execute_async_script(_CHECKS, css, asked, theme):
            found.append((theme, row["id"], [node["html"][:160] for node in row["nodes"]]))
    return found


_LIGHTNESS = """
const painter = document.createElement("canvas").getContext("2d", { willReadFrequently: true });
const light = (colour) => {
  painter.fillStyle = colour;
  painter.fillRect(0, 0, 1, 1);
  const parts = [...painter.getImageData(0, 0, 1, 1).data].slice(0, 3).map((part) => part / 255);
  const [r, g, b] = parts.map((part) => (part <= 0.03928 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4));
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
};
const contrast = (one, other) => {
  const [low, high] = [light(one), light(other)].sort((a, b) => a - b);
  return (high + 0.05) / (low + 0.05);
};
const field = document.querySelector(arguments[0]);
const paper = getComputedStyle(document.documentElement).backgroundColor;
const ground = getComputedStyle(field).backgroundColor;
const edge = contrast(getComputedStyle(field).borderTopColor, paper);
const empty = getComputedStyle(field.querySelector("input") ?? field, "::placeholder");
const faint = contrast(empty.color, ground);
document.querySelector("nav a").focus({ focusVisible: true });
const ring = contrast(getComputedStyle(document.activeElement).outlineColor, paper);
return { edge, faint, ring };
"""


@pytest.mark.long
@pytest.mark.parametrize("theme", ["tallpage", "tallpage-night"])
def test_edges_rings_and_words_in_empty_fields_can_be_seen(person: Person, theme: str) -> None:
    person.open("/")
    person.driver.execute_script("localStorage.setItem('tallpage.theme', arguments[0])", theme)
    for path, field in (("/shelf", "label.input"), ("/", "[data-address-field]")):
        person.open(path)
        person.see(field)
        seen = person.driver.execute_script(_LIGHTNESS, field)
        assert seen["edge"] >= 3, (path, seen)
        assert seen["ring"] >= 3, (path, seen)
        assert seen["faint"] >= 4.5, (path, seen)


@pytest.mark.long
def test_escape_closes_the_keys_and_nothing_behind_them(person: Person) -> None:
    capture_id = person.stored("/departures")
    person.open_bench(capture_id)
    person.add_slot("Thumb")
    person.type_into("[data-output][data-state=done] button", "c")
    person.see("[data-compare]")
    person.press("?")
    person.see("[role=dialog][aria-label=Keys]")
    person.press(Keys.ESCAPE)
    person.until(lambda _: not person.all("[role=dialog][aria-label=Keys]"))
    person.see("[data-compare]")
    ActionChains(person.driver).send_keys(Keys.ESCAPE).perform()
    person.see("[data-frame]")


@pytest.mark.long
def test_an_address_that_leads_nowhere_says_so(person: Person) -> None:
    person.open("/nonsense")
    person.see_text("There is no such screen")


@pytest.mark.long
def test_a_key_of_ones_own_is_set_by_pressing_takes_another_ones_place_and_is_used(person: Person) -> None:
    person.open("/")
    person.press(Keys.TAB)
    person.click("Keys")
    person.click("Change keys")

    def change(action: str, *keys: str) -> None:
        person.click_on(f"[data-action={action}] button[aria-label^='Key of']")
        person.see_text("Press a key…")
        ActionChains(person.driver).send_keys(*keys).perform()

    try:
        change("outlets", "z")
        person.until(lambda _: person.ask("/me/keys")["keys"] == {"outlets": ["z"]}, what="the key is kept")
        change("sweeps", "s")
        person.see_text("S does “Shelf” here.")
        person.click("Take it from there")
        chosen = {"outlets": ["z"], "sweeps": ["s"], "shelf": []}
        person.until(lambda _: person.ask("/me/keys")["keys"] == chosen, what="both keys")
        person.press("z")
        person.until(lambda driver: driver.current_url.endswith("/outlets"), what="the key is heard")
        person.driver.execute_script("localStorage.clear()")
        person.open("/keys")  # another browser: the server knows them
        person.see("[data-action=outlets] button[aria-label='Key of “Outlets”: Z']")
        person.press("s")
        person.until(lambda driver: driver.current_url.endswith("/sweeps"), what="the other key")
        person.open("/keys")
        person.click("All as usual")
        person.until(lambda _: person.ask("/me/keys")["keys"] == {}, what="the usual keys")
    finally:
        person.change("POST", "/me/keys", {"keys": {}})
