"""Which rows are shown from which view, and where one goes over into the next. Pure."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from tallpage.core.stitch._cells import Grey, edges
from tallpage.core.stitch.models import Bars, Stretch

_ENOUGH_PX = 96
"""Rows that two views should share: room for the seam beside what hangs at the edges of a window."""
_CALM_PX = 5
_INK_COST = 0.5
"""What a row costs for what stands in it, against what both views differ there: a seam between two lines of
text is not seen even if a view is a little lighter than the other."""
_FAR_COST = 0.5
"""What lying at the end of the room costs, in mean difference of a row, against its middle."""


def find_stretches(
    greys: Sequence[Grey], run: Sequence[int], tops_px: Sequence[int], bars: Bars
) -> tuple[Stretch, ...]:
    """The views that are shown, from top to bottom, as few as have enough in common.

    Args:
        greys: all views.
        run: those that hang together, from top to bottom.
        tops_px: where each view begins.
        bars: what stands still in the window.
    """
    chosen = _chosen([(view, tops_px[view], tops_px[view] + greys[view].shape[0]) for view in run], bars)
    stretches: list[Stretch] = []
    for number, view in enumerate(chosen):
        at_px = least_px = most_px = 0
        if number:
            above = chosen[number - 1]
            least_px, most_px = _room(greys, above, view, tops_px, bars)
            least_px = max(least_px, stretches[-1].top_px)
            most_px = max(most_px, least_px)
            at_px = _calmest(greys, above, view, tops_px, least_px, most_px)
            stretches[-1] = replace(stretches[-1], bottom_px=at_px)
        stretches.append(
            Stretch(
                view=view,
                view_top_px=tops_px[view],
                top_px=at_px,
                bottom_px=tops_px[view] + greys[view].shape[0],
                least_px=least_px,
                most_px=most_px,
            )
        )
    return tuple(stretches)


def moved_seam(stretches: Sequence[Stretch], number: int, at_px: int) -> tuple[Stretch, ...]:
    """The stretches with the seam above stretch ``number`` at another row, within its room.

    Raises:
        ValueError: there is no such seam, or the row lies outside its room.
    """
    if not 0 < number < len(stretches):
        raise ValueError(f"There is no seam {number}.")
    lower = stretches[number]
    least_px = max(lower.least_px, stretches[number - 1].top_px)
    if not least_px <= at_px <= min(lower.most_px, lower.bottom_px):
        raise ValueError(f"The seam can lie from {least_px} to {lower.most_px} px.")
    moved = list(stretches)
    moved[number - 1] = replace(moved[number - 1], bottom_px=at_px)
    moved[number] = replace(lower, top_px=at_px)
    return tuple(moved)


def _chosen(spans: Sequence[tuple[int, int, int]], bars: Bars) -> list[int]:
    enough_px = _ENOUGH_PX + bars.top_px + bars.bottom_px
    end_px = max(bottom for _, _, bottom in spans)
    at = 0
    chosen = [spans[0][0]]
    while spans[at][2] < end_px:
        later = [number for number in range(at + 1, len(spans)) if spans[number][2] > spans[at][2]]
        near = [number for number in later if spans[at][2] - spans[number][1] >= enough_px]
        at = near[-1] if near else later[0]
        chosen.append(spans[at][0])
    return chosen


def _room(
    greys: Sequence[Grey], above: int, below: int, tops_px: Sequence[int], bars: Bars
) -> tuple[int, int]:
    """Rows at which one view can go over into the next: both show them, outside what stands still."""
    first_px = tops_px[below] + bars.top_px
    last_px = tops_px[above] + greys[above].shape[0] - bars.bottom_px
    if first_px > last_px:
        first_px = last_px = (first_px + last_px) // 2
    return first_px, last_px


def _calmest(
    greys: Sequence[Grey], above: int, below: int, tops_px: Sequence[int], least_px: int, most_px: int
) -> int:
    """The row around which both agree best and least stands; of equal ones the nearest to the middle."""
    if most_px - least_px < _CALM_PX:
        return (least_px + most_px) // 2
    upper = greys[above][least_px - tops_px[above] : most_px - tops_px[above]]
    lower = greys[below][least_px - tops_px[below] : most_px - tops_px[below]]
    apart: NDArray[np.float64] = np.abs(upper.astype(np.int16) - lower).mean(axis=1, dtype=np.float64)
    cost = apart + _INK_COST * edges(upper).mean(axis=1, dtype=np.float64)
    # Between two rows: as calm as the ones around it.
    around = np.convolve(cost, np.ones(_CALM_PX) / _CALM_PX, mode="same")
    from_middle = np.abs(np.linspace(-1, 1, len(around)))
    return least_px + int(np.argmin(around + _FAR_COST * from_middle))
