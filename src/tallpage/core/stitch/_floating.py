"""What floats over the page: it stands still in the window although the page below it has moved. Pure.

A line that runs down a whole page stands still in every view, too. It is told from what floats by the place
where it should have gone: there it is as well.
"""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from scipy import ndimage

from tallpage.core.geometry import Box
from tallpage.core.stitch._cells import CELL_PX, Grey, Marked, difference
from tallpage.core.stitch._still import Still, spread
from tallpage.core.stitch.models import Bars

_LONG_SHARE = 0.2
"""Share of the rows of a side in which something must stand to make it a side bar."""
_MOVED_ON = 12.0
"""Mean difference of a cell, of 255, from which on it is not what should have come there."""


@dataclass(frozen=True, slots=True)
class Moving:
    """How often each cell of the window was, or was not, where the page would have taken it."""

    agreed: np.ndarray[tuple[int, int], np.dtype[np.int32]]
    differed: np.ndarray[tuple[int, int], np.dtype[np.int32]]

    def floats(self, cells: Marked) -> bool:
        """Whether what stands in these cells does not go with the page."""
        differed, agreed = int(self.differed[cells].sum()), int(self.agreed[cells].sum())
        return differed > 0 and differed * 2 > agreed


def moves_with_page(
    greys: Sequence[Grey], order: Sequence[int], tops_px: Sequence[int], still: Still
) -> Moving:
    """Look where the cells of each view should stand in the next one, by where both lie."""
    moving = Moving(
        agreed=np.zeros(still.still.shape, dtype=np.int32),
        differed=np.zeros(still.still.shape, dtype=np.int32),
    )
    for upper, lower in itertools.pairwise(order):
        moved_px = tops_px[lower] - tops_px[upper]
        height_px = greys[upper].shape[0] - moved_px
        if moved_px < CELL_PX or height_px < CELL_PX:
            continue
        # The cells of the upper view count from its top, those of the lower one from its own.
        skipped = -moved_px % CELL_PX
        first = (moved_px + skipped) // CELL_PX
        above = difference(greys[upper][moved_px + skipped :], greys[lower][skipped:height_px])
        _count(moving, slice(first, first + len(above)), above > _MOVED_ON)
        below = difference(greys[lower][:height_px], greys[upper][moved_px:])
        _count(moving, slice(0, len(below)), below > _MOVED_ON)
    return moving


def find_floating(still: Still, moving: Moving, bars: Bars) -> tuple[Box, ...]:
    """Boxes, in px of a view, of what floats between the bars."""
    rows, columns = still.still.shape
    inside = np.zeros_like(still.still)
    inside[
        bars.top_px // CELL_PX : rows - bars.bottom_px // CELL_PX,
        bars.left_px // CELL_PX : columns - bars.right_px // CELL_PX,
    ] = True
    stuck = still.stuck & inside
    parts, count = ndimage.label(spread(stuck), structure=np.ones((3, 3)))
    boxes = []
    for number, place in enumerate(ndimage.find_objects(parts, count), start=1):
        if moving.floats((parts == number) & stuck):
            down, across = place
            boxes.append(
                Box(
                    x_px=across.start * CELL_PX,
                    y_px=down.start * CELL_PX,
                    width_px=(across.stop - across.start) * CELL_PX,
                    height_px=(down.stop - down.start) * CELL_PX,
                )
            )
    return tuple(boxes)


def standing_sides(bars: Bars, still: Still, moving: Moving) -> Bars:
    """The bars without those at the sides that go with the page, or hold but a button."""
    rows, columns = still.still.shape
    between = slice(bars.top_px // CELL_PX, rows - bars.bottom_px // CELL_PX)
    left, right = np.zeros_like(still.still), np.zeros_like(still.still)
    left[between, : bars.left_px // CELL_PX] = True
    right[between, columns - bars.right_px // CELL_PX :] = True
    stands = [
        moving.floats(side & still.stuck) and _is_long(side & still.stuck, rows=between)
        for side in (left, right)
    ]
    return replace(
        bars,
        left_px=bars.left_px if stands[0] else 0,
        right_px=bars.right_px if stands[1] else 0,
    )


def _is_long(cells: Marked, *, rows: slice) -> bool:
    """Whether something stands along a good part of a side: a button in an empty margin is no side bar."""
    seen: Marked = np.asarray(cells[rows].any(axis=1))
    return bool(np.count_nonzero(seen) >= _LONG_SHARE * len(seen))


def _count(moving: Moving, rows: slice, differs: Marked) -> None:
    moving.differed[rows] += differs
    moving.agreed[rows] += ~differs
