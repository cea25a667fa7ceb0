"""What a worker keeps for its next piece of work, and lets go of when none comes for a while."""

from __future__ import annotations

import ctypes
import gc
import threading
from collections.abc import Callable
from concurrent.futures import Executor
from contextlib import suppress

_IDLE_S = 30.0
_RELEASES: list[Callable[[], None]] = []


def when_idle(release: Callable[[], None]) -> None:
    """Have ``release`` called, in the thread that works, when a worker has had nothing to do for a while."""
    _RELEASES.append(release)


class IdleTimer:
    """Counts from the end of one piece of work to the beginning of the next."""

    def __init__(self) -> None:
        self._timer: threading.Timer | None = None

    def work_begins(self) -> None:
        """Note that there is work."""
        if self._timer is not None:
            self._timer.cancel()

    def work_ended(self, thread: Executor) -> None:
        """Note that ``thread`` has no work from now on."""
        self.work_begins()
        self._timer = threading.Timer(_IDLE_S, _ask, (thread,))
        self._timer.daemon = True
        self._timer.start()


def _ask(thread: Executor) -> None:
    with suppress(RuntimeError):  # a thread that has ended holds nothing any more
        thread.submit(_release_all)


def _release_all() -> None:
    for release in _RELEASES:
        release()
    gc.collect()
    with suppress(OSError, AttributeError):  # what was freed goes back to the machine, where there is a way
        ctypes.CDLL(None).malloc_trim(0)
