"""Which px of a page become transparent."""

from tallpage.core.clearing._clearing import (
    MOST_COLOURS,
    MOST_PUT_BACK,
    MOST_TOLERANCE,
    ClearedColour,
    Clearing,
    PutBack,
)
from tallpage.core.clearing._mixing import clear_rows, near, reach_px
from tallpage.core.clearing._regions import RowMask, connected_with, union, with_boxes, without

__all__ = [
    "MOST_COLOURS",
    "MOST_PUT_BACK",
    "MOST_TOLERANCE",
    "ClearedColour",
    "Clearing",
    "PutBack",
    "RowMask",
    "clear_rows",
    "connected_with",
    "near",
    "reach_px",
    "union",
    "with_boxes",
    "without",
]
