"""Choosing the breaks: leaves of about one height, at the gaps that hurt least. Pure arithmetic."""

from __future__ import annotations

import itertools
from collections.abc import Sequence

from tallpage.core.errors import FitError
from tallpage.core.leaves._gaps import THROUGH, Gap

MOST_LEAVES = 60
LEAST_LEAF_PX = 16
MOST_OVERLAP_PX = 400
_OFF_BY = 0.35
"""Share of a leaf's height by which a break may be away from where it would balance the leaves."""
_CONSIDERED = 40
_UNEVEN = 3.0
"""What unevenness costs, against a gap's roughness."""

_Path = tuple[float, tuple[int, ...]]


def divide(
    height_px: int, gaps: Sequence[Gap], *, greatest_px: int | None = None, count: int | None = None
) -> tuple[int, ...]:
    """Rows at which to divide ``height_px``: into ``count`` leaves, or into as few as keep each within
    ``greatest_px``; with both, into at least ``count``.

    Leaves are of about one height; a break is where the gap is best near there. Where the least number
    of leaves has to go through something, and one more has not, it is one more.

    Raises:
        FitError: more leaves than anybody would publish.
    """
    least = max(count or 1, -(-height_px // (greatest_px or height_px)))
    if least > MOST_LEAVES:
        raise FitError(
            f"This would be divided into {least} leaves; at most {MOST_LEAVES} are made.",
            hint="Cut a shorter stretch, or raise the slot's greatest height or limit.",
            code="leaves_too_many",
        )
    if least == 1:
        return ()
    rough = {gap.y_px for gap in gaps if gap.roughness >= THROUGH}
    found = []
    for number in (least,) if greatest_px is None else (least, least + 1):
        path = _best_path(height_px, gaps, number, greatest_px)
        if path is not None:
            found.append(path)
            if rough.isdisjoint(path):
                return path
    return found[0] if found else tuple(height_px * place // least for place in range(1, least))


def _best_path(
    height_px: int, gaps: Sequence[Gap], count: int, greatest_px: int | None
) -> tuple[int, ...] | None:
    ideal_px = height_px / count
    paths: dict[int, _Path] = {0: (0.0, ())}
    for place in range(1, count):
        paths = _extended(paths, _near(gaps, ideal_px * place, ideal_px), ideal_px, greatest_px)
        if not paths:
            return None
    ended = _extended(paths, [Gap(y_px=height_px, roughness=0.0)], ideal_px, greatest_px)
    return ended[height_px][1][:-1] if ended else None


def _extended(
    paths: dict[int, _Path], gaps: Sequence[Gap], ideal_px: float, greatest_px: int | None
) -> dict[int, _Path]:
    """The cheapest way to each of the next breaks."""
    longer: dict[int, _Path] = {}
    for gap in gaps:
        for y_px, (cost, breaks) in paths.items():
            leaf_px = gap.y_px - y_px
            if leaf_px < 1 or (greatest_px is not None and leaf_px > greatest_px):
                continue
            new_cost = cost + gap.roughness + _UNEVEN * ((leaf_px - ideal_px) / ideal_px) ** 2
            if gap.y_px not in longer or new_cost < longer[gap.y_px][0]:
                longer[gap.y_px] = (new_cost, (*breaks, gap.y_px))
    return longer


def _near(gaps: Sequence[Gap], wanted_px: float, ideal_px: float) -> list[Gap]:
    """The best few gaps near a row."""
    within = [gap for gap in gaps if abs(gap.y_px - wanted_px) <= _OFF_BY * ideal_px]
    return sorted(
        within,
        key=lambda gap: gap.roughness + _UNEVEN * ((gap.y_px - wanted_px) / ideal_px) ** 2,
    )[:_CONSIDERED]


def leaf_rows(height_px: int, breaks: Sequence[int], *, overlap_px: int = 0) -> list[tuple[int, int]]:
    """``(top, height)`` of the leaves of so many rows. Each repeats ``overlap_px`` of the one above."""
    leaves = []
    for top_px, bottom_px in itertools.pairwise([0, *breaks, height_px]):
        first_px = max(0, top_px - overlap_px)
        leaves.append((first_px, bottom_px - first_px))
    return leaves


def require_overlap(overlap_px: int, greatest_height_px: int | None) -> None:
    """Refuse an overlap that would leave hardly any room for what is new on a leaf.

    Raises:
        FitError: it is too high.
    """
    most_px = MOST_OVERLAP_PX if greatest_height_px is None else min(MOST_OVERLAP_PX, greatest_height_px // 2)
    if overlap_px > most_px:
        raise FitError(
            f"Leaves cannot overlap by {overlap_px:,} px.",
            hint=f"Give an overlap of at most {most_px:,} px.",
            code="overlap_impossible",
        )


def require_breaks(breaks: Sequence[int], height_px: int) -> tuple[int, ...]:
    """Breaks that a person set, in order.

    Raises:
        FitError: too many, outside the frame, or so close that a leaf would be empty.
    """
    edges = [0, *sorted(breaks), height_px]
    if len(breaks) >= MOST_LEAVES or any(
        bottom - top < min(LEAST_LEAF_PX, height_px) for top, bottom in itertools.pairwise(edges)
    ):
        raise FitError(
            f"These breaks do not divide {height_px:,} px into leaves of at least {LEAST_LEAF_PX} px.",
            hint="Move them apart, or remove one.",
            code="breaks_impossible",
        )
    return tuple(sorted(breaks))
