"""Processes that belong together."""

from __future__ import annotations

import ctypes
import os
import signal

_PR_SET_PDEATHSIG = 1


def die_with_parent() -> None:
    """Have the kernel kill this process when the one that started it has ended, however it ended.

    Source: prctl(2), PR_SET_PDEATHSIG.
    """
    ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, signal.SIGKILL)


def have_forks_die_with_parent() -> None:
    """The same for whatever is forked from now on, by this process and by its forks."""
    parent_id = os.getpid()

    def note() -> None:
        nonlocal parent_id
        parent_id = os.getpid()

    def follow() -> None:
        die_with_parent()
        if os.getppid() != parent_id:  # it ended before the kernel was told
            os._exit(1)

    os.register_at_fork(before=note, after_in_child=follow)
