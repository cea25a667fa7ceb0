"""The rules of a place about width and height."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tallpage.core.errors import FitError

Way = Literal["width", "height", "fill", "pad", "share"]
"""A width, the height follows; a height, the width follows; exactly so large, with what stands over
cut off (fill) or with room left around (pad); or a share of the cut's own size."""
Anchor = Literal["start", "middle", "end"]
"""Which part stays when something is cut off: the upper or left one, the middle, the lower or right."""

GREATEST_SIDE_PX = 16_000
GREATEST_PERCENT = 400


@dataclass(frozen=True, slots=True, kw_only=True)
class Sizing:
    """How large a file is to be. Only what its ``way`` needs counts; the rest may be 0.

    Nothing is enlarged unless ``enlarge`` says so: a cut that is smaller than the place stays as it
    is. A share above 100 % asks for it by itself.
    """

    way: Way = "width"
    width_px: int = 0
    height_px: int = 0
    percent: int = 0
    anchor: Anchor = "start"
    enlarge: bool = False

    def __post_init__(self) -> None:
        if self.way in ("width", "fill", "pad"):
            _require("width", self.width_px, "px", GREATEST_SIDE_PX)
        if self.way in ("height", "fill", "pad"):
            _require("height", self.height_px, "px", GREATEST_SIDE_PX)
        if self.way == "share":
            _require("share", self.percent, "%", GREATEST_PERCENT)

    def __str__(self) -> str:
        """In words, like “720 px” or “600 × 400 px, filled”."""
        match self.way:
            case "width":
                return f"{self.width_px:,} px"
            case "height":
                return f"{self.height_px:,} px high"
            case "share":
                return f"{self.percent} %"
        done = "filled" if self.way == "fill" else "padded"
        return f"{self.width_px:,} × {self.height_px:,} px, {done}"

    def require_divisible(self) -> None:
        """Refuse to divide a file whose height is fixed.

        Raises:
            FitError: it is.
        """
        if not self.divisible:
            raise FitError(
                f"A file of {self} is not divided: its height is fixed.",
                hint="Size it by width to divide it.",
                code="leaves_impossible",
            )

    @property
    def divisible(self) -> bool:
        """Whether pieces of a cut can be sized each by itself: the height is not fixed."""
        return self.way in ("width", "share")


def _require(what: str, value: int, unit: str, greatest: int) -> None:
    if 1 <= value <= greatest:
        return
    raise FitError(
        f"A {what} of {value:,} {unit} cannot be made.",
        hint=f"Give a {what} from 1 to {greatest:,} {unit}.",
        code=f"{what}_impossible",
    )
