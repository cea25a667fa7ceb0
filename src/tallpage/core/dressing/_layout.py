"""How much room a dressing takes around a picture, and where its parts stand. In px of the file."""

from __future__ import annotations

import math
from dataclasses import dataclass

from tallpage.core.dressing._models import Caption, Dressing
from tallpage.core.geometry import Box, Size
from tallpage.core.text import LaidText, lay_out

_GAP = 0.6
"""Between picture and caption, in sizes of its letters."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Insets:
    """Px of the file between the picture and each edge."""

    top_px: int
    right_px: int
    bottom_px: int
    left_px: int

    @property
    def across_px(self) -> int:
        """What is taken of the width."""
        return self.left_px + self.right_px

    @property
    def down_px(self) -> int:
        """What is taken of the height."""
        return self.top_px + self.bottom_px


@dataclass(frozen=True, slots=True, kw_only=True)
class DressedLayout:
    """A file: its size, where the picture stands on it, and its caption."""

    file: Size
    picture: Box
    caption: LaidText | None = None
    caption_y_px: int = 0


def insets_of(dressing: Dressing) -> Insets:
    """What room, border and shadow take on each side."""
    border_px = dressing.border.width_px if dressing.border else 0
    shadow, room = dressing.shadow, dressing.room
    beside_px = shadow.blur_px if shadow else 0
    above_px = max(0, shadow.blur_px - shadow.down_px) if shadow else 0
    below_px = shadow.blur_px + shadow.down_px if shadow else 0
    return Insets(
        top_px=border_px + above_px + (room.top_px if room else 0),
        right_px=border_px + beside_px + (room.right_px if room else 0),
        bottom_px=border_px + below_px + (room.bottom_px if room else 0),
        left_px=border_px + beside_px + (room.left_px if room else 0),
    )


def caption_height_px(dressing: Dressing, picture_width_px: int) -> int:
    """What a caption takes of the height, under or above a picture of a width."""
    if dressing.caption is None:
        return 0
    laid = _laid(dressing.caption, _caption_width_px(dressing, picture_width_px))
    return _with_gap_px(dressing.caption, laid)


def lay_out_dressing(dressing: Dressing, picture: Size, *, captioned: bool = True) -> DressedLayout:
    """Where the parts of a dressing stand around a picture of a size."""
    insets = insets_of(dressing)
    caption = dressing.caption if captioned else None
    laid = _laid(caption, _caption_width_px(dressing, picture.width_px)) if caption else None
    more_px = _with_gap_px(caption, laid) if caption and laid else 0
    above_px = more_px if caption and caption.side == "above" else 0
    y_px = insets.top_px + above_px
    room = dressing.room
    file = Size(
        width_px=picture.width_px + insets.across_px, height_px=picture.height_px + insets.down_px + more_px
    )
    caption_y_px = room.top_px if room else 0
    if laid and caption and caption.side == "below":
        caption_y_px = file.height_px - (room.bottom_px if room else 0) - math.ceil(laid.height_px)
    return DressedLayout(
        file=file,
        picture=Box(x_px=insets.left_px, y_px=y_px, width_px=picture.width_px, height_px=picture.height_px),
        caption=laid,
        caption_y_px=caption_y_px,
    )


def _caption_width_px(dressing: Dressing, picture_width_px: int) -> int:
    return picture_width_px + 2 * (dressing.border.width_px if dressing.border else 0)


def _with_gap_px(caption: Caption, laid: LaidText) -> int:
    return math.ceil(laid.height_px) + round(_GAP * caption.size_px)


def _laid(caption: Caption, width_px: int) -> LaidText:
    return lay_out(
        caption.text,
        size_px=caption.size_px,
        weight=caption.weight,
        align=caption.align,
        width_px=float(width_px),
    )
