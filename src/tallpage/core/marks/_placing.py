"""Marks moved from one plane to another, and dressed in their style. Each gives a copy."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from tallpage.core.errors import CutError
from tallpage.core.marks._kinds import (
    Arrow,
    Badge,
    BoxMark,
    Dim,
    Ellipse,
    Highlighter,
    Line,
    Mark,
    Pen,
    Sticker,
    Style,
    Text,
)
from tallpage.core.paths import Point

_SHORTEST_PX = 0.01


def points_of(mark: Mark) -> tuple[Point, ...]:
    """The points by which a mark is held to the page."""
    match mark:
        case Arrow() | Line():
            return (mark.from_x_px, mark.from_y_px), (mark.to_x_px, mark.to_y_px)
        case Pen() | Highlighter():
            return mark.points
        case Badge():
            return ((mark.x_px, mark.y_px),)
        case Text():
            spot = (
                [] if mark.spot_x_px is None or mark.spot_y_px is None else [(mark.spot_x_px, mark.spot_y_px)]
            )
            return (mark.x_px, mark.y_px), *spot
        case BoxMark() | Ellipse() | Dim() | Sticker():
            return (mark.x_px, mark.y_px), (mark.x_px + mark.width_px, mark.y_px + mark.height_px)


def placed(mark: Mark, place: Callable[[Point], Point]) -> Mark:
    """A mark with each of its points where ``place`` puts it; a box spans what its corners span."""
    points = [place(point) for point in points_of(mark)]
    match mark:
        case Arrow() | Line():
            (from_x, from_y), (to_x, to_y) = points
            return _with(mark, from_x_px=from_x, from_y_px=from_y, to_x_px=to_x, to_y_px=to_y)
        case Pen() | Highlighter():
            return _with(mark, points=tuple(points))
        case Badge():
            return _with(mark, x_px=points[0][0], y_px=points[0][1])
        case Text():
            spot = {"spot_x_px": points[1][0], "spot_y_px": points[1][1]} if len(points) > 1 else {}
            return _with(mark, x_px=points[0][0], y_px=points[0][1], **spot)
        case BoxMark() | Ellipse() | Dim() | Sticker():
            (left, top), (right, bottom) = points
            width, height = max(right - left, _SHORTEST_PX), max(bottom - top, _SHORTEST_PX)
            return _with(mark, x_px=left, y_px=top, width_px=width, height_px=height)


def styled(mark: Mark, styles: Mapping[str, Style]) -> Mark:
    """A mark in the style that it names; what it gives itself goes before.

    Raises:
        CutError: there is no such style.
    """
    if mark.style is None:
        return mark
    if mark.style not in styles:
        raise CutError(f"There is no style “{mark.style}”.", hint="Give the mark another style.")
    style = styles[mark.style]
    taken = {
        name: getattr(style, name)
        for name in style.model_fields_set
        if name in type(mark).model_fields and name not in mark.model_fields_set
    }
    return _with(mark, **taken)


def _with(mark: Mark, **changed: object) -> Mark:
    return mark.model_copy(update=changed)
