"""What a capture does with an open page: it is used as by hands, its time is let pass, it is taken."""

from __future__ import annotations

import base64
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from functools import partial
from typing import TYPE_CHECKING

from tallpage.core.capture.browser._open_page import OpenPage
from tallpage.core.capture.browser._translating import page_script, translated
from tallpage.core.capture.opening._target import words_of
from tallpage.core.errors import PageError, PageUnreachable
from tallpage.core.geometry import Box

if TYPE_CHECKING:
    from playwright.sync_api import ElementHandle, Locator


class PageSession(OpenPage):
    """One open page: what a capture does with it, and nothing more."""

    def point_nowhere(self, *, timeout_ms: int) -> None:
        """Move the pointer off the page; a Chromium without windows begins with it at 0, 0.

        Raises:
            PageError: the page did not answer in time; the browser was ended.
        """
        with self._answering_within(timeout_ms):
            self._page.mouse.move(-1, -1)

    def point_at(self, x_px: float, y_px: float, *, timeout_ms: int) -> None:
        """Move the pointer to a place of the window."""
        with self._answering_within(timeout_ms):
            self._page.mouse.move(x_px, y_px)

    def loaded_pictures(self, *, timeout_ms: int) -> Iterator[tuple[str, str, Callable[[], bytes | None]]]:
        """Address and type of each picture that the page has loaded, and what gives its bytes.

        None are given where the browser has let go of them.
        """
        with self._answering_within(timeout_ms):
            self._session.send("Page.enable")  # without it, no content is given
            trees = [self._session.send("Page.getResourceTree")["frameTree"]]
        while trees:
            tree = trees.pop()
            trees.extend(tree.get("childFrames", ()))
            frame_id = tree["frame"]["id"]
            for row in tree["resources"]:
                if row["type"] == "Image":
                    address = row["url"]
                    yield address, row["mimeType"], partial(self._resource, frame_id, address, timeout_ms)

    def _resource(self, frame_id: str, address: str, timeout_ms: int) -> bytes | None:
        try:
            with self._answering_within(timeout_ms):
                answer = self._session.send("Page.getResourceContent", {"frameId": frame_id, "url": address})
        except PageError as error:
            if error.code == "page_hung":
                raise
            return None
        content: str = answer["content"]
        return base64.b64decode(content) if answer["base64Encoded"] else content.encode()

    def turn_wheel(self, box_px: Box, delta_px: int) -> None:
        """Turn the wheel over the middle of a box of the window."""
        with self._answering_within(self._operation_ms):
            self._page.mouse.move(box_px.x_px + box_px.width_px / 2, box_px.y_px + box_px.height_px / 2)
            self._page.mouse.wheel(0, delta_px)

    def _locator(self, target: str) -> Locator:
        words = words_of(target)
        if words is not None:
            return self._page.get_by_text(words).filter(visible=True).first
        with self._answering_within(self._operation_ms):
            is_selector = self._page.evaluate(page_script("browser/is_selector"), target)
        if not is_selector:
            raise PageError(
                f"“{target}” is not a CSS selector.",
                hint="Write it like #main, .price or table, or give words in quotation marks.",
                code="element_malformed",
            )
        return self._page.locator(f"css={target}").filter(visible=True).first

    def find(self, target: str, *, timeout_ms: int) -> ElementHandle:
        """The first visible element that a target points at.

        Raises:
            PageError: there is none in time, or the target is no CSS selector.
        """
        locator = self._locator(target)
        try:
            with translated(self.address):
                locator.wait_for(timeout=max(1, timeout_ms))
                return locator.element_handle(timeout=max(1, timeout_ms))
        except PageUnreachable as error:
            raise PageError(
                f"Nothing that is visible on {self.address} matches {target}.",
                hint="Check the CSS selector in the browser's inspector, or give words that it shows.",
                code="element_missing",
            ) from error

    def shows(self, target: str) -> bool:
        """Whether something visible is what a target points at, now."""
        locator = self._locator(target)
        with self._answering_within(self._operation_ms):
            return locator.count() > 0

    def first_is(self, target: str, script: str) -> bool:
        """Whether a page script says yes to the first visible element that a target points at."""
        locator = self._locator(target)
        with self._answering_within(self._operation_ms):
            return locator.count() > 0 and bool(locator.evaluate(page_script(script)))

    def hover(self, target: str, *, timeout_ms: int) -> None:
        """Put the pointer on something."""
        with self._acting(target, "had the pointer put on it"):
            self._locator(target).hover(timeout=timeout_ms)

    def click(self, target: str, *, timeout_ms: int) -> None:
        """Click something."""
        with self._acting(target, "could be clicked"):
            self._locator(target).click(timeout=timeout_ms)

    def fill(self, target: str, text: str, *, timeout_ms: int) -> None:
        """Type a text into a field, over what was there; of a list to choose from, choose what says so."""
        with self._acting(target, "could be typed into"):
            field = self._locator(target)
            if field.evaluate("(field) => field.localName === 'select'", timeout=timeout_ms):
                field.select_option(label=text, timeout=timeout_ms)
            else:
                field.fill(text, timeout=timeout_ms)

    def press(self, key: str) -> None:
        """Press a key, where the page has its focus."""
        with self._acting(key, "could be pressed"):
            self._page.keyboard.press(key)

    def scroll_to(self, target: str, *, timeout_ms: int) -> None:
        """Bring something into the window."""
        with self._acting(target, "could be scrolled to"):
            self._locator(target).scroll_into_view_if_needed(timeout=timeout_ms)

    @contextmanager
    def _acting(self, target: str, what: str) -> Iterator[None]:
        """An action that a page did not let happen is a fault of the action, not of the host."""
        try:
            with self._answering_within(self._operation_ms):
                yield
        except PageError as error:
            if error.code not in ("page_no_answer", "page_failed"):
                raise
            raise PageError(f"Nothing that {what} matches {target}.", code="step_failed") from error

    def hold(self, target: str, *, timeout_ms: int) -> None:
        """Leave the pointer on something, however the page is scrolled from now on."""
        self.hover(target, timeout_ms=timeout_ms)
        element = self.find(target, timeout_ms=timeout_ms)
        with self._answering_within(self._operation_ms):
            mark = self._page.evaluate(page_script("browser/hold"), {"element": element})
            self.show_as_pointed_at(mark, shown=True)

    def show_as_pointed_at(self, mark: str, *, shown: bool) -> None:
        """Show the elements that have an attribute as they are under the pointer, or not any more."""
        forced = {"forcedPseudoClasses": ["hover"] if shown else []}
        with self._answering_within(self._operation_ms):
            self._session.send("DOM.enable")
            self._session.send("CSS.enable")
            root = self._session.send("DOM.getDocument", {"depth": 0})["root"]["nodeId"]
            query = {"nodeId": root, "selector": f"[{mark}]"}
            for node in self._session.send("DOM.querySelectorAll", query)["nodeIds"]:
                self._session.send("CSS.forcePseudoState", {"nodeId": node, **forced})

    def stop_clock(self, *, timeout_ms: int) -> None:
        """Stop the time of a page that was opened ``moving``."""
        with self._answering_within(timeout_ms):
            self._page.clock.pause_at(self._page.evaluate("Date.now()") + 1)

    def let_pass(self, wait_ms: int, *, timeout_ms: int) -> None:
        """Let so much time of the page's scripts pass, however long that takes."""
        with self._answering_within(timeout_ms):
            self._page.clock.run_for(wait_ms)

    def set_screen(self) -> None:
        """Set the display's metrics in the session that takes the pictures.

        That session ignores the scale set elsewhere, so it has to be told itself.
        """
        self._session.send(
            "Emulation.setDeviceMetricsOverride",
            {
                "width": self._screen.width_px,
                "height": self._screen.height_px,
                "deviceScaleFactor": self._screen.scale,
                "mobile": False,
            },
        )
        # Else scroll bars come back with the first picture, and move what lies below them.
        self._session.send("Emulation.setScrollbarsHidden", {"hidden": True})

    def prepare_pictures(self, *, whole_width: bool) -> None:
        """Make ready for pictures of the display's size.

        They count from what is shown first, or with ``whole_width`` from the left end of a page that goes
        on there.
        """
        with self._answering_within(self._operation_ms):
            self.set_screen()
            metrics = self._session.send("Page.getLayoutMetrics")
        # Clips count from the left end of the overflow, which on a right-to-left page is not what is shown.
        self._left_px = 0 if whole_width else int(metrics["cssLayoutViewport"]["pageX"])

    def picture(self, clip_px: Box, *, timeout_ms: int, in_view: bool = False) -> bytes:
        """PNG of a piece of the page; ``clip_px`` in CSS px from the page's top left corner.

        A piece that is ``in_view`` is taken as it is shown, without laying out the page beyond it.
        """
        with self._answering_within(timeout_ms):
            answer = self._session.send(
                "Page.captureScreenshot",
                {
                    "format": "png",
                    "optimizeForSpeed": True,
                    "captureBeyondViewport": not in_view,
                    "clip": {
                        "x": clip_px.x_px + self._left_px,
                        "y": clip_px.y_px,
                        "width": clip_px.width_px,
                        "height": clip_px.height_px,
                        "scale": 1,
                    },
                },
            )
        return base64.b64decode(answer["data"])
