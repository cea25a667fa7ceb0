"""Stretches of a page in which nothing stands, from edge to edge."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from tallpage.core.geometry import Box, bands
from tallpage.core.picture import Raster

_BAND_PX = 512
_SAME = 6
"""How far apart, of 255, the px of a row may be that shows nothing."""


@dataclass(frozen=True, slots=True, kw_only=True)
class BlankStretch:
    """Rows of a page that show nothing, in page px; or columns, which count from the left."""

    top_px: int
    height_px: int


def blank_stretches(box: Box, pixels: Callable[[Box], Raster], *, least_px: int) -> list[BlankStretch]:
    """Stretches of at least ``least_px`` rows in a box, each row of one colour; from top to bottom.

    ``pixels`` gives what a box of the picture shows; it is asked for in bands. Neighbouring rows may have
    other colours, as where one plain section ends and the next begins.
    """
    plain: list[bool] = []
    for top_px, height_px in bands(box.height_px, _BAND_PX):
        raster = pixels(replace(box, y_px=box.y_px + top_px, height_px=height_px))
        rows = raster.rows(0, height_px)
        plain += (np.ptp(rows, axis=1).max(axis=1) <= _SAME).tolist()
    return _stretches(np.array(plain), box.y_px, least_px)


def blank_columns(box: Box, pixels: Callable[[Box], Raster], *, least_px: int) -> list[BlankStretch]:
    """Stretches of at least ``least_px`` columns in a box, each column of one colour; from left to right."""
    least: NDArray[np.uint8] | None = None
    most: NDArray[np.uint8] | None = None
    for top_px, height_px in bands(box.height_px, _BAND_PX):
        rows = pixels(replace(box, y_px=box.y_px + top_px, height_px=height_px)).rows(0, height_px)
        low, high = rows.min(axis=0), rows.max(axis=0)
        least = low if least is None else np.minimum(least, low)
        most = high if most is None else np.maximum(most, high)
    if least is None or most is None:
        return []
    return _stretches((most - least).max(axis=1) <= _SAME, box.x_px, least_px)


def _stretches(plain: NDArray[np.bool_], first_px: int, least_px: int) -> list[BlankStretch]:
    edges = np.flatnonzero(np.diff(np.concatenate([[0], plain.astype(np.int8), [0]])))
    return [
        BlankStretch(top_px=first_px + int(first), height_px=int(end - first))
        for first, end in zip(edges[::2], edges[1::2], strict=True)
        if end - first >= least_px
    ]
