"""Threads that an encoder has put on real-time priority, brought back."""

from __future__ import annotations

import os
from contextlib import suppress
from pathlib import Path

_THREADS = Path("/proc/self/task")


def leave_real_time() -> None:
    """Bring every thread of this process back to ordinary priority.

    Where it may, as root, the AV1 encoder puts its threads and its caller's on real-time priority and
    leaves them there. The process, and each that it starts, would then go before everything else on the
    machine.
    """
    if not _THREADS.is_dir():
        return  # only Linux lets it go so far
    for thread in _THREADS.iterdir():
        with suppress(OSError):  # the thread has ended meanwhile
            if os.sched_getscheduler(int(thread.name)) == os.SCHED_FIFO:
                os.sched_setscheduler(int(thread.name), os.SCHED_OTHER, os.sched_param(0))
