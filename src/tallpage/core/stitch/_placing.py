"""Where every view lies, from what pairs of them share. Pure."""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Sequence

from tallpage.core.stitch._matching import Unsure, find_displacement, look_at
from tallpage.core.stitch._views import View
from tallpage.core.stitch.models import Doubt, Gap

_AGREES = 0.35
"""Share of the cells that may differ where two views lie upon each other by way of others."""
_TOLERANCE_HALF_PX = 2


class Layout:
    """Views in runs that hang together; where each lies in its run, in half px."""

    def __init__(self, count: int) -> None:
        self._run = list(range(count))
        self._at_half_px = [0] * count

    def join(self, upper: int, lower: int, half_px: int) -> bool:
        """Say that one view lies so far below another; false when that contradicts what is known."""
        if self._run[upper] == self._run[lower]:
            known = self._at_half_px[lower] - self._at_half_px[upper]
            return abs(known - half_px) <= _TOLERANCE_HALF_PX
        moved = self._at_half_px[upper] + half_px - self._at_half_px[lower]
        left, kept = self._run[lower], self._run[upper]
        for view, run in enumerate(self._run):
            if run == left:
                self._run[view] = kept
                self._at_half_px[view] += moved
        return True

    def are_joined(self, one: int, other: int) -> bool:
        """Whether both hang together."""
        return self._run[one] == self._run[other]

    def between_half_px(self, upper: int, lower: int) -> int:
        """How far one lies below another of the same run."""
        return self._at_half_px[lower] - self._at_half_px[upper]

    def runs(self) -> list[list[int]]:
        """The views of each run from top to bottom, runs in the order of their first views."""
        runs: dict[int, list[int]] = {}
        for view, run in enumerate(self._run):
            runs.setdefault(run, []).append(view)
        return [sorted(run, key=lambda view: (self._at_half_px[view], view)) for run in runs.values()]

    def tops_px(self) -> tuple[int, ...]:
        """Where each view begins in its run, whose first row is 0."""
        tops = [0] * len(self._run)
        for run in self.runs():
            least = self._at_half_px[run[0]]
            for view in run:
                tops[view] = (self._at_half_px[view] - least) // 2
        return tuple(tops)


def place_views(views: Sequence[View], *, in_order: bool) -> tuple[Layout, dict[tuple[int, int], Doubt]]:
    """Put views that share something onto each other, as far as that is beyond doubt.

    Args:
        views: of one width, as they were taken.
        in_order: whether each was taken after the one before it. Others are then only compared where
            something is missing; without an order all are.

    Returns:
        Where they lie, and why pairs that were looked at are not put onto each other.
    """
    layout = Layout(len(views))
    doubts: dict[tuple[int, int], Doubt] = {}
    for upper, lower in _pairs(len(views), in_order=in_order):
        if in_order and lower - upper > 1 and layout.are_joined(upper, lower):
            continue
        found = find_displacement(views[upper], views[lower])
        if isinstance(found, Unsure):
            doubts[upper, lower] = found.doubt
        elif not layout.join(upper, lower, found.half_px):
            doubts[upper, lower] = "contradicts"
    return layout, doubts


def contradictions(views: Sequence[View], layout: Layout) -> Iterator[tuple[int, int]]:
    """Views of one run that lie upon each other there, and do not show the same."""
    for run in layout.runs():
        for upper, lower in itertools.combinations(run, 2):
            at_px = layout.between_half_px(upper, lower) // 2
            if at_px >= views[upper].height_px:
                continue
            match = look_at(views[upper], views[lower], at_px)
            if match is not None and match.inked >= match.least_inked and match.share > _AGREES:
                yield upper, lower


def find_gaps(layout: Layout, doubts: dict[tuple[int, int], Doubt], *, in_order: bool) -> list[Gap]:
    """Where pieces are missing: between one run and the next."""
    gaps = []
    for above, below in itertools.pairwise(layout.runs()):
        ends = (above[-1], below[0])
        if in_order:
            # The place is where the scrolling went on: between the last view before the break and the next.
            first = min(below)
            ends = (max(view for view in above if view < first), first)
        pair = (min(ends), max(ends))
        gaps.append(Gap(below=ends[0], above=ends[1], doubt=doubts.get(pair, "nothing_shared")))
    return gaps


def _pairs(count: int, *, in_order: bool) -> Iterator[tuple[int, int]]:
    yield from itertools.pairwise(range(count))
    far = (pair for pair in itertools.combinations(range(count), 2) if pair[1] - pair[0] > 1)
    yield from sorted(far, key=lambda pair: pair[1] - pair[0]) if in_order else far
