"""Seeing to it that nobody waits for a browser that is dead."""

from __future__ import annotations

import os
import signal
import threading
from contextlib import suppress

import psutil

_GRACE_S = 3


class BrowserWatch:
    """Ends the driver of a browser that has died.

    The driver mostly tells by itself; but a page that is opened in the very moment in which the
    browser dies is waited for without end. Once the driver is gone, whoever waits gets an error.

    Raises:
        psutil.NoSuchProcess: it is dead already.
    """

    def __init__(self, browser_process_id: int) -> None:
        self._browser = psutil.Process(browser_process_id)
        # A script may stand between the two: the driver is what this process started.
        above = [row for row in self._browser.parents() if row.ppid() == os.getpid()]
        if not above:  # it has ended meanwhile, and nobody is above it
            raise psutil.NoSuchProcess(browser_process_id)
        self._driver = above[0]
        self._dead = threading.Event()
        self._over = threading.Event()
        threading.Thread(target=self._watch, name="browser-watch", daemon=True).start()

    def kill_browser(self) -> None:
        """Kill the browser, from any thread: whoever waits for it gets an error instead of an answer."""
        with suppress(psutil.NoSuchProcess):
            self._browser.send_signal(signal.SIGKILL)

    @property
    def is_alive(self) -> bool:
        """Whether both run."""
        return not self._dead.is_set() and self._driver.is_running()

    def died_within(self, seconds: float) -> bool:
        """Whether the browser is dead, or dies in the next moment."""
        return self._dead.wait(seconds)

    def end(self) -> None:
        """Nobody waits for the browser any more: its driver may end by itself."""
        self._over.set()

    def _watch(self) -> None:
        self._browser.wait()
        self._dead.set()
        if not self._over.wait(_GRACE_S):
            with suppress(psutil.NoSuchProcess):
                self._driver.kill()
