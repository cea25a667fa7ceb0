"""What became of a page between two takes of it."""

from tallpage.core.changes._aligning import Run, aligned
from tallpage.core.changes._comparing import Change, Side, Stretch, compare, words_changed
from tallpage.core.changes._fingerprint import NEARLY_BLANK, Fingerprint, fingerprint_of

__all__ = [
    "NEARLY_BLANK",
    "Change",
    "Fingerprint",
    "Run",
    "Side",
    "Stretch",
    "aligned",
    "compare",
    "fingerprint_of",
    "words_changed",
]
