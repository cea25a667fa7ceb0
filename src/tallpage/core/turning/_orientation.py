"""The orientation of a page, as a value."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from tallpage.core.fields import HexColour, StrictModel

Corners = Literal["filled", "cropped"]


class Orientation(StrictModel):
    """How a page lies: first it is mirrored, then turned by quarters, then by an angle about its middle."""

    mirror: bool = False
    """Left becomes right."""
    turn_deg: Literal[0, 90, 180, 270] = 0
    """Clockwise."""
    angle_deg: Annotated[float, Field(ge=-180, le=180, allow_inf_nan=False)] = 0.0
    """Clockwise, besides the quarters."""
    corners: Corners = "filled"
    """What becomes of the corners that an angle leaves empty: they are filled, and the page grows; or they
    are cropped, and it shrinks."""
    colour: HexColour = "#ffffff"
    """What fills them; with two more digits for how far it shows through."""

    @property
    def is_upright(self) -> bool:
        """Whether it changes nothing."""
        return not self.mirror and self.turn_deg == 0 and self.angle_deg == 0
