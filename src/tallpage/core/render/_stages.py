"""The stages between a page and a file, each with where its places were before, and come to lie.

``back`` and ``there`` take a box of what comes out of a stage, or goes in, and give the boxes that it
comes from, or goes to: several where a fold lies between, none where nothing of it is shown.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from tallpage.core.cut import Frame
from tallpage.core.geometry import Box
from tallpage.core.leaves import with_number
from tallpage.core.picture import Colour, Raster
from tallpage.core.sizing import SizePlan, sized


@dataclass(frozen=True, slots=True)
class FrameStage:
    """The page -> what its frame shows, folds closed."""

    frame: Frame

    def draw(self, parts: Sequence[Sequence[Raster]]) -> Raster:
        """What lies between the folds, side by side and one under the other."""
        return Raster.stacked([Raster.side_by_side(row) for row in parts])

    def back(self, box: Box) -> tuple[Box, ...]:
        """From rows and columns of the frame to boxes of the page, row by row."""
        return tuple(part for row in self.rows_back(box) for part in row)

    def rows_back(self, box: Box) -> tuple[tuple[Box, ...], ...]:
        """From a box of the frame to those of the page, in rows from top to bottom."""
        columns = self.frame.columns(box.x_px, box.width_px)
        return tuple(
            tuple(replace(row, x_px=column.x_px, width_px=column.width_px) for column in columns)
            for row in self.frame.parts(box.y_px, box.height_px)
        )

    def there(self, box: Box) -> tuple[Box, ...]:
        """From a box of the page to the frame's rows and columns; what is folded takes no room."""
        left_px, right_px = self.frame.column_of(box.x_px), self.frame.column_of(box.right_px)
        top_px, bottom_px = self.frame.row_of(box.y_px), self.frame.row_of(box.bottom_px)
        if right_px <= left_px or bottom_px <= top_px:
            return ()
        return (
            Box(
                x_px=left_px,
                y_px=top_px,
                width_px=right_px - left_px,
                height_px=bottom_px - top_px,
            ),
        )


@dataclass(frozen=True, slots=True)
class SizeStage:
    """What a frame or leaf shows -> the file's size."""

    plan: SizePlan
    background: Colour

    def draw(self, raster: Raster) -> Raster:
        """Shown in part, resized, with room around, as planned; ``raster`` is what is shown."""
        return sized(raster, self.plan, background=self.background)

    def back(self, box: Box) -> tuple[Box, ...]:
        """From the file to what went in; nothing of the room around it."""
        return _scaled(box, self.plan.picture, self.plan.shown)

    def there(self, box: Box) -> tuple[Box, ...]:
        """From what went in to the file; nothing of what is cut off."""
        return _scaled(box, self.plan.shown, self.plan.picture)


@dataclass(frozen=True, slots=True)
class NumberStage:
    """A leaf -> the leaf with a line below that says which of how many it is. Nothing else moves."""

    number: int
    count: int
    background: Colour

    def draw(self, raster: Raster) -> Raster:
        """With the line below."""
        return with_number(raster, self.number, self.count, background=self.background)


@dataclass(frozen=True, slots=True)
class GroundStage:
    """Pixels that show through -> pixels on a ground, for places that take none that do."""

    background: Colour

    def draw(self, raster: Raster) -> Raster:
        """Over the ground."""
        return raster.flattened(self.background) if raster.has_alpha else raster


def _scaled(box: Box, before: Box, after: Box) -> tuple[Box, ...]:
    """A box of ``before`` where it lies in ``after``, which shows the same at another size."""
    across = _side(box.x_px, box.right_px, (before.x_px, before.right_px), (after.x_px, after.right_px))
    down = _side(box.y_px, box.bottom_px, (before.y_px, before.bottom_px), (after.y_px, after.bottom_px))
    if across is None or down is None:
        return ()
    return (Box(x_px=across[0], y_px=down[0], width_px=across[1] - across[0], height_px=down[1] - down[0]),)


def _side(first: int, end: int, before: tuple[int, int], after: tuple[int, int]) -> tuple[int, int] | None:
    """A stretch on another scale, as far as it lies on it; rounded, and never empty."""
    first, end = max(first, before[0]), min(end, before[1])
    if end <= first:
        return None
    scale = (after[1] - after[0]) / (before[1] - before[0])
    low, high = (after[0] + round((place - before[0]) * scale) for place in (first, end))
    low = min(low, after[1] - 1)
    return low, max(high, low + 1)
