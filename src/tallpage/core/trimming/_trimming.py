"""Plain edges, found from the pixels: rows and columns in which nothing stands out from their colour."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from tallpage.core.geometry import Box, bands
from tallpage.core.picture import Raster

Side = Literal["top", "right", "bottom", "left"]
SIDES: tuple[Side, ...] = ("top", "right", "bottom", "left")

_BAND_PX = 512
_LEAST_APART, _MOST_NOISE_APART = 8, 40
"""How far from an edge's colour, of 255, a px still belongs to it: on plain, and on noisy pictures."""
_DEVIATIONS = 6
"""Standard deviations of the noise that belong to the edge: with a million px, some are five away."""
_NEAREST, _NEAREST_DEVIATION = 0.7, 0.5565
"""Share of px, and the standard deviation of that share of a Gaussian of 1."""
_SAME_GROUND = 1.0
"""How far apart, of 255, the means of an edge may be outside and halfway."""

_Means = NDArray[np.float64]
"""Of shape (lines, channels)."""
_Pixels = NDArray[np.int16]


def trimmed(box: Box, pixels: Callable[[Box], Raster], sides: Sequence[Side] = SIDES) -> Box:
    """The part of a box inside its plain edges; the box itself where nothing would be left.

    ``pixels`` gives what a box of the picture shows; it is asked for in bands. Upper and lower edges are
    found first, left and right ones in what is left between them. Each edge has its own colour.
    """
    whole = box
    for side in ("top", "bottom"):
        if side in sides:
            height_px = _plain_rows(box, pixels, from_below=side == "bottom")
            if height_px == box.height_px:
                return whole
            top_px = box.y_px if side == "bottom" else box.y_px + height_px
            box = replace(box, y_px=top_px, height_px=box.height_px - height_px)
    plain_px = _plain_columns(box, pixels) if {"left", "right"} & set(sides) else (0, 0)
    left_px, right_px = (
        px if side in sides else 0 for side, px in zip(("left", "right"), plain_px, strict=True)
    )
    if left_px + right_px >= box.width_px:
        return whole
    return replace(box, x_px=box.x_px + left_px, width_px=box.width_px - left_px - right_px)


def _plain_rows(box: Box, pixels: Callable[[Box], Raster], *, from_below: bool) -> int:
    """How many rows from an edge show nothing but its colour."""
    means: list[_Means] = []
    edge: _Edge | None = None
    for top_px, height_px in bands(box.height_px, _BAND_PX):
        y_px = box.bottom_px - top_px - height_px if from_below else box.y_px + top_px
        rows = _rows(pixels(replace(box, y_px=y_px, height_px=height_px)))
        rows = rows[::-1] if from_below else rows
        edge = edge or _Edge(rows[:1])
        plain_px = _first(edge.stands_out(rows).T)
        means.append(rows[:plain_px].mean(axis=1))
        if plain_px < height_px:
            break
    return _unless_shaded(np.concatenate(means))


def _plain_columns(box: Box, pixels: Callable[[Box], Raster]) -> tuple[int, int]:
    """How many columns from the left and from the right show nothing but the colour of that edge."""
    left_px = right_px = box.width_px
    edges: tuple[_Edge, _Edge] | None = None
    sums = np.zeros(1)
    for rows in _bands(box, pixels):
        if edges is None:
            edges = _Edge(rows[:, :1]), _Edge(rows[:, -1:])
        left_px = _first(edges[0].stands_out(rows[:, :left_px]))
        right_px = _first(edges[1].stands_out(rows[:, box.width_px - right_px :])[:, ::-1])
        if left_px == right_px == 0:
            return 0, 0
        sums = sums + rows.sum(axis=0, dtype=np.int64)
    means = sums / box.height_px
    return _unless_shaded(means[:left_px]), _unless_shaded(means[::-1][:right_px])


def _unless_shaded(means: _Means) -> int:
    """The length of an edge with these means of its lines from outside; none where it is a shaded ground.

    A sky is within the noise of its uppermost row for a while. A shadow around what is shown begins near
    it: halfway there, an edge has still the colour that it has outside.
    """
    length = len(means)
    some = max(1, length // 6)
    outside, halfway = means[:some], means[(length - some) // 2 :][:some]
    if length < 3 or np.abs(outside.mean(axis=0) - halfway.mean(axis=0)).max() <= _SAME_GROUND:
        return length
    return 0


def _bands(box: Box, pixels: Callable[[Box], Raster]) -> Iterator[_Pixels]:
    for top_px, height_px in bands(box.height_px, _BAND_PX):
        yield _rows(pixels(replace(box, y_px=box.y_px + top_px, height_px=height_px)))


def _first(stands_out: NDArray[np.bool_]) -> int:
    """The first column in which something stands out; how many there are where nothing does."""
    columns = np.flatnonzero(stands_out.any(axis=0))
    return int(columns[0]) if columns.size else stands_out.shape[1]


def _rows(raster: Raster) -> _Pixels:
    """Pixels with their colours as far as they are seen: what shows through wholly has none."""
    rows = raster.rows(0, raster.size.height_px).astype(np.int16)
    if rows.shape[2] == 4:
        rows[:, :, :3] = rows[:, :, :3] * (rows[:, :, 3:] > 0)
    return rows


class _Edge:
    """The colour of the outermost px, and how far from it their noise goes."""

    def __init__(self, outermost: _Pixels) -> None:
        px = outermost.reshape(-1, outermost.shape[2])
        self._colour = np.median(px, axis=0).round().astype(np.int16)
        # The nearest px tell of the noise alone, whatever else stands in these rows.
        apart = np.sort(np.abs(px - self._colour), axis=None)
        nearest = apart[: max(1, round(len(apart) * _NEAREST))].astype(float)
        noise = float(np.sqrt(np.mean(nearest**2))) / _NEAREST_DEVIATION
        self._apart = min(max(_LEAST_APART, _DEVIATIONS * noise), _MOST_NOISE_APART)

    def stands_out(self, rows: _Pixels) -> NDArray[np.bool_]:
        """Which px are of another colour; shape (height, width)."""
        # Channel by channel: asking three values of each px at once takes several times as long.
        found = np.zeros(rows.shape[:2], dtype=np.bool_)
        for channel, colour in enumerate(self._colour):
            found |= np.abs(rows[:, :, channel] - colour) > self._apart
        return found
