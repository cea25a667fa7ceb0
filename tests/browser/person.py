"""Somebody who sits in front of Tall Page."""

from __future__ import annotations

import contextlib
import hashlib
import time
from collections.abc import Callable
from itertools import chain, repeat
from pathlib import Path
from typing import Any

from selenium import webdriver
from selenium.common.exceptions import (
    ElementClickInterceptedException,
    StaleElementReferenceException,
    TimeoutException,
)
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement
from selenium.webdriver.support.ui import Select

from tests.browser.stack import PATIENCE_S, Application
from tests.browser.stored import copy_capture
from tests.pictures import Pixels, as_png

FIELDS = ("x_px", "y_px", "width_px", "height_px")


def _is_pressed(element: WebElement) -> bool:
    """Whether the press reached the element; one that is switched off, or covered, is not pressed."""
    if not element.is_enabled():
        return False
    try:
        element.click()
    except ElementClickInterceptedException:
        return False
    return True


_FIRST_SHOWN = """
    const [how, words] = arguments;
    const found = how === "css" ? [...document.querySelectorAll(words)] : [];
    if (how === "xpath") {
      const rows = document.evaluate(words, document, null, XPathResult.ORDERED_NODE_SNAPSHOT_TYPE);
      for (let at = 0; at < rows.snapshotLength; at += 1) found.push(rows.snapshotItem(at));
    }
    const hasSize = (row) => {
      const { width, height } = row.getBoundingClientRect();
      return width > 0 || height > 0; // a line has one of both
    };
    return found.find((row) => {
      const isSeen = row.checkVisibility({ opacityProperty: true, visibilityProperty: true });
      return isSeen && (hasSize(row) || [...row.querySelectorAll("*")].some(hasSize));
    });
"""
"""One question to the window instead of one for each element, and of the window's own checks."""
_PAUSES_S = (0.03, 0.05, 0.05, 0.1, 0.1, 0.2, 0.3)
"""Between two looks; the last goes on. Looking takes the time of what is waited for."""


class Person:
    """Somebody at the screen: looks for things, waits until they show, uses mouse and keys."""

    def __init__(self, driver: webdriver.Chrome, application: Application, downloads: Path) -> None:
        self.driver = driver
        self.application = application
        self.downloads = downloads

    def open(self, path: str) -> None:
        self.driver.get(self.application.address + path)

    def until(self, seen: Callable[[webdriver.Chrome], Any], *, what: str = "") -> Any:
        """Wait for something; says what there was to be seen when it never comes."""
        last_s = time.monotonic() + PATIENCE_S
        for pause_s in chain(_PAUSES_S, repeat(_PAUSES_S[-1])):
            with contextlib.suppress(StaleElementReferenceException):
                if found := seen(self.driver):
                    return found
            if time.monotonic() > last_s:
                break
            time.sleep(pause_s)
        there = self.driver.find_element(By.TAG_NAME, "body").text[:2_000]
        raise TimeoutException(f"{what}; at {self.driver.current_url} there was:\n{there}")

    def _first_shown(self, how: str, words: str) -> WebElement | None:
        found: WebElement | None = self.driver.execute_script(_FIRST_SHOWN, how, words)
        return found

    def all(self, css: str) -> list[WebElement]:
        return self.driver.find_elements(By.CSS_SELECTOR, css)

    def see(self, css: str) -> WebElement:
        return self.until(lambda _: self._first_shown("css", css), what=css)

    def see_text(self, text: str) -> None:
        self.until(lambda driver: text in driver.find_element(By.TAG_NAME, "body").text, what=text)

    def button(self, words: str) -> WebElement:
        worded = f"[contains(normalize-space(.), '{words}') or @aria-label='{words}']"
        xpath = f"//button{worded} | //a{worded} | //summary{worded}"
        return self.until(lambda _: self._first_shown("xpath", xpath), what=words)

    def click(self, words: str) -> None:
        """Press a button or link as soon as it can be pressed: it may be drawn anew, or move, until then."""
        self.until(lambda _: _is_pressed(self.button(words)), what=f"{words}, to be pressed")

    def type_into(self, css: str, *keys: str) -> None:
        """Send keys to what is shown there, which may be drawn anew just then."""
        self.until(lambda _: self.see(css).send_keys(*keys) or True, what=f"{css}, to be typed into")

    def click_on(self, css: str) -> None:
        """As :meth:`click`, for what is known by a selector."""
        self.until(lambda _: _is_pressed(self.see(css)), what=f"{css}, to be pressed")

    def open_panel(self, name: str) -> WebElement:
        """Press the button that opens a panel; gives the panel."""
        self.click_on(f"button[aria-label='{name}']")
        return self.see(f"[role=dialog][aria-label='{name}']")

    def close_panels(self) -> None:
        """Have what is open closed by Escape."""
        self.press(Keys.ESCAPE)
        panels = "[role=dialog]:not([aria-label=Notices] *)"
        self.until(lambda _: not self.all(panels), what="no panel")

    def field(self, label: str) -> WebElement:
        """The field inside the label of exactly these words."""
        xpath = f"//label[normalize-space(text())='{label}']/input"
        return self.until(lambda _: self._first_shown("xpath", xpath), what=label)

    def press(self, keys: str) -> None:
        """Press a key where the focus is, as a keyboard does: what has it may be drawn anew meanwhile."""
        ActionChains(self.driver).send_keys(keys).perform()

    def tab_to(self, css: str) -> None:
        """Go on by the Tab key until what is in hand is this, as somebody without a mouse does."""
        in_hand = "return document.activeElement.matches(arguments[0])"
        for _ in range(120):
            ActionChains(self.driver).send_keys(Keys.TAB).perform()
            if self.driver.execute_script(in_hand, css):
                return
        raise AssertionError(f"{css} cannot be reached by Tab")

    def ask(self, path: str) -> Any:
        return self.application.ask(path)

    def fetch(self, path: str) -> bytes:
        return self.application.fetch(path)

    def change(self, method: str, path: str, body: object = None) -> Any:
        return self.application.change(method, path, body)

    def sweep(self, *paths: str, screens: int) -> int:
        """A sweep of pages of the demo site on 1 to 3 screens, taken to its end; its id."""
        sweep_id = self.begin_sweep(*paths, screens=screens)
        self.until(lambda _: self.ask(f"/sweeps/{sweep_id}")["finished_at"], what="the sweep's end")
        return sweep_id

    def begin_sweep(self, *paths: str, screens: int, pause_ms: int = 0) -> int:
        """As :meth:`sweep`, which goes on; it rests so long between two pages."""
        sizes = ((1280, 800), (834, 1112), (390, 844))[:screens]
        order = {
            "pages": [{"address": self.application.site + path} for path in paths],
            "screens": [{"width_px": width, "height_px": height} for width, height in sizes],
            "pause_ms": pause_ms,
        }
        return int(self.change("POST", "/sweeps", order)["id"])

    def take(self, path: str) -> int:
        """Take a page from Gather, of the demo site when only its path is given; returns its capture's id."""
        self.open("/")
        field = self.see("[data-address-field]")
        before = self.newest_capture()
        field.send_keys(f"{path if '://' in path else self.application.site + path}\n")
        return self.see_taken(before, what=path)

    def stored(self, path: str) -> int:
        """A page of the demo site that lies on the shelf, taken on the desk screen; its capture's id."""
        desk = {"width_px": 1280, "height_px": 800}
        order = {"address": self.application.site + path, "screen": desk}
        return self._copy_of(path, lambda: int(self.change("POST", "/captures", order)["id"]))

    def picture(self, rows: Pixels) -> int:
        """A picture of these pixels that lies on the shelf; its capture's id."""
        name = hashlib.sha256(as_png(rows)).hexdigest()
        return self._copy_of(name, lambda: self.uploaded(rows))

    def uploaded(self, rows: Pixels) -> int:
        """A picture of these pixels that is put on the shelf alone, without one that it is a copy of."""
        return self.see_done(self.application.upload_picture(as_png(rows), "dropped.png"))

    def _copy_of(self, name: str, order: Callable[[], int]) -> int:
        stored = self.application.stored
        if name not in stored:
            stored[name] = self.see_done(order())
        return copy_capture(self.application.home, stored[name])

    def newest_capture(self) -> int:
        """Id of the capture that was asked for last, 0 when there is none."""
        newest = self.ask("/captures?limit=1")["captures"]
        return int(newest[0]["id"]) if newest else 0

    def captures(self) -> int:
        """How many captures are on the shelf."""
        return int(self.ask("/captures?limit=1")["total"])

    def see_taken(self, before: int, *, what: str) -> int:
        """Wait until a capture newer than ``before`` is there and has come to its end; its id."""
        capture_id = self.until(
            lambda _: (now := self.newest_capture()) > before and now, what=f"a new capture: {what}"
        )
        return self.see_done(int(capture_id))

    def see_done(self, capture_id: int) -> int:
        """Wait until the work on a capture has come to its end; its id."""
        self.until(
            lambda _: self.ask(f"/captures/{capture_id}")["job"]["state"] in ("done", "failed"),
            what=f"capture {capture_id}",
        )
        return capture_id

    def open_bench(self, capture_id: int) -> None:
        self.open(f"/captures/{capture_id}")
        self.see("[data-frame]")

    def choose(self, capture_id: int, *keys: str) -> None:
        """Press a capture's picture on the shelf while keys are held down."""
        card = self.see(f"[data-chosen]:has([data-capture='{capture_id}']) img")
        self.driver.execute_script("arguments[0].scrollIntoView({ block: 'center' })", card)
        for key in keys:
            ActionChains(self.driver).key_down(key).perform()
        ActionChains(self.driver).move_to_element(card).click().perform()
        for key in keys:
            ActionChains(self.driver).key_up(key).perform()

    def open_how_to_take(self) -> None:
        """On Gather, open the settings for pages that need some."""
        self.see("[aria-label=Screens] [aria-pressed]")
        self.click("How to take it")
        self.see("[data-how-to-take][open]")

    def add_slot(self, words: str) -> None:
        """Add the first slot whose line in the list holds ``words``."""
        self.until(lambda _: self.all("#add-slot option:not([disabled])"), what="slots to choose from")
        choice = Select(self.see("#add-slot"))
        choice.select_by_visible_text(next(row.text for row in choice.options if words in row.text))
        before = len(self.all("[data-output]"))
        self.click("Add")
        # Its row moves the button: whoever presses it again just then misses it.
        self.until(lambda _: len(self.all("[data-output]")) > before, what=f"the row of {words}")

    def see_frame(self, *wanted: int) -> None:
        """Wait until the four numbers are these; says what they were when they never become so."""
        with contextlib.suppress(TimeoutException):
            self.until(lambda _: self.frame() == wanted)
        assert self.frame() == wanted

    def frame(self) -> tuple[int, int, int, int]:
        """The four numbers in the fields."""
        script = "return [...document.querySelectorAll('[data-field]')].map((row) => Number(row.value))"
        # On the way to another cut there are none.
        numbers = self.until(
            lambda driver: len(found := driver.execute_script(script)) == 4 and found, what="four numbers"
        )
        x, y, width, height = numbers
        return x, y, width, height

    def saved_file(self) -> Path | None:
        """The file that was downloaded, once it is complete."""
        endings = (".jpg", ".png", ".webp", ".avif")
        return next((row for row in self.downloads.iterdir() if row.suffix in endings), None)

    def see_saved(self) -> None:
        self.see("[data-save-state=saved]")

    def type_number(self, name: str, value: int) -> None:
        """Type one of the frame's numbers."""
        field = self.see(f"[data-field={name}]")
        field.send_keys(Keys.CONTROL, "a")
        field.send_keys(str(value), Keys.ENTER)

    def document(self, capture_id: int, cut: int = 0) -> dict[str, Any]:
        """The document of a capture's cut, once the window says that it is saved."""
        self.see_saved()
        document: dict[str, Any] = self.ask(f"/captures/{capture_id}")["cuts"][cut]["document"]
        return document

    def stored_frame(self, capture_id: int) -> tuple[int, ...]:
        """The box of a capture's first cut, once the window says that it is saved."""
        self.see_saved()
        frame = self.ask(f"/captures/{capture_id}")["cuts"][0]["document"]["frame"]
        return tuple(frame[name] for name in FIELDS)

    def drag(self, css: str, start: tuple[int, int], by: tuple[int, int]) -> None:
        """Press at an offset from an element's upper left corner, move, let go."""
        self.begin_drag(css, start, by)
        self.let_go()

    def begin_drag(self, css: str, start: tuple[int, int], by: tuple[int, int]) -> None:
        """As :meth:`drag`, and the button stays pressed."""
        box = self.see(css).rect
        from_x, from_y = round(box["x"]) + start[0], round(box["y"]) + start[1]
        mouse = ActionChains(self.driver, duration=50)
        mouse.w3c_actions.pointer_action.move_to_location(from_x, from_y)
        mouse.w3c_actions.pointer_action.pointer_down()
        mouse.w3c_actions.pointer_action.move_to_location(from_x + by[0] // 2, from_y + by[1] // 2)
        mouse.w3c_actions.pointer_action.move_to_location(from_x + by[0], from_y + by[1])
        mouse.perform()

    def let_go(self) -> None:
        """Let go of the button where the mouse is."""
        mouse = ActionChains(self.driver)
        mouse.w3c_actions.pointer_action.pointer_up()
        mouse.perform()
