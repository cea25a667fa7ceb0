"""Free outlines: what lies inside is kept."""

from tallpage.core.outlining._outline import MOST_POINTS, FreeOutline

__all__ = ["MOST_POINTS", "FreeOutline"]
