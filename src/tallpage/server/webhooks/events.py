"""What is told of: which kinds there are, which have finished, and what a message of each says."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from functools import partial
from typing import Any, Literal, get_args

from django.db.models import Exists, F, OuterRef, QuerySet

from tallpage.server.jobs.models import Job
from tallpage.server.routines.models import Run
from tallpage.server.routines.runs import counts_of
from tallpage.server.shelf.models import Capture
from tallpage.server.sweeps.models import Sweep
from tallpage.server.sweeps.statistics import count
from tallpage.server.webhooks.models import Delivery

Event = Literal["capture", "sweep", "run"]
EVENTS: tuple[Event, ...] = get_args(Event)
TRIAL = "trial"
"""The event of a message that was only sent to see whether it arrives."""


@dataclass(frozen=True, slots=True, kw_only=True)
class News:
    """Something that has finished."""

    subject_id: int
    happened_at: datetime
    says: Callable[[], dict[str, Any]]
    """What the message says of it; asked for only when it is to be sent."""


def news_since(event: Event, since: datetime, told: QuerySet[Delivery], *, most: int) -> list[News]:
    """What of a kind has finished since then and is not among the messages ``told``, the earliest first."""
    match event:
        case "capture":
            captures = Capture.objects.filter(deleted_at=None, one_of_many=False).select_related("job")
            return _news(captures, "job__finished_at", since, told, most, _of_capture)
        case "sweep":
            return _news(Sweep.objects.all(), "finished_at", since, told, most, _of_sweep)
        case _:
            runs = Run.objects.filter(trial=False).select_related("version__routine")
            return _news(runs, "finished_at", since, told, most, _of_run)


def _news(
    rows: QuerySet[Any],
    at: str,
    since: datetime,
    told: QuerySet[Delivery],
    most: int,
    says: Callable[[Any], dict[str, Any]],
) -> list[News]:
    known = told.filter(subject_id=OuterRef("pk"), happened_at=OuterRef("happened_at"))
    found = rows.filter(**{f"{at}__gte": since}).annotate(happened_at=F(at)).filter(~Exists(known))
    return [
        News(subject_id=row.pk, happened_at=row.happened_at, says=partial(says, row))
        for row in found.order_by("happened_at", "pk")[:most]
    ]


def _of_capture(capture: Capture) -> dict[str, Any]:
    error = capture.job.error or {}
    return {
        "id": capture.pk,
        "state": "taken" if capture.job.state == Job.State.DONE else str(capture.job.state),
        "name": capture.name,
        "address": capture.final_address or capture.address,
        "width_px": capture.width_px,
        "height_px": capture.height_px,
        "whole": capture.whole,
        "warnings": list(capture.warnings),
        "error": error.get("sentence", ""),
        "look_at": f"/captures/{capture.pk}",
    }


def _of_sweep(sweep: Sweep) -> dict[str, Any]:
    told = count(sweep)
    return {
        "id": sweep.pk,
        "state": "stopped" if sweep.stop_mode == Sweep.StopMode.STOP else "finished",
        "name": sweep.name,
        "pictures": {name: getattr(told, name) for name in ("taken", "failed", "to_look")},
        "look_at": f"/sweeps/{sweep.pk}",
    }


def _of_run(run: Run) -> dict[str, Any]:
    counts = counts_of([run])[run.pk]
    return {
        "id": run.pk,
        "state": "stopped" if run.stop_mode == Run.StopMode.STOP else "finished",
        "routine": run.version.routine.name,
        "version": run.version.number,
        "subject": run.subject,
        "pictures": {name: counts[name] for name in ("done", "skipped", "failed", "stopped")},
        "note": run.note,
        "look_at": f"/runs/{run.pk}",
    }
