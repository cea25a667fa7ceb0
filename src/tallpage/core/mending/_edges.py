"""A hole filled from its edges."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.ndimage import median_filter

from tallpage.core.geometry import Box

EDGE_PX = 12
"""Thickness of what an edge takes its colours from."""
_SMOOTHED_PX = 81
"""Along an edge: most of so many px is ground, also where the edge runs through a line of letters."""

Values = NDArray[np.float32]
Known = NDArray[np.bool_]


@dataclass(frozen=True, slots=True)
class Fill:
    """What may lie in a hole, and how far the px around it are from what the fill says of them."""

    values: Values
    rest: Values
    """px × channels"""

    @property
    def rest_rms(self) -> float:
        """Root mean square of the rest."""
        return float(np.sqrt((self.rest**2).mean())) if self.rest.size else np.inf


@dataclass(frozen=True, slots=True)
class _Edge:
    """The colours along one side of a hole."""

    ground: Values
    """Without what is small; length × channels."""
    detail: Values
    """What is on top of the ground, as stripes are."""
    strip: Values
    """The px it was told from; thickness × length × channels."""


def fill_from_edges(window: Values, hole: Box, known: Known) -> Fill:
    """What lies between the edges of a hole: of three ways the one that says best what is around it.

    ``known`` are the px of the window that may be used. Without any beside the hole, the fill is white.
    """
    smooth = fill_smoothly(window, hole, known)
    turned = Box(x_px=hole.y_px, y_px=hole.x_px, width_px=hole.height_px, height_px=hole.width_px)
    striped_down = _fill_striped(window.transpose(1, 0, 2), turned, known.T)
    found = [
        smooth,
        _fill_striped(window, hole, known),
        Fill(striped_down.values.transpose(1, 0, 2), striped_down.rest),
    ]
    return min(found, key=lambda fill: fill.rest_rms)


def fill_smoothly(window: Values, hole: Box, known: Known) -> Fill:
    """A ground without detail, between all four edges.

    It is exact for a sum of a function of the row and one of the column, as shades are (S. A. Coons,
    "Surfaces for computer-aided design of space forms", 1967). Where an edge cannot be told, as at the edge
    of the page, the one opposite stands in.
    """
    lying = Box(x_px=hole.y_px, y_px=hole.x_px, width_px=hole.height_px, height_px=hole.width_px)
    shape = (hole.height_px, hole.width_px, window.shape[2])
    left, right = _edges(window, hole, known)
    above, below = _edges(window.transpose(1, 0, 2), lying, known.T)
    rest = _joined([edge.strip - edge.ground for edge in (left, right, above, below) if edge], shape[2])
    across, down = _shares(hole.width_px)[None, :, None], _shares(hole.height_px)[:, None, None]
    if left is None or right is None:
        if above is None or below is None:
            return Fill(np.full(shape, 255, np.float32), rest)
        return Fill(np.broadcast_to(_mixed(above.ground[None], below.ground[None], down), shape), rest)
    between_columns = _mixed(left.ground[:, None], right.ground[:, None], across)
    if above is None or below is None:
        return Fill(np.broadcast_to(between_columns, shape), rest)
    between_rows = _mixed(above.ground[None], below.ground[None], down)
    upper = _mixed((above.ground[0] + left.ground[0]) / 2, (above.ground[-1] + right.ground[0]) / 2, across)
    lower = _mixed((below.ground[0] + left.ground[-1]) / 2, (below.ground[-1] + right.ground[-1]) / 2, across)
    return Fill(between_columns + between_rows - _mixed(upper, lower, down), rest)


def _fill_striped(window: Values, hole: Box, known: Known) -> Fill:
    """Stripes across: each row goes on from its left end to its right one."""
    top_px, bottom_px = max(0, hole.y_px - EDGE_PX), min(len(window), hole.bottom_px + EDGE_PX)
    high = Box(x_px=hole.x_px, y_px=top_px, width_px=hole.width_px, height_px=bottom_px - top_px)
    left, right = _edges(window, high, known)
    channels = window.shape[2]
    if left is None or right is None:
        return Fill(np.zeros((hole.height_px, hole.width_px, channels), np.float32), _joined([], channels))
    # Letters beside one side of the hole are not carried across: only detail that both sides have.
    alike = np.sign(left.detail) == np.sign(right.detail)
    weaker = np.where(np.abs(left.detail) < np.abs(right.detail), left.detail, right.detail)
    shared = np.where(alike, weaker, 0)
    lines = _mixed(
        (left.ground + shared)[:, None], (right.ground + shared)[:, None], _shares(hole.width_px)[:, None]
    )
    seen = known[top_px:bottom_px, hole.x_px : hole.right_px]
    over = (window[top_px:bottom_px, hole.x_px : hole.right_px] - lines)[seen]
    beside = [edge.strip - edge.ground - shared for edge in (left, right)]
    first_px = hole.y_px - top_px
    return Fill(lines[first_px : first_px + hole.height_px], _joined([over, *beside], channels))


def _joined(rests: Sequence[Values], channels: int) -> Values:
    """What is left of several strips, px after px."""
    none = np.zeros((0, channels), np.float32)
    return np.concatenate([none, *(rest.reshape(-1, channels) for rest in rests)])


def _shares(length: int) -> Values:
    """How far each px between two edges is on its way from the first to the second."""
    return np.linspace(0, 1, length + 2, dtype=np.float32)[1:-1]


def _mixed(first: Values, second: Values, share: Values) -> Values:
    mixed: Values = first * (1 - share) + second * share
    return mixed


def _edges(window: Values, hole: Box, known: Known) -> tuple[_Edge | None, _Edge | None]:
    """What stands left and right of a hole; of one that cannot be told, the other stands in."""
    rows = slice(hole.y_px, hole.bottom_px)
    found = []
    for columns in (
        slice(max(0, hole.x_px - EDGE_PX), hole.x_px),
        slice(hole.right_px, hole.right_px + EDGE_PX),
    ):
        usable = known[rows, columns].all(axis=0)
        strip = window[rows, columns][:, usable].transpose(1, 0, 2)
        found.append(_edge(strip) if len(strip) else None)
    left, right = found
    return left or right, right or left


def _edge(strip: Values) -> _Edge:
    middle = np.median(strip, axis=0)
    ground = _smoothed(middle)
    return _Edge(ground, middle - ground, strip)


def _smoothed(line: Values) -> Values:
    """The median along a line, which goes on beyond its ends as it came to them."""
    half = (min(_SMOOTHED_PX, len(line)) - 1) // 2
    if half < 1:
        return line
    ends = half // 4 + 1
    before = 2 * np.median(line[:ends], axis=0) - line[half:0:-1]
    after = 2 * np.median(line[-ends:], axis=0) - line[-2 : -half - 2 : -1]
    longer = np.concatenate([before, line, after])
    smooth: Values = median_filter(longer, size=(2 * half + 1, 1), mode="nearest")
    return smooth[half : half + len(line)]
