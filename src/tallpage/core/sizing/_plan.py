"""From a frame and a place's wishes to pixels. Deciding is pure; :func:`sized` carries it out."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from tallpage.core.geometry import Box, Size, round_half_up
from tallpage.core.picture import Colour, Raster
from tallpage.core.sizing._rules import Anchor, Sizing


@dataclass(frozen=True, slots=True, kw_only=True)
class SizePlan:
    """What of a frame is shown, how large, and where on the file."""

    shown: Box
    """In px of the frame."""
    picture: Box
    """Where that stands on the file, and how large."""
    canvas: Size
    """Width and height of the file."""
    kept_small: bool
    """Whether the place wanted more pixels than there are."""


def plan_size(frame: Size, sizing: Sizing) -> SizePlan:
    """How a frame of a size comes to what ``sizing`` asks for."""
    if sizing.way == "fill":
        return _filled(frame, sizing)
    if sizing.way == "pad":
        return _padded(frame, sizing)
    match sizing.way:
        case "height":
            scale = Fraction(sizing.height_px, frame.height_px)
        case "share":
            scale = Fraction(sizing.percent, 100)
        case _:
            scale = Fraction(sizing.width_px, frame.width_px)
    enlarges = sizing.enlarge or sizing.way == "share"
    size = _scaled(frame, scale if enlarges else min(scale, Fraction(1)))
    return SizePlan(
        shown=Box.whole(frame), picture=Box.whole(size), canvas=size, kept_small=scale > 1 and not enlarges
    )


def sized(raster: Raster, plan: SizePlan, *, background: Colour) -> Raster:
    """The pixels of a plan, out of what the frame shows; ``background`` is what padding is filled with."""
    shown = raster if plan.shown.size == raster.size else raster.cropped(plan.shown)
    return shown.resized(plan.picture.size).on_canvas(plan.canvas, plan.picture, background)


def _filled(frame: Size, sizing: Sizing) -> SizePlan:
    """The largest piece of the wanted shape, as large as it may become."""
    shape = Fraction(sizing.width_px, sizing.height_px)
    if Fraction(frame.width_px, frame.height_px) > shape:
        width_px = max(1, round(frame.height_px * shape))
        shown = Box(
            x_px=_begin(frame.width_px - width_px, sizing.anchor),
            y_px=0,
            width_px=width_px,
            height_px=frame.height_px,
        )
    else:
        height_px = min(frame.height_px, max(1, round(frame.width_px / shape)))
        shown = Box(
            x_px=0,
            y_px=_begin(frame.height_px - height_px, sizing.anchor),
            width_px=frame.width_px,
            height_px=height_px,
        )
    wanted = Size(width_px=sizing.width_px, height_px=sizing.height_px)
    too_small = shown.width_px < wanted.width_px or shown.height_px < wanted.height_px
    kept_small = too_small and not sizing.enlarge
    size = shown.size if kept_small else wanted
    return SizePlan(shown=shown, picture=Box.whole(size), canvas=size, kept_small=kept_small)


def _padded(frame: Size, sizing: Sizing) -> SizePlan:
    """All of the frame, in the middle of a file of the wanted size."""
    canvas = Size(width_px=sizing.width_px, height_px=sizing.height_px)
    scale = min(Fraction(canvas.width_px, frame.width_px), Fraction(canvas.height_px, frame.height_px))
    size = _scaled(frame, scale if sizing.enlarge else min(scale, Fraction(1)))
    picture = Box(
        x_px=(canvas.width_px - size.width_px) // 2,
        y_px=(canvas.height_px - size.height_px) // 2,
        width_px=size.width_px,
        height_px=size.height_px,
    )
    return SizePlan(
        shown=Box.whole(frame), picture=picture, canvas=canvas, kept_small=scale > 1 and not sizing.enlarge
    )


def _scaled(frame: Size, scale: Fraction) -> Size:
    """Both sides at a scale, rounded, never below 1 px."""
    width_px = max(1, round_half_up(frame.width_px * scale.numerator, scale.denominator))
    height_px = max(1, round_half_up(frame.height_px * scale.numerator, scale.denominator))
    return Size(width_px=width_px, height_px=height_px)


def _begin(spare_px: int, anchor: Anchor) -> int:
    """Where the shown part begins, when so many px are not shown."""
    return {"start": 0, "middle": spare_px // 2, "end": spare_px}[anchor]
