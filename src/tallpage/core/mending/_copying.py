"""A hole filled with what lies beside it and goes on around it alike."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray
from scipy.ndimage import binary_dilation
from scipy.signal import fftconvolve

from tallpage.core.geometry import Box
from tallpage.core.mending._edges import Values

_RING_PX = 8
_MIDDLE = 128
"""Taken off all px, so that sums of squares stay small."""
_ODD = 8
"""How far from all colours around the hole a px may be before it counts as something that stands there."""
_ODD_COSTS = 60.0


def best_place(window: Values, hole: Box, known: NDArray[np.bool_]) -> tuple[Box, float] | None:
    """Where in a window what surrounds a hole is most alike, and how far it is from it, of 255.

    None where no place of the hole's size has nothing but known px.
    """
    ring = _ring(window, hole, known)
    height_px, width_px, channels = window.shape
    cut = hole.grown(_RING_PX).overlap(Box(x_px=0, y_px=0, width_px=width_px, height_px=height_px))
    if cut is None or not ring.any():
        return None
    rows, columns = slice(cut.y_px, cut.bottom_px), slice(cut.x_px, cut.right_px)
    mask, template = ring[rows, columns].astype(np.float32), window[rows, columns]
    # Sum of squares of the differences under a mask, for all places at once.
    flipped = mask[::-1, ::-1]
    unusable = fftconvolve((~known).astype(np.float32), np.ones_like(mask), mode="valid") > 0.5
    cost = np.zeros(unusable.shape)
    for channel in range(channels):
        # The mean is taken out: whether a place is darker is made up for afterwards.
        values = window[..., channel].astype(np.float64) - _MIDDLE
        wanted = template[..., channel].astype(np.float64) - _MIDDLE
        count = mask.sum()
        total = fftconvolve(values, flipped, mode="valid")
        squares = fftconvolve(values**2, flipped, mode="valid")
        both = fftconvolve(values, (wanted * mask)[::-1, ::-1], mode="valid")
        mean = float((wanted * mask).sum() / count)
        spread = float((wanted**2 * mask).sum() - count * mean**2)
        cost += np.maximum(0, squares - total**2 / count + spread - 2 * (both - mean * total)) / count
    cost = np.sqrt(cost / channels)
    cost[unusable] = np.inf
    within = (hole.y_px - cut.y_px, hole.x_px - cut.x_px)
    return _least_odd(window, hole, ring, cost, within)


def _ring(window: Values, hole: Box, known: NDArray[np.bool_]) -> NDArray[np.bool_]:
    inside = np.zeros(window.shape[:2], dtype=bool)
    inside[hole.y_px : hole.bottom_px, hole.x_px : hole.right_px] = True
    around: NDArray[np.bool_] = binary_dilation(inside, np.ones((3, 3), bool), iterations=_RING_PX)
    return around & ~inside & known


def _least_odd(
    window: Values, hole: Box, ring: NDArray[np.bool_], cost: NDArray[np.float64], within: tuple[int, int]
) -> tuple[Box, float] | None:
    """Of the places that go on best around the hole, the one in which the least stands by itself."""
    around = window[ring]
    low, high = np.percentile(around, 2, axis=0) - _ODD, np.percentile(around, 98, axis=0) + _ODD
    odd = ((window < low) | (window > high)).any(axis=2).astype(np.float32)
    # The share of odd px in the hole's size, by the place of its corner.
    inside = np.ones((hole.height_px, hole.width_px), dtype=np.float32)
    share = fftconvolve(odd, inside, mode="valid") / inside.size
    rows, columns = cost.shape
    total = cost + _ODD_COSTS * share[within[0] : within[0] + rows, within[1] : within[1] + columns]
    at = int(np.argmin(total))
    row, column = divmod(at, columns)
    if not np.isfinite(total[row, column]):
        return None
    place = Box(
        x_px=column + within[1], y_px=row + within[0], width_px=hole.width_px, height_px=hole.height_px
    )
    return place, float(total[row, column])
