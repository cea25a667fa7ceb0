"""The time of a page that is watched: it passes as it is let, however long a picture takes."""

from __future__ import annotations

from tallpage.core.capture.browser._page_session import PageSession
from tallpage.core.capture.clip._moving_pictures import MovingPictures

_LOOK_MS, _FILM_MS = 5, 1_000
"""How often it is looked whether films show their moment, and for how long: one may lack its data."""


class PageTime:
    """Time of the page's scripts, of what moves by styles, of animated pictures and films.

    It stands still from the beginning; what moves by itself begins anew.
    """

    def __init__(self, page: PageSession, *, timeout_ms: int) -> None:
        self._page, self._timeout_ms = page, timeout_ms
        self._passed_ms = 0
        self._pictures = MovingPictures(page, timeout_ms=timeout_ms)
        page.stop_clock(timeout_ms=timeout_ms)
        self._take_on(0)

    def pass_until(self, moment_ms: int) -> None:
        """Let time pass until so long after it was stopped."""
        ms = moment_ms - self._passed_ms
        self._passed_ms = moment_ms
        self._page.let_pass(ms, timeout_ms=self._timeout_ms)
        self._take_on(ms)

    def _take_on(self, ms: int) -> None:
        """Take on what the page's own clock does not move."""
        for script in ("clip/animations", "clip/films"):
            self._page.run_in_all_frames(script, {"ms": ms}, timeout_ms=self._timeout_ms)
        self._pictures.show_at(self._passed_ms)
        for _ in range(_FILM_MS // _LOOK_MS):
            if all(self._page.run_in_all_frames("clip/films_shown", timeout_ms=self._timeout_ms)):
                return
            self._page.pause(_LOOK_MS)
