"""Folders of the data folder in which pictures are waited for: each is taken in for a routine."""

from __future__ import annotations

import os
import time
import uuid
from contextlib import suppress
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.files import File
from django.db import transaction
from pathvalidate import sanitize_filename

from tallpage.core.errors import PictureTooLarge, RoutineError, TallPageError
from tallpage.core.files import storage_errors
from tallpage.server.preferences.out_folder import out_folder
from tallpage.server.routines.models import Routine, Run, RunItem, WatchedFolder
from tallpage.server.routines.runs import require_runnable
from tallpage.server.shelf.arriving.importing import order_picture

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
    soon = False
    for watched in WatchedFolder.objects.filter(routine__deleted_at=None).select_related("routine"):
        folder = folder_of(watched.name)
        _clear_up_after_a_kill(folder)
        for path in _settled(folder)[:_AT_ONCE]:
            soon = True
            _take_in(watched, path)
    return soon


def _settled(folder: Path) -> list[Path]:
    """Files that nobody writes to any more, the oldest first. Links are left alone, wherever they lead."""
    try:
        entries = [entry for entry in os.scandir(folder) if entry.is_file(follow_symlinks=False)]
    except OSError:
        return []
    ready = [
        (entry.stat().st_mtime, Path(entry.path))
        for entry in entries
        if not entry.name.startswith(".") and time.time() - entry.stat().st_mtime > _SETTLED_S
    ]
    return [path for _, path in sorted(ready)]


def _take_in(watched: WatchedFolder, path: Path) -> None:
    """Put a picture on the shelf and into the folder's run. What is none is laid aside, and told.

    The file has a name of its own meanwhile, which its row knows: after a kill it is known whether it was
    taken in.
    """
    arriving = path.with_name(f"{_ARRIVING}{uuid.uuid4().hex}-{path.name}"[:_MOST_NAME_BYTES])
    try:
        path.rename(arriving)
    except OSError:
        return  # it has gone, or cannot be moved: then it cannot be taken in without end either
    try:
        if arriving.stat().st_size > _MOST_BYTES:
            raise PictureTooLarge(f"The file has over {_MOST_BYTES // 1_000_000} MB.")
        with arriving.open("rb") as file, transaction.atomic():
            capture = order_picture(File(file, name=path.name))
            run = _run_of(watched)
            last = run.items.order_by("-number").values_list("number", flat=True).first() or 0
            RunItem.objects.create(
                run=run,
                number=last + 1,
                capture=capture,
                name=path.name[:200],
                source_file=arriving.name,
            )
    except TallPageError as error:
        WatchedFolder.objects.filter(pk=watched.pk).update(problem=f"{path.name}: {error.in_one_line()}")
        _move(arriving, REFUSED, path.name)
    else:
        _move(arriving, TAKEN, path.name)


def _clear_up_after_a_kill(folder: Path) -> None:
    """What was on its way in when a process was killed: it was taken in, or waits again."""
    for arriving in folder.glob(f"{_ARRIVING}*"):
        if time.time() - arriving.stat().st_ctime < _LONGEST_S:
            continue  # another process may be at it
        name = arriving.name.removeprefix(_ARRIVING).partition("-")[2]
        if RunItem.objects.filter(source_file=arriving.name).exists():
            _move(arriving, TAKEN, name)
        else:
            arriving.rename(folder / name)


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
    """Move a file into a folder beside it, under its name, or with a number where something has that name."""
    target = path.parent / where
    with suppress(OSError):  # then it stays where it is, under the name that its row knows
        target.mkdir(exist_ok=True)
        wanted, count = Path(name), 1
        while (target / name).exists():
            count += 1
            name = f"{wanted.stem} {count}{wanted.suffix}"
        path.rename(target / name)
