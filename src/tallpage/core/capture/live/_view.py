"""The window of a live page as a person sees it: frames while it moves, a sharp picture once it rests."""

from __future__ import annotations

import asyncio
import base64
from collections.abc import Callable
from typing import Any

from tallpage.core.capture._screen import Screen
from tallpage.core.capture.browser._page_session import PageSession
from tallpage.core.capture.live._events import Frame
from tallpage.core.capture.live._turns import Turns

_QUALITY = 80
_MOST_MOVING_PX = 1_400
"""How wide or high a frame is at most while the page moves: more is only needed to read it."""
_REST_S, _DENSE_REST_S, _LONGEST_REST_S = 0.2, 0.5, 5.0
"""From the last frame until the page counts as resting. A page that keeps changing by itself, without
anybody doing anything, is looked at more and more seldom. The sharp picture of a dense screen takes longer,
and shows little more."""
_DENSE_QUALITY = 95
"""A screen of several px a CSS px is shown smaller than it is, and its PNG would keep the page from its
person for a quarter of a second."""


class View:
    """Belongs to the page's own thread, as everything it calls does."""

    def __init__(
        self,
        page: PageSession,
        screen: Screen,
        turns: Turns,
        hear: Callable[[Frame], None],
    ) -> None:
        self._page, self._screen, self._turns, self._hear = page, screen, turns, hear
        self._session = page.devtools
        self._showing = False
        self._undrawn = False
        self._held: dict[str, Any] | None = None
        self._last = b""
        self._resting: asyncio.TimerHandle | None = None
        self._soonest_rest_s = _REST_S if screen.scale == 1 else _DENSE_REST_S
        self._rest_s = self._soonest_rest_s
        self.after_input = 0
        """The last input that the page has been told of."""
        self._session.on("Page.screencastFrame", self._on_frame)

    def show(self) -> None:
        """Begin to show frames, or begin anew for somebody who has seen none."""
        self._page.set_screen()
        shown = min(1.0, _MOST_MOVING_PX / (max(self._screen.width_px, self._screen.height_px)))
        order = {
            "format": "jpeg",
            "quality": _QUALITY,
            "maxWidth": round(self._screen.width_px * shown),
            "maxHeight": round(self._screen.height_px * shown),
        }
        self._undrawn, self._held, self._last = False, None, b""
        if self._showing:
            self._session.send("Page.stopScreencast")
        self._showing = True
        self._session.send("Page.startScreencast", order)
        self.stir()

    def hide(self) -> None:
        """Show nothing for now."""
        self._showing = False
        if self._resting is not None:
            self._resting.cancel()
        self._session.send("Page.stopScreencast")

    def drawn(self) -> None:
        """The last frame has been drawn where it is seen: the next may come."""
        self._undrawn = False
        held, self._held = self._held, None
        if held is not None:
            self._on_frame(held)

    def stir(self) -> None:
        """Something is done: it is looked soon whether the page rests."""
        self._rest_s = self._soonest_rest_s
        self._await_rest()

    def _on_frame(self, frame: dict[str, Any]) -> None:
        if not self._showing:
            self._next(frame)
            return
        if self._undrawn:
            if self._held is not None:
                self._next(self._held)
            self._held = frame
            return
        data = base64.b64decode(frame["data"])
        if data != self._last:
            self._last, self._undrawn = data, True
            self._hear(Frame(data, sharp=False, after_input=self.after_input))
            self._await_rest()
        self._next(frame)

    def _next(self, frame: dict[str, Any]) -> None:
        """Ask for the frame after this one."""
        number = {"sessionId": frame["sessionId"]}

        def ask() -> None:
            self._session.send("Page.screencastFrameAck", number)

        self._turns.at_once(ask)

    def _await_rest(self) -> None:
        if self._resting is not None:
            self._resting.cancel()
        self._resting = self._turns.later(self._rest_s, self._rest)

    def _rest(self) -> None:
        if not self._showing:
            return
        self._rest_s = min(_LONGEST_REST_S, self._rest_s * 2)
        after_input = self.after_input
        order: dict[str, Any] = {"format": "png", "optimizeForSpeed": True}
        if self._screen.scale > 1:
            order = {"format": "jpeg", "quality": _DENSE_QUALITY}
        answer = self._session.send("Page.captureScreenshot", order)
        if not self._showing:
            return
        self._hear(Frame(base64.b64decode(answer["data"]), sharp=True, after_input=after_input))
