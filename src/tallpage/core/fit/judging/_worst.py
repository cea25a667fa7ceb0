"""Where a file has lost most, so that a person can look there first."""

from __future__ import annotations

import heapq
from collections.abc import Iterator

import numpy as np

from tallpage.core.fit.judging._fidelity import (
    BAND_PX,
    COLOUR_WEIGHTS,
    LUMA_WEIGHTS,
    Seen,
    seen,
    structure_and_error,
)
from tallpage.core.geometry import Box, bands
from tallpage.core.picture import Raster

_CELL_PX = 64
_WINDOW_STEP_PX = 4


def worst_places(original: Raster, result: Raster, *, count: int, box_px: tuple[int, int]) -> tuple[Box, ...]:
    """Up to ``count`` boxes of ``box_px`` (width, height) in which most was lost, the worst first.

    They do not overlap. Where nothing was lost there are none.
    """
    size = original.size
    width_px, height_px = min(box_px[0], size.width_px), min(box_px[1], size.height_px)
    cells = [
        cell
        for top_px, band_px in bands(size.height_px, BAND_PX)
        for cell in _cells(seen(original, top_px, band_px), seen(result, top_px, band_px), top_px)
    ]
    found: list[Box] = []
    for _, x_px, y_px in heapq.nlargest(len(cells), cells):
        box = Box(
            x_px=_clamped(x_px + _CELL_PX // 2 - width_px // 2, size.width_px - width_px),
            y_px=_clamped(y_px + _CELL_PX // 2 - height_px // 2, size.height_px - height_px),
            width_px=width_px,
            height_px=height_px,
        )
        if not any(_overlap(box, other) for other in found):
            found.append(box)
        if len(found) == count:
            break
    return tuple(found)


def _cells(original: Seen, result: Seen, top_px: int) -> Iterator[tuple[float, int, int]]:
    """``(damage, left, top)`` of each cell of a band in which anything was lost, weighed as fidelity is."""
    height, width = original.luma.plane.shape
    pairs = zip((original.luma, *original.colours), (result.luma, *result.colours), strict=True)
    losses = [structure_and_error(one, other) for one, other in pairs]
    for y_px in range(0, height, _CELL_PX):
        for x_px in range(0, width, _CELL_PX):
            damage = 0.0
            for plane, (lost, wrong) in enumerate(losses):
                step_px = _WINDOW_STEP_PX * (2 if plane else 1)
                rows = slice(y_px // step_px, (y_px + _CELL_PX) // step_px)
                columns = slice(x_px // step_px, (x_px + _CELL_PX) // step_px)
                weights = COLOUR_WEIGHTS if plane else LUMA_WEIGHTS
                for weight, terms in zip(weights, (lost[rows, columns], wrong[rows, columns]), strict=True):
                    damage += weight * float(np.mean(terms**4)) ** 0.25 if terms.size else 0.0
            if damage > 0:
                yield damage, x_px, top_px + y_px


def _clamped(value: int, greatest: int) -> int:
    return max(0, min(value, greatest))


def _overlap(first: Box, second: Box) -> bool:
    return (
        first.x_px < second.right_px
        and second.x_px < first.right_px
        and first.y_px < second.bottom_px
        and second.y_px < first.bottom_px
    )
