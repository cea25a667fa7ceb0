"""A page that a person uses: a browser of its own, in a thread of its own, told and heard from any thread."""

from __future__ import annotations

import logging
import threading
from collections.abc import Callable
from contextlib import suppress
from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING, Any

from tallpage.core.capture._request import PageRequest
from tallpage.core.capture.browser._filtering_proxy import FilteringProxy
from tallpage.core.capture.browser._starting import Browser
from tallpage.core.capture.browser._translating import is_of_playwright
from tallpage.core.capture.live._events import (
    Ended,
    Event,
    Failed,
    NotTaken,
    Pointed,
    Said,
    Stuck,
    Taken,
    Taking,
)
from tallpage.core.capture.live._input import Input
from tallpage.core.capture.live._taking import TakeOrder, take_live
from tallpage.core.capture.live._turns import Turns
from tallpage.core.capture.live._window import Window
from tallpage.core.capture.opening._arriving import open_signed_in
from tallpage.core.errors import PageError, TallPageError
from tallpage.core.geometry import Box

if TYPE_CHECKING:
    from playwright.sync_api import BrowserContext, Page

_log = logging.getLogger(__name__)
_MOST_WINDOWS = 6
_BUSY_S = 8.0
"""How long a page may take over something before the person is told."""


class LivePage:
    """One visit. Every method may be called from any thread, and returns at once.

    ``hear`` is called from the page's thread, with what there is to tell; the last is :class:`Ended`.
    """

    def __init__(
        self,
        request: PageRequest,
        hear: Callable[[Event], None],
        *,
        filtering_proxy: FilteringProxy | None = None,
    ) -> None:
        self._request, self._hear = request, hear
        self._filtering_proxy = filtering_proxy
        self._turns = Turns(self._fault)
        self._windows: list[Window] = []
        """The page, and on top of it whatever windows it has opened."""
        self._browser: Browser | None = None
        self._context: BrowserContext | None = None
        self._closing = False
        self._taking = False
        self._thread = threading.Thread(target=self._run, name="live-page", daemon=True)

    def start(self) -> None:
        """Start the browser, and open the request's address."""
        self._thread.start()
        self.go(self._request.address)

    def do(self, given: Input, number: int) -> None:
        """Do what a person did; frames tell by the number of the last input what they came after."""
        if not self._taking:
            self._turns.add(lambda: self._do(given, number), given)

    def go(self, address: str) -> None:
        """Open an address, which is normalised already."""
        self._turns.at_once(lambda: self._go(address))

    def move(self, by: int) -> None:
        """Go back (-1) or on (1) in what was visited, or load the page again (0)."""
        self._turns.at_once(lambda: self._move(by))

    def answer(self, *, accept: bool, text: str = "") -> None:
        """Answer the dialog that the page has opened."""
        self._turns.at_once(lambda: self._window.answer(accept=accept, text=text))

    def choose(self, number: int) -> None:
        """Choose from the list that was opened."""
        self._turns.add(lambda: self._window.doing.choose(number))

    def point(self, x_px: float, y_px: float, *, outer: int = 0, panel: bool = False) -> None:
        """Tell what would be taken at a place of the window, and its box there.

        That is the element there, or ``outer`` boxes further out; or the ``panel`` it lies in that scrolls.
        """
        self._turns.add(lambda: self._point(x_px, y_px, outer=outer, panel=panel))

    def forget_step(self, number: int) -> None:
        """Leave a step out of what was done, counted from 0."""
        self._turns.add(lambda: self._window.doing.forget(number))

    def drawn(self) -> None:
        """The last frame has been drawn: another may come."""
        self._turns.at_once(lambda: self._window.view.drawn())

    def show_again(self) -> None:
        """Show everything to somebody who comes anew."""
        self._turns.at_once(lambda: self._window.tell_all())

    def take(self, order: TakeOrder, folder: Path) -> None:
        """Take the page into an empty folder; it is told when that is done."""
        self._turns.add(lambda: self._take(order, folder))

    def tell_state(self, hear: Callable[[Any], None]) -> None:
        """Give ``hear`` the cookies and stored values of the visit, as a storage state."""
        self._turns.add(lambda: hear(self._window.session.state()))

    def close(self) -> None:
        """End the visit and its browser, also when the page does not react."""
        self._closing = True
        if self._browser is not None:
            self._browser.end_at_once()

    def wait_closed(self, timeout_s: float) -> bool:
        """Whether the browser has ended in time."""
        self._thread.join(timeout_s)
        return not self._thread.is_alive()

    @property
    def _window(self) -> Window:
        if not self._windows:
            raise PageError("The page is not there yet.", code="page_closed")
        return self._windows[-1]

    def _run(self) -> None:
        error: TallPageError | None = None
        try:
            with (
                Browser(filtering_proxy=self._filtering_proxy, watched=True) as self._browser,
                self._browser.open_visit(self._request) as self._context,
            ):
                if not self._closing:
                    self._visit(self._context)
        except TallPageError as told:
            error = told
        except Exception as told:
            if not is_of_playwright(told) and not self._closing:
                self._fault(told)
        if error is None and not self._closing:
            error = PageError("The browser has ended.", hint="Open the page again.", code="browser_closed")
        self._hear(Ended(None if self._closing else error))

    def _visit(self, context: BrowserContext) -> None:
        Window.prepare(context)
        page = context.new_page()
        self._add(page)
        context.on("page", self._add_popup)
        self._turns.begin()
        # Everything else is done in turns, until the visit or its browser ends.
        context.wait_for_event("close", timeout=0)

    def _add(self, page: Page) -> None:
        if self._browser is None:
            raise RuntimeError("there is no browser")
        window = Window(
            page, self._browser.session_of(page, self._request), self._request, self._turns, self._hear
        )
        if self._windows:
            self._window.view.hide()
        self._windows.append(window)
        page.on("close", lambda _: self._remove(window))
        window.view.show()

    def _add_popup(self, page: Page) -> None:
        try:
            if len(self._windows) >= _MOST_WINDOWS:
                page.close()
                self._hear(Said("The page opens one window after the other: no more are shown."))
                return
            self._add(page)
        except Exception as error:
            if not is_of_playwright(error):
                raise
            return  # it has closed itself already
        self._hear(Said("The page opened a new window, which is shown here. Back leads to the page before."))
        self._window.tell_place()

    def _remove(self, window: Window) -> None:
        shown = self._windows[-1:] == [window]
        if window in self._windows:
            self._windows.remove(window)
        if shown and self._windows and not self._closing:
            self._turns.at_once(lambda: self._window.tell_all())

    def _do(self, given: Input, number: int) -> None:
        window = self._window
        busy = self._turns.later(_BUSY_S, lambda: self._tell_busy(window))
        try:
            window.do(given, number)
        finally:
            busy.cancel()

    def _tell_busy(self, window: Window) -> None:
        if not window.asks:
            self._hear(Stuck())

    def _go(self, address: str) -> None:
        if self._browser is None:
            raise RuntimeError("there is no browser")
        window = self._window
        window.load(address)
        try:
            open_signed_in(self._browser, window.session, replace(self._request, address=address))
        except TallPageError as error:
            if not self._browser.is_alive:
                return  # told as the end
            self._hear(Failed(error))
        finally:
            window.loaded()

    def _move(self, by: int) -> None:
        if not self._window.move(by) and by < 0 and len(self._windows) > 1:
            self._window.page.close()

    def _point(self, x_px: float, y_px: float, *, outer: int, panel: bool) -> None:
        found = self._window.doing.describe(x_px, y_px, outer=outer, panel=panel)
        if found is None:
            self._hear(Pointed(None))
            return
        row, target = found
        box = Box(
            x_px=max(0, round(row["xPx"])),
            y_px=max(0, round(row["yPx"])),
            width_px=max(1, round(row["widthPx"])),
            height_px=max(1, round(row["heightPx"])),
        )
        self._hear(Pointed(box, target, row["words"]))

    def _take(self, order: TakeOrder, folder: Path) -> None:
        window = self._window
        self._taking = True
        try:
            window.note_all()
            window.view.hide()
            recording = window.doing.recording
            manifest, report = take_live(
                window.session,
                self._request,
                order,
                folder,
                pointer=window.doing.pointer,
                recording=recording,
                on_progress=lambda progress: self._hear(Taking(progress)),
            )
            self._hear(Taken(folder=folder, manifest=manifest, report=report, recording=recording))
        except TallPageError as error:
            self._hear(NotTaken(error=error, folder=folder))
        except Exception as error:
            went = PageError("The page went while its picture was taken.", code="page_failed")
            self._hear(NotTaken(error=went, folder=folder))
            self._fault(error)
        finally:
            self._taking = False
            with suppress(Exception):  # a page that went meanwhile is told by itself
                window.view.show()

    def _fault(self, error: Exception) -> None:
        """Whatever fails because the browser or the page is gone is told by its end."""
        if is_of_playwright(error) or (isinstance(error, TallPageError) and self._closing):
            return
        if isinstance(error, TallPageError):
            self._hear(Failed(error))
            return
        _log.error("A live page failed", exc_info=error)
