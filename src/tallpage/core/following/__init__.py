"""What was drawn on a page, on the same page as it is now: which block became which, and where a cut lies."""

from tallpage.core.following._carrying import (
    CarriedCut,
    CarriedPart,
    Page,
    Part,
    State,
    carry_by_px,
    carry_over,
)
from tallpage.core.following._lines import Match
from tallpage.core.following._matching import matched
from tallpage.core.following._outline import Outline

__all__ = [
    "CarriedCut",
    "CarriedPart",
    "Match",
    "Outline",
    "Page",
    "Part",
    "State",
    "carry_by_px",
    "carry_over",
    "matched",
]
