"""What lies in the data folder although nothing refers to it: broken-off work, files without rows."""

from __future__ import annotations

import time
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from datetime import timedelta
from pathlib import Path
from typing import Literal

import psutil
from django.conf import settings
from django.db.models import QuerySet
from django.utils import timezone

from tallpage.server.archives.models import BroughtArchive
from tallpage.server.clips.models import Clip, ClipOutput
from tallpage.server.handover.models import HandOver, SharedLink
from tallpage.server.home import scratch_folder
from tallpage.server.jobs.models import Job
from tallpage.server.joins.models import Join
from tallpage.server.outlets.models import Output, OutputFile
from tallpage.server.preferences.values import value_of
from tallpage.server.routines.models import RunItem
from tallpage.server.shelf.models import Capture

Kind = Literal[
    "unfinished work", "capture", "clip", "file", "view", "old view", "document", "shared", "browser profile"
]

UNTOUCHED_FOR = timedelta(hours=2)
"""Work under way writes far more often; no job may take so long."""
JOINS_KEPT_FOR = timedelta(days=7)
_UNNAMED_FOR = timedelta(hours=24)
"""What no command line names may still be in use by a browser that waits for its next page."""
_PENDING = (Job.State.QUEUED, Job.State.RUNNING)
_PROFILE = "playwright_chromiumdev_profile-"


@dataclass(frozen=True, slots=True, kw_only=True)
class Leftover:
    """A file or folder that nothing refers to."""

    kind: Kind
    path: Path
    bytes: int


def find_leftovers() -> list[Leftover]:
    """Everything on the disk that is of no use any more.

    The disk is looked at before the rows: what is stored meanwhile is then found to be wanted.
    """
    home = Path(settings.HOME)
    seen: list[tuple[Kind, list[Path]]] = [
        ("unfinished work", _untouched(home / "incoming")),
        ("capture", _untouched(home / "captures")),
        ("clip", _untouched(home / "clips")),
        ("file", _untouched(home / "outputs")),
        ("view", _untouched(home / "views")),
        ("document", _untouched(home / "made")),
        ("shared", _untouched(home / "shared")),
    ]
    captures = _captures()
    files = _files()
    wanted: dict[Kind, set[str]] = {
        "unfinished work": _under_way(),
        "capture": captures,
        "clip": _clips(),
        "file": files,
        "view": captures | files | _trials(),
        "document": _documents(),
        "shared": _shared(),
    }
    found = [
        Leftover(kind=kind, path=path, bytes=_bytes_of(path))
        for kind, paths in seen
        for path in paths
        if path.name.partition(".")[0] not in wanted[kind]
    ]
    profiles = (
        Leftover(kind="browser profile", path=path, bytes=_bytes_of(path)) for path in _unused_profiles()
    )
    return [*found, *_old_views(home / "views"), *profiles]


def orphaned_jobs() -> QuerySet[Job]:
    """Rows of ended work that nothing points at: what it was for was made anew or deleted."""
    pointing_at_it = {relation.name: None for relation in Job._meta.related_objects}
    ended = Job.objects.filter(created_at__lt=timezone.now() - UNTOUCHED_FOR, **pointing_at_it)
    return ended.exclude(state__in=_PENDING)


def old_joins() -> QuerySet[Join]:
    """Joins of which nothing was kept, some days old: a window that is scrolled makes many."""
    return Join.objects.filter(capture=None, created_at__lt=timezone.now() - JOINS_KEPT_FOR)


def _old_views(folder: Path) -> Iterator[Leftover]:
    """Small pictures of captures that are older than they are to be kept; whoever looks makes them again.

    Those of routines that were only tried are not made again, and stay.
    """
    days = int(value_of("keep.views_days"))
    if days == 0:
        return
    trials = _trials()
    for path in folder.glob("*/*"):
        if path.parent.name not in trials and _age_s(path) > timedelta(days=days).total_seconds():
            yield Leftover(kind="old view", path=path, bytes=_bytes_of(path))


def _documents() -> set[str]:
    """Documents that may still be fetched; those of before are made again when they are asked for."""
    kept_for = timedelta(days=int(value_of("keep.documents_days")))
    lately = HandOver.objects.filter(created_at__gt=timezone.now() - kept_for)
    return {*lately.exclude(made_key="").values_list("made_key", flat=True)}


def _shared() -> set[str]:
    return {link.token for link in SharedLink.objects.filter(taken_back_at=None) if link.may_lead_somewhere()}


def _under_way() -> set[str]:
    pending = Capture.objects.filter(job__state__in=_PENDING)
    archives = BroughtArchive.objects.filter(job__state__in=_PENDING)
    # The second is the folder of what a shared screen's browser has sent; others were not asked for so.
    clips = Clip.objects.filter(job__state__in=_PENDING).values_list("incoming_key", "asked__frames")
    names = [
        *pending.values_list("incoming_key", "upload_name"),
        *archives.values_list("upload_name"),
        *clips,
    ]
    return {name.partition(".")[0] for row in names for name in row if name}


def _captures() -> set[str]:
    """Folders of captures; also of those that moved there and whose row is to be written."""
    rows = Capture.objects.values_list("storage_key", "incoming_key")
    return {key for row in rows for key in row if key}


def _clips() -> set[str]:
    """Folders of frames; also of those that moved there and whose row is to be written."""
    rows = Clip.objects.values_list("storage_key", "incoming_key")
    return {key for row in rows for key in row if key}


def _files() -> set[str]:
    made = OutputFile.objects.values_list("key", flat=True)
    of_clips = ClipOutput.objects.exclude(key="").values_list("key", flat=True)
    return {*made, *of_clips, *Output.objects.values_list("swatch_key", flat=True)}


def _trials() -> set[str]:
    """What is shown of routines that were only tried."""
    return set(RunItem.objects.exclude(look="").values_list("look", flat=True))


def _unused_profiles() -> Iterator[Path]:
    """What browsers and encoders left in the scratch folder and no running programme names."""
    folder = scratch_folder()
    if folder is None:
        return
    in_use = "\n".join(_command_lines())
    for path in _untouched(folder):
        kept_for = UNTOUCHED_FOR if path.name.startswith(_PROFILE) else _UNNAMED_FOR
        if path.name not in in_use and _age_s(path) > kept_for.total_seconds():
            yield path


def _command_lines() -> Iterable[str]:
    for process in psutil.process_iter(["cmdline"]):
        yield " ".join(process.info["cmdline"] or ())


def _untouched(folder: Path) -> list[Path]:
    oldest_s = UNTOUCHED_FOR.total_seconds()
    return [path for path in folder.glob("*") if _age_s(path) > oldest_s] if folder.is_dir() else []


def _age_s(path: Path) -> float:
    try:
        return time.time() - path.lstat().st_mtime
    except FileNotFoundError:  # somebody else was faster
        return 0.0


def _bytes_of(path: Path) -> int:
    inside = path.rglob("*") if path.is_dir() and not path.is_symlink() else [path]
    total = 0
    for file in inside:
        try:
            total += file.lstat().st_size
        except FileNotFoundError:
            continue
    return total
