"""All marks of a cut as they are drawn, in their order."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from tallpage.core.marks._drawn import DrawnMark, PlacedPicture
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
    Text,
)
from tallpage.core.marks._numbering import numbered_badges
from tallpage.core.marks._signs import draw_sign
from tallpage.core.marks.drawing._boxes import draw_box, draw_dims, draw_ellipse, extent_of
from tallpage.core.marks.drawing._lettering import draw_badge, draw_text
from tallpage.core.marks.drawing._strokes import draw_arrow, draw_highlighter, draw_line, draw_pen
from tallpage.core.paths import Extent


def draw_marks(
    marks: Sequence[Mark],
    page: Extent,
    *,
    shown: Sequence[bool] | None = None,
    labels: Mapping[int, str] | None = None,
) -> list[DrawnMark]:
    """What each mark looks like, from the lowest to the highest.

    ``page`` is the plane on which the marks lie: what is dimmed reaches to its edges. All that is to be
    dimmed is drawn once, where the first of those marks stands. Marks that are not ``shown`` are left
    out; badges among them count all the same. Who draws only some of a cut's marks gives the ``labels`` of
    the badges by their positions.
    """
    if labels is None:
        labels = {row.position: row.label for row in numbered_badges(marks)}
    seen = [(position, mark) for position, mark in enumerate(marks) if shown is None or shown[position]]
    dims = [mark for _, mark in seen if isinstance(mark, Dim)]
    drawn = []
    for position, mark in seen:
        if isinstance(mark, Dim):
            if mark is dims[0]:
                drawn.append(draw_dims(dims, page))
        else:
            drawn.append(_drawn(mark, labels.get(position, "")))
    return drawn


def _drawn(mark: Mark, label: str) -> DrawnMark:
    match mark:
        case Arrow():
            return draw_arrow(mark)
        case Line():
            return draw_line(mark)
        case BoxMark():
            return draw_box(mark)
        case Ellipse():
            return draw_ellipse(mark)
        case Pen():
            return draw_pen(mark)
        case Highlighter():
            return draw_highlighter(mark)
        case Text():
            return draw_text(mark)
        case Badge():
            return draw_badge(mark, label)
        case Sticker():
            return _sticker(mark)
        case Dim():
            raise TypeError("what is dimmed is drawn together")


def _sticker(mark: Sticker) -> DrawnMark:
    box = extent_of(mark)
    if mark.sign is not None:
        parts = draw_sign(mark.sign, box, angle_deg=mark.angle_deg, colour=mark.colour)
        return DrawnMark(id=mark.id, parts=parts, opacity=mark.opacity, held=box)
    picture = PlacedPicture(name=mark.picture or "", box=box, angle_deg=mark.angle_deg)
    return DrawnMark(id=mark.id, parts=(picture,), opacity=mark.opacity, held=box)
