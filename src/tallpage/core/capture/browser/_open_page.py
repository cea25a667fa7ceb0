"""An open page of the browser: opened, waited for, asked by our scripts. Its errors become ours here."""

from __future__ import annotations

import json
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import TYPE_CHECKING, Any
from urllib.parse import urlsplit

from tallpage.core.capture._address import private_address
from tallpage.core.capture._request import PageRequest
from tallpage.core.capture.browser._faults import INTERRUPTED, wants_sign_in
from tallpage.core.capture.browser._filtering_proxy import UNREACHABLE_HEADER, FilteringProxy
from tallpage.core.capture.browser._requests import Requests
from tallpage.core.capture.browser._translating import page_script, translated
from tallpage.core.capture.browser._watchdog import watchdog
from tallpage.core.errors import AddressError, PageError, PageUnreachable
from tallpage.core.geometry import Box

if TYPE_CHECKING:
    from playwright.sync_api import CDPSession, Frame, Page, Response

_AFTER_ACTION_MS = 120
_AFTER_INTERRUPTION_MS = (50, 200, 800)
_NOTED = """async (argument) => {
  const noted = window[Symbol.for("capture")]?.noted ?? ((work) => work());
  return JSON.stringify(await noted(() => (SCRIPT)(argument)));
}"""
"""How a page script is run. A live page notes what it does, so that it can be undone."""
_REFUSED_STATUS, _WANTS_SIGN_IN_STATUS = 403, 401


class OpenPage:
    """One open page: how it is opened, and what its frames tell."""

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
            if not frame.url:
                continue  # nothing has come of it: nothing could be run there, however long it is waited
            try:
                rows.append(self._run_in(frame, script, argument, timeout_ms))
            except PageError as error:
                if error.code == "page_hung" or frame is self._page.main_frame:
                    raise
        return rows

    def _run_in(self, frame: Frame, script: str, argument: object, timeout_ms: int) -> Any:
        with self._answering_within(timeout_ms):
            # As text: the driver takes ten times as long over thousands of values as over their JSON.
            text = frame.evaluate(_NOTED.replace("SCRIPT", page_script(script)), argument)
        return None if text is None else json.loads(text)

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


def _opened(asked: str, final: str) -> str:
    if urlsplit(final).scheme not in ("http", "https"):
        raise AddressError(f"{asked} led to “{final[:80]}”, which is never opened.", code="address_scheme")
    return final
