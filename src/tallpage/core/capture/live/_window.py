"""One window of a visit: what it shows, what it asks, where it is."""

from __future__ import annotations

import asyncio
from collections.abc import Callable
from contextlib import suppress
from typing import TYPE_CHECKING, Any, cast

from tallpage.core.capture._request import PageRequest
from tallpage.core.capture.browser._page_session import PageSession
from tallpage.core.capture.browser._translating import page_script
from tallpage.core.capture.live._doing import Doing
from tallpage.core.capture.live._events import (
    DialogClosed,
    DialogOpened,
    Event,
    Place,
    Recorded,
    Said,
)
from tallpage.core.capture.live._input import Input
from tallpage.core.capture.live._turns import Turns
from tallpage.core.capture.live._view import View

if TYPE_CHECKING:
    from playwright.sync_api import BrowserContext, ConsoleMessage, Dialog, Download, Page

_SCRIPTS = ("browser/prelude", "live/movement", "live/pointing")
_ASKED = "capture:asked"
_MOST_CHARS = 500
_DONE_S = 0.6
"""From the last input until it is noted what was done."""


class Window:
    """A page, its view and the hands on it. Belongs to the page's own thread."""

    def __init__(
        self,
        page: Page,
        session: PageSession,
        request: PageRequest,
        turns: Turns,
        hear: Callable[[Event], None],
    ) -> None:
        self.page, self.session, self._turns, self._hear = page, session, turns, hear
        self._devtools = session.devtools
        self.doing = Doing(session, hear)
        self.view = View(session, request.screen, turns, hear)
        self._dialog: Dialog | None = None
        self._noting: asyncio.TimerHandle | None = None
        self._loading = False
        self._asked = request.address
        self._title = ""
        self._refused: set[str] = set()
        self._said: set[str] = set()
        self._devtools.send("Page.enable")
        self._devtools.on("Page.frameNavigated", self._on_navigated)
        self._devtools.on("Page.frameStartedLoading", lambda told: self._on_loading(told, loading=True))
        self._devtools.on("Page.frameStoppedLoading", lambda told: self._on_loading(told, loading=False))
        self._frame_id = self._devtools.send("Page.getFrameTree")["frameTree"]["frame"]["id"]
        page.on("dialog", self._on_dialog)
        page.on("download", self._on_download)
        page.on("filechooser", lambda _: hear(Said("The page asked for a file. A live page is given none.")))
        page.on("console", self._on_console)

    @classmethod
    def prepare(cls, context: BrowserContext) -> None:
        """What every window of a visit begins with."""
        for name in _SCRIPTS:
            context.add_init_script(script=page_script(name))

    @property
    def asks(self) -> bool:
        """Whether a dialog is open."""
        return self._dialog is not None

    @property
    def _is_page(self) -> bool:
        """Whether a page is there: where nothing was opened the browser shows one of its own."""
        return self.page.url.startswith("http")

    def do(self, given: Input, number: int) -> None:
        """Do what a person did. While a dialog is open the page hears nothing."""
        if self.asks or not self._is_page:
            return
        self.view.stir()
        self._note_later()
        self.doing.do(given)
        self.view.after_input = number

    def load(self, address: str) -> None:
        """An address is being opened."""
        self._loading, self._asked = True, address
        self._hear(Place(address=address, title="", loading=True))

    def loaded(self) -> None:
        """It was opened, or it could not be."""
        self._loading = False
        self.tell_place()

    def move(self, by: int) -> bool:
        """Go back or on in what was visited, or load it again; False where there is nothing."""
        if by == 0:
            self._devtools.send("Page.reload")
            return True
        history = self._devtools.send("Page.getNavigationHistory")
        wanted = history["currentIndex"] + by
        entries = history["entries"]
        if not 0 <= wanted < len(entries) or not entries[wanted]["url"].startswith("http"):
            return False
        self._devtools.send("Page.navigateToHistoryEntry", {"entryId": entries[wanted]["id"]})
        return True

    def answer(self, *, accept: bool, text: str) -> None:
        """Answer the dialog, if one is open."""
        dialog, self._dialog = self._dialog, None
        if dialog is None:
            return
        self._hear(DialogClosed())
        if accept:
            dialog.accept(text if dialog.type == "prompt" else "")
        else:
            dialog.dismiss()
        self.view.stir()

    def tell_place(self) -> None:
        """Tell where the page is."""
        if not self.asks:
            with suppress(Exception):  # it is between two pages
                self._title = self.page.title()
        address = self.page.url if self._is_page else self._asked
        self._hear(Place(address=address, title=self._title[:_MOST_CHARS], loading=self._loading))

    def tell_all(self) -> None:
        """Tell and show everything to somebody who comes anew."""
        self._hear(Recorded(self.doing.recording))
        if self._dialog is not None:
            self._tell_dialog(self._dialog)
        self.tell_place()
        self.view.show()

    def note_all(self) -> None:
        """Note what was done so far."""
        if self.asks:
            return
        if self._is_page:
            self.doing.rest()
        refused = set(self.session.refused_hosts) - self._refused
        if refused:
            self._refused |= refused
            names = ", ".join(sorted(refused)[:3])
            self._hear(Said(f"On a private network, not opened: {names}."))

    def _note_later(self) -> None:
        """Note what is done once nothing more is: to look at the page takes its time."""
        if self._noting is not None:
            self._noting.cancel()
        self._noting = self._turns.later(_DONE_S, self.note_all, in_line=True)

    def _on_navigated(self, told: dict[str, Any]) -> None:
        if told["frame"].get("parentId"):
            return
        self.doing.loaded(told["frame"]["url"])
        self.view.stir()

    def _on_loading(self, told: dict[str, Any], *, loading: bool) -> None:
        if told["frameId"] == self._frame_id and loading != self._loading:
            self._loading = loading
            if not loading:
                self._turns.add(self._look)
            self.tell_place()

    def _look(self) -> None:
        if not self.asks and self._is_page:
            self.doing.look()
        self._note_later()

    def _on_dialog(self, dialog: Dialog) -> None:
        self._dialog = dialog
        self._tell_dialog(dialog)

    def _tell_dialog(self, dialog: Dialog) -> None:
        kind = cast(Any, dialog.type)
        self._hear(
            DialogOpened(kind=kind, message=dialog.message[:_MOST_CHARS], default=dialog.default_value)
        )

    def _on_download(self, download: Download) -> None:
        name = download.suggested_filename[:80]
        self._hear(Said(f"The page wanted to save the file “{name}”. A live page saves none."))
        with suppress(Exception):  # it may have ended by itself
            download.cancel()

    def _on_console(self, message: ConsoleMessage) -> None:
        words = message.text
        if not words.startswith(_ASKED) or words in self._said:
            return
        self._said.add(words)
        what = words.removeprefix(_ASKED).strip()[:60]
        self._hear(Said(f"The page asked {what}. That is refused."))
