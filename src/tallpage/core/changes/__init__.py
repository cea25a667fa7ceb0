"""What became of a page between two takes of it."""

from tallpage.core.changes._aligning import Run, aligned
from tallpage.core.changes._comparing import Change, Side, Stretch, compare, words_changed
from tallpage.core.changes._looking import NEARLY_BLANK, Look, look_at

__all__ = [
    "NEARLY_BLANK",
    "Change",
    "Look",
    "Run",
    "Side",
    "Stretch",
    "aligned",
    "compare",
    "look_at",
    "words_changed",
]
