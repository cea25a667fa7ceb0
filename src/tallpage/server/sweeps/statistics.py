"""How far a sweep is, and what has become of each of its pages."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import timedelta
from typing import Literal

from django.db.models import Count, F, Q, QuerySet
from django.utils import timezone

from tallpage.core.changes import NEARLY_BLANK
from tallpage.server.jobs.models import Job
from tallpage.server.sweeps.models import (
    ERROR_STATUS,
    FAILED,
    TAKEN,
    UNDER_WAY,
    WAITING,
    Comparison,
    Shot,
    Sweep,
    SweepPage,
)
from tallpage.server.sweeps.schemas import CountOut

Filter = Literal[
    "all", "arrived", "failed", "not_whole", "warnings", "over_limit", "blank", "same", "changed",
    "unchanged", "new", "gone", "keep", "retake", "dropped",
]  # fmt: skip
_PACE_OVER = timedelta(minutes=3)
_NAMED_AT_MOST = 8

_REMARKABLE = ~Q(capture__warnings=[]) | Q(capture__truncated=True) | Q(capture__status__gte=ERROR_STATUS)
_TO_LOOK = Q(comparison__job__state__in=(Job.State.QUEUED, Job.State.RUNNING))
_UNMET = Q(capture__cuts__outputs__job__state=Job.State.DONE, capture__cuts__outputs__met=False)
_BY_FILTER: dict[Filter, Q] = {
    "all": Q(pk__isnull=False),
    "arrived": Q(dropped=False) & TAKEN,
    "failed": Q(dropped=False) & FAILED,
    "not_whole": Q(dropped=False, capture__whole=False) & TAKEN,
    "warnings": Q(dropped=False) & TAKEN & _REMARKABLE,
    "over_limit": Q(dropped=False) & _UNMET,
    "blank": Q(dropped=False, comparison__commonest_share__gte=NEARLY_BLANK),
    "changed": Q(dropped=False, comparison__change=Comparison.Change.CHANGED),
    "unchanged": Q(dropped=False, comparison__change=Comparison.Change.UNCHANGED),
    "new": Q(dropped=False, comparison__change=Comparison.Change.NEW),
    "gone": Q(dropped=False, comparison__change=Comparison.Change.GONE),
    "keep": Q(mark=Shot.Mark.KEEP),
    "retake": Q(mark=Shot.Mark.RETAKE),
    "dropped": Q(dropped=True),
}
# Files that missed their limit stand in other tables, several to a shot: they are counted apart.
_COUNTED = {f"n_{name}": Count("pk", filter=of) for name, of in _BY_FILTER.items() if name != "over_limit"}
_PENDING = {
    "n_waiting": Count("pk", filter=WAITING),
    "n_under_way": Count("pk", filter=UNDER_WAY),
    "n_to_look": Count("pk", filter=_TO_LOOK),
}


def _same(sweep: Sweep) -> Q:
    """Shots that look like another of their sweep, to the pixel."""
    comparisons = Comparison.objects.filter(shot__sweep=sweep, shot__dropped=False).exclude(digest="")
    again = comparisons.values("digest").annotate(times=Count("pk")).filter(times__gt=1)
    return Q(dropped=False, comparison__digest__in=again.values("digest"))


def count(sweep: Sweep) -> CountOut:
    """Count the shots of a sweep, nearly all in one scan."""
    found = sweep.shots.aggregate(**_COUNTED, **_PENDING)
    over_limit = 0
    if sweep.slots.exists():
        over_limit = sweep.shots.filter(_BY_FILTER["over_limit"]).distinct().count()
    same = sweep.shots.filter(_same(sweep)).count()
    gone = sweep.pages.filter(gone=True).count()
    left = found["n_under_way"] + (0 if sweep.stop_mode == Sweep.StopMode.STOP else found["n_waiting"])
    going = sweep.finished_at is None
    pace = _a_minute(sweep) if going else None
    return CountOut(
        all=found["n_all"],
        taken=found["n_arrived"],
        failed=found["n_failed"],
        left=left,
        under_way=found["n_under_way"],
        to_look=found["n_to_look"],
        a_minute=pace,
        seconds_left=round(left * 60 / pace) if pace and left else None,
        on_now=_on_now(sweep) if going else [],
        by_filter={
            **{name: found[f"n_{name}"] for name in _BY_FILTER if name != "over_limit"},
            "over_limit": over_limit,
            "same": same,
            "gone": found["n_gone"] + gone,
        },
    )


def _on_now(sweep: Sweep) -> list[str]:
    running = sweep.shots.filter(capture__job__state=Job.State.RUNNING).order_by("page__number")
    return list(running.values_list("page__address", flat=True)[:_NAMED_AT_MOST])


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
        of = sweep.shots.filter(_same(sweep) if kept == "same" else _BY_FILTER[kept])
        wanted = Q(pk__in=of.values("page"))
        pages = pages.filter(wanted | Q(gone=True) if kept == "gone" else wanted)
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
    for shot in of_them.select_related("capture__job", "comparison").order_by(F("screen_at")):
        shots[shot.page_id].append(shot)
    for page in found:
        yield page, shots[page.pk]
