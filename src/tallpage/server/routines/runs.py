"""Runs: begun over captures, pages or a sweep; tried first; paused, stopped, made again."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from typing import Any

from django.db import transaction
from django.db.models import Count

from tallpage.core.capture import normalise_address
from tallpage.core.errors import RoutineError
from tallpage.core.routine import Routine as Chain
from tallpage.core.routine import questions_of, request_of, slots_of
from tallpage.core.sweep import DEFAULT_PATTERN, Found, Pace
from tallpage.server.outlets.models import Outlet
from tallpage.server.routines.applying import out_of
from tallpage.server.routines.dispatch import stop_items
from tallpage.server.routines.models import UNDER_WAY, Routine, RoutineVersion, Run, RunItem
from tallpage.server.routines.taking import take_settings
from tallpage.server.shelf.models import Capture
from tallpage.server.sweeps.models import Sweep
from tallpage.server.sweeps.planning import start_sweep

MOST_ITEMS = 20_000
TRIED = 3
_ROWS_AT_ONCE = 500


def start_run(
    routine: Routine,
    *,
    captures: Sequence[int] = (),
    addresses: Sequence[str] = (),
    sweep: Sweep | None = None,
    values: Mapping[str, Any] | None = None,
    trial: bool = False,
    person: str = "",
) -> Run:
    """Run the newest version of a routine over captures, pages that are taken for it, and a sweep's pages.

    Several pages are taken by a sweep of their own, so that no host is pressed. With ``trial``, over the
    first, the middle and the last of all, and nothing is kept but what would be.

    Raises:
        RoutineError: it cannot be run so, or over nothing.
        AddressError: an address that cannot be used.
        ListError: several addresses, and none of them can be used.
    """
    version = routine.newest
    answers = dict(values or {})
    chain = version.chain(answers)
    require_runnable(chain)
    pages = [normalise_address(text) for text in addresses]
    ids = list(dict.fromkeys(captures))
    if len(ids) + len(pages) > MOST_ITEMS:
        raise RoutineError(f"At most {MOST_ITEMS:,} pictures are run over at once.", hint="Divide them.")
    if trial:
        ids, pages = _some(ids), _some(pages) if not ids else []
    found = Capture.objects.on_shelf().in_bulk(ids)
    rows = [RunItem(capture=found[pk], name=found[pk].name[:200]) for pk in ids if pk in found]
    rows += [RunItem(address=address, name=address[:200]) for address in pages]
    if sweep is not None and trial:
        taken = sweep.shots.taken().values_list("capture", flat=True)
        rows += [
            RunItem(capture=row, name=row.name[:200])
            for row in Capture.objects.filter(pk__in=_some(list(taken)))
        ]
    if not rows and sweep is None:
        raise RoutineError("There is nothing to run it on.", hint="Choose captures, or type an address.")
    with transaction.atomic():
        if trial:
            _forget_trials(routine)
        elif len(pages) > 1:
            sweep = _sweep_of(pages, chain)
            rows = [row for row in rows if not row.address]
        run = Run.objects.create(
            version=version,
            values=answers,
            trial=trial,
            sweep=None if trial else sweep,
            subject=_subject(rows, sweep),
            person=person,
        )
        _add(run, rows)
    return run


def run_again(run: Run, *, person: str = "") -> Run:
    """Run the newest version over the same pictures; what the earlier one made is replaced as they come.

    Raises:
        RoutineError: none of its pictures is left, or the routine cannot be run any more.
    """
    version = run.version.routine.newest
    answers = _still_asked(version, run.values)
    require_runnable(version.chain(answers))
    before = run.items.filter(capture__isnull=False, capture__deleted_at=None).select_related("capture")
    rows = [RunItem(capture=row.capture, name=row.name, replaces=row) for row in before]
    if not rows:
        raise RoutineError("None of its pictures is left on the shelf.", hint="Run it on others.")
    with transaction.atomic():
        again = Run.objects.create(version=version, values=answers, subject=run.subject, person=person)
        _add(again, rows)
    return again


@transaction.atomic
def set_stop_mode(run: Run, stop_mode: Run.StopMode) -> Run:
    """Pause, go on or stop. What is under way comes to its end when pausing, and is ended by a stop."""
    if run.finished_at is not None:
        return run
    run.stop_mode = stop_mode
    run.save(update_fields=["stop_mode"])
    if stop_mode == Run.StopMode.STOP:
        stop_items(run.items.filter(state__in=UNDER_WAY).select_related("job"))
    return run


@transaction.atomic
def retry_failed(run: Run) -> int:
    """Try what failed, was stopped or left out once more; returns how many there are."""
    ended = run.items.filter(state__in=(RunItem.State.FAILED, RunItem.State.STOPPED, RunItem.State.SKIPPED))
    # A page that could not be taken is taken once more; those of a sweep are the sweep's to take.
    ended.exclude(address="").filter(capture__storage_key="").update(capture=None)
    again = ended.update(state=RunItem.State.WAITING, job=None, error="", warnings=[])
    if again:
        run.finished_at, run.stop_mode, run.ended_by = None, Run.StopMode.GO_ON, ""
        run.save(update_fields=["finished_at", "stop_mode", "ended_by"])
    return again


def require_runnable(chain: Chain) -> None:
    """Refuse a routine that would have nothing to hand over, or nowhere to.

    Raises:
        RoutineError: it would.
    """
    out = out_of(chain)
    if out.way in ("folder", "upload") and not slots_of(chain):
        raise RoutineError(
            "The routine makes no file that could be handed over.", hint="Add a step that makes one."
        )
    if out.way == "upload" and not Outlet.objects.filter(name=out.outlet).exists():
        raise RoutineError(
            f"There is no outlet “{out.outlet}”.", hint="Change where the files go, or add the outlet."
        )


def counts_of(runs: Iterable[Run]) -> dict[int, dict[str, int]]:
    """How many items of each state the runs have, by their number, and how many in all."""
    found = {run.pk: dict.fromkeys([*RunItem.State.values, "all"], 0) for run in runs}
    rows = RunItem.objects.filter(run__in=found).order_by().values_list("run", "state")
    for run_id, state, count in rows.annotate(count=Count("pk")):
        found[run_id][state] = count
        found[run_id]["all"] += count
    return found


def _sweep_of(addresses: Sequence[str], chain: Chain) -> Sweep:
    """A sweep that takes pages as a routine says."""
    how = request_of(chain, addresses[0])
    return start_sweep(
        name=f"{chain.name}: {len(addresses)} pages"[:120],
        found=[Found(text=address, line=line) for line, address in enumerate(addresses, start=1)],
        screens=[how.screen],
        settings=take_settings(how),
        pattern=DEFAULT_PATTERN,
        pace=Pace(),
    )


def _some(rows: list[Any]) -> list[Any]:
    """The first, the middle and the last."""
    if len(rows) <= TRIED:
        return rows
    return [rows[0], rows[len(rows) // 2], rows[-1]]


def _add(run: Run, rows: Iterable[RunItem]) -> None:
    numbered = list(rows)
    for number, row in enumerate(numbered, start=1):
        row.run, row.number = run, number
    RunItem.objects.bulk_create(numbered, batch_size=_ROWS_AT_ONCE)


def _forget_trials(routine: Routine) -> None:
    """Trials of before are of no use any more."""
    Run.objects.filter(version__routine=routine, trial=True, finished_at__isnull=False).delete()


def _still_asked(version: RoutineVersion, values: Mapping[str, Any]) -> dict[str, Any]:
    """Answers as far as a later version asks for them."""
    asked = {question.name for question in questions_of(version.chain())}
    return {name: value for name, value in values.items() if name in asked}


def _subject(rows: Sequence[RunItem], sweep: Sweep | None) -> str:
    if sweep is not None:
        return f"the pages of {sweep.name}"[:200]
    first = rows[0].name
    return (first if len(rows) == 1 else f"{first} and {len(rows) - 1} more")[:200]
