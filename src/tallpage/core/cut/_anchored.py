"""A box whose place is counted from any corner, edge or the middle of a picture."""

from __future__ import annotations

from typing import Literal, get_args

from tallpage.core.errors import FrameError
from tallpage.core.geometry import Box, Size

Corner = Literal[
    "top-left", "top", "top-right", "left", "centre", "right", "bottom-left", "bottom", "bottom-right"
]
CORNERS: tuple[Corner, ...] = get_args(Corner)


def anchored_box(page: Size, corner: Corner, x_px: int, y_px: int, size: Size) -> Box:
    """A box whose own corner is so far inwards from the same corner of the page.

    Where the corner is in the middle of a side, or of the page, the box is in the middle too, and moved to
    the right and down by what is said.

    Raises:
        FrameError: the box does not lie on the page.
    """
    if corner not in CORNERS:
        raise FrameError(
            f"There is no corner “{corner}”.", hint=f"Give {', '.join(CORNERS)}.", code="box_malformed"
        )
    box = Box(
        x_px=_from("left" in corner, "right" in corner, x_px, size.width_px, page.width_px),
        y_px=_from("top" in corner, "bottom" in corner, y_px, size.height_px, page.height_px),
        width_px=size.width_px,
        height_px=size.height_px,
    )
    return box.require_on(page)


def _from(at_start: bool, at_end: bool, inwards_px: int, length_px: int, whole_px: int) -> int:
    if at_start:
        return inwards_px
    if at_end:
        return whole_px - inwards_px - length_px
    return (whole_px - length_px) // 2 + inwards_px
