"""How many pixels a place wants: what of a cut is shown, how large, on how large a file."""

from tallpage.core.sizing._plan import SizePlan, plan_size, sized
from tallpage.core.sizing._rules import GREATEST_SIDE_PX, Anchor, Sizing, Way

__all__ = ["GREATEST_SIDE_PX", "Anchor", "SizePlan", "Sizing", "Way", "plan_size", "sized"]
