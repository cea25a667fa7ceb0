"""Lines and arrows, straight or bent, and what is drawn by hand."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise

from tallpage.core.marks._drawn import DrawnMark, Shape
from tallpage.core.marks._kinds import Arrow, Dashes, Highlighter, Line, Pen
from tallpage.core.paths import Path, Point

_HEAD_LENGTH, _HEAD_HALF_WIDTH = 3.4, 1.7
"""Of an arrow's head, in thicknesses of its shaft."""
_LONGEST_HEAD = 0.6
"""Share of an arrow that its head takes at most; of an arrow with two, each takes half of it."""
_PIECES = 32
"""Straight pieces of each side of a bent shaft."""
_DASHES: dict[Dashes, tuple[float, ...]] = {"none": (), "dashes": (3.0, 2.0), "dots": (0.01, 2.0)}
"""Lengths in thicknesses; a dot is a dash of hardly any length with round ends."""
_STRAIGHT_ENOUGH_PX = 0.6
"""How far points of a hand-drawn line may lie off what is drawn."""


def dashes_px(dashes: Dashes, thickness_px: float) -> tuple[float, ...]:
    """The lengths of dash and gap of a line."""
    return tuple(length * thickness_px for length in _DASHES[dashes])


def draw_line(mark: Line) -> DrawnMark:
    """A line."""
    start, end = (mark.from_x_px, mark.from_y_px), (mark.to_x_px, mark.to_y_px)
    path = Path.of((("M", start), ("Q", (*_control(start, end, mark.bend_px), *end))))
    shape = Shape(
        path=path,
        stroke=mark.colour,
        stroke_px=mark.thickness_px,
        dashes=dashes_px(mark.dashes, mark.thickness_px),
    )
    return DrawnMark(id=mark.id, parts=(shape,), opacity=mark.opacity)


def draw_arrow(mark: Arrow) -> DrawnMark:
    """An arrow: its outline lies around its filling."""
    start, end = (mark.from_x_px, mark.from_y_px), (mark.to_x_px, mark.to_y_px)
    if math.dist(start, end) < 1:
        end = start[0] + 1, start[1]
    path = Path.polyline(_arrow_outline(mark, start, end), closed=True)
    parts = []
    if mark.outline_px > 0:
        parts.append(Shape(path=path, stroke=mark.outline_colour, stroke_px=mark.outline_px * 2))
    if mark.filling is not None:
        parts.append(Shape(path=path, fill=mark.filling))
    return DrawnMark(id=mark.id, parts=tuple(parts), opacity=mark.opacity)


def draw_pen(mark: Pen) -> DrawnMark:
    """A line drawn by hand."""
    shape = Shape(path=_by_hand(mark.points), stroke=mark.colour, stroke_px=mark.thickness_px)
    return DrawnMark(id=mark.id, parts=(shape,), opacity=mark.opacity)


def draw_highlighter(mark: Highlighter) -> DrawnMark:
    """A broad line that multiplies."""
    shape = Shape(path=_by_hand(mark.points), stroke=mark.colour, stroke_px=mark.thickness_px)
    return DrawnMark(id=mark.id, parts=(shape,), opacity=mark.opacity, blend="multiply")


def _control(start: Point, end: Point, bend_px: float) -> Point:
    """The handle of the quadratic curve whose middle lies ``bend_px`` off the line, to the right."""
    length = math.dist(start, end) or 1.0
    across = -(end[1] - start[1]) / length, (end[0] - start[0]) / length
    middle = (start[0] + end[0]) / 2, (start[1] + end[1]) / 2
    return middle[0] + 2 * bend_px * across[0], middle[1] + 2 * bend_px * across[1]


def _arrow_outline(mark: Arrow, start: Point, end: Point) -> list[Point]:
    control = _control(start, end, mark.bend_px)
    pieces = _PIECES if mark.bend_px else 1
    points = [_on_curve(start, control, end, step / pieces) for step in range(pieces + 1)]
    length = sum(math.dist(first, second) for first, second in pairwise(points))
    heads = 2 if mark.heads == "both" else 1
    head_px = min(mark.thickness_px * _HEAD_LENGTH, length * _LONGEST_HEAD / heads)
    wide_px = head_px * _HEAD_HALF_WIDTH / _HEAD_LENGTH
    half_px = min(mark.thickness_px / 2, wide_px / 2)
    first_px = head_px if mark.heads in ("start", "both") else 0.0
    last_px = length - (head_px if mark.heads in ("end", "both") else 0.0)
    shaft = _stretch(points, first_px, last_px)
    left, right = _sides(shaft, half_px)
    if mark.heads in ("end", "both"):
        barb = _barbs(shaft[-1], points[-1], wide_px)
        tip = [barb[0], points[-1], barb[1]]
    else:
        tip = []
    if mark.heads in ("start", "both"):
        barb = _barbs(shaft[0], points[0], wide_px)
        tail = [barb[0], points[0], barb[1]]
    else:
        tail = []
    return [*left, *tip, *reversed(right), *tail]


def _on_curve(start: Point, control: Point, end: Point, at: float) -> Point:
    before, after = (1 - at) ** 2, at**2
    between = 2 * (1 - at) * at
    return (
        before * start[0] + between * control[0] + after * end[0],
        before * start[1] + between * control[1] + after * end[1],
    )


def _stretch(points: Sequence[Point], first_px: float, last_px: float) -> list[Point]:
    """The part of a polyline between two distances along it."""
    found: list[Point] = []
    gone_px = 0.0
    for start, end in pairwise(points):
        piece_px = math.dist(start, end)
        for wanted_px in (first_px, last_px):
            if gone_px <= wanted_px <= gone_px + piece_px and piece_px > 0:
                share = (wanted_px - gone_px) / piece_px
                found.append((start[0] + share * (end[0] - start[0]), start[1] + share * (end[1] - start[1])))
        gone_px += piece_px
        if first_px < gone_px < last_px:
            found.append(end)
    return found if len(found) > 1 else [points[0], points[-1]]


def _sides(shaft: Sequence[Point], half_px: float) -> tuple[list[Point], list[Point]]:
    """Both sides of a shaft, the one on the left of its way first."""
    left, right = [], []
    for at, (x, y) in enumerate(shaft):
        before, after = shaft[max(0, at - 1)], shaft[min(len(shaft) - 1, at + 1)]
        length = math.dist(before, after) or 1.0
        across = (after[1] - before[1]) / length * half_px, -(after[0] - before[0]) / length * half_px
        left.append((x + across[0], y + across[1]))
        right.append((x - across[0], y - across[1]))
    return left, right


def _barbs(base: Point, tip: Point, wide_px: float) -> tuple[Point, Point]:
    """The two corners of a head beside its base, the one on the left of the way to the tip first."""
    length = math.dist(base, tip) or 1.0
    across = (tip[1] - base[1]) / length * wide_px, -(tip[0] - base[0]) / length * wide_px
    return (base[0] + across[0], base[1] + across[1]), (base[0] - across[0], base[1] - across[1])


def _by_hand(points: Sequence[Point]) -> Path:
    return Path.smooth(_simplified(points))


def _simplified(points: Sequence[Point]) -> list[Point]:
    """Fewer points, none of the others further off (Ramer, 1972; Douglas and Peucker, 1973)."""
    if len(points) < 3:
        return list(points)
    kept = {0, len(points) - 1}
    stretches = [(0, len(points) - 1)]
    while stretches:
        first, last = stretches.pop()
        offs = [_off(points[at], points[first], points[last]) for at in range(first + 1, last)]
        if offs and max(offs) > _STRAIGHT_ENOUGH_PX:
            furthest = first + 1 + offs.index(max(offs))
            kept.add(furthest)
            stretches += [(first, furthest), (furthest, last)]
    return [points[at] for at in sorted(kept)]


def _off(point: Point, start: Point, end: Point) -> float:
    """The distance of a point from a straight line between two others."""
    across, down = end[0] - start[0], end[1] - start[1]
    length = across * across + down * down
    if length == 0:
        return math.dist(point, start)
    share = ((point[0] - start[0]) * across + (point[1] - start[1]) * down) / length
    share = min(1.0, max(0.0, share))
    return math.dist(point, (start[0] + share * across, start[1] + share * down))
