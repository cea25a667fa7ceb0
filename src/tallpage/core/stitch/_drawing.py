"""The rows of a join, band by band."""

from __future__ import annotations

from collections.abc import Callable, Iterator

import numpy as np
from numpy.typing import NDArray

from tallpage.core.geometry import Box
from tallpage.core.stitch._cells import Marked
from tallpage.core.stitch.models import Join, Stretch

Rows = NDArray[np.uint8]
ReadRows = Callable[[int, int, int], Rows]
"""Rows of a view: its number, the first row, how many. Shape (rows, width, channels)."""


class JoinDrawer:
    """Draws what a whole join shows.

    What stands still in the window is shown once: bars above and below where the first and the last view
    have them, bars at the sides beside the first view, and below it the colour of each of their columns.
    What floats over the page is taken from a view in which it does not lie there.
    """

    def __init__(self, join: Join, read_rows: ReadRows) -> None:
        if not join.is_whole:
            raise ValueError("Pieces are missing: there is nothing whole to draw.")
        self._join = join
        self._read = read_rows
        self._first = join.order[0]
        self._sides_below_px = join.heights_px[self._first] - join.bars.bottom_px
        self._foot_px = join.height_px - join.bars.bottom_px
        self._side_colours: Rows | None = None

    def rows(self, top_px: int, height_px: int) -> Rows:
        """Rows of the tall picture, shape (rows, width, channels)."""
        bottom_px = top_px + height_px
        drawn = np.concatenate([self._shown(*part) for part in self._parts(top_px, bottom_px)])
        self._free_of_floating(drawn, top_px)
        if self._join.bars.left_px or self._join.bars.right_px:
            self._put_sides(drawn, top_px)
        return drawn

    def _parts(self, top_px: int, bottom_px: int) -> Iterator[tuple[Stretch, int, int]]:
        for stretch in self._join.stretches:
            first, last = max(top_px, stretch.top_px), min(bottom_px, stretch.bottom_px)
            if first < last:
                yield stretch, first, last

    def _shown(self, stretch: Stretch, first_px: int, last_px: int) -> Rows:
        return self._read(stretch.view, first_px - stretch.view_top_px, last_px - first_px)

    def _free_of_floating(self, drawn: Rows, top_px: int) -> None:
        for stretch, first_px, last_px in self._parts(top_px, top_px + len(drawn)):
            for box in self._join.floating:
                covered_from = max(first_px, stretch.view_top_px + box.y_px)
                covered_to = min(last_px, stretch.view_top_px + box.bottom_px)
                if covered_from < covered_to:
                    rows = range(covered_from, covered_to)
                    self._replace(drawn, top_px, stretch.view, box, rows)

    def _replace(self, drawn: Rows, top_px: int, shown: int, box: Box, rows: range) -> None:
        """Take what lies below a floating box from the nearest views that show it."""
        columns = slice(box.x_px, box.right_px)
        left = np.zeros(len(drawn), dtype=bool)
        left[rows.start - top_px : rows.stop - top_px] = True
        for other in sorted(
            self._join.order, key=lambda view: abs(self._join.tops_px[view] - self._join.tops_px[shown])
        ):
            seen = left & self._shows(other, box, top_px, len(drawn))
            if not seen.any():
                continue
            first, last = int(np.flatnonzero(seen)[0]), int(np.flatnonzero(seen)[-1]) + 1
            there = self._read(other, top_px + first - self._join.tops_px[other], last - first)
            drawn[first:last, columns][seen[first:last]] = there[:, columns][seen[first:last]]
            left &= ~seen

    def _shows(self, view: int, box: Box, top_px: int, count: int) -> Marked:
        """Which rows a view shows in the columns of the box, with nothing hanging over them."""
        rows = np.arange(top_px, top_px + count) - self._join.tops_px[view]
        bars, height_px = self._join.bars, self._join.heights_px[view]
        shows: Marked = (rows >= bars.top_px) & (rows < height_px - bars.bottom_px)
        for other in self._join.floating:
            if other.x_px < box.right_px and other.right_px > box.x_px:
                shows &= (rows < other.y_px) | (rows >= other.bottom_px)
        return shows

    def _put_sides(self, drawn: Rows, top_px: int) -> None:
        bars, width_px = self._join.bars, self._join.width_px
        colours = self._colours()
        beside_to = min(top_px + len(drawn), self._sides_below_px)
        beside = self._read(self._first, top_px, beside_to - top_px) if beside_to > top_px else None
        foot_px = max(0, min(len(drawn), self._foot_px - top_px))
        for columns in (slice(0, bars.left_px), slice(width_px - bars.right_px, width_px)):
            drawn[:foot_px, columns] = colours[columns]
            if beside is not None:
                drawn[: len(beside), columns] = beside[:, columns]

    def _colours(self) -> Rows:
        """Of each column of the first view, between its bars, the usual colour."""
        if self._side_colours is None:
            bars = self._join.bars
            rows = self._read(self._first, bars.top_px, self._sides_below_px - bars.top_px)
            self._side_colours = np.median(rows, axis=0).astype(np.uint8)
        return self._side_colours
