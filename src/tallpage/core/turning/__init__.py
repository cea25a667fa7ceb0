"""How a page is turned before anything else is done to it."""

from tallpage.core.turning._orientation import Orientation
from tallpage.core.turning._straightening import edge_colour, find_angle
from tallpage.core.turning._turned import TurnedPage

__all__ = ["Orientation", "TurnedPage", "edge_colour", "find_angle"]
