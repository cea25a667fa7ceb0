"""Outlines made of straight lines and curves, in px. Pure arithmetic; what draws them stands elsewhere."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Literal, Self

from tallpage.core.once import once

Point = tuple[float, float]
Command = Literal["M", "L", "Q", "C", "Z"]
Matrix = tuple[float, float, float, float, float, float]
_NOT_PUT: Matrix = (1.0, 0.0, 0.0, 1.0, 0.0, 0.0)
Step = tuple[Command, tuple[float, ...]]
"""A command of SVG's path data in absolute coordinates, and its numbers: pairs of x and y."""

_QUARTER_ARC = 0.5522847498
"""Length of a cubic curve's handle for a quarter of a circle of radius 1, which it meets within 0.03 %."""


_ARCS = 16
"""Arcs of an ellipse."""


@dataclass(frozen=True, slots=True)
class Extent:
    """The rectangle that something lies in, in px with fractions."""

    left_px: float
    top_px: float
    right_px: float
    bottom_px: float

    @property
    def middle(self) -> Point:
        """Its middle."""
        return (self.left_px + self.right_px) / 2, (self.top_px + self.bottom_px) / 2

    def grown(self, by_px: float) -> Extent:
        """The same with some room on each side."""
        return Extent(
            self.left_px - by_px, self.top_px - by_px, self.right_px + by_px, self.bottom_px + by_px
        )

    @classmethod
    def around(cls, extents: Iterable[Extent]) -> Extent:
        """The rectangle that holds several; at least one."""
        rows = list(extents)
        return cls(
            min(row.left_px for row in rows),
            min(row.top_px for row in rows),
            max(row.right_px for row in rows),
            max(row.bottom_px for row in rows),
        )


@dataclass(frozen=True)
class Outline:
    """Outlines where they were drawn first. They are read once, however often they are put somewhere."""

    steps: tuple[Step, ...] = ()

    @once
    def data(self) -> str:
        """As SVG's path data, to a thousandth of the unit that they are drawn in."""
        return _data(self.steps, 4)

    @once
    def extent(self) -> Extent:
        """A rectangle that surely holds them: that of the points, and of the handles of curves.

        Raises:
            ValueError: there is nothing in them.
        """
        across = [x for _, numbers in self.steps for x in numbers[::2]]
        down = [y for _, numbers in self.steps for y in numbers[1::2]]
        return Extent(min(across), min(down), max(across), max(down))


@dataclass(frozen=True, slots=True)
class Path:
    """Outlines, one after the other, put somewhere: moved, scaled, turned."""

    outline: Outline = Outline()
    matrix: Matrix = _NOT_PUT
    """Each point (x, y) of the outline stands at (a x + c y + e, b x + d y + f)."""

    @classmethod
    def of(cls, steps: Iterable[Step]) -> Self:
        """Outlines of some steps."""
        return cls(Outline(tuple(steps)))

    @classmethod
    def polyline(cls, points: Sequence[Point], *, closed: bool = False) -> Self:
        """Straight lines from point to point."""
        begin: list[Step] = [("M", points[0])]
        lines: list[Step] = [("L", point) for point in points[1:]]
        return cls.of((*begin, *lines, *_end(closed=closed)))

    @classmethod
    def rectangle(cls, box: Extent, corner_px: float = 0.0) -> Self:
        """A rectangle; its corners are rounded as far as its sides allow."""
        width_px, height_px = box.right_px - box.left_px, box.bottom_px - box.top_px
        corner_px = max(0.0, min(corner_px, width_px / 2, height_px / 2))
        left, top, right, bottom = box.left_px, box.top_px, box.right_px, box.bottom_px
        if corner_px == 0:
            return cls.polyline([(left, top), (right, top), (right, bottom), (left, bottom)], closed=True)
        rest = corner_px * (1 - _QUARTER_ARC)
        return cls.of(
            (
                ("M", (left + corner_px, top)),
                ("L", (right - corner_px, top)),
                ("C", (right - rest, top, right, top + rest, right, top + corner_px)),
                ("L", (right, bottom - corner_px)),
                ("C", (right, bottom - rest, right - rest, bottom, right - corner_px, bottom)),
                ("L", (left + corner_px, bottom)),
                ("C", (left + rest, bottom, left, bottom - rest, left, bottom - corner_px)),
                ("L", (left, top + corner_px)),
                ("C", (left, top + rest, left + rest, top, left + corner_px, top)),
                ("Z", ()),
            )
        )

    @classmethod
    def ellipse(cls, box: Extent) -> Self:
        """The ellipse that touches the four sides of a rectangle, in short arcs.

        Browsers draw the stroke of a long curve a quarter of a px off; that of short ones they do not.
        """
        (x, y), across, down = box.middle, (box.right_px - box.left_px) / 2, (box.bottom_px - box.top_px) / 2
        turn = 2 * math.pi / _ARCS
        handle = 4 / 3 * math.tan(turn / 4)
        steps: list[Step] = [("M", (x + across, y))]
        for arc in range(_ARCS):
            (start, end) = ((math.cos(at), math.sin(at)) for at in (arc * turn, (arc + 1) * turn))
            first = start[0] - handle * start[1], start[1] + handle * start[0]
            second = end[0] + handle * end[1], end[1] - handle * end[0]
            points = [
                number
                for cosine, sine in (first, second, end)
                for number in (x + across * cosine, y + down * sine)
            ]
            steps.append(("C", tuple(points)))
        return cls.of((*steps, ("Z", ())))

    @classmethod
    def smooth(cls, points: Sequence[Point], *, closed: bool = False) -> Self:
        """A curve through some points (Catmull and Rom, "A class of local interpolating splines", 1974).

        A single point becomes a line of no length, which a round pen draws as a dot.
        """
        if len(points) < 3:
            return cls.polyline([points[0], points[-1]])
        steps: list[Step] = [("M", points[0])]
        ends = [points[-1], *points, *points[:2]] if closed else [points[0], *points, points[-1]]
        for before, start, end, after in zip(ends, ends[1:], ends[2:], ends[3:], strict=False):
            first = start[0] + (end[0] - before[0]) / 6, start[1] + (end[1] - before[1]) / 6
            second = end[0] - (after[0] - start[0]) / 6, end[1] - (after[1] - start[1]) / 6
            steps.append(("C", (*first, *second, *end)))
        return cls.of((*steps, *_end(closed=closed)))

    @property
    def steps(self) -> tuple[Step, ...]:
        """The steps where they stand."""
        if self.matrix == _NOT_PUT:
            return self.outline.steps
        a, b, c, d, e, f = self.matrix
        return tuple(
            (
                command,
                tuple(
                    value
                    for x, y in zip(numbers[::2], numbers[1::2], strict=True)
                    for value in (a * x + c * y + e, b * x + d * y + f)
                ),
            )
            for command, numbers in self.outline.steps
        )

    @property
    def is_empty(self) -> bool:
        """Whether there is nothing to be drawn."""
        return not self.outline.steps

    def __add__(self, other: Path) -> Path:
        return Path.of(self.steps + other.steps)

    def moved(self, x_px: float, y_px: float) -> Path:
        """Moved to the right and down."""
        return self.transformed((1.0, 0.0, 0.0, 1.0, x_px, y_px))

    def scaled(self, across: float, down: float | None = None) -> Path:
        """Scaled from the origin."""
        return self.transformed((across, 0.0, 0.0, across if down is None else down, 0.0, 0.0))

    def turned(self, degrees: float, about: Point) -> Path:
        """Turned clockwise about a point."""
        if degrees % 360 == 0:
            return self
        sine, cosine = math.sin(math.radians(degrees)), math.cos(math.radians(degrees))
        x, y = about
        return self.transformed(
            (cosine, sine, -sine, cosine, x - cosine * x + sine * y, y - sine * x - cosine * y)
        )

    def transformed(self, then: Matrix) -> Path:
        """Put elsewhere by another matrix, after its own."""
        a, b, c, d, e, f = self.matrix
        g, h, i, j, k, m = then
        matrix = (
            g * a + i * b,
            h * a + j * b,
            g * c + i * d,
            h * c + j * d,
            g * e + i * f + k,
            h * e + j * f + m,
        )
        return Path(self.outline, matrix)

    def extent(self) -> Extent:
        """A rectangle that surely holds it.

        Raises:
            ValueError: there is nothing in it.
        """
        box = self.outline.extent
        a, b, c, d, e, f = self.matrix
        corners = [
            (a * x + c * y + e, b * x + d * y + f)
            for x in (box.left_px, box.right_px)
            for y in (box.top_px, box.bottom_px)
        ]
        across, down = zip(*corners, strict=True)
        return Extent(min(across), min(down), max(across), max(down))

    def data(self) -> str:
        """As SVG's path data where it stands, to a hundredth of a px."""
        return _data(self.steps, 2)


def _data(steps: Sequence[Step], places: int) -> str:
    number = f"%.{places}f"
    forms = {length: " ".join([number] * length) for length in {len(numbers) for _, numbers in steps}}
    # All numbers at once: one by one takes longer than drawing them.
    form = "".join(command + forms[len(numbers)] for command, numbers in steps)
    return form % tuple(number for _, numbers in steps for number in numbers)


def _end(*, closed: bool) -> tuple[Step, ...]:
    return (("Z", ()),) if closed else ()
