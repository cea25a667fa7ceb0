"""Which pixels of a gap really differ, and which have only settled on another row.

What moves down by half a pixel is drawn anew: a line lands one row higher or lower, its edge is a
shade lighter. Nobody sees that, and nobody wants to be told.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tallpage.core.changes._aligning import Gap
from tallpage.core.changes._fingerprint import RowReader
from tallpage.core.geometry import Box

_SETTLING_ROWS = 3
"""A gap whose sides differ by more rows had something put in or taken out."""
_SETTLING_LEVELS = 48
"""Steps of 255 in any channel that count as equal: what an edge gains or loses by lying between two rows."""
_CONTEXT_ROWS = 2

Pixels = NDArray[np.uint8]
Mask = NDArray[np.bool_]


@dataclass(frozen=True, slots=True, kw_only=True)
class Measured:
    """What differs of a gap: how many pixels on each side, and the boxes around them."""

    pixels_before: int
    pixels_now: int
    before: Box | None
    now: Box | None


def measure_gap(gap: Gap, before: RowReader, now: RowReader) -> Measured | None:
    """What differs of a gap; None when it only settled otherwise."""
    was, shows = before.rows(gap.before_px, gap.before_rows), now.rows(gap.now_px, gap.now_rows)
    if abs(gap.before_rows - gap.now_rows) > _SETTLING_ROWS:
        mask_before, mask_now = (np.ones(side.shape[:2], dtype=np.bool_) for side in (was, shows))
    else:
        mask_now = _unexplained(shows, before, gap.before_px, gap.before_rows)
        mask_before = _unexplained(was, now, gap.now_px, gap.now_rows)
        if gap.before_rows == gap.now_rows:  # row by row the same place: seen on either side, it is there
            mask_before = mask_now = mask_before | mask_now
    if not mask_now.any() and not mask_before.any():
        return None
    return Measured(
        pixels_before=int(mask_before.sum()),
        pixels_now=int(mask_now.sum()),
        before=_box(mask_before, gap.before_px),
        now=_box(mask_now, gap.now_px),
    )


def _unexplained(pixels: Pixels, other: RowReader, top_px: int, rows: int) -> Mask:
    """Pixels (height, width) that are like none of the other picture's at most two rows away."""
    first_px = max(0, top_px - _CONTEXT_ROWS)
    last_px = min(other.height_px, top_px + rows + _CONTEXT_ROWS)
    around = other.rows(first_px, last_px - first_px).astype(np.int16)
    least = np.full(pixels.shape[:2], 255, dtype=np.int16)
    step = rows / len(pixels) if len(pixels) else 0.0
    facing = (np.arange(len(pixels)) * step).astype(np.int64) + top_px - first_px
    for shift in range(-_CONTEXT_ROWS, _CONTEXT_ROWS + 1):
        at = np.clip(facing + shift, 0, len(around) - 1)
        least = np.minimum(least, np.abs(pixels - around[at]).max(axis=2, initial=0))
    unlike: Mask = least > _SETTLING_LEVELS
    return unlike


def _box(mask: Mask, top_px: int) -> Box | None:
    rows, columns = np.flatnonzero(mask.any(axis=1)), np.flatnonzero(mask.any(axis=0))
    if not len(rows):
        return None
    return Box(
        x_px=int(columns[0]),
        y_px=top_px + int(rows[0]),
        width_px=int(columns[-1] - columns[0]) + 1,
        height_px=int(rows[-1] - rows[0]) + 1,
    )
