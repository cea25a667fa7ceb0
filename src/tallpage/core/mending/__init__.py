"""What may have stood where something is taken away: told from what stands around it."""

from tallpage.core.mending._mending import MOST_MENDED_PX, REACH_PX, mended

__all__ = ["MOST_MENDED_PX", "REACH_PX", "mended"]
