"""One browser for many pages, replaced when it broke or has had its share."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import TypeVar

from tallpage.core.capture._report import PageReport
from tallpage.core.capture._request import AskStopMode, OnProgress, PageRequest
from tallpage.core.capture._take import take_page
from tallpage.core.capture.browser._filtering_proxy import FilteringProxy
from tallpage.core.capture.browser._starting import Browser
from tallpage.core.errors import PageError, TallPageError
from tallpage.core.files import empty_folder
from tallpage.core.picture import StripManifest

Made = TypeVar("Made")
_PAGES_PER_BROWSER = 50
_FURTHER_TRIES = 2
_BROWSER_BROKE = ("browser_closed", "page_crashed")
_MAY_BE_DYING = ("page_is_file", "page_failed")
"""What is said of a page whose browser is ended piece by piece, before it knows itself."""
_DYING_S = 0.5


class BrowserPool:
    """Belongs to the thread that takes its first page; behind a ``filtering_proxy`` that runs already."""

    def __init__(self, filtering_proxy: FilteringProxy | None = None) -> None:
        self._filtering_proxy = filtering_proxy
        self._browser: Browser | None = None
        self._pages = 0

    def take(
        self,
        request: PageRequest,
        folder: Path,
        *,
        on_progress: OnProgress = lambda _: None,
        ask_stop_mode: AskStopMode = lambda: "go_on",
    ) -> tuple[StripManifest, PageReport]:
        """As :func:`take_page`; a page with which the browser breaks gets another, and once more."""

        def take(browser: Browser) -> tuple[StripManifest, PageReport]:
            return take_page(browser, request, folder, on_progress=on_progress, ask_stop_mode=ask_stop_mode)

        return self.do(take, request.address, folder)

    def do(self, work: Callable[[Browser], Made], address: str, folder: Path) -> Made:
        """Do something with a page into an empty folder; where the browser breaks, with another, and again.

        The page may be innocent: the first browser may have been dying before it was opened.
        """
        for _ in range(_FURTHER_TRIES):
            try:
                return self._do_once(work, address)
            except TallPageError:
                if self._browser is not None:
                    raise  # it lives: the page is to blame
            empty_folder(folder)
        return self._do_once(work, address)

    def close(self) -> None:
        """End the browser; the next page starts another."""
        browser, self._browser = self._browser, None
        if browser is not None:
            browser.__exit__(None, None, None)

    def _do_once(self, work: Callable[[Browser], Made], address: str) -> Made:
        browser = self._answering()
        try:
            return work(browser)
        except TallPageError as error:
            dying = error.code in _MAY_BE_DYING and not browser.opens_pages()
            # On a busy machine a dying browser may still open a page: what looks like a download waits.
            dying = dying or (error.code == "page_is_file" and browser.died_within(_DYING_S))
            if dying or error.code in _BROWSER_BROKE:
                self.close()
            raise
        except Exception as error:
            if not browser.died_within(_DYING_S):
                raise
            # The end of the driver is told as a bare exception.
            self.close()
            said = f"The browser closed while {address} was taken."
            raise PageError(said, code="browser_closed") from error

    def _answering(self) -> Browser:
        if self._browser is not None and (not self._browser.is_alive or self._pages >= _PAGES_PER_BROWSER):
            self.close()
        if self._browser is None:
            self._browser = Browser(filtering_proxy=self._filtering_proxy).__enter__()
            self._pages = 0
        self._pages += 1
        return self._browser
