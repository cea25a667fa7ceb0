"""Routines as a person uses them: kept from the Bench, tried, run, carried from one place to another."""

from __future__ import annotations

import contextlib
import json
from pathlib import Path
from typing import Any

import psutil
import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from tests.browser.person import Person
from tests.pictures import as_png, assert_same_pixels, decoded, text_page

pytestmark = pytest.mark.browser

SLOT = {"kind": "slot", "name": "Story", "width_px": 300, "limit_bytes": 60_000, "formats": ["png"]}


def _routine(person: Person, name: str, *steps: dict[str, Any]) -> int:
    document = {"version": 1, "name": name, "steps": [*steps]}
    return int(person.change("POST", "/routines", {"document": document})["id"])


def _ended(person: Person, *, after: int = 0) -> dict[str, Any]:
    """The run on the screen, later than another one, once it has ended."""

    def there(_: object) -> dict[str, Any] | None:
        number = person.driver.current_url.rpartition("/runs/")[2]
        run: dict[str, Any] = (
            person.ask(f"/runs/{number}") if number.isdecimal() and int(number) > after else {}
        )
        return run if run.get("finished") and person.all("[data-run-state=ended]") else None

    ended: dict[str, Any] = person.until(there, what="the end of the run")
    return ended


def _items(person: Person, run: dict[str, Any]) -> list[dict[str, Any]]:
    rows: list[dict[str, Any]] = person.ask(f"/runs/{run['id']}/items")["items"]
    return rows


def _see_labelled(person: Person, found: str) -> None:
    """The shelf with the five that have a label, nothing chosen."""
    person.open("/shelf")
    labels = person.until(
        lambda driver: driver.find_elements(By.XPATH, "//select[option[contains(., 'Five')]]"), what="labels"
    )
    Select(labels[0]).select_by_visible_text("Five (5)")
    person.until(lambda _: len(person.all(found)) == 5, what="the five")


def test_what_was_done_once_is_kept_tried_and_run_over_five(person: Person) -> None:
    captures = [person.stored(path) for path in ("/timetable", "/offices", "/", "/offices", "/notices/3")]
    (cut,) = person.ask(f"/captures/{captures[1]}")["cuts"]
    table = next(row for row in person.ask(f"/captures/{captures[1]}/map") if row["role"] == "table")
    frame = {name: table[name] for name in ("x_px", "y_px", "width_px", "height_px")}
    shown = {"version": 1, "frame": frame, "dressing": {"border": {"width_px": 2, "colour": "#B8B2A4"}}}
    person.change("PATCH", f"/cuts/{cut['id']}", {"version": cut["version"], "document": shown})
    rules = {"width_px": 400, "limit_bytes": 80_000, "formats": ["png"]}
    person.change("POST", f"/cuts/{cut['id']}/outputs", {"rules": rules})

    person.open_bench(captures[1])
    person.open_panel("Routines: this capture")
    person.type_into("input[aria-label='Name of the new routine']", "Fares of a page")
    person.click("Keep as routine")
    person.see("button[data-step='Step 2: Show a block']")
    person.see("button[data-step='Step 4: Make a file'] img")
    person.click_on("button[data-step='Step 4: Make a file']")
    person.click_on("button[aria-label='Ask for “Width, px” when it runs']")
    person.see("[data-save-state=saved]")

    person.change("POST", "/captures/batch", {"ids": captures, "action": "label", "label": "Five"})
    found = "input[type=checkbox][aria-label^='Choose']"
    _see_labelled(person, found)
    for box in person.all(found):
        person.driver.execute_script("arguments[0].click()", box)
    person.see("[data-chosen-count='5']")
    person.click("Routines")  # by the bar at the top: what is chosen stays chosen
    person.click_on("button[aria-label='Run Fares of a page']")
    person.see_text("the 5 captures chosen on the shelf")
    person.click("Try on three")
    tried = _ended(person)
    assert tried["trial"]
    assert len(_items(person, tried)) == 3
    person.see_text("Nothing was kept")
    person.click("Run on 5 pictures")
    run = _ended(person, after=tried["id"])
    assert (run["counts"]["done"], run["counts"]["skipped"]) == (4, 1)
    person.see_text("1 picture needs a look")
    first, *made = _items(person, run)
    assert first["capture_id"] == captures[4]
    assert all(file["met"] and file["width"] == 400 for item in made for file in item["files"])

    _see_labelled(person, found)
    person.driver.execute_script("arguments[0].click()", person.all(found)[0])
    person.open_panel("Run a routine: 1 capture")
    person.click("Fares of a page")
    person.type_into("[role=dialog] form input", "320")
    person.click_on("[role=dialog] form button[type=submit]")
    person.click("Show")
    asked = _ended(person)
    assert asked["values"] == {"width": "320"}


@pytest.mark.long
def test_a_chain_is_put_together_and_each_step_is_seen(person: Person) -> None:
    capture_id = person.picture(text_page(600, 900))
    person.open("/routines")
    person.click("New routine")
    person.click("From nothing")
    person.see_text("Nothing is done yet")
    routine_id = person.driver.current_url.rpartition("/")[2].partition("?")[0]
    person.open(f"/routines/{routine_id}?sample={capture_id}")

    def add(words: str) -> None:
        person.click("Add a step")
        person.click(words)

    add("Make a file")
    add("Border")
    person.see("button[data-step='Step 1: Border'] img")
    add("Show a fixed size")
    order = ["Step 1: Show a fixed size", "Step 2: Border", "Step 3: Make a file"]

    def in_order(_: object) -> bool:
        return [row.get_attribute("data-step") for row in person.all("ol button[aria-pressed]")] == order

    person.until(in_order, what="the order of work")
    width = person.see("input[aria-label='Width, px']")
    width.send_keys(Keys.CONTROL, "a")
    width.send_keys("200", Keys.ENTER)

    def followed(_: object) -> bool:
        looks = person.ask(f"/routines/{routine_id}/looks?capture={capture_id}")
        is_shown = person.see("[data-last-look]").get_attribute("data-last-look") == looks[-1]["key"]
        return [look["width_px"] for look in looks] == [600, 200, 200, 200] and is_shown

    person.until(followed, what="the last picture follows")
    person.click_on("button[data-step='Step 2: Border']")
    person.click_on("section input.toggle")
    person.see("button[data-step='Step 2: Border, off']")
    person.click("Duplicate this step")
    person.click("Move this step one place earlier")
    person.click("Remove this step")
    person.until(lambda _: len(person.all("ol button[aria-pressed]")) == 3, what="three steps")
    add("Show a block")
    person.see_text("there is no table on the page")


@pytest.mark.long
def test_what_was_kept_from_a_cut_is_changed_by_its_numbers(person: Person) -> None:
    box = {"kind": "box", "x_px": 40, "y_px": 40, "width_px": 300, "height_px": 120}
    words = {"kind": "text", "x_px": 60, "y_px": 60, "text": "Here"}
    area = {"x_px": 10, "y_px": 10, "width_px": 80, "height_px": 30, "how": "solid"}
    marks, hidden = {"kind": "marks", "marks": [box, words]}, {"kind": "hide_areas", "areas": [area]}
    number = _routine(person, "Drawn once", hidden, marks, SLOT)

    def step(at: int) -> dict[str, Any]:
        steps: list[dict[str, Any]] = person.ask(f"/routines/{number}")["document"]["steps"]
        return steps[at]

    person.open(f"/routines/{number}")
    person.click_on("button[data-step='Step 2: Marks']")
    person.type_into("[aria-label='x of box 1']", Keys.CONTROL, "a", Keys.NULL, "55\n")
    person.type_into("[aria-label='Words of text 2']", Keys.CONTROL, "a", Keys.NULL, "There\n")
    person.until(lambda _: step(1)["marks"][0]["x_px"] == 55, what="the box further right")
    person.until(lambda _: step(1)["marks"][1]["text"] == "There", what="other words")
    person.click_on("[aria-label='Leave out text 2']")
    person.until(lambda _: len(step(1)["marks"]) == 1, what="one mark fewer")
    person.click_on("button[data-step='Step 1: Hide areas']")
    Select(person.see("[aria-label='How area 1 is hidden']")).select_by_value("blur")
    person.until(lambda _: step(0)["areas"][0]["how"] == "blur", what="blur")


@pytest.mark.long
def test_a_routine_is_saved_deleted_opened_again_and_makes_the_same_pixels(person: Person) -> None:
    capture_id = person.picture(text_page(500, 700, seed=4))
    frame = {"kind": "frame_corner", "width_px": 400, "height_px": 300, "corner": "centre"}
    routine_id = _routine(person, "There and back", frame, SLOT)

    def pixels(routine: int) -> Any:
        run = person.change("POST", f"/routines/{routine}/runs", {"captures": [capture_id]})
        person.until(lambda _: person.ask(f"/runs/{run['id']}")["finished"], what="the end of the run")
        (output,) = person.ask(f"/runs/{run['id']}/outputs")
        return decoded(person.fetch(f"/outputs/{output}/file"))

    first = pixels(routine_id)
    person.open(f"/routines/{routine_id}")
    person.click("Save as a file")
    file = person.downloads / "there-and-back.json"
    person.until(lambda _: file.exists(), what="the file")
    person.open("/routines")
    person.click("Delete There and back")
    person.until(lambda _: not person.all("[data-routine='There and back']"), what="it has gone")
    person.all("input[aria-label='File of a routine']")[0].send_keys(str(file))
    person.see("button[data-step='Step 1: Show a fixed size']")
    opened = int(person.driver.current_url.rpartition("/")[2])
    assert opened != routine_id
    assert_same_pixels(pixels(opened), first)

    file.write_text(json.dumps({"version": 9, "name": "Newer", "steps": []}))
    person.open("/routines")
    person.all("input[aria-label='File of a routine']")[0].send_keys(str(file))
    person.see_text("The routine is of version 9")


@pytest.mark.long
def test_pictures_put_into_a_watched_folder_are_run_over(person: Person, tmp_path: Path) -> None:
    _routine(person, "From the quay", SLOT)
    person.open("/routines")
    section = person.see("section[aria-label='Watched folders']")
    Select(section.find_element(By.TAG_NAME, "select")).select_by_visible_text("From the quay")
    person.field("Name of the folder").send_keys("Quay")
    person.click("Watch a folder")
    folder = Path(
        person.until(lambda _: person.ask("/watched-folders"), what="the watched folder")[0]["path"]
    )
    (folder / "boat.png").write_bytes(as_png(text_page(400, 300)))
    (folder / "notes.txt").write_text("Boats go daily.")

    def done(_: object) -> bool:
        return any(run["watched_folder"] == "Quay" and run["finished"] for run in person.ask("/runs"))

    person.until(done, what="the run of the folder")
    assert (folder / "taken" / "boat.png").exists()
    assert (folder / "refused" / "notes.txt").exists()
    person.open("/routines")
    person.see_text("notes.txt: ")
    person.click("Leave it alone")
    person.until(lambda _: not person.ask("/watched-folders"), what="it is left alone")


def test_a_key_runs_a_routine_over_what_is_on_the_bench(person: Person) -> None:
    capture_id = person.picture(text_page(300, 300, seed=2))
    _routine(person, "By a key", SLOT)
    person.open("/routines")
    Select(person.see("select[aria-label='Key of By a key']")).select_by_visible_text("Alt + 7")
    person.until(lambda _: any(row["key"] == 7 for row in person.ask("/routines")), what="the key")
    person.open_bench(capture_id)
    person.open_panel("Routines: this capture")
    person.see_text("Alt + 7")
    person.close_panels()
    ActionChains(person.driver).key_down(Keys.ALT).send_keys("7").key_up(Keys.ALT).perform()
    person.click("Show")
    run = _ended(person)
    assert [item["capture_id"] for item in _items(person, run)] == [capture_id]


@pytest.mark.long
def test_a_page_in_the_address_field_is_taken_and_run_over_in_one_press(person: Person) -> None:
    _routine(person, "Take and make", {"kind": "take", "screen": "800x600"}, SLOT)
    person.open("/")
    person.see("[data-address-field]").send_keys(f"{person.application.site}/notices/3")
    person.click("Take and run")
    person.click("Take and make")
    person.until(
        lambda _: person.see("[data-address-field]").get_attribute("value") == "", what="a free field"
    )
    person.click("Show")
    run = _ended(person)
    (item,) = _items(person, run)
    assert item["state"] == "done"
    assert person.ask(f"/captures/{item['capture_id']}")["screen"]["width_px"] == 800


def _kill_workers(person: Person) -> int:
    """Kill every worker of the application, as a full memory does; how many there were."""
    killed = 0
    for process in psutil.process_iter(["cmdline"]):
        with contextlib.suppress(psutil.Error):
            is_worker = "tallpage.server.workers" in (process.info["cmdline"] or ())
            if is_worker and process.environ().get("TALLPAGE_HOME") == str(person.application.home):
                process.kill()
                killed += 1
    return killed


@pytest.mark.long
def test_a_sweep_with_a_routine_goes_on_after_its_workers_were_killed(person: Person) -> None:
    routine = _routine(person, "Each as it comes", {"kind": "trim"}, SLOT)
    paths = [f"/notices/{number}" for number in range(1, 7)]
    sweep_id = person.begin_sweep(*paths, screens=1, pause_ms=400)
    person.open(f"/routines/{routine}")
    panel = person.open_panel("Run Each as it comes")
    panel.find_element(By.XPATH, ".//label[contains(., 'each page of a sweep')]").click()
    name = person.ask(f"/sweeps/{sweep_id}")["name"]
    person.until(lambda _: name in panel.text, what="the sweep to be chosen")
    Select(panel.find_element(By.TAG_NAME, "select")).select_by_visible_text(name)
    panel.find_element(By.XPATH, ".//button[normalize-space(.)='Run']").click()
    person.until(lambda driver: "/runs/" in driver.current_url, what="the run")
    run_id = int(person.driver.current_url.rpartition("/runs/")[2].partition("?")[0])
    for done in (1, 3):
        person.until(
            lambda _, least=done: len(person.ask(f"/runs/{run_id}/items")["items"]) >= least, what="some"
        )
        assert _kill_workers(person) > 0
    run = _ended(person)
    items = _items(person, run)
    assert [item["state"] for item in items] == ["done"] * len(paths)
    assert len({item["capture_id"] for item in items}) == len(paths)
    assert all(len(item["files"]) == 1 for item in items)
    shots = [shot for row in person.ask(f"/sweeps/{sweep_id}/rows")["rows"] for shot in row["shots"]]
    assert sorted(shot["capture_id"] for shot in shots) == sorted(item["capture_id"] for item in items)
