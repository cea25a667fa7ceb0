"""Room that is set aside on the disk, so that deleting works when nothing else does.

A row is deleted by writing to the database, and on a full disk there is no room for that.
"""

from __future__ import annotations

import os
import shutil
from collections.abc import Callable
from contextlib import suppress
from pathlib import Path

from django.conf import settings
from django.http import HttpRequest, HttpResponse

from tallpage.core.files import write_whole

_RESERVE_BYTES = 16_000_000
_NEEDED_BYTES = 8_000_000
"""What deleting a sweep of 10,000 pictures writes before the database is put in order again."""
_PLENTY_BYTES = 10 * _RESERVE_BYTES


def keep_reserve() -> None:
    """Set room aside, when there is none and the disk has plenty."""
    if not _file().exists() and _free_bytes() > _PLENTY_BYTES:
        write_whole(_file(), (os.urandom(1_000_000) for _ in range(_RESERVE_BYTES // 1_000_000)))


def make_room_to_delete() -> None:
    """Give up what is set aside, when the disk is nearly full; else pictures that can be made anew."""
    if _free_bytes() >= _NEEDED_BYTES:
        return
    with suppress(OSError):
        _file().unlink()
    for view in (Path(settings.HOME) / "views").glob("*/*.webp"):
        if _free_bytes() >= _NEEDED_BYTES:
            return
        with suppress(OSError):
            view.unlink()


def room_to_delete(
    respond: Callable[[HttpRequest], HttpResponse],
) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware: whoever deletes has room for it."""

    def responding(request: HttpRequest) -> HttpResponse:
        if request.method == "DELETE":
            make_room_to_delete()
        return respond(request)

    return responding


def _file() -> Path:
    return Path(settings.HOME) / "reserve"


def _free_bytes() -> int:
    return shutil.disk_usage(settings.HOME).free
