"""What the files of an output show: which pieces of the page, brought to their size."""

from __future__ import annotations

from dataclasses import dataclass, replace

from tallpage.core.capture import PageMap
from tallpage.core.fit import FitOrder, seen_by
from tallpage.core.geometry import Box
from tallpage.core.leaves import (
    NUMBER_LINE_PX,
    busyness,
    divide,
    gaps_of,
    leaf_frames,
    require_breaks,
    with_number,
)
from tallpage.core.picture import Access, Raster, open_frame
from tallpage.core.sizing import plan_size, sized
from tallpage.server.outlets.models import Output
from tallpage.server.shelf.models import Capture


@dataclass(frozen=True, slots=True, kw_only=True)
class Piece:
    """One file's share of a frame, in page px, and its place among the others, counted from 1."""

    box: Box
    number: int = 1
    count: int = 1


def pieces_of(output: Output, capture: Capture, order: FitOrder, frame: Box) -> list[Piece]:
    """The frame whole, or its leaves: as divided by hand, as asked for, or as the place needs it.

    Raises:
        FitError: it cannot be divided so.
    """
    plan = plan_size(frame.size, order.sizing)
    overlap_px = output.overlap_px * frame.width_px // plan.picture.width_px
    breaks = _breaks(output, capture, order, frame, overlap_px) if order.sizing.divisible else ()
    boxes = leaf_frames(frame, breaks, overlap_px=overlap_px)
    return [Piece(box=box, number=number, count=len(boxes)) for number, box in enumerate(boxes, start=1)]


def open_piece(
    output: Output, capture: Capture, order: FitOrder, piece: Piece, *, access: Access = "sequential"
) -> Raster:
    """The pixels that a piece's file is made from."""
    plan = plan_size(piece.box.size, order.sizing)
    shown = on_page(plan.shown, piece.box)
    raster = open_frame(capture.folder, capture.manifest(), shown, access=access)
    raster = sized(raster, plan, background=order.background)
    if output.numbered and piece.count > 1:
        raster = with_number(raster, piece.number, piece.count, background=order.background)
    return seen_by(order, raster)


def on_page(within: Box, frame: Box) -> Box:
    """A box of a frame as a box of the page."""
    return replace(within, x_px=frame.x_px + within.x_px, y_px=frame.y_px + within.y_px)


def _breaks(
    output: Output, capture: Capture, order: FitOrder, frame: Box, overlap_px: int
) -> tuple[int, ...]:
    """Where the frame is divided, in px from its top."""
    if output.breaks:
        return require_breaks(output.breaks, frame.height_px)
    greatest_px = _greatest_px(output, order, frame, overlap_px)
    if output.leaf_count is None and (greatest_px is None or frame.height_px <= greatest_px):
        return ()
    folder, manifest = capture.folder, capture.manifest()

    def part(top_px: int, height_px: int) -> Raster:
        box = replace(frame, y_px=frame.y_px + top_px, height_px=height_px)
        return open_frame(folder, manifest, box)

    gaps = gaps_of(busyness(part, frame.height_px), PageMap.load(folder).blocks, top_px=frame.y_px)
    return divide(frame.height_px, gaps, greatest_px=greatest_px, count=output.leaf_count)


def _greatest_px(output: Output, order: FitOrder, frame: Box, overlap_px: int) -> int | None:
    """How many rows of the frame a leaf may bring that are new."""
    if order.greatest_height_px is None:
        return None
    width_px = plan_size(frame.size, order.sizing).picture.width_px
    whole_px = max(1, order.greatest_height_px * frame.width_px // width_px)
    if frame.height_px <= whole_px:
        return whole_px
    room_px = order.greatest_height_px - (NUMBER_LINE_PX if output.numbered else 0)
    return max(1, room_px * frame.width_px // width_px - overlap_px)
