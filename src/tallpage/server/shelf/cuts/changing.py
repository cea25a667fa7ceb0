"""Changing cuts: checked, and never over somebody else's newer change."""

from __future__ import annotations

import uuid
from collections.abc import Sequence
from dataclasses import replace
from typing import Any

from django.db import transaction
from django.db.models import Max
from django.utils import timezone

from tallpage.core import cut as core_cut
from tallpage.core.errors import ChangedElsewhere, CutError, FrameError
from tallpage.server.shelf.cuts.pictures import keep_picture
from tallpage.server.shelf.models import Capture, Cut


def start_cut(capture: Capture) -> Cut:
    """Another cut of the same capture, showing all of it.

    Raises:
        FrameError: the capture has no pixels yet.
    """
    _require_taken(capture)
    return _added(capture, free_name(capture), core_cut.Cut.whole(capture.size).as_json())


def duplicate_cut(cut: Cut) -> Cut:
    """Another cut of the same capture that shows the same; its files are its own."""
    return _added(cut.capture, free_name(cut.capture, f"{cut.name} again"[:80]), cut.document)


def order_cuts(capture: Capture, cut_ids: Sequence[int]) -> None:
    """Put the cuts of a capture in an order; those that are not named come after the others.

    Raises:
        CutError: a cut is of another capture, or named twice.
    """
    standing = [cut.pk for cut in capture.cuts.all()]
    if len(set(cut_ids)) < len(cut_ids) or not set(cut_ids) <= set(standing):
        raise CutError("This is no order of the page's cuts.")
    ordered = [*cut_ids, *(pk for pk in standing if pk not in cut_ids)]
    with transaction.atomic():
        for position, pk in enumerate(ordered, start=1):
            Cut.objects.filter(pk=pk).update(position=position)


def delete_cut(cut: Cut) -> None:
    """Take a cut away; it can be put back for a while, with its files.

    Raises:
        CutError: it is the last one of its capture.
    """
    if not cut.capture.cuts.exclude(pk=cut.pk).exists():
        raise CutError("A page keeps at least one cut.", hint="Start another first.")
    Cut.objects.filter(pk=cut.pk).update(deleted_at=timezone.now())


def restore_cut(cut: Cut) -> Cut:
    """Put a deleted cut back where it was."""
    Cut.with_deleted.filter(pk=cut.pk).update(deleted_at=None)
    cut.refresh_from_db()
    return cut


def _added(capture: Capture, name: str, document: dict[str, Any]) -> Cut:
    """A cut after all others of its capture."""
    return Cut.objects.create(
        capture=capture, name=name, document=document, position=position_after_all(capture)
    )


def position_after_all(capture: Capture) -> int:
    """Where a cut stands that comes after all others of its capture."""
    last = capture.cuts.aggregate(last=Max("position"))["last"] or 0
    return int(last) + 1


def open_cut(capture: Capture, data: bytes, name: str) -> Cut:
    """Another cut of a capture, as a file says; the pictures in it are stored.

    Raises:
        CutError: the file is no cut, or says what is not known.
        FrameError: the capture has no pixels yet, or the cut does not lie on it.
        PictureTooLarge, PictureUnreadable: a picture in it cannot be drawn.
    """
    _require_taken(capture)
    cut = core_cut.read_cut(data).require_on(capture.size)
    return keep_cut(capture, cut, name)


def keep_cut(capture: Capture, cut: core_cut.Cut, name: str) -> Cut:
    """Another cut of a capture, on which it lies; the pictures in it are stored.

    Raises:
        StorageError: they cannot be.
    """
    names = {given: keep_picture(png) for given, png in cut.pictures.items()}
    document = _named(cut.renamed_pictures(names)).as_json()
    return _added(capture, free_name(capture, name.strip()[:80]), document)


def _require_taken(capture: Capture) -> None:
    if not capture.storage_key:
        raise FrameError(
            "There is nothing to cut yet.", hint="Wait until the page is taken.", code="not_taken"
        )


def free_name(capture: Capture, wanted: str = "") -> str:
    """The name ``wanted`` where no cut of the capture has it; else the next number."""
    taken = set(capture.cuts.values_list("name", flat=True))
    if wanted and wanted not in taken:
        return wanted
    return next(name for number in range(1, len(taken) + 2) if (name := f"Cut {number}") not in taken)


def change_cut(
    cut: Cut, *, version: int, shown: core_cut.Cut | None, name: str | None, person: str = ""
) -> Cut:
    """Write what a cut shows or its name anew, if ``version`` is still the newest.

    Raises:
        ChangedElsewhere: another tab was faster; nothing is written.
        FrameError: it does not lie on the capture.
    """
    changes: dict[str, object] = {"version": version + 1, "changed_by": person}
    if shown is not None:
        changes["document"] = _named(shown.require_on(cut.capture.size)).as_json()
    if name is not None:
        changes["name"] = name.strip() or cut.name
    with transaction.atomic():
        if not Cut.objects.filter(pk=cut.pk, version=version).update(**changes):
            cut.refresh_from_db(fields=["changed_by"])
            where = f"by {cut.changed_by}" if cut.changed_by else "in another window"
            raise ChangedElsewhere(f"“{cut.name}” was changed {where} meanwhile.")
    cut.refresh_from_db()
    return cut


def _named(shown: core_cut.Cut) -> core_cut.Cut:
    """A cut whose marks and hidden areas all have an id: the Bench knows them by it."""

    def named(row: Any) -> Any:
        return row if row.id else row.model_copy(update={"id": uuid.uuid4().hex[:12]})

    return replace(
        shown,
        marks=tuple(named(mark) for mark in shown.marks),
        hidden=tuple(named(area) for area in shown.hidden),
    )
