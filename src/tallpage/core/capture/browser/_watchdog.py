"""Seeing to it that nobody waits for a browser that is dead."""

from __future__ import annotations

import os
import select
import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress

import psutil

_GRACE_S = 3


class BrowserWatch:
    """Ends the driver of a browser that has died, and the browser of a driver that has.

    The driver mostly tells by itself; but a page that is opened in the very moment in which the
    browser dies is waited for without end. Once the driver is gone, whoever waits gets an error.

    Raises:
        psutil.NoSuchProcess, ProcessLookupError: one of them is dead already.
    """

    def __init__(self, browser_process_id: int) -> None:
        self._browser = psutil.Process(browser_process_id)
        # A script may stand between the two: the driver is what this process started.
        above = [row for row in self._browser.parents() if row.ppid() == os.getpid()]
        if not above:  # it has ended meanwhile, and nobody is above it
            raise psutil.NoSuchProcess(browser_process_id)
        self._driver = above[0]
        # Waiting for a child as such would take its end away from whoever else waits for it.
        self._ends = [os.pidfd_open(process.pid) for process in (self._browser, self._driver)]
        self._dead = threading.Event()
        self._over = threading.Event()
        threading.Thread(target=self._watch, name="browser-watch", daemon=True).start()

    def kill_browser(self) -> None:
        """Kill the browser, from any thread: whoever waits for it gets an error instead of an answer."""
        with suppress(psutil.NoSuchProcess):
            self._browser.kill()

    @property
    def is_alive(self) -> bool:
        """Whether both run."""
        return not self._dead.is_set()

    def died_within(self, seconds: float) -> bool:
        """Whether one of them is dead, or dies in the next moment."""
        return self._dead.wait(seconds)

    def end(self) -> None:
        """Nobody waits for the browser any more: its driver may end by itself."""
        self._over.set()

    def _watch(self) -> None:
        first = select.poll()
        for end in self._ends:
            first.register(end, select.POLLIN)
        first.poll()
        self._dead.set()
        if not self._over.wait(_GRACE_S):
            for process in (self._driver, self._browser):
                with suppress(psutil.NoSuchProcess):
                    process.kill()
        for end in self._ends:
            os.close(end)


@contextmanager
def watchdog(timeout_ms: float, end: Callable[[], None]) -> Iterator[threading.Event]:
    """Do ``end``, from a thread of its own, when what is inside takes too long; the event says so."""
    late = threading.Event()

    def be_late() -> None:
        late.set()
        end()

    timer = threading.Timer(timeout_ms / 1_000, be_late)
    timer.daemon = True
    timer.start()
    try:
        yield late
    finally:
        timer.cancel()
