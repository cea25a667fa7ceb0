"""Dividing what is too tall for its place, at natural gaps."""

from tallpage.core.leaves._calm import edge_density
from tallpage.core.leaves._dividing import MOST_LEAVES, divide, leaf_rows, require_breaks, require_overlap
from tallpage.core.leaves._gaps import Gap, gaps_of
from tallpage.core.leaves._numbering import NUMBER_LINE_PX, with_number

__all__ = [
    "MOST_LEAVES",
    "NUMBER_LINE_PX",
    "Gap",
    "divide",
    "edge_density",
    "gaps_of",
    "leaf_rows",
    "require_breaks",
    "require_overlap",
    "with_number",
]
