"""A colour taken out of rows of pixels, with the px at its edges taken apart."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from tallpage.core.picture import Colour

Rows = NDArray[np.uint8]
"""Of shape (rows, columns, 4)."""
Bits = NDArray[np.bool_]
_Plane = NDArray[np.uint8]

_STEP = 4
"""How much further from the cleared colour the next px of a soft edge is, of 255; less is a flat colour."""
_NEARBY_PX = 2
"""Thin lines never reach their own colour; how far around a px a stronger one may lie."""


def reach_px(soft_px: int) -> int:
    """How many rows above and below decide what becomes of a px."""
    return 2 * soft_px + _NEARBY_PX if soft_px else 0


def near(rows: Rows, colour: Colour, tolerance: int) -> Bits:
    """Where red, green and blue are each at most so far from a colour, and anything is seen at all."""
    found: Bits = (_apart(rows, colour) <= tolerance) & (rows[:, :, 3] > 0)
    return found


def clear_rows(rows: Rows, colour: Colour, tolerance: int, within: Bits | None, *, soft_px: int) -> Rows:
    """Rows that show through where they have a colour and ``within`` holds; None holds everywhere.

    Beside it begins what stands before the colour, mostly by a soft edge: up to ``soft_px`` px, each
    further from the colour than the last. Such a px is a mixture of the colour and of that at the end of
    its edge: as much as there is of the colour shows through, and is taken out of the px. Laid over the
    colour again, the picture is as it was.
    """
    apart = _apart(rows, colour)
    is_near = (apart <= tolerance) & (rows[:, :, 3] > 0)
    mask = is_near if within is None else is_near & within
    changed = rows.copy()
    changed[mask, 3] = 0
    mixed = _edges(apart, mask, is_near, soft_px) if soft_px and mask.any() else np.zeros_like(mask)
    if not mixed.any():
        return changed
    ends = _greatest(np.where(mixed, _ends(apart, soft_px), 0).astype(np.uint8), _NEARBY_PX)[mixed]
    share = np.minimum(1.0, apart[mixed] / np.maximum(ends, 1).astype(np.float32))[:, np.newaxis]
    ground = np.array(colour, dtype=np.float32)
    unmixed = (rows[mixed][:, :3] - ground) / share + ground
    changed[mixed, :3] = np.clip(np.rint(unmixed), 0, 255).astype(np.uint8)
    changed[mixed, 3] = np.rint(share[:, 0] * rows[mixed][:, 3]).astype(np.uint8)
    return changed


def _apart(rows: Rows, colour: Colour) -> _Plane:
    """How far the channel that is furthest from a colour is from it."""
    colours, ground = rows[:, :, :3], np.array(colour, dtype=np.uint8)
    channels: _Plane = np.maximum(colours, ground) - np.minimum(colours, ground)
    furthest: _Plane = channels.max(axis=2)
    return furthest


def _edges(apart: _Plane, mask: Bits, is_near: Bits, soft_px: int) -> Bits:
    """The px that can be reached from the mask uphill, from each to one that is further from the colour."""
    reached = mask.copy()
    for _ in range(soft_px):
        grown = np.zeros_like(reached)
        for here, there in _neighbours(reached.shape):
            higher = apart[here] >= np.minimum(apart[there], 255 - _STEP) + np.uint8(_STEP)
            grown[here] |= reached[there] & higher
        grown &= ~(reached | is_near)
        if not grown.any():
            break
        reached |= grown
    return reached & ~mask


def _ends(apart: _Plane, soft_px: int) -> _Plane:
    """For each px how far from the colour the end of its edge is: uphill, as far as it goes on."""
    ends = apart.copy()
    for _ in range(soft_px):
        before = ends.copy()
        for here, there in _neighbours(apart.shape):
            higher = apart[there] >= np.minimum(apart[here], 255 - _STEP) + np.uint8(_STEP)
            ends[here] = np.maximum(ends[here], np.where(higher, before[there], 0))
        if (ends == before).all():
            break
    return ends


def _greatest(plane: _Plane, around_px: int) -> _Plane:
    """For each px the greatest value in a square around it."""
    for axis in (0, 1):
        found = plane.copy()
        for by in range(1, around_px + 1):
            first, last = [slice(None)] * 2, [slice(None)] * 2
            first[axis], last[axis] = slice(by, None), slice(None, -by)
            found[tuple(first)] = np.maximum(found[tuple(first)], plane[tuple(last)])
            found[tuple(last)] = np.maximum(found[tuple(last)], plane[tuple(first)])
        plane = found
    return plane


def _neighbours(shape: tuple[int, ...]) -> Iterator[tuple[tuple[slice, slice], tuple[slice, slice]]]:
    """Pairs of parts of a plane: px, and their neighbours above, below, left, right."""
    everything, first, last = slice(None), slice(None, -1), slice(1, None)
    if shape[0] > 1:
        yield (last, everything), (first, everything)
        yield (first, everything), (last, everything)
    if shape[1] > 1:
        yield (everything, last), (everything, first)
        yield (everything, first), (everything, last)
