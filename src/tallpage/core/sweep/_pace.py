"""Which pages may be taken next, without pressing a host. Pure: times are given."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from tallpage.core.errors import ListError


@dataclass(frozen=True, slots=True, kw_only=True)
class Pace:
    """How many pages of one host at once, and how long after the start of one the next may start."""

    at_once: int = 2
    pause_s: float = 0.5

    def __post_init__(self) -> None:
        if not 1 <= self.at_once <= 16:
            raise ListError(
                f"{self.at_once} pages of one host at once is not possible.",
                hint="Give 1 to 16.",
                code="pace_impossible",
            )
        if not 0 <= self.pause_s <= 600:
            raise ListError(
                f"A pause of {self.pause_s:g} s is not possible.",
                hint="Give 0 to 600 s.",
                code="pace_impossible",
            )


@dataclass(frozen=True, slots=True)
class Waiting:
    """A picture that waits to be taken."""

    number: int
    host: str
    """Empty for what presses no host."""


def next_up(
    waiting: Iterable[Waiting],
    *,
    pace: Pace,
    free: int,
    under_way: Sequence[str],
    started_at: Mapping[str, float],
    now: float,
) -> tuple[list[Waiting], float | None]:
    """``(to start now, seconds until it is worth asking again)``; None when only an end frees something.

    ``under_way`` names the host of each picture that is being taken, ``started_at`` when a host's
    last one was begun. Hosts come in the order of the list.
    """
    busy = Counter(under_way)
    started = dict(started_at)
    chosen: list[Waiting] = []
    soonest: float | None = None
    for row in waiting:
        if len(chosen) >= free:
            break
        if not row.host:
            chosen.append(row)
            continue
        if busy[row.host] >= pace.at_once:
            continue
        ready = started.get(row.host, float("-inf")) + pace.pause_s
        if ready > now:
            soonest = ready - now if soonest is None else min(soonest, ready - now)
            continue
        chosen.append(row)
        busy[row.host] += 1
        started[row.host] = now
    return chosen, soonest
