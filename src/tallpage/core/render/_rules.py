"""What a place asks of the pixels: how large, on which ground, in how many leaves."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict, dataclass
from typing import Any, Self

from tallpage.core.errors import FitError
from tallpage.core.leaves import MOST_LEAVES, require_overlap
from tallpage.core.picture import WHITE, Colour
from tallpage.core.sizing import SizePlan, Sizing

LEAST_LETTERS_PX = 9
"""Size of a mark's letters (1 em), in px of a file, below which they are hard to read."""


@dataclass(frozen=True, slots=True, kw_only=True)
class RenderRules:
    """The rules of a place about pixels, and what a person decided about leaves.

    Raises:
        FitError: leaves that cannot be made.
    """

    sizing: Sizing
    background: Colour = WHITE
    """Shown around a padded picture, and behind a transparent one that is ``flattened``."""
    flattened: bool = False
    """Whether the place takes no transparency."""
    greatest_height_px: int | None = None
    """Greatest height of a file; None where the place has no such limit."""
    overlap_px: int = 0
    """Rows of a file that each leaf repeats of the one above."""
    numbered: bool = False
    """Whether each leaf says which of how many it is."""
    leaf_count: int | None = None
    """Asked for by hand."""
    breaks: tuple[int, ...] = ()
    """Set by hand, in page px from the top of the frame's box."""
    legible_marks: bool = False
    """Whether marks whose letters would become too small to be read are drawn larger."""

    def __post_init__(self) -> None:
        require_overlap(self.overlap_px, self.greatest_height_px)
        if self.leaf_count is not None and not 1 <= self.leaf_count <= MOST_LEAVES:
            raise FitError(
                f"{self.leaf_count} leaves cannot be made.",
                hint=f"Give a number from 1 to {MOST_LEAVES}.",
                code="leaves_too_many",
            )

    def as_json(self) -> dict[str, Any]:
        """Plain types, always in the same order. What came later is named only where it is asked for."""
        said = asdict(self)
        if not self.legible_marks:
            del said["legible_marks"]
        return said

    @classmethod
    def from_json(cls, data: Mapping[str, Any]) -> Self:
        """Rules as :meth:`as_json` gave them, also after a way through JSON."""
        lists = {name: tuple(data[name]) for name in ("background", "breaks")}
        return cls(**{**data, **lists, "sizing": Sizing(**data["sizing"])})

    def require_height(self, plan: SizePlan) -> None:
        """Refuse a file that is higher than the place takes.

        Raises:
            FitError: it is.
        """
        height_px = plan.canvas.height_px
        if self.greatest_height_px is None or height_px <= self.greatest_height_px:
            return
        page_px = self.greatest_height_px * plan.shown.height_px // plan.picture.height_px
        raise FitError(
            f"At {plan.canvas.width_px:,} px wide this cut is {height_px:,} px high; "
            f"the place takes at most {self.greatest_height_px:,} px.",
            hint=f"Cut a stretch of at most {page_px:,} px of the page.",
            code="output_too_high",
        )
