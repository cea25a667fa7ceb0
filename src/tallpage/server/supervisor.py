"""Who started this process, as ``serve`` notes it for the web server and the workers."""

from __future__ import annotations

import os

_VARIABLE = "TALLPAGE_SUPERVISOR"


def become_supervisor() -> None:
    """Note for whatever is started from now on that this process, or what it becomes, started it."""
    os.environ[_VARIABLE] = str(os.getpid())


def supervisor_id() -> int | None:
    """The process that started this one; None for one that somebody started by hand."""
    told = os.environ.get(_VARIABLE, "")
    return int(told) if told.isdigit() else None
