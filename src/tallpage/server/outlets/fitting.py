"""Rows of the ledger: added, made anew, removed. How their files are made is in :mod:`making`."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import asdict, dataclass, field
from pathlib import Path
from typing import Any

from django.db import transaction

from tallpage.core.errors import FitError
from tallpage.core.fit import Choice
from tallpage.core.leaves import require_breaks
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import enqueue, request_stop
from tallpage.server.outlets.making import KIND
from tallpage.server.outlets.models import FACTS, RULES, Outlet, Output, Slot
from tallpage.server.shelf.models import Capture, Cut

_BROKEN_OFF = (Job.State.FAILED, Job.State.STOPPED)


def add_slot_output(cut: Cut, slot: Slot) -> Output:
    """A new row of the ledger for a slot, and its file on the queue."""
    row = Output(cut=cut, slot=slot, label=str(slot))
    row.copy_rules(slot)
    row.copy_facts_choice(slot.outlet)
    return _queue_new(row)


def add_own_output(cut: Cut, rules: Mapping[str, Any]) -> Output:
    """A new row with rules typed by hand.

    Raises:
        FitError: rules that cannot be worked with; nothing is stored.
    """
    return add_labelled_output(cut, rules, "")


def add_labelled_output(cut: Cut, rules: Mapping[str, Any], label: str) -> Output:
    """As :func:`add_own_output`, called by a label; by its size where that is empty."""
    row = Output(cut=cut, **rules)
    row.label = label or str(row.sizing)
    return _queue_new(row)


def renew_outputs(before: Cut, now: Cut) -> None:
    """The rows of a cut's ledger for the cut that it was carried over to; those it has already stay alone."""
    there = set(now.outputs.values_list("slot_id", "label"))
    for row in Output.objects.filter(cut=before):
        if (row.slot_id, row.label) in there:
            continue
        renewed = Output(
            cut=now,
            slot=row.slot,
            label=row.label,
            choice=row.choice,
            leaf_count=row.leaf_count,
            legible_marks=row.legible_marks,
        )
        renewed.copy_rules(row)
        renewed.credit, renewed.facts_in_file = row.credit, row.facts_in_file
        _queue_new(renewed)


def _queue_new(output: Output) -> Output:
    output.require_possible()
    output.asked_key = output.current_key()
    with transaction.atomic():
        output.job = enqueue(KIND)
        output.save()
    return output


def fit_again(output: Output, choice: Choice | None, *, follow_slot: bool = False) -> Output:
    """Make an output's file anew, searched or by a choice; what was there stays until it is ready.

    With ``follow_slot`` by the slot's rules as they are now.
    """
    _drop_breaks_of_another_cut(output)
    if follow_slot and output.slot is not None:
        output.copy_rules(output.slot)
        output.copy_facts_choice(output.slot.outlet)
        output.label = str(output.slot)
    output.choice = asdict(choice) if choice else None
    output.require_possible()
    return _queue_again(output, "choice", "breaks", "label", *RULES, *FACTS)


def divide_again(output: Output, *, count: int | None, breaks: list[int]) -> Output:
    """Make an output's files anew, in so many leaves, or divided at ``breaks`` (px of the frame).

    With neither, it is divided only where it has to be.

    Raises:
        FitError: breaks or a number of leaves that cannot be made.
    """
    output.sizing.require_divisible()
    height_px = output.cut.as_cut().frame.box.height_px
    output.breaks = list(require_breaks(breaks, height_px)) if breaks else []
    output.leaf_count = None if breaks else count
    output.require_possible()
    return _queue_again(output, "breaks", "leaf_count")


def keep_legible(output: Output, *, legible: bool) -> Output:
    """Make an output's files anew, with marks drawn larger whose letters could not be read; or not."""
    _drop_breaks_of_another_cut(output)
    output.legible_marks = legible
    return _queue_again(output, "breaks", "legible_marks")


def fit_stale(cut: Cut) -> list[Output]:
    """Make those files of a cut anew that would show something else now; newer work replaces older."""
    rows = Output.objects.filter(cut=cut).select_related("job", "cut__capture").prefetch_related("files")
    changed = [output for output in rows if output.asked_key != output.current_key()]
    for output in changed:
        _make_anew(output)
    return changed


@dataclass(kw_only=True)
class OrderedForMany:
    """What came of ordering files of many captures for an outlet."""

    ordered: int = 0
    there: int = 0
    """Rows whose file shows the cut as it is."""
    left_out: list[tuple[str, str]] = field(default_factory=list)
    """Captures without a file, by name, with why."""


def fit_for_outlet(captures: Iterable[Capture], outlet: Outlet) -> OrderedForMany:
    """A file for each slot of an outlet, of the first cut of each capture. What is there and current stays.

    A cut that needs a look is left out: what it hides may be shown there.
    """
    done, slots = OrderedForMany(), list(outlet.slots.all())
    for capture in captures:
        cut = capture.cuts.first()
        if cut is None or cut.needs_a_look:
            done.left_out.append((capture.name, "Its cut is to be looked at first."))
            continue
        rows = {row.slot_id: row for row in Output.objects.filter(cut=cut).select_related("job")}
        for slot in slots:
            row = rows.get(slot.pk)
            try:
                if row is None:
                    add_slot_output(cut, slot)
                elif row.asked_key != row.current_key() or row.job.state in _BROKEN_OFF:
                    _make_anew(row)
                else:
                    done.there += 1
                    continue
            except FitError as error:
                done.left_out.append((capture.name, error.sentence))
            else:
                done.ordered += 1
    return done


def _make_anew(output: Output) -> Output:
    """The files of a row as the cut is now, with what was chosen for them by hand."""
    _drop_breaks_of_another_cut(output)
    return _queue_again(output, "breaks")


def _drop_breaks_of_another_cut(output: Output) -> None:
    """Breaks stand for places of the cut as it was when they were set."""
    if output.asked_key != output.current_key():
        output.breaks = []


def _queue_again(output: Output, *changed: str) -> Output:
    output.asked_key = output.current_key()
    with transaction.atomic():
        if output.job.pending:
            request_stop(output.job)
        output.job = enqueue(KIND)
        output.save(update_fields=["job", "asked_key", *changed])
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
