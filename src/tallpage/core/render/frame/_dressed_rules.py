"""The rules of a place as they hold for the picture inside a dressing."""

from __future__ import annotations

from dataclasses import replace

from tallpage.core.dressing import Dressing, caption_height_px, insets_of
from tallpage.core.errors import FitError
from tallpage.core.geometry import Size
from tallpage.core.render._rules import RenderRules
from tallpage.core.sizing import Sizing, plan_size

_ROUNDS = 6
"""A caption's lines and a picture's width settle after a few, where the height is given."""


def rules_inside(rules: RenderRules, dressing: Dressing, frame: Size) -> RenderRules:
    """The rules for what a dressing goes around: the file, dressing included, is as the place asks.

    A share of the cut's own size is that of the picture; the dressing comes on top of it.

    Raises:
        FitError: the dressing takes all the room that there is.
    """
    sizing = _inside(rules.sizing, dressing, frame)
    greatest_px = rules.greatest_height_px
    if greatest_px is not None:
        width_px = plan_size(frame, sizing).canvas.width_px
        greatest_px -= insets_of(dressing).down_px + caption_height_px(dressing, width_px)
        _require("height", greatest_px, rules.greatest_height_px or 0)
    return replace(rules, sizing=sizing, greatest_height_px=greatest_px)


def _inside(sizing: Sizing, dressing: Dressing, frame: Size) -> Sizing:
    insets = insets_of(dressing)
    width_px, height_px = sizing.width_px - insets.across_px, sizing.height_px - insets.down_px
    match sizing.way:
        case "share":
            return sizing
        case "width":
            _require("width", width_px, sizing.width_px)
            return replace(sizing, width_px=width_px)
        case "height":
            return _inside_height(sizing, dressing, frame, height_px)
        case _:
            _require("width", width_px, sizing.width_px)
            height_px -= caption_height_px(dressing, width_px)
            _require("height", height_px, sizing.height_px)
            return replace(sizing, width_px=width_px, height_px=height_px)


def _inside_height(sizing: Sizing, dressing: Dressing, frame: Size, room_px: int) -> Sizing:
    """The height left beside a caption, whose own height depends on how wide the picture becomes."""
    height_px = room_px
    for _ in range(_ROUNDS):
        _require("height", height_px, sizing.height_px)
        width_px = plan_size(frame, replace(sizing, height_px=height_px)).picture.width_px
        height_px = room_px - caption_height_px(dressing, width_px)
    _require("height", height_px, sizing.height_px)
    return replace(sizing, height_px=height_px)


def _require(side: str, left_px: int, whole_px: int) -> None:
    if left_px < 1:
        raise FitError(
            f"The dressing takes {whole_px - left_px:,} px of the {side}, which is {whole_px:,} px in all.",
            hint="Give it less room, or the file more.",
            code="dressing_too_large",
        )
