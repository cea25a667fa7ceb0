"""A hole in a page, filled so that it is not seen."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from tallpage.core.geometry import Box
from tallpage.core.mending._copying import best_place
from tallpage.core.mending._edges import Values, fill_from_edges, fill_smoothly

MOST_MENDED_PX = 1_000_000
"""Px of a hole, above which what lies around says too little of what lies within."""
REACH_PX = 160
"""How far around a hole, besides its own size, there is looked for what goes on alike."""

_SMOOTH = 1.5
"""Root mean square of what the edges have besides, of 255, up to which the fill needs no grain or pattern."""
_MUCH_BETTER = 0.6
"""A pattern is copied where it goes on so much better, as a share of what the edges leave."""
_GRAIN_TAIL = 4.0
"""The grain of paper has no px that are further from their mean than so many times the usual."""


def mended(window: NDArray[np.uint8], hole: Box, known: NDArray[np.bool_]) -> NDArray[np.uint8]:
    """What may lie in a hole of a window (rows × columns × channels), in the hole's size.

    Plain and shaded grounds and stripes along the sides go on from the edges. Where these have a pattern or
    a grain, it is taken from where it goes on around a place of the same size as it does around the hole.
    ``known`` are the px outside the hole that may be used.
    """
    values = window.astype(np.float32)
    usable = known.copy()
    usable[hole.y_px : hole.bottom_px, hole.x_px : hole.right_px] = False
    fill = fill_from_edges(values, hole, usable)
    found = fill.values
    if fill.rest_rms > _SMOOTH:
        place = best_place(values, hole, usable)
        if place is not None and (place[1] < _MUCH_BETTER * fill.rest_rms or _is_grain(fill.rest)):
            found = _copied(values, hole, place[0], usable)
    return np.clip(np.rint(found), 0, 255).astype(np.uint8)


def _is_grain(rest: Values) -> bool:
    """Whether what is left is spread as evenly as grain is, and not here and there a letter."""
    far = np.abs(rest) if rest.size else np.zeros(1)
    return float(np.percentile(far, 99)) < _GRAIN_TAIL * max(float(far.mean()), 0.5)


def _copied(values: Values, hole: Box, place: Box, usable: NDArray[np.bool_]) -> Values:
    """What lies at a place, made lighter or darker as the edges of the hole ask for."""
    down_px, across_px = place.y_px - hole.y_px, place.x_px - hole.x_px
    there = np.roll(values, (-down_px, -across_px), axis=(0, 1))
    both = usable & np.roll(usable, (-down_px, -across_px), axis=(0, 1))
    shade = fill_smoothly(values - there, hole, both)
    inside: Values = there[hole.y_px : hole.bottom_px, hole.x_px : hole.right_px]
    return inside + shade.values if shade.rest.size else inside
