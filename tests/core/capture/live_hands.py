"""Hands on a live page: what it tells is collected, and waited for."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from typing import TypeVar

import psutil

from tallpage.core.capture import PRESETS, FilteringProxy, PageRequest, Screen
from tallpage.core.capture.live import (
    Event,
    Frame,
    Input,
    KeyInput,
    LivePage,
    Place,
    PointerInput,
    TouchInput,
)

_E = TypeVar("_E")
PATIENCE_S = 60.0
_OTHERS = ("--type=", "--disable-frame-rate-limit")


class Hands:
    """One person's hands on a page."""

    def __init__(self, address: str, screen: Screen, filtering_proxy: FilteringProxy | None) -> None:
        self.events: list[Event] = []
        self._news = threading.Condition()
        self._number = 0
        request = PageRequest(address=address, screen=screen)
        self.page = LivePage(request, self._hear, filtering_proxy=filtering_proxy)

    def _hear(self, event: Event) -> None:
        with self._news:
            self.events.append(event)
            self._news.notify_all()
        if isinstance(event, Frame) and not event.sharp:
            self.page.drawn()

    def loaded(self) -> None:
        """Wait until the page is there and at rest: before, an empty one may have been shown at rest."""
        self.until(Place, lambda place: not place.loading, heard=False)
        self.point(1, 1)
        self.rested()

    def until(
        self, kind: type[_E], holds: Callable[[_E], bool] = lambda _: True, *, heard: bool = True
    ) -> _E:
        """The first event of a kind, from now on or before, of which something holds.

        It is ``heard`` once, unless it is left for others.
        """
        last_s = time.monotonic() + PATIENCE_S
        with self._news:
            while True:
                for event in self.events:
                    if isinstance(event, kind) and holds(event):
                        if heard:
                            self.events.remove(event)
                        return event
                others = [event for event in self.events if not isinstance(event, Frame)]
                assert self._news.wait(last_s - time.monotonic()), f"no {kind.__name__}: {others}"

    def forget(self, kind: type[_E]) -> None:
        """Forget what was told of a kind so far, for what comes from now on to be waited for."""
        with self._news:
            self.events = [event for event in self.events if not isinstance(event, kind)]

    def rested(self) -> bytes:
        """The page once it has done all that was asked of it."""
        number = self._number
        return self.until(Frame, lambda frame: frame.sharp and frame.after_input == number).data

    def point(self, x_px: float, y_px: float) -> None:
        """Move the pointer."""
        self._do(PointerInput(kind="move", x_px=x_px, y_px=y_px))

    def click(self, x_px: float, y_px: float) -> None:
        """Click with the left button."""
        self.point(x_px, y_px)
        self._do(PointerInput(kind="down", x_px=x_px, y_px=y_px, button="left", buttons=1, clicks=1))
        self._do(PointerInput(kind="up", x_px=x_px, y_px=y_px, button="left", clicks=1))

    def tap(self, x_px: float, y_px: float) -> None:
        """Touch with one finger and let go."""
        self._do(TouchInput(kind="start", fingers=((x_px, y_px, 0),)))
        self._do(TouchInput(kind="end"))

    def wheel(self, down_px: float) -> None:
        """Turn the wheel in the middle."""
        self._do(PointerInput(kind="wheel", x_px=400, y_px=300, down_px=down_px))

    def type(self, text: str) -> None:
        """Press the keys of a text."""
        for letter in text:
            self._do(KeyInput(kind="down", key=letter, text=letter, key_code=ord(letter.upper()) % 256))
            self._do(KeyInput(kind="up", key=letter))

    def _do(self, given: Input) -> None:
        self._number += 1
        self.page.do(given, self._number)


@contextmanager
def hands_on(
    address: str, screen: Screen = PRESETS["desk"], *, filtering_proxy: FilteringProxy | None = None
) -> Iterator[Hands]:
    """A live page at an address, at rest; closed afterwards."""
    hands = Hands(address, screen, filtering_proxy)
    hands.page.start()
    try:
        hands.loaded()
        yield hands
    finally:
        hands.page.close()
        assert hands.page.wait_closed(20)


def kill_browsers() -> None:
    """Kill the browsers of live pages that this process has started, themselves and not their parts.

    Those that take pages, which other tests share, draw faster than a display shows.
    """
    for row in psutil.Process().children(recursive=True):
        with suppress(psutil.Error):  # it may be ending just now
            words = " ".join(row.cmdline())
            if "chrom" in row.name() and not any(mark in words for mark in _OTHERS):
                row.kill()
