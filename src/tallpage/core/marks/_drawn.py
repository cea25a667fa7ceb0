"""What a mark looks like: shapes in px, for the screen and for a file alike."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tallpage.core.paths import Extent, Path

Blend = Literal["over", "multiply", "blur"]
"""How a mark meets what lies below: covers it, darkens it as ink does, or blurs it."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Shape:
    """An outline, filled, stroked, or both: the stroke lies over the filling. Colours: ``#rrggbb[aa]``."""

    path: Path
    fill: str | None = None
    stroke: str | None = None
    stroke_px: float = 0.0
    dashes: tuple[float, ...] = ()
    """Lengths of dash and gap, in px."""
    even_odd: bool = False
    """Whether an outline inside another is a hole."""

    def extent(self) -> Extent:
        """Where it is drawn, half of its stroke included."""
        return self.path.extent().grown(self.stroke_px / 2 if self.stroke else 0.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class PlacedPicture:
    """A picture of the cut's own, brought to a rectangle and turned about its middle."""

    name: str
    box: Extent
    angle_deg: float

    def extent(self) -> Extent:
        """Where it is drawn."""
        return Path.rectangle(self.box).turned(self.angle_deg, self.box.middle).extent()


@dataclass(frozen=True, slots=True, kw_only=True)
class DrawnMark:
    """A mark as it is drawn: ``parts`` lie one over the other; the opacity is that of all together."""

    id: str
    parts: tuple[Shape | PlacedPicture, ...]
    opacity: float = 1.0
    blend: Blend = "over"
    blur_px: float = 0.0
    """Standard deviation, where it blurs."""
    held: Extent | None = None
    """The rectangle by which a person holds it; None where that is where it is drawn."""
    missing: tuple[str, ...] = ()
    """Characters of it that no font has."""

    def extent(self) -> Extent | None:
        """Where it is drawn; None when there is nothing to be drawn."""
        extents = [
            part.extent() for part in self.parts if isinstance(part, PlacedPicture) or not part.path.is_empty
        ]
        return Extent.around(extents) if extents else None
