"""Where the places of a page lie once it is turned, and back. Pure arithmetic."""

from __future__ import annotations

import math
from dataclasses import dataclass

from tallpage.core.errors import FrameError
from tallpage.core.geometry import Box, Size
from tallpage.core.turning._orientation import Orientation

_NEAR = 1e-6
"""What arithmetic on floats leaves over of a whole number, at most."""

Point = tuple[float, float]


@dataclass(frozen=True, slots=True)
class TurnedPage:
    """A page in an orientation. Places are in page px, from the upper left corner, of either page."""

    page: Size
    orientation: Orientation

    @property
    def quartered(self) -> Size:
        """The page after mirror and quarters, before the angle."""
        if self.orientation.turn_deg in (90, 270):
            return Size(width_px=self.page.height_px, height_px=self.page.width_px)
        return self.page

    @property
    def size(self) -> Size:
        """The turned page.

        Raises:
            FrameError: its corners are cropped, and nothing is left between them.
        """
        before = self.quartered
        if self.orientation.angle_deg == 0:
            return before
        width, height = before.width_px, before.height_px
        if self.orientation.corners == "cropped":
            inner = _inner_sides(width, height, self._radians)
            across, down = (math.floor(side + _NEAR) for side in inner)
            if across < 1 or down < 1:
                raise FrameError("Nothing of the page is left between its cropped corners.")
            return Size(width_px=across, height_px=down)
        sine, cosine = abs(math.sin(self._radians)), abs(math.cos(self._radians))
        return Size(
            width_px=math.ceil(width * cosine + height * sine - _NEAR),
            height_px=math.ceil(width * sine + height * cosine - _NEAR),
        )

    def there(self, point: Point) -> Point:
        """From the page to the turned page."""
        return self._angled(self._quarter(point))

    def back(self, point: Point) -> Point:
        """From the turned page to the page."""
        before, after = self.quartered, self.size
        x, y = point[0] - after.width_px / 2, point[1] - after.height_px / 2
        sine, cosine = math.sin(self._radians), math.cos(self._radians)
        x, y = cosine * x + sine * y, cosine * y - sine * x
        return self._unquarter((x + before.width_px / 2, y + before.height_px / 2))

    def box_there(self, box: Box) -> Box | None:
        """The box around a box of the page, on the turned page; None where it is cropped away."""
        return _around([self.there(corner) for corner in _corners(box)]).overlap(Box.whole(self.size))

    def box_back(self, box: Box, *, room_px: int = 0) -> Box | None:
        """The box around a box of the turned page, on the page; None where that shows nothing of it.

        ``room_px`` are taken besides, as far as there is page.
        """
        around = _around([self.back(corner) for corner in _corners(box)])
        return around.grown(room_px).overlap(Box.whole(self.page))

    def after_quarters(self, box: Box) -> Box:
        """A box of the page after mirror and quarters alone: to the px."""
        return _around([self._quarter(corner) for corner in _corners(box)])

    @property
    def _radians(self) -> float:
        return math.radians(self.orientation.angle_deg)

    def _quarter(self, point: Point) -> Point:
        width, height = self.page.width_px, self.page.height_px
        x, y = (width - point[0] if self.orientation.mirror else point[0]), point[1]
        match self.orientation.turn_deg:
            case 90:
                return height - y, x
            case 180:
                return width - x, height - y
            case 270:
                return y, width - x
            case _:
                return x, y

    def _unquarter(self, point: Point) -> Point:
        width, height = self.page.width_px, self.page.height_px
        x, y = point
        match self.orientation.turn_deg:
            case 90:
                x, y = y, height - x
            case 180:
                x, y = width - x, height - y
            case 270:
                x, y = width - y, x
            case _:
                pass
        return (width - x if self.orientation.mirror else x), y

    def _angled(self, point: Point) -> Point:
        before, after = self.quartered, self.size
        x, y = point[0] - before.width_px / 2, point[1] - before.height_px / 2
        sine, cosine = math.sin(self._radians), math.cos(self._radians)
        return (
            cosine * x - sine * y + after.width_px / 2,
            sine * x + cosine * y + after.height_px / 2,
        )


def _corners(box: Box) -> tuple[Point, ...]:
    return (
        (box.x_px, box.y_px),
        (box.right_px, box.y_px),
        (box.x_px, box.bottom_px),
        (box.right_px, box.bottom_px),
    )


def _around(points: list[Point]) -> Box:
    """The smallest box of whole px around points."""
    left_px, top_px = (math.floor(min(row[axis] for row in points) + _NEAR) for axis in (0, 1))
    right_px, bottom_px = (math.ceil(max(row[axis] for row in points) - _NEAR) for axis in (0, 1))
    return Box(
        x_px=left_px,
        y_px=top_px,
        width_px=max(1, right_px - left_px),
        height_px=max(1, bottom_px - top_px),
    )


def _inner_sides(width: float, height: float, radians: float) -> tuple[float, float]:
    """Sides of the largest upright rectangle in a turned one.

    Where the page is long enough, two of its corners lie on the long sides, as far from each other as the
    page is wide; else all four lie on the four sides. Both follow from the distances between the sides.
    """
    sine, cosine = abs(math.sin(radians)), abs(math.cos(radians))
    long, short = max(width, height), min(width, height)
    if short <= 2 * sine * cosine * long or abs(sine - cosine) < _NEAR:
        half = short / 2
        across, down = (half / sine, half / cosine) if width >= height else (half / cosine, half / sine)
        return across, down
    double = cosine * cosine - sine * sine
    return (width * cosine - height * sine) / double, (height * cosine - width * sine) / double
