"""Areas of a page whose pixels are not shown."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from tallpage.core.fields import HexColour, StrictModel, WholeLength, WholePlace
from tallpage.core.geometry import Box

MOST_HIDDEN = 2_000

How = Literal["solid", "pixelate", "blur", "patch"]


class HiddenArea(StrictModel):
    """A rectangle of the page, in px of the page, whose pixels are in no file.

    ``solid`` puts a colour over it and ``patch`` what surrounds it; ``pixelate`` and ``blur`` leave a
    trace of what was there, too coarse to be read.
    """

    id: Annotated[str, Field(pattern=r"^[A-Za-z0-9_-]{0,40}$")] = ""
    how: How = "solid"
    x_px: WholePlace
    y_px: WholePlace
    width_px: WholeLength
    height_px: WholeLength
    colour: HexColour = "#1D2B2A"
    """Of a solid area; nothing shows through it."""
    strength_px: Annotated[int, Field(strict=True, ge=2, le=400)] | None = None
    """Size of the squares, or twice the blur's standard deviation; None is what the letters below ask for."""

    @property
    def box(self) -> Box:
        """The rectangle."""
        return Box(x_px=self.x_px, y_px=self.y_px, width_px=self.width_px, height_px=self.height_px)
