"""Changing cuts: checked, and never over somebody else's newer change."""

from __future__ import annotations

import uuid
from dataclasses import replace
from typing import Any

from django.db import transaction

from tallpage.core import cut as core_cut
from tallpage.core.errors import ChangedElsewhere, FrameError
from tallpage.server.shelf.models import Capture, Cut
from tallpage.server.shelf.pictures import keep_picture


def start_cut(capture: Capture) -> Cut:
    """Another cut of the same capture, showing all of it.

    Raises:
        FrameError: the capture has no pixels yet.
    """
    _require_taken(capture)
    document = core_cut.Cut.whole(capture.size).as_json()
    return Cut.objects.create(capture=capture, name=free_name(capture), document=document)


def open_cut(capture: Capture, data: bytes, name: str) -> Cut:
    """Another cut of a capture, as a file says; the pictures in it are stored.

    Raises:
        CutError: the file is no cut, or says what is not known.
        FrameError: the capture has no pixels yet, or the cut does not lie on it.
        PictureTooLarge, PictureUnreadable: a picture in it cannot be drawn.
    """
    _require_taken(capture)
    cut = core_cut.read_cut(data).require_on(capture.size)
    names = {given: keep_picture(png) for given, png in cut.pictures.items()}
    document = _named(cut.renamed_pictures(names)).as_json()
    return Cut.objects.create(capture=capture, name=free_name(capture, name.strip()[:80]), document=document)


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


def change_cut(cut: Cut, *, version: int, shown: core_cut.Cut | None, name: str | None) -> Cut:
    """Write what a cut shows or its name anew, if ``version`` is still the newest.

    Raises:
        ChangedElsewhere: another tab was faster; nothing is written.
        FrameError: it does not lie on the capture.
    """
    changes: dict[str, object] = {"version": version + 1}
    if shown is not None:
        changes["document"] = _named(shown.require_on(cut.capture.size)).as_json()
    if name is not None:
        changes["name"] = name.strip() or cut.name
    with transaction.atomic():
        if not Cut.objects.filter(pk=cut.pk, version=version).update(**changes):
            raise ChangedElsewhere(f"“{cut.name}” was changed in another window meanwhile.")
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
