"""What moves by itself in one place of the window: a picture that changes, a film. Pure."""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Sequence

import numpy as np
from numpy.typing import NDArray
from scipy import ndimage

from tallpage.core.geometry import Box
from tallpage.core.stitch._cells import CELL_PX, Marked
from tallpage.core.stitch._matching import Match, possible_matches
from tallpage.core.stitch._views import View

Counts = NDArray[np.int32]
_NEARLY = 0.6
"""Share of the cells that may differ where two views perhaps lie upon each other."""
_LEAST_PAIRS = 2
_USUALLY = 0.75
_LEAST_CELLS = 16
_DENSE = 0.7
"""Share of the inked cells of a box that must differ."""
_MOST_SHARE = 0.12
"""Of the window. Where more than that differs, the views do not belong together."""


def find_restless(views: Sequence[View], *, in_order: bool) -> tuple[Box, ...]:
    """Boxes, in px of a view, that differ wherever views of one size nearly lie upon each other.

    What belongs to the page differs in one pair of views, or in none, and elsewhere in each.
    """
    shape = (views[0].height_px // CELL_PX, views[0].grey.shape[1] // CELL_PX)
    matches = list(_nearly(views, in_order=in_order))
    seen, differed = np.zeros(shape, dtype=np.int32), np.zeros(shape, dtype=np.int32)
    for match in matches:
        for rows, bad, inked in _sides(match, shape):
            seen[rows] += inked
            differed[rows] += bad
    # Where two views differ, one of them may be as the page is: the other is the one that differs elsewhere.
    blame = differed - 2 * (seen - differed)
    differed = np.zeros(shape, dtype=np.int32)
    for match in matches:
        (above, bad, _), (below, bad_below, _) = _sides(match, shape)
        count = min(len(bad), len(bad_below))
        rows_above, rows_below = _first(above, count), _first(below, count)
        differed[rows_above] += bad[:count] & (blame[rows_above] >= blame[rows_below])
        differed[rows_below] += bad[:count] & (blame[rows_below] >= blame[rows_above])
    restless = (seen >= _LEAST_PAIRS) & (differed >= _LEAST_PAIRS) & (differed >= _USUALLY * seen)
    boxes = list(_boxes(restless, seen, differed))
    covered = sum(box.width_px * box.height_px for box in boxes)
    return tuple(boxes) if covered <= _MOST_SHARE * views[0].grey.size else ()


def _sides(match: Match, shape: tuple[int, int]) -> list[tuple[slice, Marked, Marked]]:
    """The cells of what two views share, in the window of the upper one and in that of the lower one."""
    found = match.differing
    sides = []
    for first_px in (found.upper_px, found.lower_px):
        first = round(first_px / CELL_PX)
        count = min(len(found.bad), shape[0] - first)
        sides.append((slice(first, first + count), found.bad[:count], found.inked[:count]))
    return sides


def _first(rows: slice, count: int) -> slice:
    return slice(rows.start, rows.start + count)


def _nearly(views: Sequence[View], *, in_order: bool) -> Iterator[Match]:
    """For each two views, how they lie upon each other if they do."""
    pairs = itertools.pairwise(views) if in_order else itertools.combinations(views, 2)
    for upper, lower in pairs:
        moved = [match for match in possible_matches(upper, lower) if abs(match.half_px) > 2 * CELL_PX]
        best = min(moved, key=lambda match: match.share, default=None)
        if best is not None and best.share <= _NEARLY and best.is_large:
            yield best


def _boxes(marked: Marked, seen: Counts, differed: Counts) -> Iterator[Box]:
    # What moves has quiet spots; single cells are chance.
    closed = ndimage.binary_closing(np.pad(marked, 2), structure=np.ones((3, 3)), iterations=2)[2:-2, 2:-2]
    parts, count = ndimage.label(closed, structure=np.ones((3, 3)))
    height, width = marked.shape
    for number, (down, across) in enumerate(ndimage.find_objects(parts, count), start=1):
        if np.count_nonzero(parts[down, across] == number) < _LEAST_CELLS:
            continue
        # Words that are others in rows of one look differ here and there, and what moves differs all over.
        if differed[down, across].sum() < _DENSE * seen[down, across].sum():
            continue
        # A cell more all around: the edge need not lie between cells.
        top, left = max(0, down.start - 1), max(0, across.start - 1)
        bottom, right = min(height, down.stop + 1), min(width, across.stop + 1)
        yield Box(
            x_px=left * CELL_PX,
            y_px=top * CELL_PX,
            width_px=(right - left) * CELL_PX,
            height_px=(bottom - top) * CELL_PX,
        )
