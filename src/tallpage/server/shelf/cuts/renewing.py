"""Cuts of a page on the page as it is now: carried over, then looked at."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import asdict
from typing import Any, Literal

from django.db import transaction

from tallpage.core import cut as core_cut
from tallpage.core.errors import FrameError
from tallpage.core.following import CarriedCut, Page, carry_by_px, carry_over
from tallpage.core.render import turned
from tallpage.server.shelf.cuts.changing import free_name, position_after_all
from tallpage.server.shelf.models import Capture, Cut

By = Literal["blocks", "px"]
"""Whether parts of a cut go with the blocks that they show, or stay at their px."""
Ready = Callable[[Cut, Cut], None]
"""``(the cut before, the cut now)``"""
_WHEN_READY: list[Ready] = []


def when_ready(call: Ready) -> None:
    """Have ``call`` told of each cut that was carried over, once no part of it needs a look any more."""
    _WHEN_READY.append(call)


def carried_to(cut: Cut, capture: Capture, by: By = "blocks") -> CarriedCut:
    """What ``cut`` would show of another capture; nothing is kept.

    Raises:
        FrameError: the capture has no pixels yet.
    """
    if not capture.storage_key:
        raise FrameError(
            "There is nothing to cut yet.", hint="Wait until the page is taken.", code="not_taken"
        )
    shown = cut.as_cut()
    carry = carry_over if by == "blocks" else carry_by_px
    return carry(shown, _page(cut.capture, shown), _page(capture, shown))


def carry_to(cut: Cut, capture: Capture, by: By = "blocks") -> Cut:
    """A new cut of ``capture`` that shows and points at what ``cut`` does on its own capture.

    Raises:
        FrameError: the capture has no pixels yet.
    """
    carried = carried_to(cut, capture, by)
    with transaction.atomic():
        now = Cut.objects.create(
            capture=capture,
            name=free_name(capture, cut.name),
            document=carried.cut.as_json(),
            position=position_after_all(capture),
            carried_from=cut,
            review=_review(carried),
            needs_a_look=carried.needs_a_look,
        )
        if not now.needs_a_look:
            _tell_ready(now)
    return now


def renew_cuts(capture: Capture) -> None:
    """Carry all cuts of the capture that this one renews over to it."""
    before = capture.renews
    for cut in before.cuts.select_related("capture").all() if before else ():
        carry_to(cut, capture)


def settle(cut: Cut, settled: Iterable[tuple[str, str]]) -> Cut:
    """Note that a person has looked at some parts, by kind and id. What was kept aside is let go of."""
    looked_at = set(settled)
    with transaction.atomic():
        cut = (
            Cut.objects.select_for_update().select_related("capture", "carried_from__capture").get(pk=cut.pk)
        )
        waited = cut.needs_a_look
        cut.review = [
            {**row, "doubt": False, "kept": None} if (row["part"], row["id"]) in looked_at else row
            for row in cut.review
        ]
        cut.needs_a_look = any(row["doubt"] for row in cut.review)
        cut.save(update_fields=["review", "needs_a_look"])
        if waited and not cut.needs_a_look:
            _tell_ready(cut)
    return cut


def end_review(cut: Cut) -> Cut:
    """Let go of what there was to be looked at.

    Raises:
        FrameError: a part still needs a look; nothing is changed.
    """
    if cut.needs_a_look:
        raise FrameError(
            "Some parts of this cut still need a look.",
            hint="Say of each whether it is right, or leave it out.",
            code="needs_a_look",
        )
    cut.review = []
    cut.save(update_fields=["review"])
    return cut


def _tell_ready(cut: Cut) -> None:
    if cut.carried_from is not None:
        for call in _WHEN_READY:
            call(cut.carried_from, cut)


def _page(capture: Capture, cut: core_cut.Cut) -> Page:
    """What is known of a page, as a cut turns it."""
    page = turned(capture.pixel_source(), cut.orientation)
    return Page(size=page.size, blocks=page.blocks(), words=page.words())


def _review(carried: CarriedCut) -> list[dict[str, Any]]:
    """One row for each part, those that need a look first; with what was kept aside of it."""
    kept = {(kind, part["id"]): part for row in carried.aside for kind, part in row.items()}
    rows = [{**asdict(row), "kept": kept.get((row.part, row.id))} for row in carried.parts]
    return sorted(rows, key=lambda row: not row["doubt"])
