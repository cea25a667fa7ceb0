"""What stands still in the window while the page moves beneath it. Pure."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from tallpage.core.stitch._cells import (
    CELL_PX,
    Grey,
    Marked,
    as_pixels,
    difference,
    edges,
    is_inked,
    means,
)
from tallpage.core.stitch.models import Bars

_STILL = 10.0
"""Mean difference of a cell, of 255, up to which it is the same in two views."""
_MOVED_SHARE = 0.03
"""Share of the inked cells that change when anything has moved."""
_USUALLY = 0.8
"""Share of the pairs in which a cell stands still that hangs in the window."""
_ALIVE = 0.2
"""Share of a bar that may change: a clock, a progress line."""
_MOST_BAR = 0.4
"""Share of the window that a bar may take."""


@dataclass(frozen=True, slots=True)
class Still:
    """The cells of the window that stand still, those in which something stands, and where neither moves."""

    still: Marked
    inked: Marked

    @property
    def stuck(self) -> Marked:
        """What is seen and stands still."""
        return self.still & self.inked

    def turned(self, *, down: int = 1, across: int = 1) -> Still:
        """The same, seen from another edge."""
        return Still(still=self.still[::down, ::across], inked=self.inked[::down, ::across])


def find_still(views: Sequence[Grey]) -> Still | None:
    """What stands still in views of one size, of which each follows another; None when nothing moved."""
    rows, columns = views[0].shape[0] // CELL_PX, views[0].shape[1] // CELL_PX
    times = np.zeros((rows, columns), dtype=np.int32)
    ever_inked = np.zeros((rows, columns), dtype=bool)
    always_inked = np.ones((rows, columns), dtype=bool)
    pairs = 0
    before = None
    before_inked = None
    for view in views:
        inked = is_inked(means(edges(view)))
        if before is not None and before_inked is not None:
            still = difference(before, view) <= _STILL
            either = inked | before_inked
            if np.count_nonzero(either & ~still) >= _MOVED_SHARE * max(1, int(either.sum())):
                times += still
                pairs += 1
        ever_inked |= inked
        always_inked &= inked
        before, before_inked = view, inked
    if not pairs:
        return None
    still = times >= np.ceil(_USUALLY * pairs)
    return Still(still=still, inked=np.where(still, always_inked, ever_inked))


def find_bars(found: Still) -> Bars:
    """The bars at the edges of the window: headers, foot lines, side bars."""
    top = _bar(found, axis=1)
    bottom = _bar(found.turned(down=-1), axis=1)
    rows = slice(top, found.still.shape[0] - bottom)
    between = Still(still=found.still[rows], inked=found.inked[rows])
    return Bars(
        top_px=top * CELL_PX,
        bottom_px=bottom * CELL_PX,
        left_px=_bar(between, axis=0) * CELL_PX,
        right_px=_bar(between.turned(across=-1), axis=0) * CELL_PX,
    )


def counted_px(found: Still | None, bars: Bars, shape: tuple[int, int]) -> Marked:
    """The px of a view that move with the page: outside the bars, and not beside what floats over it."""
    counted = np.ones(shape, dtype=bool)
    if found is not None:
        counted &= ~as_pixels(spread(found.stuck), shape)
    height_px, width_px = shape
    counted[: bars.top_px] = False
    counted[height_px - bars.bottom_px :] = False
    counted[:, : bars.left_px] = False
    counted[:, width_px - bars.right_px :] = False
    return counted


def spread(marked: Marked) -> Marked:
    """The same with the cells around each: what is soft about an edge belongs to it."""
    grown = marked.copy()
    grown[1:] |= marked[:-1]
    grown[:-1] |= marked[1:]
    sideways = grown.copy()
    sideways[:, 1:] |= grown[:, :-1]
    sideways[:, :-1] |= grown[:, 1:]
    return sideways


def _bar(found: Still, *, axis: int) -> int:
    """How many cells from the edge on belong to a bar: nearly all that is seen in them stands still."""
    own_still, own_seen = found.stuck.sum(axis=axis), found.inked.sum(axis=axis)
    still, seen = np.cumsum(own_still), np.cumsum(own_seen)
    most = int(_MOST_BAR * len(still))
    is_end = (own_still * 2 > own_seen) & (still >= (1 - _ALIVE) * seen)
    ends = np.flatnonzero(is_end[:most])
    if not len(ends):
        return 0
    end = int(ends[-1]) + 1
    # A bar is often of one colour below its words: that is still, too, although nothing is seen in it.
    plain: Marked = np.asarray(found.still.all(axis=axis))
    while end < most and plain[end]:
        end += 1
    return end
