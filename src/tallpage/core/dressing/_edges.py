"""The outline of a picture: rounded corners and torn sides, a stretch of rows at a time."""

from __future__ import annotations

import random
from collections.abc import Sequence

from tallpage.core.dressing._models import Dressing, Side, TornEdge
from tallpage.core.geometry import Box
from tallpage.core.paths import Extent, Path, Point

_TOOTH_PX = 5
"""Between one point of a torn side and the next."""
_SIDES: tuple[Side, ...] = ("top", "right", "bottom", "left")


def outline(dressing: Dressing, picture: Box, rows: Box, *, grown_px: int = 0) -> Path:
    """The outline of a picture, right within the rows of a box; beyond them it is closed anyhow.

    Torn sides lie within the picture: what is torn off is not shown. Other outlines can be ``grown_px``
    larger.
    """
    torn = dressing.torn
    if torn is None:
        grown = picture.grown(grown_px)
        extent = Extent(grown.x_px, grown.y_px, grown.right_px, grown.bottom_px)
        return Path.rectangle(extent, dressing.corner_px and dressing.corner_px + grown_px)
    extent = Extent(picture.x_px, picture.y_px, picture.right_px, picture.bottom_px)
    points = [point for side in _SIDES for point in _side(torn, side, extent)]
    return Path.polyline(
        _between(points, rows.y_px - torn.depth_px, rows.bottom_px + torn.depth_px), closed=True
    )


def is_plain(dressing: Dressing, picture: Box, rows: Box) -> bool:
    """Whether within the rows of a box the outline is the picture's own rectangle."""
    torn = dressing.torn
    if torn and {"left", "right"} & set(torn.sides):
        return False
    top_px = max(dressing.corner_px, torn.depth_px if torn and "top" in torn.sides else 0)
    bottom_px = max(dressing.corner_px, torn.depth_px if torn and "bottom" in torn.sides else 0)
    return rows.y_px >= picture.y_px + top_px and rows.bottom_px <= picture.bottom_px - bottom_px


def _between(points: Sequence[Point], top_px: float, bottom_px: float) -> list[Point]:
    """Points beyond two rows are put on them; of those that follow each other there, the ends are kept."""
    held = [(x, min(max(y, top_px), bottom_px)) for x, y in points]
    return [
        point
        for before, point, after in zip([held[-1], *held], held, [*held[1:], held[0]], strict=False)
        if not (before[1] == point[1] == after[1] and point[1] in (top_px, bottom_px))
    ]


def _side(torn: TornEdge, side: Side, extent: Extent) -> list[Point]:
    """The points of a side, clockwise from its first corner to just before the next."""
    left, top, right, bottom = extent.left_px, extent.top_px, extent.right_px, extent.bottom_px
    start, end, inward = {
        "top": ((left, top), (right, top), (0.0, 1.0)),
        "right": ((right, top), (right, bottom), (-1.0, 0.0)),
        "bottom": ((right, bottom), (left, bottom), (0.0, -1.0)),
        "left": ((left, bottom), (left, top), (1.0, 0.0)),
    }[side]
    if side not in torn.sides:
        return [start]
    length = abs(end[0] - start[0]) + abs(end[1] - start[1])
    count = max(2, round(length / _TOOTH_PX))
    found = []
    for step, depth in enumerate(torn_depths(f"{torn.seed} {side}", count)):
        share = step / count
        off_px = depth * min(torn.depth_px, length / 2)
        found.append(
            (
                start[0] + share * (end[0] - start[0]) + inward[0] * off_px,
                start[1] + share * (end[1] - start[1]) + inward[1] * off_px,
            )
        )
    return found


def torn_depths(seed: str, count: int) -> list[float]:
    """How deep each point of a torn edge lies, from 0 to 1: long waves with small teeth on them."""
    chance = random.Random(seed)  # noqa: S311 - a pattern, not a secret
    waves = [chance.random() for _ in range(count // 8 + 3)]
    depths = []
    for step in range(count):
        at, share = divmod(step / 8, 1)
        wave = waves[int(at)] * (1 - share) + waves[int(at) + 1] * share
        depths.append(0.65 * wave + 0.35 * chance.random())
    return depths
