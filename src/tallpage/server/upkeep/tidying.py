"""Clearing what is left over, now and again, and telling what it was."""

from __future__ import annotations

import logging
import time
from collections import Counter
from dataclasses import dataclass

from tallpage.core.units import format_bytes
from tallpage.server.jobs.models import Job
from tallpage.server.reserve import keep_reserve
from tallpage.server.storage import discard
from tallpage.server.upkeep.leftovers import Leftover, find_leftovers, old_joins, orphaned_jobs

_log = logging.getLogger(__name__)
_EVERY_S, _FIRST_AFTER_S = 3_600.0, 120.0
_RESERVE_EVERY_S = 30.0
_JOBS_AT_ONCE = 500


@dataclass(frozen=True, slots=True, kw_only=True)
class Tidied:
    """What was found, and cleared unless it was only looked for."""

    leftovers: tuple[Leftover, ...]
    jobs: int

    def lines(self) -> list[str]:
        """A line for each kind of thing."""
        counted = Counter(row.kind for row in self.leftovers)
        sizes: Counter[str] = Counter()
        for row in self.leftovers:
            sizes[row.kind] += row.bytes
        told = [f"{kind}: {count}, {format_bytes(sizes[kind])}" for kind, count in sorted(counted.items())]
        return [*told, *([f"row of ended work: {self.jobs}"] if self.jobs else [])]


def tidy(*, dry_run: bool = False) -> Tidied:
    """Clear what nothing refers to; with ``dry_run`` only look for it."""
    leftovers, jobs = tuple(find_leftovers()), list(orphaned_jobs().values_list("pk", flat=True))
    if not dry_run:
        if old_joins().exists():
            old_joins().delete()  # their work is nobody's then, and goes the next time
        for row in leftovers:
            discard(row.path)
        for start in range(0, len(jobs), _JOBS_AT_ONCE):
            Job.objects.filter(pk__in=jobs[start : start + _JOBS_AT_ONCE]).delete()
    return Tidied(leftovers=leftovers, jobs=len(jobs))


class _Rounds:
    """When something is due again, in this process."""

    def __init__(self, every_s: float, *, first_after_s: float) -> None:
        self._every_s, self._next_s = every_s, time.monotonic() + first_after_s

    def is_due(self) -> bool:
        now_s = time.monotonic()
        if now_s < self._next_s:
            return False
        self._next_s = now_s + self._every_s
        return True


_tidying = _Rounds(_EVERY_S, first_after_s=_FIRST_AFTER_S)
_reserving = _Rounds(_RESERVE_EVERY_S, first_after_s=0)


def look_after() -> bool:
    """Keep the reserve, and tidy once an hour. Called again and again by the worker's supervisor;
    it never has to be soon again."""
    if _reserving.is_due():
        keep_reserve()
    if _tidying.is_due():
        told = tidy().lines()
        if told:
            _log.warning("tidied: %s", "; ".join(told))
    return False
