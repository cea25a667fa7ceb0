"""A shape drawn on the page, by hand or by points."""

from __future__ import annotations

from typing import Annotated, Self

import numpy as np
from numpy.typing import NDArray
from pydantic import Field, model_validator

from tallpage.core.fields import HexColour, Place, StrictModel
from tallpage.core.geometry import Box
from tallpage.core.paths import Path, Point

MOST_POINTS = 400


class FreeOutline(StrictModel):
    """What is kept of a page: all that lies inside an outline of straight or smooth lines."""

    points: Annotated[tuple[tuple[Place, Place], ...], Field(min_length=3, max_length=MOST_POINTS)]
    """Corners in px of the page, one after the other; the last is joined with the first."""
    smooth: bool = False
    """Whether a curve goes through them."""
    outside: HexColour | None = None
    """Colour around it; without one, what is outside is transparent."""

    @model_validator(mode="after")
    def _simple(self) -> Self:
        if _crosses_itself(self.points):
            raise ValueError("The outline crosses itself: what is inside cannot be told")
        if len(set(self.points)) < 3 or _area_px(self.points) < 1:
            raise ValueError("The outline has nothing inside")
        return self

    def holds(self, box: Box) -> bool:
        """Whether the corners of a box lie inside, as far as straight lines between its own say."""
        corners = [(x, y) for x in (box.x_px, box.right_px) for y in (box.y_px, box.bottom_px)]
        return all(self._is_inside(x, y) for x, y in corners)

    def _is_inside(self, x_px: float, y_px: float) -> bool:
        """By how many sides a line from the point to the right crosses (M. Shimrat, Algorithm 112, 1962)."""
        inside = False
        for (x, y), (next_x, next_y) in zip(self.points, [*self.points[1:], self.points[0]], strict=True):
            if (y > y_px) != (next_y > y_px) and x_px < (next_x - x) * (y_px - y) / (next_y - y) + x:
                inside = not inside
        return inside

    def path(self) -> Path:
        """It, to be drawn."""
        if self.smooth:
            return Path.smooth(self.points, closed=True)
        return Path.polyline(self.points, closed=True)


def _area_px(points: tuple[Point, ...]) -> float:
    """Area of a polygon (C. F. Gauss, the shoelace formula)."""
    x, y = np.array(points).T
    return float(abs(np.dot(x, np.roll(y, -1)) - np.dot(y, np.roll(x, -1)))) / 2


def _crosses_itself(points: tuple[Point, ...]) -> bool:
    """Whether two sides of a polygon that are not neighbours have a point in common.

    Two sides cross where the ends of each lie on different sides of the other (F. P. Preparata and
    M. I. Shamos, "Computational Geometry", 1985).
    """
    corners = np.array(
        [point for point, after in zip(points, [*points[1:], points[0]], strict=True) if point != after]
    )
    if len(corners) < 4:
        return False
    starts, ends = corners, np.roll(corners, -1, axis=0)

    def turns(of: NDArray[np.float64]) -> NDArray[np.float64]:
        """On which side of each line (rows) each point (columns) lies: -1, 0 or 1."""
        along, to = ends - starts, of[None] - starts[:, None]
        side: NDArray[np.float64] = np.sign(along[:, None, 0] * to[..., 1] - along[:, None, 1] * to[..., 0])
        return side

    from_start, from_end = turns(starts), turns(ends)
    apart = from_start * from_end < 0
    crosses = apart & apart.T
    # A corner on another side touches it; neighbours share theirs.
    low, high = np.minimum(starts, ends), np.maximum(starts, ends)
    within = ((starts[None] >= low[:, None]) & (starts[None] <= high[:, None])).all(axis=2)
    touches = (from_start == 0) & within
    count = len(corners)
    at = np.arange(count)
    for step in (0, 1):
        touches[at, (at + step) % count] = False
        crosses[at, (at + step) % count] = crosses[(at + step) % count, at] = False
    return bool(crosses.any() or touches.any())
