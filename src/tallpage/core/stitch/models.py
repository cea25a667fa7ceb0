"""How several views of one tall thing lie on it, and what is missing between them."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tallpage.core.geometry import Box

Doubt = Literal["nothing_shared", "repeats", "blank", "contradicts"]
"""Why a view could not be placed: it shares nothing with another; it shares rows that stand there more
than once; it shares only what is blank; it fits in two places that exclude one another."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Bars:
    """What stands still in the window while the rest moves: px from each edge that hold it."""

    top_px: int = 0
    bottom_px: int = 0
    left_px: int = 0
    right_px: int = 0


@dataclass(frozen=True, slots=True, kw_only=True)
class Stretch:
    """Rows of the tall picture that come from one view.

    Row ``y`` of the picture is row ``y - view_top_px`` of the view. The stretch begins at a seam, which
    may lie anywhere from ``least_px`` to ``most_px``: there the view above and this one show the same.
    The first stretch begins at 0.
    """

    view: int
    view_top_px: int
    top_px: int
    bottom_px: int
    least_px: int
    most_px: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Gap:
    """Where pieces are missing: below one view and above another, by their numbers from 0."""

    below: int
    above: int
    doubt: Doubt


@dataclass(frozen=True, slots=True, kw_only=True)
class Join:
    """Where every view lies, and what of it is shown; or where pieces are missing.

    ``tops_px`` is where the first row of each view lies, in the picture of its run: views of one run hang
    together. There is one run, and no gap, when everything was found; only then are there stretches.
    """

    width_px: int
    height_px: int
    order: tuple[int, ...]
    """The views from top to bottom, run after run."""
    tops_px: tuple[int, ...]
    gaps: tuple[Gap, ...]
    stretches: tuple[Stretch, ...]
    bars: Bars
    floating: tuple[Box, ...]
    """What stands still in the window away from its edges, in px of a view."""
    heights_px: tuple[int, ...]
    """Rows of each view."""

    @property
    def is_whole(self) -> bool:
        """Whether nothing is missing."""
        return not self.gaps
