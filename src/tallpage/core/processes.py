"""Processes that belong together."""

from __future__ import annotations

import ctypes
import signal

_PR_SET_PDEATHSIG = 1


def die_with_parent() -> None:
    """Have the kernel kill this process when the one that started it has ended, however it ended.

    Source: prctl(2), PR_SET_PDEATHSIG.
    """
    ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, signal.SIGKILL)
