"""How much stands in each row of a picture: nothing, between lines and blocks."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

from tallpage.core.geometry import bands
from tallpage.core.picture import Raster

_PIECE_PX = 8_192
_BAND_PX = 1_024
_EDGE_LEVELS = 12
"""Neighbouring pixels that differ by more make an edge; gradients and shadows stay below."""
_LONG_EDGE_PX = 64
"""An edge that goes on for so many rows is a border or a column's side, not a letter's stem."""


def edge_density(part: Callable[[int, int], Raster], height_px: int) -> NDArray[np.int32]:
    """Columns of each row in which something stands.

    ``part(top_px, height_px)`` gives those rows of the picture, to be pulled once: a tall page is read
    piece by piece. The sides of boxes and columns do not count: cutting across them hurts nobody.
    """
    counts = np.zeros(height_px, dtype=np.int32)
    for piece_px, piece_height_px in bands(height_px, _PIECE_PX):
        first, last = _with_margin(piece_px, piece_height_px, 0, height_px)
        rows = part(first, last - first).rows(0, last - first)
        for top_px, band_px in bands(piece_height_px, _BAND_PX):
            top_px += piece_px
            upper, lower = _with_margin(top_px, band_px, first, last)
            edges = _edges(rows[upper - first : lower - first])
            short = edges & ~_long(edges)
            counts[top_px : top_px + band_px] = short.sum(axis=1)[top_px - upper :][:band_px]
    return counts


def _with_margin(top_px: int, height_px: int, first: int, last: int) -> tuple[int, int]:
    """The rows that tell of an edge's length, as far as there are any."""
    return max(first, top_px - _LONG_EDGE_PX), min(last, top_px + height_px + _LONG_EDGE_PX)


def _edges(rows: NDArray[np.uint8]) -> NDArray[np.bool_]:
    """Where a pixel differs from its left neighbour, in any channel."""
    levels = rows[:, :, :3].astype(np.int16)
    furthest: NDArray[np.int16] = np.abs(np.diff(levels, axis=1)).max(axis=2)
    return furthest > _EDGE_LEVELS


def _long(edges: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """The edges that belong to an unbroken vertical run of at least ``_LONG_EDGE_PX``."""
    height = edges.shape[0]
    length = _LONG_EDGE_PX
    if height < length:
        return np.zeros_like(edges)
    sums = np.zeros((height + 1, edges.shape[1]), dtype=np.int32)
    np.cumsum(edges, axis=0, out=sums[1:])
    starts = (sums[length:] - sums[:-length]) == length
    # A row is in such a run when one starts at it or at most ``length - 1`` rows above.
    begun = np.zeros((height + 1, edges.shape[1]), dtype=np.int32)
    np.cumsum(starts, axis=0, out=begun[1 : len(starts) + 1])
    begun[len(starts) + 1 :] = begun[len(starts)]
    upper = begun[1:]
    lower = np.zeros_like(upper)
    lower[length:] = begun[1 : height - length + 1]
    in_run: NDArray[np.bool_] = upper > lower
    return in_run
