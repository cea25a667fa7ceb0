"""Processes that belong together."""

from __future__ import annotations

import ctypes
import os
import signal

_PR_SET_PDEATHSIG = 1


def die_with_parent(parent_id: int | None = None) -> None:
    """Have the kernel kill this process when the one that started it has ended, however it ended.

    ``parent_id`` is the one that started it: where that has ended already, this ends now.

    Source: prctl(2), PR_SET_PDEATHSIG.
    """
    ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, signal.SIGKILL)
    if parent_id is not None and os.getppid() != parent_id:  # it ended before the kernel was told
        os._exit(1)


def have_forks_die_with_parent() -> None:
    """The same for whatever is forked from now on, by this process and by its forks."""
    parent_id = os.getpid()

    def note() -> None:
        nonlocal parent_id
        parent_id = os.getpid()

    os.register_at_fork(before=note, after_in_child=lambda: die_with_parent(parent_id))
