"""What a picture consists of, read from a sample: used to say why a file came out as it did."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tallpage.core.fit._sampling import sampled_rows
from tallpage.core.picture import Raster

_BLOCK_PX = 16
_FLAT_COLOURS = 2
_TEXT_COLOURS = 72
"""Smoothed letters on a plain ground stay below so many colours in a block; photographs do not."""
_MOSTLY = 0.6
_SOME = 0.15


@dataclass(frozen=True, slots=True, kw_only=True)
class Content:
    """Shares of the area, together 1: plain colour, letters and drawings, photographs."""

    flat: float
    text: float
    photo: float

    def in_words(self) -> str:
        """Like “mostly letters on plain colour, with photographs”."""
        if self.photo >= _MOSTLY:
            return "mostly photographs"
        graphic = "letters on plain colour" if self.text >= _SOME else "plain colour"
        if self.photo >= _SOME:
            return f"{graphic}, with photographs"
        return f"mostly {graphic}"


def read_content(raster: Raster) -> Content:
    """Read ``raster``, of which up to 250,000 pixels are looked at."""
    sample = sampled_rows(raster).flattened((255, 255, 255)).without_alpha()
    colours = _colours_by_block(sample.rows(0, sample.size.height_px))
    if colours.size == 0:
        return Content(flat=1.0, text=0.0, photo=0.0)
    flat = float(np.mean(colours <= _FLAT_COLOURS))
    photo = float(np.mean(colours > _TEXT_COLOURS))
    return Content(flat=flat, text=1.0 - flat - photo, photo=photo)


def _colours_by_block(rows: NDArray[np.uint8]) -> NDArray[np.int64]:
    """How many colours each whole block has."""
    down, across = rows.shape[0] // _BLOCK_PX, rows.shape[1] // _BLOCK_PX
    whole = rows[: down * _BLOCK_PX, : across * _BLOCK_PX].astype(np.int32)
    codes = whole[:, :, 0] << 16 | whole[:, :, 1] << 8 | whole[:, :, 2]
    by_block = codes.reshape(down, _BLOCK_PX, across, _BLOCK_PX).swapaxes(1, 2)
    blocks = by_block.reshape(down * across, _BLOCK_PX**2)
    ordered = np.sort(blocks, axis=1)
    counts: NDArray[np.int64] = 1 + (np.diff(ordered, axis=1) != 0).sum(axis=1)
    return counts
