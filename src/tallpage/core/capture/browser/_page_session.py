"""One open page of the browser: what a capture does with it. Playwright's errors become ours here."""

from __future__ import annotations

import base64
import json
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from functools import partial
from typing import TYPE_CHECKING, Any
from urllib.parse import urlsplit

from tallpage.core.capture._address import private_address
from tallpage.core.capture._request import PageRequest
from tallpage.core.capture.browser._faults import INTERRUPTED, wants_sign_in
from tallpage.core.capture.browser._filtering_proxy import UNREACHABLE_HEADER, FilteringProxy
from tallpage.core.capture.browser._requests import Requests
from tallpage.core.capture.browser._translating import page_script, translated
from tallpage.core.capture.browser._watchdog import watchdog
from tallpage.core.capture.opening._target import words_of
from tallpage.core.errors import AddressError, PageError, PageUnreachable
from tallpage.core.geometry import Box

if TYPE_CHECKING:
    from playwright.sync_api import CDPSession, ElementHandle, Frame, Locator, Page, Response

_AFTER_ACTION_MS = 120
_AFTER_INTERRUPTION_MS = (50, 200, 800)
_NOTED = """async (argument) => {
  const noted = window[Symbol.for("capture")]?.noted ?? ((work) => work());
  return JSON.stringify(await noted(() => (SCRIPT)(argument)));
}"""
"""How a page script is run. A live page notes what it does, so that it can be undone."""
_REFUSED_STATUS, _WANTS_SIGN_IN_STATUS = 403, 401


class PageSession:
    """One open page: what a capture does with it, and nothing more."""

    def __init__(
        self,
        page: Page,
        session: CDPSession,
        request: PageRequest,
        *,
        filtering_proxy: FilteringProxy | None,
        hang_up: Callable[[], None],
    ) -> None:
        self._page = page
        self._session = session
        self._screen = request.screen
        self._operation_ms = request.timeouts.operation_ms
        self._filtering_proxy = filtering_proxy
        self._hang_up = hang_up
        self._left_px = 0
        self._frames = [page.main_frame]
        """From the page itself to the frame that holds its content, which is mostly the page itself."""
        self.frame_px: Box | None = None
        """Where in the window the frame with the content lies, if the page is not its content itself."""
        self._requests = Requests(page, is_refused=lambda host: host in self.refused_hosts)
        self.address = "about:blank"
        self.script_errors: list[str] = []
        """What the page's scripts failed with."""
        page.on("pageerror", lambda error: self.script_errors.append(error.message))

    @property
    def under_way(self) -> list[str]:
        """Addresses of requests that have not ended."""
        return self._requests.under_way

    @property
    def missing(self) -> dict[str, list[str]]:
        """Addresses of what did not load, by kind. Pictures are looked for on the page itself."""
        return self._requests.missing

    def goto(self, address: str, *, timeout_ms: int) -> int:
        """Open ``address`` and return the status of its answer; the page may still be loading."""
        self.address = address
        try:
            response = self._answer(address, timeout_ms)
        except PageError as error:
            if self.refused_hosts:
                raise private_address(self.refused_hosts[0]) from error
            raise
        if response is None:
            return 200  # only a change of fragment answers nothing
        self._requests.missing.clear()
        self.address = _opened(address, self._page.url)
        # These answers are errors of the network to one Chromium, and pages to another.
        if self._filtering_proxy is not None and UNREACHABLE_HEADER in response.headers:
            host = urlsplit(self._page.url).netloc
            raise PageUnreachable(f"{host} refused the connection or cannot be reached.", code="page_refused")
        if response.status == _REFUSED_STATUS and urlsplit(self._page.url).hostname in self.refused_hosts:
            raise private_address(self.refused_hosts[0])
        if response.status == _WANTS_SIGN_IN_STATUS and "www-authenticate" in response.headers:
            raise wants_sign_in(address)
        return response.status

    def _answer(self, address: str, timeout_ms: int) -> Response | None:
        """The page's answer; opening it is begun again where something else came in between.

        After a try that failed, the browser's own page about the error may be shown so late that it
        interrupts the next try, and the interrupted one the one after that; so the pauses grow.
        """
        for pause_ms in _AFTER_INTERRUPTION_MS:
            try:
                return self._go(address, timeout_ms)
            except PageUnreachable as error:
                if error.code != INTERRUPTED:
                    raise
            self.pause(pause_ms)
        return self._go(address, timeout_ms)

    def _go(self, address: str, timeout_ms: int) -> Response | None:
        with translated(address, timeout_ms=timeout_ms):
            return self._page.goto(address, wait_until="commit", timeout=timeout_ms)

    @property
    def refused_hosts(self) -> list[str]:
        """Hosts on private networks that the page asked for and did not get."""
        return sorted(self._filtering_proxy.refused) if self._filtering_proxy else []

    def state(self) -> Any:
        """Cookies and stored values that the visit has been given, for another visit."""
        with self._answering_within(self._operation_ms):
            return self._page.context.storage_state()

    def note_where(self) -> None:
        """Take over the address that the page has gone to by itself.

        Raises:
            AddressError: it is of a kind that is never opened.
        """
        self.address = _opened(self.address, self._page.url)

    def wait_loaded(self, *, timeout_ms: int) -> bool:
        """Whether the page called itself loaded in time."""
        try:
            with translated(self.address):
                self._page.wait_for_load_state("load", timeout=timeout_ms)
        except PageUnreachable:
            return False
        return True

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

    def pause(self, wait_ms: int) -> None:
        """Let the page go on for a while."""
        with translated(self.address):
            self._page.wait_for_timeout(wait_ms)

    def wait_quiet(self, *, timeout_ms: int, step_ms: int = 50) -> bool:
        """Whether every request ended in time."""
        waited_ms = 0
        while self.under_way and waited_ms < timeout_ms:
            with translated(self.address):
                self._page.wait_for_timeout(step_ms)
            waited_ms += step_ms
        return not self.under_way

    def wait_rested(self, *, timeout_ms: int) -> None:
        """Wait until what an action brought about has come: another page, answers, or nothing."""
        self.pause(_AFTER_ACTION_MS)
        self.wait_loaded(timeout_ms=timeout_ms)
        self.wait_quiet(timeout_ms=timeout_ms)

    def run(self, script: str, argument: object = None, *, timeout_ms: int) -> Any:
        """Run one of our page scripts (a file in ``scripts/``) where the content is; its JSON value.

        Raises:
            PageError: the page did not let it run in time; the browser was ended.
        """
        return self._run_in(self._frames[-1], script, argument, timeout_ms)

    def run_everywhere(self, script: str, argument: object = None, *, timeout_ms: int) -> list[Any]:
        """Run a page script in the page and in the frames down to its content, from outer to inner."""
        return [self._run_in(frame, script, argument, timeout_ms) for frame in self._frames]

    def run_in_all_frames(self, script: str, argument: object = None, *, timeout_ms: int) -> list[Any]:
        """Run a page script in the page and in every frame within it; what has just gone tells nothing."""
        rows = []
        for frame in self._page.frames:
            try:
                rows.append(self._run_in(frame, script, argument, timeout_ms))
            except PageError as error:
                if error.code == "page_hung" or frame is self._page.main_frame:
                    raise
        return rows

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

    def words(
        self, area_px: Box, *, seen: list[str], cut_off: bool, timeout_ms: int
    ) -> list[tuple[str, dict[str, Any]]]:
        """What the page script ``words`` finds where the content is, and in each other frame that is seen.

        Each with the address of its frame, empty where the content is.
        """
        edges = {"top": area_px.y_px, "bottom": area_px.bottom_px, "right": area_px.right_px}
        order = {"areaPx": edges, "seen": seen, "cutOff": cut_off}
        rows = [("", self._run_in(self._frames[-1], "words/laid_out", order, timeout_ms))]
        for frame in self._page.frames:
            if frame in self._frames:
                continue
            try:
                with self._answering_within(timeout_ms):
                    if not frame.frame_element().is_visible():
                        continue
                rows.append(
                    (
                        frame.url,
                        self._run_in(frame, "words/laid_out", {"areaPx": None, "seen": []}, timeout_ms),
                    )
                )
            except PageError as error:
                if error.code == "page_hung":
                    raise  # else it is a frame that has just gone
        return rows

    def _run_in(self, frame: Frame, script: str, argument: object, timeout_ms: int) -> Any:
        with self._answering_within(timeout_ms):
            # As text: the driver takes ten times as long over thousands of values as over their JSON.
            text = frame.evaluate(_NOTED.replace("SCRIPT", page_script(script)), argument)
        return None if text is None else json.loads(text)

    def enter_filling_frame(self, *, timeout_ms: int) -> bool:
        """Go into the frame that fills the window, where there is one: scripts then run there."""
        with self._answering_within(timeout_ms):
            element = self._frames[-1].evaluate_handle(page_script("browser/filling_frame")).as_element()
            frame = element.content_frame() if element is not None else None
            box = element.bounding_box() if element is not None else None
            if element is None or frame is None or box is None:
                return False
            element.evaluate("(frame) => { window[Symbol.for('capture')].frameElement = frame; }")
            offset = {"x": box["x"], "y": box["y"]}
            frame.evaluate("(offset) => { window[Symbol.for('capture')].frameOffset = offset; }", offset)
        self._frames.append(frame)
        self.frame_px = Box(
            x_px=round(box["x"]),
            y_px=round(box["y"]),
            width_px=max(1, round(box["width"])),
            height_px=max(1, round(box["height"])),
        )
        return True

    def leave_frame(self, *, timeout_ms: int) -> None:
        """Come back out of a frame whose content does not scroll either."""
        self._frames = self._frames[:1]
        self.frame_px = None
        with self._answering_within(timeout_ms):
            self._page.evaluate("() => { window[Symbol.for('capture')].frameElement = null; }")

    def hide_around(self, *, hide: bool) -> None:
        """Hide everything but what scrolls, or show it again."""
        self.run_everywhere("browser/around", {"hide": hide}, timeout_ms=self._operation_ms)

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

    @contextmanager
    def _answering_within(self, timeout_ms: float) -> Iterator[None]:
        """End the browser when the page hangs: nothing inside a busy page can be waited for otherwise."""
        with watchdog(timeout_ms, self._hang_up) as hung:
            try:
                with translated(self.address):
                    yield
            except PageError as error:
                if not hung.is_set():
                    raise
                raise PageError(
                    f"{self.address} hangs: it did not react for {timeout_ms / 1_000:.0f} s.",
                    hint="Its own scripts keep it busy. Give it more time, or take only its first screen.",
                    code="page_hung",
                ) from error

    @property
    def devtools(self) -> CDPSession:
        """The browser's protocol for this page, for what a live page needs besides."""
        return self._session

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


def _opened(asked: str, final: str) -> str:
    if urlsplit(final).scheme not in ("http", "https"):
        raise AddressError(f"{asked} led to “{final[:80]}”, which is never opened.", code="address_scheme")
    return final
