"""Pixels that are pulled once and then changed where they lie."""

from __future__ import annotations

import tempfile

import numpy as np
import pyvips
from numpy.typing import NDArray

from tallpage.core.geometry import Box
from tallpage.core.picture._libvips import translated
from tallpage.core.picture.operations._blending import laid_over
from tallpage.core.picture.operations._raster import HELD_IN_MEMORY_BYTES, Raster

_ROUNDED = np.uint16(128)


class Sheet:
    """A raster's pixels to draw on: kept in memory when small, else in a mapped temporary file.

    Drawing on it saves the second pull that a raster with changed parts needs, and the time that a
    pipeline takes to be set up for each of them.
    """

    def __init__(self, rows: NDArray[np.uint8]) -> None:
        self._rows = rows

    @classmethod
    def of(cls, raster: Raster) -> Sheet:
        """A raster, pulled."""
        return cls(_pulled(raster.image))

    @property
    def raster(self) -> Raster:
        """The pixels as they are now; what is drawn on the sheet later is seen in it, too."""
        height_px, width_px, channels = self._rows.shape
        image = pyvips.Image.new_from_memory(self._rows, width_px, height_px, channels, "uchar")
        return Raster(image.copy(interpretation="srgb"), is_held=True)

    def rows(self, top_px: int, height_px: int) -> NDArray[np.uint8]:
        """Rows as an array of shape (height, width, channels), as they are now."""
        return self._rows[top_px : top_px + height_px].copy()

    def put_rows(self, top_px: int, rows: NDArray[np.uint8]) -> None:
        """Replace rows by others of their width and number of channels."""
        self._rows[top_px : top_px + len(rows)] = rows

    def part(self, box: Box) -> Sheet:
        """A copy of a part, to draw on by itself."""
        return Sheet(self._at(box).copy())

    def put(self, piece: Sheet, place: Box) -> None:
        """Replace what is at ``place`` by a piece of its size and number of channels."""
        self._at(place)[:] = piece._rows

    def lay_over(self, upper: Raster, place: Box) -> None:
        """Lay a raster with transparency, of the size of ``place``, over what is there."""
        under = self._at(place)
        if under.shape[2] > 3:
            below = Sheet(np.ascontiguousarray(under)).raster
            under[:] = laid_over(below, upper, Box.whole(place.size)).rows(0, place.height_px)
            return
        over = upper.rows(0, place.height_px)
        opaque = over[:, :, 3:].astype(np.uint16)
        mixed = over[:, :, :3] * opaque
        mixed += under * (255 - opaque)
        # Divided by 255 and rounded, without a division.
        mixed += _ROUNDED
        mixed += mixed >> 8
        under[:] = mixed >> 8

    def change(self, changed: Raster) -> None:
        """Replace everything by a raster of this size and number of channels."""
        self._rows = np.array(changed.rows(0, changed.size.height_px))

    def _at(self, box: Box) -> NDArray[np.uint8]:
        return self._rows[box.y_px : box.bottom_px, box.x_px : box.right_px]


def _pulled(image: pyvips.Image) -> NDArray[np.uint8]:
    shape = image.height, image.width, image.bands
    with translated("The picture"):
        if np.prod(shape) <= HELD_IN_MEMORY_BYTES:
            rows: NDArray[np.uint8] = image.numpy().reshape(shape)
            return rows
        with tempfile.NamedTemporaryFile(suffix=".raw") as kept:
            image.rawsave(kept.name)
            # The file goes when nothing is mapped to it any more.
            return np.memmap(kept.name, dtype=np.uint8, mode="r+", shape=shape)
