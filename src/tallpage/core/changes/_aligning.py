"""Which rows of a picture are which rows of another, when something was put in or taken out between.

Source: patience diff (B. Cohen): rows that occur once in both pictures, in an order that both
share, are anchors; what is equal around an anchor belongs to it.
"""

from __future__ import annotations

from bisect import bisect_left
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray


@dataclass(frozen=True, slots=True)
class Run:
    """``rows`` rows that are the same, from ``before_px`` in one picture and ``now_px`` in the other."""

    before_px: int
    now_px: int
    rows: int


def aligned(before: NDArray[np.uint64], now: NDArray[np.uint64]) -> list[Run]:
    """Runs of equal rows from top to bottom, none overlapping, in both pictures in the same order."""
    runs: list[Run] = []
    least_before = least_now = 0
    for before_px, now_px in [(0, 0), *_anchors(before, now), (len(before) - 1, len(now) - 1)]:
        if before_px < least_before or now_px < least_now or before[before_px] != now[now_px]:
            continue
        up = _equal(before[least_before : before_px + 1][::-1], now[least_now : now_px + 1][::-1])
        down = _equal(before[before_px:], now[now_px:])
        run = Run(before_px - up + 1, now_px - up + 1, up + down - 1)
        least_before, least_now = run.before_px + run.rows, run.now_px + run.rows
        if runs and _follows(runs[-1], run):
            run = Run(runs[-1].before_px, runs[-1].now_px, runs[-1].rows + run.rows)
            runs.pop()
        runs.append(run)
    return runs


def _follows(earlier: Run, later: Run) -> bool:
    return (earlier.before_px + earlier.rows, earlier.now_px + earlier.rows) == (
        later.before_px,
        later.now_px,
    )


def _equal(some: NDArray[np.uint64], others: NDArray[np.uint64]) -> int:
    """How many rows from the start on are equal."""
    shared = min(len(some), len(others))
    differ = np.flatnonzero(some[:shared] != others[:shared])
    return int(differ[0]) if len(differ) else shared


def _anchors(before: NDArray[np.uint64], now: NDArray[np.uint64]) -> list[tuple[int, int]]:
    """Rows that occur once in both, as many as stand in the same order in both."""
    once_before, at_before = _once(before)
    once_now, at_now = _once(now)
    _, in_before, in_now = np.intersect1d(once_before, once_now, assume_unique=True, return_indices=True)
    pairs = sorted(zip(at_now[in_now].tolist(), at_before[in_before].tolist(), strict=True))
    return [(before_px, now_px) for now_px, before_px in _rising(pairs)]


def _once(rows: NDArray[np.uint64]) -> tuple[NDArray[np.uint64], NDArray[np.int64]]:
    values, places, counts = np.unique(rows, return_index=True, return_counts=True)
    return values[counts == 1], places[counts == 1]


def _rising(pairs: list[tuple[int, int]]) -> list[tuple[int, int]]:
    """The longest choice of pairs whose second numbers rise; the first ones do already."""
    tails: list[int] = []
    tail_at: list[int] = []
    previous: list[int] = []
    for number, (_, second) in enumerate(pairs):
        place = bisect_left(tails, second)
        previous.append(tail_at[place - 1] if place else -1)
        if place == len(tails):
            tails.append(second)
            tail_at.append(number)
        else:
            tails[place], tail_at[place] = second, number
    chosen: list[tuple[int, int]] = []
    number = tail_at[-1] if tail_at else -1
    while number >= 0:
        chosen.append(pairs[number])
        number = previous[number]
    return chosen[::-1]


@dataclass(frozen=True, slots=True)
class Gap:
    """Rows between two runs of equal ones; either side may have none."""

    before_px: int
    before_rows: int
    now_px: int
    now_rows: int


def gaps_between(runs: list[Run], before_rows: int, now_rows: int) -> list[Gap]:
    """What lies between runs, above the first and below the last."""
    gaps = []
    before_px = now_px = 0
    for run in [*runs, Run(before_rows, now_rows, 0)]:
        if run.before_px > before_px or run.now_px > now_px:
            gaps.append(Gap(before_px, run.before_px - before_px, now_px, run.now_px - now_px))
        before_px, now_px = run.before_px + run.rows, run.now_px + run.rows
    return gaps
