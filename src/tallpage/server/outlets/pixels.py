"""What the files of an output show: which rows of the frame, brought to their size."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

from tallpage.core.capture import Block, PageMap
from tallpage.core.fit import FitOrder, seen_by
from tallpage.core.frames import Frame
from tallpage.core.geometry import Size
from tallpage.core.leaves import (
    NUMBER_LINE_PX,
    busyness,
    divide,
    gaps_of,
    leaf_rows,
    require_breaks,
    with_number,
)
from tallpage.core.picture import Access, Raster, open_frame
from tallpage.core.sizing import plan_size, sized
from tallpage.server.outlets.models import Output
from tallpage.server.shelf.models import Capture


@dataclass(frozen=True, slots=True, kw_only=True)
class Piece:
    """One file's share of a frame, in rows of the frame, and its place among the others from 1."""

    frame: Frame
    top_px: int
    height_px: int
    number: int = 1
    count: int = 1

    @property
    def size(self) -> Size:
        """What it shows, at the page's own size."""
        return Size(width_px=self.frame.box.width_px, height_px=self.height_px)


def pieces_of(output: Output, capture: Capture, order: FitOrder, frame: Frame) -> list[Piece]:
    """The frame whole, or its leaves: as divided by hand, as asked for, or as the place needs it.

    Raises:
        FitError: it cannot be divided so.
    """
    plan = plan_size(frame.size, order.sizing)
    overlap_px = output.overlap_px * frame.size.width_px // plan.picture.width_px
    breaks = _breaks(output, capture, order, frame, overlap_px) if order.sizing.divisible else ()
    rows = leaf_rows(frame.size.height_px, breaks, overlap_px=overlap_px)
    return [
        Piece(frame=frame, top_px=top_px, height_px=height_px, number=number, count=len(rows))
        for number, (top_px, height_px) in enumerate(rows, start=1)
    ]


def open_piece(
    output: Output, capture: Capture, order: FitOrder, piece: Piece, *, access: Access = "sequential"
) -> Raster:
    """The pixels that a piece's file is made from."""
    plan = plan_size(piece.size, order.sizing)
    shown = plan.shown
    raster = _rows(
        capture,
        piece.frame,
        piece.top_px + shown.y_px,
        shown.height_px,
        columns=(shown.x_px, shown.width_px),
        access=access,
    )
    raster = sized(raster, plan, background=order.background)
    if output.numbered and piece.count > 1:
        raster = with_number(raster, piece.number, piece.count, background=order.background)
    return seen_by(order, raster)


def _rows(
    capture: Capture,
    frame: Frame,
    top_px: int,
    height_px: int,
    *,
    columns: tuple[int, int] | None = None,
    access: Access = "sequential",
) -> Raster:
    """Rows of a frame at their own size: what lies between its folds, one under the other."""
    left_px, width_px = columns or (0, frame.box.width_px)
    boxes = [
        replace(box, x_px=box.x_px + left_px, width_px=width_px) for box in frame.parts(top_px, height_px)
    ]
    manifest = capture.manifest()
    return Raster.stacked([open_frame(capture.folder, manifest, box, access=access) for box in boxes])


def _breaks(
    output: Output, capture: Capture, order: FitOrder, frame: Frame, overlap_px: int
) -> tuple[int, ...]:
    """Where the frame is divided, in rows of the frame."""
    height_px = frame.size.height_px
    if output.breaks:
        rows = {frame.row_of(frame.box.y_px + y_px) for y_px in output.breaks} - {0, height_px}
        return require_breaks(sorted(rows), height_px)
    greatest_px = _greatest_px(output, order, frame.size, overlap_px)
    if output.leaf_count is None and (greatest_px is None or height_px <= greatest_px):
        return ()

    def part(top_px: int, part_px: int) -> Raster:
        return _rows(capture, frame, top_px, part_px)

    blocks = list(_in_rows(frame, PageMap.load_if_readable(capture.folder).blocks))
    gaps = gaps_of(busyness(part, height_px), blocks, top_px=0)
    return divide(height_px, gaps, greatest_px=greatest_px, count=output.leaf_count)


def _in_rows(frame: Frame, blocks: tuple[Block, ...]) -> Iterator[Block]:
    """The blocks that are shown, where they are in the frame's rows."""
    for block in blocks:
        top_px, bottom_px = frame.row_of(block.box.y_px), frame.row_of(block.box.bottom_px)
        if bottom_px > top_px:
            yield replace(block, box=replace(block.box, y_px=top_px, height_px=bottom_px - top_px))


def _greatest_px(output: Output, order: FitOrder, size: Size, overlap_px: int) -> int | None:
    """How many rows of the frame a leaf may bring that are new."""
    if order.greatest_height_px is None:
        return None
    width_px = plan_size(size, order.sizing).picture.width_px
    whole_px = max(1, order.greatest_height_px * size.width_px // width_px)
    if size.height_px <= whole_px:
        return whole_px
    room_px = order.greatest_height_px - (NUMBER_LINE_PX if output.numbered else 0)
    return max(1, room_px * size.width_px // width_px - overlap_px)
