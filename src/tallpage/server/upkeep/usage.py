"""What the data folder holds, and what of it can go without a loss."""

from __future__ import annotations

import os
import shutil
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any, Literal

from django.conf import settings
from django.db.models import Count, Q, Sum

from tallpage.server.handover.models import HandOver
from tallpage.server.jobs.models import Job
from tallpage.server.outlets.models import OutputFile
from tallpage.server.shelf.models import Capture, Folder
from tallpage.server.storage import discard, made_folder

Kind = Literal["captures", "files", "deleted", "views", "documents", "shared", "unfinished"]
Clearable = Literal["views", "documents"]
"""What is made again when it is asked for. What is deleted is cleared by itself (:mod:`shelf.purge`)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Held:
    """How much of the disk something takes, and how many captures, files or folders it is."""

    name: str
    count: int
    bytes: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Usage:
    """What the data folder holds. ``free_bytes`` is what the disk has left."""

    folder: str
    free_bytes: int
    kinds: dict[Kind, Held]
    sites: list[Held]
    """Captures with the files made of them, by host; the empty name is for dropped pictures."""
    folders: list[Held]
    """The same by folder of the shelf, as a path; the empty name is for none."""


def usage() -> Usage:
    """Count it all: captures and files by their rows, the rest by the disk."""
    home = Path(settings.HOME)
    on_shelf, deleted = Q(deleted_at=None), ~Q(deleted_at=None)
    files = OutputFile.objects.aggregate(count=Count("pk"), bytes=Sum("bytes"))
    kinds: dict[Kind, Held] = {
        "captures": _captures("captures", on_shelf),
        "files": Held(name="files", count=files["count"], bytes=files["bytes"] or 0),
        "deleted": _captures("deleted", deleted),
        "views": _on_disk("views", home / "views"),
        "documents": _on_disk("documents", home / "made"),
        "shared": _on_disk("shared", home / "shared"),
        "unfinished": _on_disk("unfinished", home / "incoming"),
    }
    paths = _folder_paths()
    return Usage(
        folder=str(home),
        free_bytes=shutil.disk_usage(home).free,
        kinds=kinds,
        sites=_by("host", str),
        folders=_by("shelf_folder", lambda folder: paths.get(folder, "")),
    )


def clear(kind: Clearable) -> None:
    """Make room: thumbnails and the like, or documents that were made to be handed over."""
    if kind == "views":
        for path in (Path(settings.HOME) / "views").glob("*"):
            discard(path)
        return
    pending = Q(job__state__in=(Job.State.QUEUED, Job.State.RUNNING))
    for line in HandOver.objects.exclude(pending).exclude(made_key=""):
        HandOver.objects.filter(pk=line.pk).update(made_key="")
        discard(made_folder(line.made_key))


def _captures(name: str, which: Q) -> Held:
    found = Capture.objects.filter(which).aggregate(count=Count("pk"), bytes=Sum("bytes"))
    return Held(name=name, count=found["count"], bytes=found["bytes"] or 0)


def _by(field: str, name_of: Callable[[Any], str]) -> list[Held]:
    """Captures of the shelf by a field, with the files made of them, the heaviest first."""
    rows = Capture.objects.filter(deleted_at=None).order_by()
    files = OutputFile.objects.filter(output__cut__capture__deleted_at=None).order_by()
    of_files = dict(files.values_list(f"output__cut__capture__{field}").annotate(total=Sum("bytes")))
    held = [
        Held(
            name=name_of(value),
            count=count,
            bytes=(total or 0) + of_files.get(value, 0),
        )
        for value, count, total in rows.values_list(field).annotate(count=Count("pk"), total=Sum("bytes"))
    ]
    return sorted(held, key=lambda row: -row.bytes)


def _folder_paths() -> dict[int, str]:
    rows = {row.pk: row for row in Folder.objects.all()}

    def names(row: Folder) -> Iterator[str]:
        if row.parent_id:
            yield from names(rows[row.parent_id])
        yield row.name

    return {pk: " / ".join(names(row)) for pk, row in rows.items()}


def _on_disk(name: str, folder: Path) -> Held:
    count = total = 0
    waiting = [folder] if folder.is_dir() else []
    while waiting:
        try:
            with os.scandir(waiting.pop()) as entries:
                for entry in entries:
                    if entry.is_dir(follow_symlinks=False):
                        waiting.append(Path(entry.path))
                    else:
                        count, total = count + 1, total + entry.stat(follow_symlinks=False).st_size
        except FileNotFoundError:  # somebody else was faster
            continue
    return Held(name=name, count=count, bytes=total)
