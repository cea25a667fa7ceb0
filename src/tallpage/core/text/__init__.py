"""Text as outlines, from the fonts that ship: the same on every machine, on the screen and in a file."""

from tallpage.core.text._fonts import FONTS_FOLDER, Weight
from tallpage.core.text._layout import Align, LaidText, lay_out

__all__ = ["FONTS_FOLDER", "Align", "LaidText", "Weight", "lay_out"]
