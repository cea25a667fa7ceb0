"""What other threads want done on a live page, one after the other, in the page's own thread.

The browser's library runs a loop in that thread; work is handed to the loop, and is done in a greenlet,
as the library does with its own events, so that waiting for an answer keeps nothing else waiting.
"""

from __future__ import annotations

import asyncio
from collections import deque
from collections.abc import Callable
from contextlib import suppress
from threading import Lock

import greenlet

from tallpage.core.capture.live._input import Input, takes_place_of

Work = Callable[[], None]
_MOST_WAITING = 2_000
"""What is done on a page that does not react any more is not kept for ever."""


class Turns:
    """Work in order. What is added before :meth:`begin` waits for it; what comes after the end is dropped."""

    def __init__(self, on_fault: Callable[[Exception], None]) -> None:
        self._on_fault = on_fault
        self._loop: asyncio.AbstractEventLoop | None = None
        self._early: list[Work] = []
        self._lock = Lock()
        self._waiting: deque[tuple[Work, Input | None]] = deque()
        self._busy = False

    def begin(self) -> None:
        """Work is done from now on, in this thread."""
        with self._lock:
            self._loop = asyncio.get_running_loop()
            early, self._early = self._early, []
        for work in early:
            self._loop.call_soon(work)

    def add(self, work: Work, given: Input | None = None) -> None:
        """Do something once all before it is done; an input may take the place of one that waits."""
        self._tell(lambda: self._line_up(work, given))

    def at_once(self, work: Work) -> None:
        """Do something although other things may be under way, which may be waiting for it."""
        self._tell(lambda: self._start(work))

    def later(self, delay_s: float, work: Work, *, in_line: bool = False) -> asyncio.TimerHandle:
        """Do something after a while, in line or at once; only from the page's own thread."""
        loop = asyncio.get_running_loop()
        if in_line:
            return loop.call_later(delay_s, self._line_up, work, None)
        return loop.call_later(delay_s, self._start, work)

    def _tell(self, work: Work) -> None:
        with self._lock:
            if self._loop is None:
                self._early.append(work)
                return
            with suppress(RuntimeError):  # the page has ended, and its loop with it
                self._loop.call_soon_threadsafe(work)

    def _line_up(self, work: Work, given: Input | None) -> None:
        if given is not None and len(self._waiting) >= _MOST_WAITING:
            return
        if given is not None and self._waiting:
            last = self._waiting[-1][1]
            if last is not None and takes_place_of(given, last):
                self._waiting.pop()
        self._waiting.append((work, given))
        if not self._busy:
            self._busy = True
            self._start(self._do_all)

    def _do_all(self) -> None:
        try:
            while self._waiting:
                work, _ = self._waiting.popleft()
                self._guarded(work)
        finally:
            self._busy = False

    def _start(self, work: Work) -> None:
        greenlet.greenlet(lambda: self._guarded(work)).switch()

    def _guarded(self, work: Work) -> None:
        try:
            work()
        except asyncio.CancelledError:
            pass  # the loop ends, and with it all that waits for an answer
        except Exception as error:  # whatever is raised here would end the loop itself
            self._on_fault(error)
