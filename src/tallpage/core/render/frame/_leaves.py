"""Which rows of a frame each file shows: all, or its leaf's."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

from tallpage.core.cut import Frame
from tallpage.core.geometry import Box, Size
from tallpage.core.leaves import NUMBER_LINE_PX, divide, edge_density, gaps_of, leaf_rows, require_breaks
from tallpage.core.page_map import Block
from tallpage.core.picture import Raster
from tallpage.core.render._rules import RenderRules
from tallpage.core.sizing import plan_size


@dataclass(frozen=True, slots=True, kw_only=True)
class Leaf:
    """One file's share of a frame, in rows of the frame, and its place among the others from 1."""

    width_px: int
    top_px: int
    height_px: int
    number: int = 1
    count: int = 1

    @property
    def size(self) -> Size:
        """What it shows, at the page's own size."""
        return Size(width_px=self.width_px, height_px=self.height_px)

    @property
    def box(self) -> Box:
        """Its rows of the frame."""
        return Box(x_px=0, y_px=self.top_px, width_px=self.width_px, height_px=self.height_px)


def leaves_of(
    frame: Frame,
    rules: RenderRules,
    *,
    rows: Callable[[int, int], Raster],
    blocks: Callable[[], tuple[Block, ...]],
) -> list[Leaf]:
    """The frame whole, or its leaves: as divided by hand, as asked for, or as the place needs it.

    ``rows(top_px, height_px)`` gives rows of the frame, ``blocks`` what stands on the page; both are only
    asked where gaps have to be found.

    Raises:
        FitError: it cannot be divided so.
    """
    plan = plan_size(frame.size, rules.sizing)
    overlap_px = rules.overlap_px * frame.size.width_px // plan.picture.width_px
    breaks: tuple[int, ...] = ()
    if rules.sizing.divisible:
        breaks = _breaks(frame, rules, overlap_px, rows, blocks)
    found = leaf_rows(frame.size.height_px, breaks, overlap_px=overlap_px)
    return [
        Leaf(
            width_px=frame.size.width_px,
            top_px=top_px,
            height_px=height_px,
            number=number,
            count=len(found),
        )
        for number, (top_px, height_px) in enumerate(found, start=1)
    ]


def _breaks(
    frame: Frame,
    rules: RenderRules,
    overlap_px: int,
    rows: Callable[[int, int], Raster],
    blocks: Callable[[], tuple[Block, ...]],
) -> tuple[int, ...]:
    """Where the frame is divided, in rows of the frame."""
    height_px = frame.size.height_px
    if rules.breaks:
        shown = {frame.row_of(frame.box.y_px + y_px) for y_px in rules.breaks} - {0, height_px}
        return require_breaks(sorted(shown), height_px)
    greatest_px = _greatest_px(rules, frame.size, overlap_px)
    if rules.leaf_count is None and (greatest_px is None or height_px <= greatest_px):
        return ()
    gaps = gaps_of(edge_density(rows, height_px), list(_in_rows(frame, blocks())), top_px=0)
    return divide(height_px, gaps, greatest_px=greatest_px, count=rules.leaf_count)


def _in_rows(frame: Frame, blocks: tuple[Block, ...]) -> Iterator[Block]:
    """The blocks that are shown, in rows of the frame. Those beside its columns count as well."""
    for block in blocks:
        top_px, bottom_px = frame.row_of(block.box.y_px), frame.row_of(block.box.bottom_px)
        if bottom_px > top_px:
            yield replace(block, box=replace(block.box, y_px=top_px, height_px=bottom_px - top_px))


def _greatest_px(rules: RenderRules, size: Size, overlap_px: int) -> int | None:
    """How many rows of the frame a leaf may bring that are new."""
    if rules.greatest_height_px is None:
        return None
    width_px = plan_size(size, rules.sizing).picture.width_px
    whole_px = max(1, rules.greatest_height_px * size.width_px // width_px)
    if size.height_px <= whole_px:
        return whole_px
    room_px = rules.greatest_height_px - (NUMBER_LINE_PX if rules.numbered else 0)
    return max(1, room_px * size.width_px // width_px - overlap_px)
