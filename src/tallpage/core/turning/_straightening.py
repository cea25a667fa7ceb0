"""By which angle a scanned or photographed page is out of level, from its pixels."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from tallpage.core.geometry import Size
from tallpage.core.picture import Colour, Raster

_FURTHEST_DEG = 15.0
_COARSE_DEG, _FINE_DEG = 0.25, 0.05
_LOOKED_AT_PX = 1_000
"""Width at which a page is looked at, and height of the bands that are looked at by themselves."""
_MOST_BANDS = 6
_LEAST_DEG = 0.15
"""Less is not seen, and could be the grid of the px."""
_CLEARER = 1.12
"""How much more the rows of a turned page stand out than those of the page as it is, at least."""
_MEANT = 1.3
"""How much more the lines of an angle stand out than those of most, where there are lines at all."""
_TILE_PX = 125
_SLANT_DEG, _LEVEL_DEG = 1.5, 0.6
"""From which angle on parts of the page are asked by themselves, and which of theirs count as level."""
_LEVEL_SHARE = 0.25
_EDGE_PX = 4

_Plane = NDArray[np.float32]


def find_angle(raster: Raster) -> float:
    """By how many degrees to turn a page clockwise so that its lines are level; 0 where they are, or none is.

    Lines of text, rules and edges give rows of px that become lighter, or darker, together. The sums of
    these changes along lines of an angle are greatest where the lines run along them: their squares are
    compared for all angles up to 15 degrees either way.
    """
    bands = _bands(raster)
    halved = [_changes(band[::2, ::2]) for band in bands]
    angles = _angles(-_FURTHEST_DEG, _FURTHEST_DEG, _COARSE_DEG)
    coarse = _clearness(halved, angles)
    at = int(np.argmax(coarse))
    if not 0 < at < len(angles) - 1 or coarse[at] <= np.median(coarse) * _MEANT:
        return 0.0
    if abs(angles[at]) >= _SLANT_DEG and _level_share(halved, angles) >= _LEVEL_SHARE:
        return 0.0
    whole = [_changes(band) for band in bands]
    angles = _angles(angles[at] - _COARSE_DEG * 2, angles[at] + _COARSE_DEG * 2, _FINE_DEG)
    fine = _clearness(whole, angles)
    at = int(np.argmax(fine))
    level = _clearness(whole, _angles(-_LEAST_DEG, _LEAST_DEG, _FINE_DEG)).max()
    found = _peak(angles, fine, at)
    if abs(found) < _LEAST_DEG or fine[at] < level * _CLEARER:
        return 0.0
    return round(-found, 2)


def _level_share(planes: list[_Plane], angles: NDArray[np.float64]) -> float:
    """Of the parts of a page that have lines, how many have level ones: a level page may show stripes."""
    level = lined = 0
    for changes in planes:
        for left_px in range(0, changes.shape[1], _TILE_PX):
            for top_px in range(0, changes.shape[0], _TILE_PX):
                tile = changes[top_px : top_px + _TILE_PX, left_px : left_px + _TILE_PX]
                clearness = _clearness([tile], angles[::2])
                at = int(np.argmax(clearness))
                if clearness[at] > np.median(clearness) * _MEANT:
                    lined += 1
                    level += abs(angles[::2][at]) <= _LEVEL_DEG
    return level / lined if lined else 0.0


def edge_colour(raster: Raster) -> Colour:
    """The colour that most of a picture's edges have: for the corners that turning leaves empty."""
    size = raster.size
    rows = raster.flattened((255, 255, 255)).without_alpha().held()
    band_px = min(_EDGE_PX, size.height_px)
    edges = [
        rows.rows(0, band_px).reshape(-1, 3),
        rows.rows(size.height_px - band_px, band_px).reshape(-1, 3),
    ]
    red, green, blue = np.median(np.concatenate(edges), axis=0).astype(int).tolist()
    return red, green, blue


def _bands(raster: Raster) -> list[_Plane]:
    """Grey bands of a page, spread over its height."""
    size = raster.size
    width_px = min(_LOOKED_AT_PX, size.width_px)
    rows = raster.flattened((255, 255, 255)).without_alpha()
    rows = rows.resized(Size(width_px=width_px, height_px=size.at_width(width_px).height_px)).held()
    height_px = rows.size.height_px
    band_px = min(_LOOKED_AT_PX, height_px)
    count = min(_MOST_BANDS, math.ceil(height_px / band_px))
    tops = np.linspace(0, height_px - band_px, count).astype(int).tolist() if count > 1 else [0]
    return [rows.rows(top, band_px).astype(np.float32).mean(axis=2) for top in tops]


def _changes(grey: _Plane) -> _Plane:
    """How each px differs from the one above; what is very strong, like the edge of a table, counts less."""
    found: _Plane = np.clip(np.diff(grey, axis=0), -80, 80)
    return found


def _clearness(planes: list[_Plane], angles_deg: NDArray[np.float64]) -> NDArray[np.float64]:
    """For each angle, how much the sums along its lines stand out."""
    total = np.zeros(len(angles_deg))
    for changes in planes:
        y, x = np.nonzero(np.abs(changes) > _noise(changes))
        weights = changes[y, x].astype(np.float64)
        for at, slope in enumerate(np.tan(np.radians(angles_deg))):
            rows = np.floor(y - x * slope).astype(np.int64)
            sums = np.bincount(rows - rows.min(), weights) if rows.size else np.zeros(1)
            total[at] += float(sums @ sums)
    return total


def _noise(changes: _Plane) -> float:
    """Changes that are no more than the grain of the picture."""
    if changes.size == 0:
        return 0.0
    return 3 * float(np.median(np.abs(changes))) + 2


def _angles(first_deg: float, last_deg: float, step_deg: float) -> NDArray[np.float64]:
    return np.arange(first_deg, last_deg + step_deg / 2, step_deg)


def _peak(angles: NDArray[np.float64], clearness: NDArray[np.float64], at: int) -> float:
    """The highest point of the parabola through the best angle and those beside it."""
    if not 0 < at < len(angles) - 1:
        return float(angles[at])
    before, here, after = clearness[at - 1 : at + 2]
    bend = before - 2 * here + after
    shift = 0.0 if bend == 0 else 0.5 * (before - after) / bend
    return float(angles[at] + shift * _FINE_DEG)
