"""Rows of the ledger: added, made anew, removed. How their files are made is in :mod:`making`."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict
from pathlib import Path
from typing import Any

from django.db import transaction

from tallpage.core.errors import FitError
from tallpage.core.fit import Choice
from tallpage.core.leaves import MOST_LEAVES, require_breaks
from tallpage.server.jobs.queue import enqueue, request_stop
from tallpage.server.outlets.making import KIND
from tallpage.server.outlets.models import RULES, Output, Slot
from tallpage.server.shelf.models import Cut


def add_slot_output(cut: Cut, slot: Slot) -> Output:
    """A new row of the ledger for a slot, and its file on the queue."""
    row = Output(cut=cut, slot=slot, label=str(slot))
    row.copy_rules(slot)
    return _queue_new(row)


def add_own_output(cut: Cut, rules: Mapping[str, Any]) -> Output:
    """A new row with rules typed by hand.

    Raises:
        FitError: rules that cannot be worked with; nothing is stored.
    """
    row = Output(cut=cut, **rules)
    row.label = str(row.sizing)
    return _queue_new(row)


def _queue_new(output: Output) -> Output:
    output.order()  # checked before anything is stored
    with transaction.atomic():
        output.asked_frame = dict(output.cut.frame)
        output.job = enqueue(KIND)
        output.save()
    return output


def fit_again(output: Output, choice: Choice | None, *, follow_slot: bool = False) -> Output:
    """Make an output's file anew, searched or by a choice; what was there stays until it is ready.

    With ``follow_slot`` by the slot's rules as they are now.
    """
    if follow_slot and output.slot is not None:
        output.copy_rules(output.slot)
        output.label = str(output.slot)
    output.order(choice)
    output.choice = asdict(choice) if choice else None
    _follow_frame(output)
    return _queue_again(output, "choice", "breaks", "label", *RULES)


def divide_again(output: Output, *, count: int | None, breaks: list[int]) -> Output:
    """Make an output's files anew, in so many leaves, or divided at ``breaks`` (px of the frame).

    With neither, it is divided only where it has to be.

    Raises:
        FitError: breaks or a number of leaves that cannot be made.
    """
    if not output.sizing.divisible:
        raise FitError(
            f"A file of {output.sizing} is not divided: its height is fixed.",
            hint="Size it by width to divide it.",
            code="leaves_impossible",
        )
    if count is not None and not 1 <= count <= MOST_LEAVES:
        raise FitError(
            f"{count} leaves cannot be made.",
            hint=f"Give a number from 1 to {MOST_LEAVES}.",
            code="leaves_too_many",
        )
    output.breaks = list(require_breaks(breaks, output.cut.shown().box.height_px)) if breaks else []
    output.leaf_count = None if breaks else count
    return _queue_again(output, "breaks", "leaf_count")


def fit_stale(cut: Cut) -> list[Output]:
    """Make those files of a cut anew whose frame has changed since; newer work replaces older."""
    rows = Output.objects.filter(cut=cut).select_related("job", "cut__capture")
    again = []
    for output in rows:
        if _follow_frame(output):
            again.append(_queue_again(output, "breaks"))
    return again


def _follow_frame(output: Output) -> bool:
    """Whether the frame has changed since the files were asked for; breaks of another frame go."""
    changed: bool = output.asked_frame != output.cut.frame
    if changed:
        output.breaks = []
    return changed


def _queue_again(output: Output, *changed: str) -> Output:
    with transaction.atomic():
        if output.job.pending:
            request_stop(output.job)
        output.asked_frame = dict(output.cut.frame)
        output.job = enqueue(KIND)
        output.save(update_fields=["job", "asked_frame", *changed])
    return output


def remove_output(output: Output) -> None:
    """Delete a row; its files go with it."""
    with transaction.atomic():
        request_stop(output.job)
        output.delete()


def require_files(output: Output) -> list[Path]:
    """The made file, or one for each leaf.

    Raises:
        FitError: there is none yet, or one has gone.
    """
    if not output.paths or not all(path.exists() for path in output.paths):
        raise FitError(
            "There is no file yet.", hint="Wait until it is fitted, or fit it again.", code="no_file"
        )
    return output.paths
