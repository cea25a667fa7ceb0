"""What a page asks for: what is under way, and what did not come."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING
from urllib.parse import urlsplit

if TYPE_CHECKING:
    from playwright.sync_api import Page, Request, Response

_NAMED_KINDS = {"stylesheet": "styles", "script": "scripts", "font": "fonts", "document": "frames"}
_GIVEN_UP_BY_THE_PAGE = "net::ERR_ABORTED"


class Requests:
    """The requests of a page from now on. What was refused on purpose is not missing."""

    def __init__(self, page: Page, *, is_refused: Callable[[str], bool]) -> None:
        self._page, self._is_refused = page, is_refused
        self._under_way: dict[Request, str] = {}
        self.missing: dict[str, list[str]] = {}
        """Addresses of what did not load, by kind."""
        page.on("request", self._note_start)
        page.on("requestfinished", self._note_end)
        page.on("requestfailed", self._note_failed)
        page.on("response", self._note_answer)

    @property
    def under_way(self) -> list[str]:
        """Addresses of requests that have not ended."""
        return list(self._under_way.values())

    def _note_start(self, request: Request) -> None:
        self._under_way[request] = request.url

    def _note_end(self, request: Request) -> None:
        self._under_way.pop(request, None)

    def _note_failed(self, request: Request) -> None:
        self._note_end(request)
        if request.failure != _GIVEN_UP_BY_THE_PAGE:
            self._note_missing(request)

    def _note_answer(self, response: Response) -> None:
        if response.status >= 400:
            self._note_missing(response.request)

    def _note_missing(self, request: Request) -> None:
        kind = _NAMED_KINDS.get(request.resource_type)
        of_the_page_itself = request.resource_type == "document" and request.frame == self._page.main_frame
        if kind is None or of_the_page_itself or self._is_refused(urlsplit(request.url).hostname or ""):
            return
        named = self.missing.setdefault(kind, [])
        if request.url not in named:
            named.append(request.url)
