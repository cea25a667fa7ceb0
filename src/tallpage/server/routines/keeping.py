"""Routines kept: made, changed, ordered, deleted. What was made with a version stays told by it."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from django.db import transaction
from django.db.models import Max
from django.utils import timezone

from tallpage.core.capture import Screen, Step
from tallpage.core.errors import ChangedElsewhere, RoutineError
from tallpage.core.render import turned
from tallpage.core.routine import Routine as Chain
from tallpage.core.routine import TakeStep, document_of, routine_of_cut, slot_of_rules
from tallpage.server.outlets.models import RULES, Output
from tallpage.server.routines.models import Routine, RoutineVersion
from tallpage.server.shelf.models import Capture, Cut, with_pictures
from tallpage.server.shelf.routes.schemas import TakeSettings

MOST_ROUTINES = 500


@transaction.atomic
def keep_routine(chain: Chain, *, person: str = "") -> Routine:
    """A new routine after all others.

    Raises:
        RoutineError: there are too many.
    """
    if Routine.objects.count() >= MOST_ROUTINES:
        raise RoutineError(
            f"There are {MOST_ROUTINES} routines already.", hint="Delete some that are not used."
        )
    last = Routine.objects.aggregate(last=Max("position"))["last"] or 0
    routine = Routine.objects.create(name=chain.name, position=last + 1)
    RoutineVersion.objects.create(routine=routine, document=document_of(chain), changed_by=person)
    return routine


@transaction.atomic
def change_routine(routine: Routine, chain: Chain, *, changes: int, person: str = "") -> RoutineVersion:
    """Write what a routine says anew: into its newest version, or a new one where that has made something.

    Raises:
        ChangedElsewhere: it was changed meanwhile; nothing is written.
    """
    newest = routine.newest
    if newest.changes != changes:
        where = f"by {newest.changed_by}" if newest.changed_by else "in another window"
        raise ChangedElsewhere(f"“{routine.name}” was changed {where} meanwhile.")
    document = document_of(chain)
    if document == newest.document:
        return newest
    if newest.runs.filter(trial=False).exists():
        newest = RoutineVersion(routine=routine, number=newest.number + 1, changes=newest.changes)
    newest.document, newest.changed_by, newest.changes = document, person, changes + 1
    newest.save()
    Routine.objects.filter(pk=routine.pk).update(name=chain.name)
    routine.name = chain.name
    return newest


def duplicate_routine(routine: Routine, *, person: str = "") -> Routine:
    """Another routine that says the same."""
    chain = routine.newest.chain()
    name = f"{chain.name} again"[:120]
    return keep_routine(chain.model_copy(update={"name": name}), person=person)


@transaction.atomic
def order_routines(ids: Sequence[int]) -> None:
    """Put routines in an order; those that are not named come after the others.

    Raises:
        RoutineError: one is named twice, or is not there.
    """
    standing = list(Routine.objects.values_list("pk", flat=True))
    if len(set(ids)) < len(ids) or not set(ids) <= set(standing):
        raise RoutineError("This is no order of the routines.", hint="Load the page again.")
    for position, pk in enumerate([*ids, *(pk for pk in standing if pk not in ids)], start=1):
        Routine.objects.filter(pk=pk).update(position=position)


@transaction.atomic
def give_key(routine: Routine, key: int | None) -> Routine:
    """The digit that runs a routine; who had it before has none then."""
    if key is not None:
        Routine.objects.filter(key=key).exclude(pk=routine.pk).update(key=None)
    Routine.objects.filter(pk=routine.pk).update(key=key)
    routine.key = key
    return routine


def delete_routine(routine: Routine) -> None:
    """Take a routine away; it can be put back. What it made stays."""
    Routine.objects.filter(pk=routine.pk).update(deleted_at=timezone.now(), key=None)


def restore_routine(routine_id: int) -> Routine | None:
    """Put a deleted routine back; None where there is none."""
    Routine.with_deleted.filter(pk=routine_id).update(deleted_at=None)
    return Routine.objects.filter(pk=routine_id).first()


def routine_of_work(cut: Cut) -> Chain:
    """The routine that does to other pages what was done to the page of a cut: how it was taken, what the cut
    shows, and the files of its ledger.

    Raises:
        RoutineError: what was done cannot stand in a routine.
    """
    shown = with_pictures(cut.as_cut())
    capture = cut.capture
    page = turned(capture.pixel_source(), shown.orientation)
    return routine_of_cut(
        shown,
        page.size,
        page.blocks(),
        name=f"{cut.name} of {capture.name}"[:120],
        take=_take(capture),
        slots=[_slot(row) for row in cut.outputs.all()],
    )


def _take(capture: Capture) -> dict[str, Any] | None:
    """How a page was taken, as a step; None for a dropped picture."""
    screen, settings = capture.screen, capture.settings
    if screen is None:
        return None
    usual = TakeSettings()
    names = (TakeStep.model_fields.keys() & TakeSettings.model_fields.keys()) - {"steps"}
    told = {name: settings[name] for name in sorted(names & settings.keys())}
    taken = {name: value for name, value in told.items() if value != getattr(usual, name)}
    steps = [str(Step(**step)) for step in settings.get("steps") or ()]
    touch = {"touch": True} if screen.touch else {}
    return {"screen": _screen_words(screen), **touch, **taken, **({"steps": steps} if steps else {})}


def _screen_words(screen: Screen) -> str:
    size = f"{screen.width_px}x{screen.height_px}"
    return size if screen.scale == 1 else f"{size}@{screen.scale}"


def _slot(row: Output) -> dict[str, Any]:
    rules = {name: getattr(row, name) for name in RULES}
    said = {name: value for name, value in rules.items() if value not in (None, 0, False)}
    more = {"leaves": row.leaf_count, "legible_marks": row.legible_marks or None}
    return slot_of_rules(
        {**said, "way": row.way, **{k: v for k, v in more.items() if v is not None}}, row.label
    )
