"""Carrying runs on: what may be begun next, what has come to its end, what leaves together.

As with sweeps, the queue only ever holds a few items of a run: a pause takes hold at once, and what a
person does by hand waits for few others.
"""

from __future__ import annotations

from collections.abc import Iterable

from django.db import transaction
from django.db.models import Exists, Max, OuterRef
from django.utils import timezone

from tallpage.core.errors import TallPageError
from tallpage.core.routine import OutStep, Routine, request_of
from tallpage.server.handover.rights import options_with_rights
from tallpage.server.handover.selection import Selection
from tallpage.server.handover.working import order
from tallpage.server.jobs.apart import each_apart
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import enqueue, request_stop
from tallpage.server.jobs.ticking import wake
from tallpage.server.outlets.models import Outlet, Output
from tallpage.server.routines.applying import KIND, out_of
from tallpage.server.routines.models import ENDED, UNDER_WAY, Run, RunItem
from tallpage.server.routines.taking import take_settings
from tallpage.server.shelf.arriving.taking import order_page
from tallpage.server.shelf.models import Capture
from tallpage.server.sweeps.models import FAILED, TAKEN, Sweep

_AHEAD = 6
"""Items of a run that are under way at once."""
_LOOKED_AT = 60
_PENDING = (Job.State.QUEUED, Job.State.RUNNING)


def feed_runs() -> bool:
    """Carry every run on that goes on; whether there is one. Short: a few rows."""
    _follow_sweeps()
    runs = Run.objects.filter(finished_at=None).select_related("version__routine")
    going_on = [
        run
        for run in runs
        if run.stop_mode != Run.StopMode.PAUSE or run.items.filter(state__in=UNDER_WAY).exists()
    ]
    each_apart(going_on, _carry_on, fail=_end_with)
    return bool(going_on)


def wake_runs(**_: object) -> None:
    """Something of a run has changed: once it is stored, what may be begun now is begun at once."""
    transaction.on_commit(lambda: wake("files"), robust=True)


def _end_with(run: Run, reason: str) -> None:
    """A run that cannot go on: what is left of it has failed."""
    run.items.exclude(state__in=ENDED).update(state=RunItem.State.FAILED, error=reason)
    Run.objects.filter(pk=run.pk).update(finished_at=timezone.now(), note=reason)


@transaction.atomic  # it is begun as a writer, so two supervisors take turns
def _carry_on(run: Run) -> None:
    run.refresh_from_db()
    if run.finished_at is not None:
        return
    chain = run.chain()
    _add_arrived(run)
    for item in run.items.filter(state__in=UNDER_WAY).select_related("capture__job", "job", "hand_over__job"):
        _settle(run, item, out_of(chain))
    if run.stop_mode == Run.StopMode.GO_ON:
        free = _AHEAD - run.items.filter(state__in=UNDER_WAY).count()
        waiting = run.items.filter(state=RunItem.State.WAITING).select_related("capture__job")
        for item in waiting[: max(0, free)]:
            _begin(item, chain)
    _finish(run, out_of(chain))


def _begin(item: RunItem, chain: Routine) -> None:
    """Take the page, or apply the routine to what is there."""
    if item.capture is None and item.address:
        request = request_of(chain, item.address)
        try:
            item.capture = order_page(item.address, request.screen, take_settings(request))
        except TallPageError as error:
            item.state, item.error = RunItem.State.FAILED, error.in_one_line()
            item.save(update_fields=["state", "error"])
            return
    if item.capture is None:
        item.state, item.error = RunItem.State.FAILED, "The picture is not there any more."
    elif item.capture.job.pending:
        item.state = RunItem.State.TAKING
    else:
        _apply(item)
    item.save()


def _apply(item: RunItem) -> None:
    capture = item.capture
    if capture is None or not capture.storage_key:
        item.state = RunItem.State.FAILED
        item.error = _said_by(capture.job if capture else None) or "There is no picture of it."
        return
    item.name = item.name or capture.name
    item.job, item.state = enqueue(KIND), RunItem.State.APPLYING


def _settle(run: Run, item: RunItem, out: OutStep) -> None:
    """What an item under way has come to."""
    match item.state:
        case RunItem.State.TAKING:
            if item.capture is None or not item.capture.job.pending:
                _apply(item)
                item.save()
        case RunItem.State.APPLYING:
            # When the work ends well, it says so itself.
            if item.job is None or item.job.state in (Job.State.FAILED, Job.State.STOPPED):
                stopped = item.job is not None and item.job.state == Job.State.STOPPED
                item.state = RunItem.State.STOPPED if stopped else RunItem.State.FAILED
                item.error = _said_by(item.job)
                item.save(update_fields=["state", "error"])
        case RunItem.State.MAKING:
            rows = item.outputs.select_related("job")
            if any(row.job.state in _PENDING for row in rows):
                return
            if out.way == "pdf" and not _document_of(run, item, out):
                return
            item.state = RunItem.State.DONE
            item.save(update_fields=["state"])


def _document_of(run: Run, item: RunItem, out: OutStep) -> bool:
    """Have the document of an item made; whether it is."""
    if item.hand_over is not None:
        return item.hand_over.job is None or item.hand_over.job.state not in _PENDING
    if item.cut is None or run.stop_mode == Run.StopMode.STOP:
        return True
    first = item.outputs.order_by("pk").first()
    selection = Selection(outputs=(first.pk,)) if first else Selection(cut=item.cut.pk)
    try:
        options = options_with_rights([item.cut.capture], {"paper": out.paper}, uncleared=False)
        item.hand_over = order("pdf", selection, options, person=run.person)
    except TallPageError as error:
        item.warnings = [*item.warnings, error.in_one_line()]
        item.save(update_fields=["warnings"])
        return True
    item.save(update_fields=["hand_over"])
    return False


def _add_arrived(run: Run) -> None:
    """Items for the pages of a run's sweep that have arrived since, or will not arrive any more."""
    if run.sweep is None:
        return
    there = RunItem.objects.filter(run=run, capture=OuterRef("capture"))
    ended = run.sweep.shots.filter(TAKEN | FAILED, ~Exists(there)).select_related("capture__job")
    last = run.items.aggregate(last=Max("number"))["last"] or 0
    captures = [shot.capture for shot in ended[:_LOOKED_AT] if shot.capture]
    RunItem.objects.bulk_create(
        _arrived(run, number, capture) for number, capture in enumerate(captures, start=last + 1)
    )


def _arrived(run: Run, number: int, capture: Capture) -> RunItem:
    item = RunItem(run=run, number=number, capture=capture, name=capture.name[:200])
    if not capture.storage_key:
        item.state, item.error = RunItem.State.FAILED, _said_by(capture.job) or "It was not taken."
    return item


@transaction.atomic  # of two supervisors the second sees what the first has begun
def _follow_sweeps() -> None:
    """A sweep that is taken again is run over again, with what the routine says by then."""
    followed = Run.objects.filter(
        sweep=OuterRef("previous"),
        trial=False,
        created_at__lt=OuterRef("created_at"),
        version__routine__deleted_at=None,
    )
    there = Run.objects.filter(sweep=OuterRef("pk"))
    for sweep in Sweep.objects.filter(Exists(followed), ~Exists(there)):
        before = Run.objects.filter(sweep=sweep.previous, trial=False, version__routine__deleted_at=None)
        for run in before.select_related("version__routine"):
            Run.objects.create(
                version=run.version.routine.newest,
                values=run.values,
                subject=run.subject,
                sweep=sweep,
                person=run.person,
            )


def _finish(run: Run, out: OutStep) -> None:
    if run.stop_mode == Run.StopMode.STOP:
        run.items.filter(state=RunItem.State.WAITING).update(state=RunItem.State.STOPPED)
    if run.items.exclude(state__in=ENDED).exists():
        return
    if run.sweep is not None and run.sweep.finished_at is None and run.stop_mode != Run.StopMode.STOP:
        return
    if run.stop_mode == Run.StopMode.PAUSE:
        return
    if out.way in ("folder", "upload") and not run.trial and run.hand_over is None:
        _hand_over_all(run, out)
    run.finished_at = timezone.now()
    run.save(update_fields=["finished_at", "hand_over", "note"])


def _hand_over_all(run: Run, out: OutStep) -> None:
    """The files of a run that are as asked, as one package; those whose rights are not cleared stay."""
    made = (
        Output.objects.filter(run_items__run=run, met=True, files__isnull=False)
        .select_related("cut__capture")
        .order_by("run_items__number", "pk")
        .distinct()
    )
    today = timezone.localdate()
    cleared = [row for row in made if row.cut.capture.rights.cleared_on(today)]
    kept_back = len(made) - len(cleared)
    if kept_back:
        run.note = f"Of {kept_back} files the rights are not cleared: they were not handed over."
    if not cleared:
        return
    outlet = Outlet.objects.filter(name=out.outlet).first() if out.way == "upload" else None
    options = {
        "pattern": out.names,
        "folder": out.folder,
        "outlet": outlet.pk if outlet else None,
        "uncleared": False,
    }
    try:
        run.hand_over = order(
            out.way, Selection(outputs=tuple(row.pk for row in cleared)), options, person=run.person
        )
    except TallPageError as error:
        run.note = f"The files were not handed over: {error.in_one_line()}"


def stop_items(items: Iterable[RunItem]) -> None:
    """End what is under way of a run."""
    for item in items:
        if item.state == RunItem.State.APPLYING and item.job is not None:
            request_stop(item.job)
        for row in item.outputs.select_related("job"):
            if row.job.state in _PENDING:
                request_stop(row.job)


def _said_by(job: Job | None) -> str:
    error = (job.error if job else None) or {}
    return f"{error.get('sentence', '')} {error.get('hint', '')}".strip()
