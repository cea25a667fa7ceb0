"""What a fold looks like in a file."""

from __future__ import annotations

from typing import Literal

from tallpage.core.fields import HexColour, StrictModel

SeamLook = Literal["hairline", "torn"]


class Seam(StrictModel):
    """Says that something was left out: a thin line where the two sides meet, or torn edges."""

    look: SeamLook
    colour: HexColour | None = None
    """Of the line, or of the ground between the torn edges; without one, grey or white."""
