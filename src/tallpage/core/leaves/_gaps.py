"""Where a page may be divided, and how much each place would hurt."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tallpage.core.page_map import Block

_LEAST_RUN_PX = 4
_EVERY_PX = 48
"""A long empty stretch offers more than its middle."""
_WITHIN = {"mark": 4.0, "image": 3.0, "heading": 1.5, "button": 1.5, "list": 0.2, "table": 0.2}
_WITHIN_TEXT = 0.35
_CONTAINERS = {"section", "navigation", "form", "article", "main", "header", "footer"}
_BEFORE_HEADING = -0.15
_AFTER_HEADING = 0.5
_NEAR_PX = 64
THROUGH = 10.0
"""Something stands there: a picture, or columns whose lines do not lie side by side."""
_SEARCHED_PX = 64
"""In every so many rows without a gap, one row is offered all the same."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Gap:
    """A place to divide: between row ``y_px - 1`` and row ``y_px``. Less roughness is better."""

    y_px: int
    roughness: float


def gaps_of(busy: NDArray[np.int32], blocks: Sequence[Block], *, top_px: int) -> list[Gap]:
    """All gaps of a frame that begins at ``top_px`` of its page, from top to bottom.

    ``busy`` says how much stands in each of its rows. Where nothing is calm for long, the row in which
    least stands is offered, at a roughness of ``THROUGH`` or more.
    """
    height_px = len(busy)
    hurts = _hurts(blocks, top_px, height_px)
    gaps = []
    for first, last in _calm_runs(busy):
        for y_px in _places(first, last):
            if 0 < y_px < height_px:
                gaps.append(Gap(y_px=y_px, roughness=float(hurts[y_px])))
    return sorted(gaps + _rough_ones(busy, gaps), key=lambda gap: gap.y_px)


def _calm_runs(busy: NDArray[np.int32]) -> list[tuple[int, int]]:
    """``(first, last + 1)`` of each run of rows in which nothing stands."""
    calm = np.concatenate([[0], (busy == 0).astype(np.int8), [0]])
    turns = np.flatnonzero(np.diff(calm))
    pairs = zip(turns[::2], turns[1::2], strict=True)
    return [(int(first), int(end)) for first, end in pairs if end - first >= _LEAST_RUN_PX]


def _places(first: int, end: int) -> list[int]:
    middle = (first + end) // 2
    if end - first <= 2 * _EVERY_PX:
        return [middle]
    return [*range(first + _EVERY_PX // 2, end - _EVERY_PX // 2, _EVERY_PX)]


def _hurts(blocks: Sequence[Block], top_px: int, height_px: int) -> NDArray[np.float64]:
    """What it costs to divide at each row, by what the page says stands there."""
    hurts = np.zeros(height_px + 1)
    for block in blocks:
        first = max(0, block.box.y_px - top_px + 1)
        end = min(height_px + 1, block.box.bottom_px - top_px)
        if block.role not in _CONTAINERS and end > first:
            np.maximum(hurts[first:end], _WITHIN.get(block.role, _WITHIN_TEXT), out=hurts[first:end])
    for block in blocks:
        if block.role != "heading":
            continue
        above, below = block.box.y_px - top_px, block.box.bottom_px - top_px
        hurts[max(0, above - _NEAR_PX) : max(0, above + 1)] += _BEFORE_HEADING
        hurts[max(0, below) : max(0, below + _NEAR_PX)] += _AFTER_HEADING
    return hurts


def _rough_ones(busy: NDArray[np.int32], gaps: list[Gap]) -> list[Gap]:
    """The least busy row of every stretch that has no gap of its own."""
    rough = []
    height_px = len(busy)
    taken = {gap.y_px // _SEARCHED_PX for gap in gaps}
    for number in range(-(-height_px // _SEARCHED_PX)):
        first, end = number * _SEARCHED_PX, min(height_px, (number + 1) * _SEARCHED_PX)
        if number in taken or end - first < 2:
            continue
        beside = busy[first : end - 1] + busy[first + 1 : end]
        y_px = first + 1 + int(np.argmin(beside))
        rough.append(Gap(y_px=y_px, roughness=THROUGH + float(beside.min()) / 1_000))
    return rough
