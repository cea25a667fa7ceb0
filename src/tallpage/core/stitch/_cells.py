"""A picture in cells of 8 × 8 px: how far two are apart there, and whether anything stands there."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

CELL_PX = 8
_INKED = 3.0
"""Mean step from one px to the next in a cell, of 255, from which on something stands in it."""

Grey = NDArray[np.uint8]
"""Luminance, shape (height, width)."""
Cells = NDArray[np.float32]
Marked = NDArray[np.bool_]


def difference(some: Grey, other: Grey) -> Cells:
    """Mean difference of each cell of two pictures of one size, 0–255."""
    return means(np.maximum(some, other) - np.minimum(some, other))


def edges(grey: Grey) -> Grey:
    """How far each px is from the one at its left and the one above, whichever is further."""
    found = np.zeros_like(grey)
    found[:, 1:] = np.maximum(grey[:, 1:], grey[:, :-1]) - np.minimum(grey[:, 1:], grey[:, :-1])
    down = np.maximum(grey[1:], grey[:-1]) - np.minimum(grey[1:], grey[:-1])
    np.maximum(found[1:], down, out=found[1:])
    return found


def is_inked(mean_edges: Cells) -> Marked:
    """The cells in which something stands."""
    return mean_edges > _INKED


def means(values: Grey) -> Cells:
    """Mean of each cell; what is left over at the right and below belongs to no cell."""
    rows, columns = values.shape[0] // CELL_PX, values.shape[1] // CELL_PX
    # Rows first: neighbours in memory are added up at once, and an eighth of the px is left.
    kept = values[: rows * CELL_PX, : columns * CELL_PX].reshape(rows, CELL_PX, columns * CELL_PX)
    sums = kept.sum(axis=1, dtype=np.uint16).reshape(rows, columns, CELL_PX).sum(axis=2, dtype=np.uint16)
    found: Cells = sums.astype(np.float32) / np.float32(CELL_PX**2)
    return found


class RunningCells:
    """The means of cells that begin at any row."""

    def __init__(self, values: Grey) -> None:
        columns = values.shape[1] // CELL_PX
        wide = values[:, : columns * CELL_PX].reshape(len(values), columns, CELL_PX)
        self._sums = np.zeros((len(values) + 1, columns), dtype=np.int32)
        np.cumsum(wide.sum(axis=2, dtype=np.int32), axis=0, out=self._sums[1:])

    def means(self, first_row: int, rows: int) -> Cells:
        """Means of as many whole cells as lie in these rows."""
        count = rows // CELL_PX
        at = self._sums[first_row : first_row + count * CELL_PX + 1 : CELL_PX]
        found: Cells = np.diff(at, axis=0).astype(np.float32) / np.float32(CELL_PX**2)
        return found


def as_pixels(marked: Marked, shape: tuple[int, int]) -> Marked:
    """The cells as px of a picture of this shape; px of no cell are as their neighbours."""
    pixels = np.zeros(shape, dtype=bool)
    spread = marked.repeat(CELL_PX, axis=0).repeat(CELL_PX, axis=1)
    pixels[: spread.shape[0], : spread.shape[1]] = spread
    if marked.size:
        pixels[spread.shape[0] :, : spread.shape[1]] = spread[-1]
        pixels[:, spread.shape[1] :] = pixels[:, spread.shape[1] - 1 : spread.shape[1]]
    return pixels
