"""Looking at what has arrived: is it blank, and what changed since the last time."""

from __future__ import annotations

from dataclasses import asdict, dataclass
from functools import partial
from typing import Any

from django.db import transaction

from tallpage.core.changes import Change, Fingerprint, Side, compare, fingerprint_of, words_changed
from tallpage.core.geometry import Box
from tallpage.core.page_map import PageMap
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import Signals, Work, enqueue
from tallpage.server.shelf.models import Capture
from tallpage.server.shelf.showing.views import THUMBNAILS_PX, derived, thumbnail_of
from tallpage.server.sweeps import models
from tallpage.server.sweeps.models import ERROR_STATUS, Shot, Sweep, SweepPage

KIND = "look_at_shot"
_SWEEPS_BACK = 10


def order_look(shot: Shot) -> None:
    """Have a shot that has arrived looked at."""
    if shot.capture is None:
        return
    with transaction.atomic():
        models.Comparison.objects.filter(shot=shot).delete()
        models.Comparison.objects.create(shot=shot, capture=shot.capture, job=enqueue(KIND))


@dataclass(frozen=True, slots=True, kw_only=True)
class _Seen:
    """What a comparison gave; without ``change`` there was nothing to compare with."""

    fingerprint: Fingerprint
    change: Change | None
    added: list[str]
    removed: list[str]


def prepare(job: Job) -> Work:
    """How a shot is looked at. One that was retaken meanwhile is not."""
    row = (
        models.Comparison.objects.select_related("shot__sweep", "shot__page", "capture")
        .filter(job=job)
        .first()
    )
    if row is None:
        return Work(run=lambda _: None, commit=lambda _: None)
    before = last_time(row.shot)
    return Work(run=partial(_see, row.capture, before), commit=partial(_store, row, before))


def last_time(shot: Shot) -> Capture | None:
    """The same page on the same screen in the sweep before, or if it failed then, in an earlier one."""
    screen = shot.sweep.screens[shot.screen_at]
    sweep: Sweep | None = shot.sweep.previous
    for _ in range(_SWEEPS_BACK):
        if sweep is None:
            break
        if screen in sweep.screens:
            found = sweep.shots.taken().filter(
                page__address=shot.page.address, screen_at=sweep.screens.index(screen), dropped=False
            )
            earlier = found.select_related("capture").first()
            if earlier is not None:
                return earlier.capture
        sweep = sweep.previous
    return None


def _see(now: Capture, before: Capture | None, _: Signals) -> _Seen:
    fingerprint = _fingerprint_of(now)
    # Made before somebody skims hundreds: made then, they would keep everything else waiting.
    for size in THUMBNAILS_PX:
        thumbnail_of(now, size)
    if before is None:
        return _Seen(fingerprint=fingerprint, change=None, added=[], removed=[])
    change = compare(_side(before, _fingerprint_of(before)), _side(now, fingerprint))
    maps = [PageMap.load_if_readable(capture.folder) for capture in (before, now)]
    # Against a map that is damaged or was never made, every word would count as new.
    added, removed = words_changed(*maps) if all(row.blocks for row in maps) else ([], [])
    return _Seen(fingerprint=fingerprint, change=change, added=added, removed=removed)


def _fingerprint_of(capture: Capture) -> Fingerprint:
    """A picture never changes: it is looked at once."""
    return Fingerprint.from_bytes(
        derived(capture, "look.bin", lambda: fingerprint_of(capture.folder, capture.manifest()).to_bytes())
    )


def _side(capture: Capture, fingerprint: Fingerprint) -> Side:
    return Side(folder=capture.folder, manifest=capture.manifest(), fingerprint=fingerprint)


def _store(row: models.Comparison, before: Capture | None, seen: _Seen | None) -> None:
    if seen is None:
        return
    row.digest, row.commonest_share = seen.fingerprint.digest, seen.fingerprint.commonest_share
    row.before = before
    row.change = _word(row, before, seen.change)
    if seen.change:
        row.changed_share = seen.change.share
        row.stretches = [
            {"before": _plain(stretch.before), "now": _plain(stretch.now)}
            for stretch in seen.change.stretches
        ]
        row.added, row.removed = seen.added, seen.removed
    if models.Comparison.objects.filter(pk=row.pk).exists():  # else it was retaken meanwhile
        row.save()


def _word(row: models.Comparison, before: Capture | None, change: Change | None) -> str:
    if before is None:
        previous = row.shot.sweep.previous
        known = previous is None or SweepPage.objects.filter(
            sweep=previous, address=row.shot.page.address, gone=False
        )
        return models.Comparison.Change.NONE if known else models.Comparison.Change.NEW
    was_there, is_there = ((capture.status or 0) < ERROR_STATUS for capture in (before, row.capture))
    if was_there and not is_there:
        return models.Comparison.Change.GONE
    return (
        models.Comparison.Change.CHANGED
        if change and change.stretches
        else models.Comparison.Change.UNCHANGED
    )


def _plain(box: Box | None) -> dict[str, Any] | None:
    return asdict(box) if box else None
