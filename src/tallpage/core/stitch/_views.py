"""One picture as it is compared with others."""

from __future__ import annotations

from collections.abc import Sequence
from functools import cached_property

import numpy as np
from numpy.typing import NDArray
from scipy import fft

from tallpage.core.geometry import Box
from tallpage.core.stitch._cells import Cells, Grey, Marked, RunningCells, edges

_BIN_PX = 16
"""Width of the columns that rows are compared by."""
_MOST_STEP = 40.0
"""From one row to the next, of 255."""

Spectrum = NDArray[np.complex64]


class View:
    """Luminance of a picture, what of it counts, and what comparing needs of it again and again."""

    def __init__(self, grey: Grey, counted: Marked, *, is_masked: bool = False) -> None:
        self.grey = grey
        self.is_masked = is_masked
        """Whether parts of the page are left out, because something moves there."""
        self.counted = counted
        """Px that count, shape (height, width): neither bars nor what floats over the page."""
        self._spectra: dict[int, tuple[Spectrum, Spectrum, Spectrum]] = {}

    @property
    def height_px(self) -> int:
        """Rows."""
        return int(self.grey.shape[0])

    def part(self, first_px: int, last_px: int) -> View:
        """The rows from one to before another."""
        rows = slice(first_px, last_px)
        return View(self.grey[rows], self.counted[rows], is_masked=self.is_masked)

    def without(self, boxes: Sequence[Box]) -> View:
        """The same, but that nothing in the boxes counts."""
        counted = self.counted.copy()
        for box in boxes:
            counted[box.y_px : box.bottom_px, box.x_px : box.right_px] = False
        return View(self.grey, counted, is_masked=True)

    @cached_property
    def counted_rows(self) -> tuple[int, int]:
        """The first row of which anything counts, and the one after the last."""
        rows = np.flatnonzero(self.counted.any(axis=1))
        return (int(rows[0]), int(rows[-1]) + 1) if len(rows) else (0, 0)

    def edges(self, first_px: int, rows: int) -> Cells:
        """Mean edges of the cells from a row on."""
        return self._edges.means(first_px, rows)

    def counts(self, first_px: int, rows: int) -> Marked:
        """The cells from a row on of which every px counts."""
        return self._counted.means(first_px, rows) > 1 - 1e-6

    def spectra(self, length: int) -> tuple[Spectrum, Spectrum, Spectrum]:
        """Transforms of weights, weighted values and weighted squares, along the rows."""
        if length not in self._spectra:
            values, weights = self._bins
            self._spectra[length] = (
                fft.rfft(weights, n=length, axis=0),
                fft.rfft(weights * values, n=length, axis=0),
                fft.rfft(weights * values**2, n=length, axis=0),
            )
        return self._spectra[length]

    @cached_property
    def _edges(self) -> RunningCells:
        return RunningCells(edges(self.grey))

    @cached_property
    def _counted(self) -> RunningCells:
        return RunningCells(self.counted.astype(np.uint8))

    @cached_property
    def _bins(self) -> tuple[NDArray[np.float32], NDArray[np.float32]]:
        """How each row goes on from the one above, in the means of its columns, and how much of it counts.

        Steps, not levels, and no step too great: a photograph would outweigh all the text beside it.
        """
        columns = max(1, self.grey.shape[1] // _BIN_PX)
        bin_px = min(_BIN_PX, self.grey.shape[1])
        shape = (self.height_px, columns, bin_px)
        counted = self.counted[:, : columns * bin_px].reshape(shape).sum(axis=2, dtype=np.float32)
        levels = self.grey[:, : columns * bin_px].reshape(shape).mean(axis=2, dtype=np.float32)
        steps, weights = np.zeros_like(levels), np.zeros_like(levels)
        np.clip(levels[1:] - levels[:-1], -_MOST_STEP, _MOST_STEP, out=steps[1:])
        weights[1:] = np.minimum(counted[1:], counted[:-1]) / bin_px
        return steps, weights
