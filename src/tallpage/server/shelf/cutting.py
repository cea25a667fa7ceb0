"""Changing cuts: checked, and never over somebody else's newer change."""

from __future__ import annotations

from dataclasses import replace

from django.db import transaction

from tallpage.core import cut as core_cut
from tallpage.core.errors import ChangedElsewhere, FrameError
from tallpage.server.shelf.models import Capture, Cut


def start_cut(capture: Capture) -> Cut:
    """Another cut of the same capture, showing all of it.

    Raises:
        FrameError: the capture has no pixels yet.
    """
    if not capture.storage_key:
        raise FrameError(
            "There is nothing to cut yet.", hint="Wait until the page is taken.", code="not_taken"
        )
    taken = set(capture.cuts.values_list("name", flat=True))
    number = next(number for number in range(1, len(taken) + 2) if f"Cut {number}" not in taken)
    return Cut.objects.create(
        capture=capture, name=f"Cut {number}", document=core_cut.Cut.whole(capture.size).as_json()
    )


def change_cut(cut: Cut, *, version: int, frame: core_cut.Frame | None, name: str | None) -> Cut:
    """Write a new frame or name, if ``version`` is still the newest.

    Raises:
        ChangedElsewhere: another tab was faster; nothing is written.
        FrameError: the frame does not lie on the capture.
    """
    changes: dict[str, object] = {"version": version + 1}
    if frame is not None:
        changed = replace(cut.as_cut(), frame=frame).require_on(cut.capture.size)
        changes["document"] = changed.as_json()
    if name is not None:
        changes["name"] = name.strip() or cut.name
    with transaction.atomic():
        if not Cut.objects.filter(pk=cut.pk, version=version).update(**changes):
            raise ChangedElsewhere(f"“{cut.name}” was changed in another window meanwhile.")
    cut.refresh_from_db()
    return cut
