"""Takes the pictures in ``docs/screenshots/`` anew, from the demo data: ``make screenshots``."""

from __future__ import annotations

import tempfile
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import WebDriverWait
from tests.browser.live_page import at, open_live, press_without_pointing, see_at
from tests.browser.person import Person
from tests.browser.stack import open_window, running_application
from tests.pictures import decoded

from tallpage.demo.photo_store import PhotoStore

ROOT = Path(__file__).resolve().parent.parent
SHOTS = ROOT / "docs" / "screenshots"
PHOTOGRAPHS = ROOT / "var" / "demo" / "demo-photographs"
_FITTING_S = 180
PAGES = ("/archive", "/notices", "/fleet", "/timetable", "/departures", "/islands")


def _settled(person: Person) -> None:
    """Wait until every picture in view is there and nothing moves any more."""
    script = "return [...document.images].every((image) => image.complete && image.naturalWidth > 0)"
    person.until(lambda driver: driver.execute_script(script))


def _fit(person: Person, words: str, rows: int) -> None:
    person.add_slot(words)
    done = "[data-output][data-state=done]"
    WebDriverWait(person.driver, _FITTING_S).until(lambda _: len(person.all(done)) == rows)


def _sweep(person: Person, shoot: Callable[[str], None]) -> None:
    """A list from the sitemap before anything is taken, and its proofs half done."""
    person.open("/sweeps/new")
    person.type_into(
        "[aria-label='Sitemap, or a page with links']", f"{person.application.site}/sitemap.xml", Keys.ENTER
    )
    person.see("[aria-label='The list']")
    person.see("[aria-label='Examples of names'] li")
    person.see("[aria-label=Screens] button:nth-of-type(1)")
    person.driver.find_element("xpath", "//button[contains(., '390×844')]").click()
    person.type_into("[aria-label='Filter the list']", "notices/1")
    person.driver.find_element("xpath", "//button[contains(., 'Untick shown')]").click()
    person.driver.find_element(
        "xpath", "//button[starts-with(., 'Take ') and contains(., 'pictures')]"
    ).click()
    person.until(lambda _: len(person.all("[data-shot][data-state=done]")) >= 4)
    shoot("proofs")
    person.driver.find_element("xpath", "//button[contains(., 'Stop')]").click()
    person.driver.execute_script("localStorage.clear()")


def _changed(person: Person, shoot: Callable[[str], None]) -> None:
    """A notice that was amended between two takes."""
    person.open("/sweeps/new")
    field = person.see("[aria-label='Pages, pasted']")
    field.send_keys("\n".join(f"{person.application.site}/notices/{number}" for number in (4, 13, 14)))
    person.button("Check the list").click()
    person.see("[aria-label='The list']")
    person.button("Take 3 pictures").click()
    person.until(lambda driver: not driver.current_url.endswith("/new"), what="the sweep")
    person.until(lambda _: person.ask("/sweeps")[0]["finished_at"])
    proofs = person.driver.current_url
    person.driver.get(f"{person.application.site}/desk")
    person.button("Publish the next edition").click()
    person.see_text("edition 2")
    person.driver.get(proofs)
    person.open_panel("Take all again")
    person.button("Take all again now").click()
    person.until(lambda _: person.ask("/sweeps")[0]["count"]["by_filter"]["changed"] == 2)
    person.see("[data-change=changed]")
    person.press(Keys.ENTER)
    person.see("[data-changed-here]")
    shoot("changed")


def _draw(person: Person, key: str, from_px: tuple[int, int], by_px: tuple[int, int]) -> None:
    person.press(key)
    person.drag("[data-pointer-layer]", from_px, by_px)
    person.see("[data-held], [data-text-editor]")


def _point_and_dress(person: Person, capture_id: int, shoot: Callable[[str], None]) -> None:
    """A page with marks on it, then with what is put around it."""
    person.open_bench(capture_id)
    person.click("New cut")
    person.until(lambda driver: "/cuts/" in driver.current_url)
    person.see("[data-frame]")
    person.button("Point").click()
    _draw(person, "h", (20, 215), (230, 0))
    _draw(person, "u", (10, 265), (0, 0))
    person.drag("[data-pointer-layer]", (50, 410), (0, 0))
    _draw(person, "b", (485, 435), (225, 85))
    _draw(person, "t", (250, 330), (-60, -30))
    person.press("Book here, before the day")
    person.press(Keys.ESCAPE)
    _draw(person, "r", (640, 360), (-50, 70))
    person.see_saved()
    shoot("point")
    person.button("Dress").click()
    for part in ("Caption", "Border", "Shadow", "Room"):
        person.open_panel(part)
        person.click_on("[role=dialog] input[type=checkbox]")
        person.press(Keys.ESCAPE)
        person.until(lambda _: not person.all("[role=dialog]"))
    person.open_panel("Torn edge")
    person.click_on("[role=dialog] input[type=checkbox]")
    person.until(lambda _: person.all("[role=dialog] input[type=checkbox]:checked"))
    person.see_saved()
    shoot("dress")
    person.press(Keys.ESCAPE)


def _review(person: Person, capture_id: int, shoot: Callable[[str], None]) -> None:
    """The same page in its next edition, with the marks that were on it."""
    person.change("POST", f"/captures/{capture_id}/retake")
    again_id = person.see_taken(capture_id, what="the page taken again")
    cuts = person.ask(f"/captures/{again_id}")["cuts"]
    person.open(f"/captures/{again_id}/cuts/{cuts[-1]['id']}")
    person.see("[data-review] img")
    person.press("j")
    person.until(lambda _: person.see("[data-review] figure:last-of-type img").get_property("naturalWidth"))
    shoot("review")


def _join(person: Person, shoot: Callable[[str], None]) -> None:
    """Three windows of the timetable, dropped in another order than they were taken in."""
    timetable = next(row for row in _captures(person) if row["address"].endswith("/timetable"))
    strips = range(len(person.ask(f"/captures/{timetable['id']}")["strips"]))
    page = np.concatenate(
        [decoded(person.fetch(f"/captures/{timetable['id']}/strips/{number}")) for number in strips]
    )
    tops_px = (1_300, 0, 700)
    ids = [person.uploaded(page[top_px : top_px + 1_000, :, :3]) for top_px in tops_px]
    join = person.change("POST", "/joins", {"captures": ids})
    person.open(f"/joins/{join['id']}")
    person.see("[data-joined] img")
    person.click_on("[data-seam='1'] button")
    shoot("join")


def _live_page(person: Person, shoot: Callable[[str], None]) -> None:
    """The crew room, signed in to, with its menu open under the pointer."""
    person.open("/live")
    open_live(person, "/sign-in")
    at(person, 400, 280).click().send_keys("Ola", Keys.TAB, "kettle", Keys.ENTER).perform()
    see_at(person, "/crew")
    at(person, 5, 600).perform()
    at(person, 320, 215).perform()
    person.see("[data-steps='1']")
    before = person.newest_capture()
    press_without_pointing(person, "Whole page")
    person.see_taken(before, what="the crew room")
    person.see("[data-taken] img")
    shoot("live-page")
    person.click("Close the page")


def _clip(person: Person, shoot: Callable[[str], None]) -> None:
    """The board at the quay, some of its frames dropped, and a file of it."""
    page = {"address": f"{person.application.site}/quay", "kind": "watch", "seconds": 4, "element": ".quay"}
    clip = person.change("POST", "/clips", page)["id"]
    person.until(lambda _: person.ask(f"/clips/{clip}")["frame_count"], what="its frames")
    taken = person.ask(f"/clips/{clip}")
    document = {**taken["document"], "dropped": [3, 4, 5], "there_and_back": True}
    person.change("PUT", f"/clips/{clip}", {"revision": taken["revision"], "document": document})
    made = {"format": "gif", "limit_bytes": 120_000, "width_px": 480}
    person.change("POST", f"/clips/{clip}/files", made)
    person.open(f"/clips/{clip}")
    WebDriverWait(person.driver, _FITTING_S).until(lambda _: person.all("[data-clip-file][data-state=done]"))
    person.see("[data-frame='2']").click()
    person.see("canvas[data-drawn='2']")
    shoot("clip")


def _routine(person: Person, shoot: Callable[[str], None]) -> None:
    """A chain tried on a page with a table, and a run over pages of which some have none."""
    starter = {"starter": "newsletter-table"}
    routine = person.change("POST", "/routines", starter)
    timetable = next(row for row in _captures(person) if row["address"].endswith("/timetable"))
    person.open(f"/routines/{routine['id']}?sample={timetable['id']}")
    person.click_on("button[data-step='Step 2: Show a block']")
    person.see("button[data-step='Step 7: Make a file'] img")
    person.see("[data-last-look]")
    shoot("routine")
    over = {"captures": [row["id"] for row in _captures(person)][:6]}
    run = person.change("POST", f"/routines/{routine['id']}/runs", over)
    person.open(f"/runs/{run['id']}")
    person.see("[data-run-state=ended]")
    person.see("[data-item-state=done] img")
    shoot("run")


def _captures(person: Person) -> list[dict[str, Any]]:
    rows: list[dict[str, Any]] = person.ask("/captures?limit=60&alone=true")["captures"]
    return [row for row in rows if row["job"]["state"] == "done"]


def _hide(person: Person, shoot: Callable[[str], None]) -> None:
    """Telephone numbers of a page about to be hidden, its mail addresses hidden already."""
    person.open_bench(person.take("/offices"))
    person.button("Hide").click()
    person.open_panel("Hide by words")
    person.click("E-mail addresses")
    person.see("[data-found='7']")
    person.click("Hide all 7")
    person.click("Telephone numbers")
    person.see("[data-found='4']")
    person.see_saved()
    shoot("hide")
    person.press(Keys.ESCAPE)


def main() -> None:
    """Walk through the application and keep what is seen."""
    SHOTS.mkdir(parents=True, exist_ok=True)
    store = PhotoStore(PHOTOGRAPHS)
    store.paint_all()
    with (
        tempfile.TemporaryDirectory() as home,
        running_application(Path(home), PHOTOGRAPHS) as app,
        open_window() as driver,
    ):
        person = Person(driver, app, Path(home))
        shoot = _shooter(person)
        for path in PAGES:
            tall_id = person.take(path)
        home_id = person.take("/")
        person.open("/")
        person.see("article[data-state=done] img")
        person.type_into("[data-address-field]", f"{app.site}/slow", Keys.ENTER)
        person.see("article[data-state=running]")
        shoot("gather")
        _sweep(person, shoot)
        _changed(person, shoot)
        _routine(person, shoot)
        _live_page(person, shoot)
        person.open("/shelf")
        person.see("article[data-state=done] img")
        shoot("shelf")
        person.open("/settings")
        person.see("[data-setting='after.what']")
        shoot("settings")
        person.open_bench(home_id)
        field = person.see("[data-field=height_px]")
        field.send_keys(Keys.CONTROL, "a")
        field.send_keys("2100", Keys.ENTER)
        _fit(person, "240 px", 1)
        _fit(person, "720 px", 2)
        shoot("bench")
        person.open_panel("Hand over " + person.see("[data-output]:has([aria-expanded=true]) .truncate").text)
        person.click("PDF and print")
        person.click("Make the PDF")
        person.see("[data-handed-over] ol img")
        shoot("hand-over")
        person.press(Keys.ESCAPE)
        person.button("Compare").click()
        person.see("img[data-side=result]")
        person.press("n")
        person.see("[data-place]")
        shoot("compare")
        _clip(person, shoot)
        _point_and_dress(person, home_id, shoot)
        _join(person, shoot)
        _review(person, home_id, shoot)
        _hide(person, shoot)
        person.open_bench(tall_id)
        _fit(person, "Listing", 1)
        person.see("[data-spine] [data-break]")
        shoot("leaves")
        person.open("/outlets")
        person.see_text("Noticeboard")
        shoot("outlets")


def _shooter(person: Person) -> Callable[[str], None]:
    def shoot(name: str) -> None:
        _settled(person)
        person.driver.save_screenshot(str(SHOTS / f"{name}.png"))
        print(SHOTS / f"{name}.png")

    return shoot


if __name__ == "__main__":
    main()
