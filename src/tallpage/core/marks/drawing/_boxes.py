"""Rectangles, ellipses, and the dimming of what lies outside some."""

from __future__ import annotations

from collections.abc import Sequence

from tallpage.core.marks._drawn import DrawnMark, Shape
from tallpage.core.marks._kinds import BoxMark, Dim, Ellipse, Sticker
from tallpage.core.marks.drawing._strokes import dashes_px
from tallpage.core.paths import Extent, Path

_FURTHEST_BLUR_PX = 20.0


def extent_of(mark: BoxMark | Ellipse | Dim | Sticker) -> Extent:
    """The rectangle of a mark, not turned."""
    return Extent(mark.x_px, mark.y_px, mark.x_px + mark.width_px, mark.y_px + mark.height_px)


def draw_box(mark: BoxMark) -> DrawnMark:
    """A rectangle; its outline lies half inside and half outside."""
    box = extent_of(mark)
    return _outlined(mark, Path.rectangle(box, mark.corner_px))


def draw_ellipse(mark: Ellipse) -> DrawnMark:
    """An ellipse."""
    return _outlined(mark, Path.ellipse(extent_of(mark)))


def draw_dims(marks: Sequence[Dim], page: Extent) -> DrawnMark:
    """All that is to be dimmed of a page, as the first of some marks says; each of them leaves its part."""
    first = marks[0]
    holes = Path()
    for mark in marks:
        box = extent_of(mark)
        kept = Path.ellipse(box) if mark.shape == "ellipse" else Path.rectangle(box, mark.corner_px)
        holes += kept.turned(mark.angle_deg, box.middle)
    shape = Shape(path=Path.rectangle(page) + holes, fill=first.colour, even_odd=True)
    if first.how == "blur":
        return DrawnMark(
            id=first.id, parts=(shape,), blend="blur", blur_px=first.strength * _FURTHEST_BLUR_PX
        )
    return DrawnMark(id=first.id, parts=(shape,), opacity=first.strength)


def _outlined(mark: BoxMark | Ellipse, path: Path) -> DrawnMark:
    turned = path.turned(mark.angle_deg, extent_of(mark).middle)
    outlined = mark.outline_px > 0
    shape = Shape(
        path=turned,
        fill=mark.filling,
        stroke=mark.outline_colour if outlined else None,
        stroke_px=mark.outline_px if outlined else 0.0,
        dashes=dashes_px(mark.dashes, mark.outline_px) if outlined else (),
    )
    return DrawnMark(id=mark.id, parts=(shape,), opacity=mark.opacity, held=extent_of(mark))
