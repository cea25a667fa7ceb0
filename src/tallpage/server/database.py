"""What the database's refusals to write mean, and waiting until it can be written again."""

from __future__ import annotations

import time
from collections.abc import Callable
from typing import TypeVar

from django.db import OperationalError, connection

from tallpage.core.errors import StorageBusy, StorageError

_T = TypeVar("_T")
_TIMEOUT_S, _PAUSE_S = 600.0, 1.0
_BRIEFLY_MS = 200


def refusal_of(error: OperationalError) -> StorageError | None:
    """What a person is told of it; None when the database is not what refuses to be written."""
    said = str(error)
    if "locked" in said or "busy" in said:
        return StorageBusy("The database is busy.")
    if "full" in said or "disk I/O" in said:
        return StorageError("The disk is full.", code="storage_full")
    if "readonly" in said or "unable to open" in said:
        return StorageError(
            "The database cannot be written.", hint="Check who owns the data folder.", code="storage_denied"
        )
    return None


def if_it_can_be_written(write: Callable[[], object]) -> None:
    """Write a count or a time that nothing hangs on.

    While another process holds the database, or the disk is full, it is left out: nobody waits for it.
    """
    with connection.cursor() as cursor:
        cursor.execute(f"pragma busy_timeout = {_BRIEFLY_MS}")
        try:
            write()
        except OperationalError as error:
            if refusal_of(error) is None:
                raise
        finally:
            usual_s = connection.settings_dict["OPTIONS"]["timeout"]
            cursor.execute(f"pragma busy_timeout = {usual_s * 1_000}")


def once_it_can_be_written(
    write: Callable[[], _T], *, timeout_s: float = _TIMEOUT_S, pause_s: float = _PAUSE_S
) -> _T:
    """The result of one transaction, tried again while others hold the database or the disk is full.

    What was computed for minutes is not to be lost because somebody else writes for some seconds.

    Raises:
        StorageError: it cannot be written at all, or still not after ``timeout_s``.
    """
    last_s = time.monotonic() + timeout_s
    while True:
        try:
            return write()
        except OperationalError as error:
            refusal = refusal_of(error)
            if refusal is None:
                raise
            if refusal.code == "storage_denied" or time.monotonic() > last_s:
                raise refusal from error
        time.sleep(pause_s)
