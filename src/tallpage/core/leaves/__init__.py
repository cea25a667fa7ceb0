"""Dividing what is too tall for its place, at natural gaps."""

from tallpage.core.leaves._calm import busyness
from tallpage.core.leaves._dividing import MOST_LEAVES, divide, leaf_frames, require_breaks
from tallpage.core.leaves._gaps import Gap, gaps_of

__all__ = [
    "MOST_LEAVES",
    "Gap",
    "busyness",
    "divide",
    "gaps_of",
    "leaf_frames",
    "require_breaks",
]
