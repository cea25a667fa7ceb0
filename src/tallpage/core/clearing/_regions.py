"""What is connected on a tall page, without ever holding its regions at once."""

from __future__ import annotations

import functools
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from tallpage.core.geometry import Box
from tallpage.core.picture import label_regions

Bits = NDArray[np.bool_]
"""Of shape (rows, columns)."""


@dataclass(frozen=True, slots=True)
class RowMask:
    """A mask over a page, one bit for a px, in bands of rows."""

    width_px: int
    band_px: int
    bands: Sequence[NDArray[np.uint8]]
    """Packed along the columns; all but the last have ``band_px`` rows."""

    @classmethod
    def of(cls, bands: Iterable[Bits], *, width_px: int, band_px: int) -> RowMask:
        """A mask from its bands, from top to bottom."""
        return cls(width_px, band_px, [np.packbits(band, axis=1) for band in bands])

    def band(self, number: int) -> Bits:
        """One band."""
        return np.unpackbits(self.bands[number], axis=1, count=self.width_px).astype(bool)

    def rows(self, top_px: int, height_px: int) -> Bits:
        """Some rows of the page."""
        first, last = top_px // self.band_px, (top_px + height_px - 1) // self.band_px
        packed = np.concatenate(self.bands[first : last + 1])[top_px - first * self.band_px :][:height_px]
        return np.unpackbits(packed, axis=1, count=self.width_px).astype(bool)


def union(masks: Sequence[RowMask]) -> RowMask:
    """What is in any of some masks of one page."""
    bands = [
        functools.reduce(np.bitwise_or, rows) for rows in zip(*(mask.bands for mask in masks), strict=True)
    ]
    return replace(masks[0], bands=bands)


def without(mask: RowMask, other: RowMask) -> RowMask:
    """What is in a mask and not in another of the same page."""
    return replace(mask, bands=[band & ~less for band, less in zip(mask.bands, other.bands, strict=True)])


def with_boxes(mask: RowMask, boxes: Sequence[Box]) -> RowMask:
    """A mask and all of some boxes."""
    if not boxes:
        return mask

    def filled(number: int) -> Bits:
        band, top_px = mask.band(number), number * mask.band_px
        for box in boxes:
            rows = slice(max(0, box.y_px - top_px), max(0, box.bottom_px - top_px))
            band[rows, box.x_px : box.right_px] = True
        return band

    numbers = range(len(mask.bands))
    return RowMask.of(map(filled, numbers), width_px=mask.width_px, band_px=mask.band_px)


def connected_with(mask: RowMask, seeds: Sequence[tuple[int, int]]) -> RowMask:
    """Of a mask, what is connected with any of some px (column, row); px that touch by a corner are not.

    Each band is divided into regions by itself; those that meet at the edge of two bands are one.
    """
    roots = _Roots()
    above: NDArray[np.int32] | None = None
    chosen: set[tuple[int, int]] = set()
    for number in range(len(mask.bands)):
        band = mask.band(number)
        regions = label_regions(band)
        if above is not None:
            meeting = band[0] & (above >= 0)
            for upper, lower in np.unique(np.stack([above[meeting], regions[0][meeting]]), axis=1).T.tolist():
                roots.join((number - 1, upper), (number, lower))
        for x_px, y_px in seeds:
            row = y_px - number * mask.band_px
            if 0 <= row < len(band) and x_px < mask.width_px and band[row, x_px]:
                chosen.add((number, int(regions[row, x_px])))
        above = np.where(band[-1], regions[-1], -1)
    wanted = {roots.of(region) for region in chosen}
    return RowMask.of(
        (_chosen(mask.band(number), number, roots, wanted) for number in range(len(mask.bands))),
        width_px=mask.width_px,
        band_px=mask.band_px,
    )


def _chosen(band: Bits, number: int, roots: _Roots, wanted: set[tuple[int, int]]) -> Bits:
    regions = label_regions(band)
    count = int(regions.max()) + 1
    is_wanted = np.array([roots.of((number, region)) in wanted for region in range(count)])
    found: Bits = band & is_wanted[regions]
    return found


class _Roots:
    """Which regions of the bands are one: each knows another of its own, and the last of them is the root."""

    def __init__(self) -> None:
        self._next: dict[tuple[int, int], tuple[int, int]] = {}

    def of(self, region: tuple[int, int]) -> tuple[int, int]:
        """The region that stands for all that are connected with this one."""
        root = region
        while (further := self._next.get(root)) is not None:
            root = further
        while region != root:
            self._next[region], region = root, self._next[region]
        return root

    def join(self, first: tuple[int, int], second: tuple[int, int]) -> None:
        """Say that two regions are one."""
        one, other = self.of(first), self.of(second)
        if one != other:
            self._next[one] = other
