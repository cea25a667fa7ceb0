"""Marks on a page: their kinds, where their points lie, what they look like. Nothing here knows pixels."""

from tallpage.core.marks._drawing import draw_marks
from tallpage.core.marks._drawn import Blend, DrawnMark, PlacedPicture, Shape
from tallpage.core.marks._kinds import (
    MOST_MARKS,
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
from tallpage.core.marks._legible import kept_legible, smallest_letters_px
from tallpage.core.marks._numbering import NumberedBadge, captions_of, numbered_badges
from tallpage.core.marks._placing import placed, points_of, styled
from tallpage.core.marks._signs import signs
from tallpage.core.marks._svg import Plane, svg_of

__all__ = [
    "MOST_MARKS",
    "Arrow",
    "Badge",
    "Blend",
    "BoxMark",
    "Dim",
    "DrawnMark",
    "Ellipse",
    "Highlighter",
    "Line",
    "Mark",
    "NumberedBadge",
    "Pen",
    "PlacedPicture",
    "Plane",
    "Shape",
    "Sticker",
    "Style",
    "Text",
    "captions_of",
    "draw_marks",
    "kept_legible",
    "numbered_badges",
    "placed",
    "points_of",
    "signs",
    "smallest_letters_px",
    "styled",
    "svg_of",
]
