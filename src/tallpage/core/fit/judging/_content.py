"""What a picture consists of, read from a sample: it says why a file came out as it did,
and which settings are worth a try."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tallpage.core.fit.encoding._recipes import ContentClass
from tallpage.core.fit.prediction._sampling import sampled_rows
from tallpage.core.geometry import Size
from tallpage.core.picture import Raster

_BLOCK_PX = 16
_FLAT_COLOURS = 2
_FILLING = 77
"""Pixels of a block of 256. The ground of letters fills more than that with one colour; in a photograph,
even a grey or smooth one, no colour does."""
_MOSTLY = 0.6
_SOME = 0.15
_PHOTOGRAPHIC = 0.6
"""Share from which a picture is treated as a photograph: pages have up to 0.15 of that kind without
showing any, photographs 0.77 and more."""
_LARGE_PIXELS = 500_000


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
    blocks = _sorted_blocks(sample.rows(0, sample.size.height_px))
    if blocks.size == 0:
        return Content(flat=1.0, text=0.0, photo=0.0)
    colours = 1 + (np.diff(blocks, axis=1) != 0).sum(axis=1)
    filled = (blocks[:, _FILLING - 1 :] == blocks[:, : 1 - _FILLING]).any(axis=1)
    flat, photo = float(np.mean(colours <= _FLAT_COLOURS)), float(1 - filled.mean())
    return Content(flat=flat, text=1.0 - flat - photo, photo=photo)


def content_class_of(size: Size, sample: Raster) -> ContentClass:
    """The content class of a picture of ``size``, of which ``sample`` is a part or all."""
    return ContentClass(
        photographic=read_content(sample).photo >= _PHOTOGRAPHIC,
        large=size.pixels > _LARGE_PIXELS,
    )


def _sorted_blocks(rows: NDArray[np.uint8]) -> NDArray[np.int32]:
    """The colours of each whole block as numbers, in order: shape (blocks, 256)."""
    down, across = rows.shape[0] // _BLOCK_PX, rows.shape[1] // _BLOCK_PX
    whole = rows[: down * _BLOCK_PX, : across * _BLOCK_PX].astype(np.int32)
    codes = whole[:, :, 0] << 16 | whole[:, :, 1] << 8 | whole[:, :, 2]
    by_block = codes.reshape(down, _BLOCK_PX, across, _BLOCK_PX).swapaxes(1, 2)
    return np.sort(by_block.reshape(down * across, _BLOCK_PX**2), axis=1)
