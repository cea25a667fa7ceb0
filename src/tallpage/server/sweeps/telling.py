"""How far a sweep is, and what has become of each of its pages."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import timedelta
from typing import Literal, get_args

from django.db.models import F, Q, QuerySet
from django.utils import timezone

from tallpage.server.jobs.models import Job
from tallpage.server.sweeps.models import Shot, Sweep, SweepPage

Filter = Literal["all", "arrived", "failed", "warnings", "over_limit", "keep", "retake", "dropped"]
FILTERS: tuple[Filter, ...] = get_args(Filter)
_PACE_OVER = timedelta(minutes=3)
_OK_BELOW = 400

_TAKEN = Q(capture__isnull=False) & ~Q(capture__storage_key="")
_FAILED = Q(capture__job__state__in=(Job.State.FAILED, Job.State.STOPPED))
_NOTED = _TAKEN & (~Q(capture__warnings=[]) | Q(capture__truncated=True) | Q(capture__status__gte=_OK_BELOW))
_UNMET = Q(capture__cuts__outputs__job__state=Job.State.DONE, capture__cuts__outputs__met=False)
_BY_FILTER: dict[Filter, Q] = {
    "all": Q(),
    "arrived": Q(dropped=False) & _TAKEN,
    "failed": Q(dropped=False) & _FAILED,
    "warnings": Q(dropped=False) & _NOTED,
    "over_limit": Q(dropped=False) & _UNMET,
    "keep": Q(mark=Shot.Mark.KEEP),
    "retake": Q(mark=Shot.Mark.RETAKE),
    "dropped": Q(dropped=True),
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Count:
    """Shots of a sweep by what has become of them, and the pace of the last three minutes."""

    all: int
    taken: int
    failed: int
    left: int
    """Wanted, and not there yet; those under way as well."""
    under_way: int
    a_minute: float | None
    """Pictures a minute; None while too little has happened."""
    seconds_left: int | None
    on_now: tuple[str, ...]
    """Addresses that are being taken."""
    by_filter: dict[Filter, int]


def count(sweep: Sweep) -> Count:
    """Count the shots of a sweep."""
    shots = sweep.shots.all()
    by_filter = {name: shots.filter(of).distinct().count() for name, of in _BY_FILTER.items()}
    waiting = 0 if sweep.wish == Sweep.Wish.STOP else shots.waiting().count()
    under_way = shots.under_way().count()
    pace = _a_minute(sweep)
    left = waiting + under_way
    running = shots.filter(capture__job__state=Job.State.RUNNING).order_by("page__number")
    return Count(
        all=by_filter["all"],
        taken=by_filter["arrived"],
        failed=by_filter["failed"],
        left=left,
        under_way=under_way,
        a_minute=pace,
        seconds_left=round(left * 60 / pace) if pace and left else None,
        on_now=tuple(running.values_list("page__address", flat=True)[:8]),
        by_filter=by_filter,
    )


def _a_minute(sweep: Sweep) -> float | None:
    now = timezone.now()
    ended = sweep.shots.filter(capture__job__finished_at__gte=now - _PACE_OVER)
    first = ended.order_by("capture__job__finished_at").values_list("capture__job__finished_at", flat=True)
    times = list(first)
    if len(times) < 3 or times[0] is None:
        return None
    over_s = max(1.0, (now - times[0]).total_seconds())
    return round((len(times) - 1) * 60 / over_s, 1)


def pages_of(sweep: Sweep, kept: Filter, words: str = "") -> QuerySet[SweepPage]:
    """Pages with at least one shot that a filter keeps, and ``words`` in address or title."""
    pages = sweep.pages.order_by("number")
    if kept != "all":
        of = sweep.shots.filter(_BY_FILTER[kept])
        pages = pages.filter(pk__in=of.values("page"))
    if words.strip():
        in_shots = sweep.shots.filter(capture__title__icontains=words.strip()).values("page")
        pages = pages.filter(
            Q(address__icontains=words.strip()) | Q(title__icontains=words.strip()) | Q(pk__in=in_shots)
        )
    return pages


def rows_of(pages: QuerySet[SweepPage]) -> Iterator[tuple[SweepPage, list[Shot]]]:
    """Each page with its shots, in two queries."""
    found = list(pages)
    shots: dict[int, list[Shot]] = {page.pk: [] for page in found}
    of_them = Shot.objects.filter(page__in=[page.pk for page in found])
    for shot in of_them.select_related("capture__job").order_by(F("screen_at")):
        shots[shot.page_id].append(shot)
    for page in found:
        yield page, shots[page.pk]
