"""Folders of the data folder in which pictures are waited for: each is taken in for a routine."""

from __future__ import annotations

import logging
import os
import time
import uuid
from contextlib import suppress
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.files import File
from django.db import OperationalError, transaction
from pathvalidate import sanitize_filename

from tallpage.core.errors import PictureTooLarge, PictureUnreadable, RoutineError, StorageError, TallPageError
from tallpage.core.files import storage_errors
from tallpage.server.jobs.apart import UNKNOWN, each_apart
from tallpage.server.preferences.out_folder import out_folder
from tallpage.server.routines.models import Routine, Run, RunItem, WatchedFolder
from tallpage.server.routines.runs import require_runnable
from tallpage.server.shelf.arriving.importing import order_received, received

_log = logging.getLogger(__name__)
HOME_OF_ALL = "watched"
TAKEN, REFUSED = "taken", "refused"
"""Where pictures go from a watched folder: into these folders of it."""
MOST_FOLDERS = 50
_SETTLED_S = 2.0
"""A file that was written to so lately may still be growing."""
_AT_ONCE = 10
_LONGEST_S = 60.0
"""For so long a file may be on its way in."""
_ARRIVING = ".arriving-"
_MOST_NAME_BYTES = 200
"""Of a name on disk there may be 255; what a file is called while it arrives comes before its name."""
_MOST_NAME_CHARS = 60
_MOST_BYTES = 500_000_000


def folder_of(name: str) -> Path:
    """Where a watched folder is."""
    return Path(settings.HOME) / HOME_OF_ALL / name


def watch_folder(name: str, routine: Routine, values: dict[str, Any]) -> WatchedFolder:
    """Wait for pictures in a folder of that name, which is made.

    Raises:
        RoutineError: the name cannot be used, the folder is watched already, the routine cannot be run, or
            what it makes would come into a watched folder again.
    """
    safe = sanitize_filename(name, platform="universal", max_len=_MOST_NAME_CHARS).strip(" .")
    if not safe or safe != name.strip():
        raise RoutineError(
            f"“{name[:80]}” cannot be the name of a folder.", hint="Use letters, digits, spaces and hyphens."
        )
    if WatchedFolder.objects.filter(name__iexact=safe).exists():
        raise RoutineError(f"The folder “{safe}” is watched already.", hint="Choose another name.")
    if WatchedFolder.objects.count() >= MOST_FOLDERS:
        raise RoutineError(f"{MOST_FOLDERS} folders are watched already.", hint="Leave one alone first.")
    require_runnable(routine.newest.chain(values))
    require_no_loop()
    folder = folder_of(safe)
    with storage_errors(Path(settings.HOME)):
        folder.mkdir(parents=True, exist_ok=True)
    return WatchedFolder.objects.create(name=safe, routine=routine, values=values)


def require_no_loop() -> None:
    """Refuse to watch where files are written to: each would be taken for a new picture, without end.

    Raises:
        RoutineError: the folder for what is saved lies in the watched ones, or they in it.
    """
    out, watched = out_folder().resolve(), folder_of("").resolve()
    if out == watched or out in watched.parents or watched in out.parents:
        raise RoutineError(
            "What is saved on the server would come into a watched folder again.",
            hint="Under Settings, have files go to a folder beside the watched ones.",
            code="watched_loop",
        )


def look_into_folders() -> bool:
    """Take in what was put into the watched folders; whether there may be more soon."""
    came: list[Path] = []

    def look(watched: WatchedFolder) -> None:
        folder = folder_of(watched.name)
        _clear_up_after_a_kill(folder)
        for path in _settled(folder)[:_AT_ONCE]:
            came.append(path)
            _take_in(watched, path)

    watched = WatchedFolder.objects.filter(routine__deleted_at=None).select_related("routine")
    each_apart(watched, look, fail=_tell)
    return bool(came)


def _tell(watched: WatchedFolder, problem: str) -> None:
    WatchedFolder.objects.filter(pk=watched.pk).update(problem=problem)


def _settled(folder: Path) -> list[Path]:
    """Files that nobody writes to any more, the oldest first. Links are left alone, wherever they lead."""
    ready = []
    with suppress(OSError), os.scandir(folder) as entries:
        for entry in entries:
            if entry.name.startswith(".") or not entry.is_file(follow_symlinks=False):
                continue
            with suppress(FileNotFoundError):  # somebody took it away again
                changed_at_s = entry.stat().st_mtime
                if time.time() - changed_at_s > _SETTLED_S:
                    ready.append((changed_at_s, Path(entry.path)))
    return [path for _, path in sorted(ready)]


def _take_in(watched: WatchedFolder, path: Path) -> None:
    """Put a picture on the shelf and into the folder's run. What is none is laid aside, and told.

    The file has a name of its own meanwhile, which its row knows: after a kill it is known whether it was
    taken in.
    """
    name = _readable(path.name)
    arriving = path.with_name(f"{_ARRIVING}{uuid.uuid4().hex}-{_shortened(name)}")
    try:
        path.rename(arriving)
    except OSError:
        return  # it has gone, or cannot be moved: then it cannot be taken in without end either
    try:
        _order(watched, arriving, name)
    except (OperationalError, StorageError, OSError):
        _move(arriving, "", name)  # nothing is wrong with the file: it waits again
        raise
    except TallPageError as error:
        _tell(watched, f"{name}: {error.in_one_line()}")
        _move(arriving, REFUSED, name)
    except Exception:
        _log.exception("%s could not be taken in", name)
        _tell(watched, f"{name}: {UNKNOWN}")
        _move(arriving, REFUSED, name)
    else:
        _move(arriving, TAKEN, name)


def _order(watched: WatchedFolder, arriving: Path, name: str) -> None:
    if arriving.stat().st_size > _MOST_BYTES:
        raise PictureTooLarge(f"The file has over {_MOST_BYTES // 1_000_000} MB.")
    if not os.access(arriving, os.R_OK):
        raise PictureUnreadable("The file may not be read.", hint="Check whose it is.")
    with arriving.open("rb") as file, received(File(file)) as copy, transaction.atomic():
        capture = order_received(copy, name)
        run = _run_of(watched)
        last = run.items.order_by("-number").values_list("number", flat=True).first() or 0
        RunItem.objects.create(
            run=run, number=last + 1, capture=capture, name=name[:200], source_file=arriving.name
        )


def _readable(name: str) -> str:
    """A file's name as it can be stored and shown: of an old system it may be no UTF-8."""
    return os.fsencode(name).decode("utf-8", "replace")


def _shortened(name: str) -> str:
    """A name of at most 200 bytes; its end, which says what it is, stays."""
    return name.encode()[-_MOST_NAME_BYTES:].decode("utf-8", "ignore")


def _clear_up_after_a_kill(folder: Path) -> None:
    """What was on its way in when a process was killed: it was taken in, or waits again."""
    for arriving in folder.glob(f"{_ARRIVING}*"):
        if time.time() - arriving.stat().st_ctime < _LONGEST_S:
            continue  # another process may be at it
        known = _readable(arriving.name)
        was_taken = RunItem.objects.filter(source_file=known).exists()
        _move(arriving, TAKEN if was_taken else "", known.removeprefix(_ARRIVING).partition("-")[2])


def _run_of(watched: WatchedFolder) -> Run:
    """The run that a folder's pictures go to: the one that goes on, or a new one with the newest version."""
    newest = watched.routine.newest
    going = Run.objects.filter(
        watched_folder=watched.name, version=newest, values=watched.values, finished_at=None
    ).first()
    return going or Run.objects.create(
        version=newest,
        values=watched.values,
        watched_folder=watched.name,
        subject=f"the watched folder “{watched.name}”",
    )


def _move(path: Path, where: str, name: str) -> None:
    """Move a file into a folder beside it, or "" for where it is, under its name, or with a number where
    something has that name."""
    target = path.parent / where
    with suppress(OSError):  # then it stays where it is, under the name that its row knows
        target.mkdir(exist_ok=True)
        wanted, count = Path(name), 1
        while (target / name).exists():
            count += 1
            name = f"{wanted.stem} {count}{wanted.suffix}"
        path.rename(target / name)
