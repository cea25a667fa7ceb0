"""Which part of a page is taken. Pure."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from tallpage.core.capture._request import PageRequest
from tallpage.core.capture.layout._walk import Walk
from tallpage.core.errors import PageError
from tallpage.core.geometry import Box

MOST_WIDTH_PX = 10_000
_SLOPPY_PX = 40
"""Pages are often a little wider than the screen by mistake, with nothing there."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Area:
    """The part to take in CSS px; what of the page is missing below and beside it."""

    box: Box
    cut_off: str = ""
    """Why the page is not taken to its end; empty when it is."""
    beside: str = ""
    """What is said of a page that goes on beside the area."""


def area_of(request: PageRequest, measured: dict[str, Any], walk: Walk) -> Area:
    """What to take of a page that measures so.

    Raises:
        PageError: there is nothing to be seen there.
    """
    if request.extent in ("element", "panel", "between"):
        return _stretch(request, measured)
    wide_px = measured["scrollWidthPx"]
    width_px = min(wide_px, MOST_WIDTH_PX) if request.page_width == "all" else measured["widthPx"]
    beside = _beside(width_px, wide_px) if not measured["clipped"] or request.page_width == "all" else ""
    if request.extent == "view":
        return Area(
            box=Box(x_px=0, y_px=0, width_px=width_px, height_px=request.screen.height_px), beside=beside
        )
    page_height_px = measured["heightPx"]
    bottom_px = min(page_height_px, walk.height_px) if walk.ended in ("grew", "person") else page_height_px
    bottom_px = min(bottom_px, request.cut_off_px or bottom_px)
    if request.from_px >= page_height_px:
        raise PageError(
            f"{request.address} ends at {page_height_px:,} px: there is nothing further down.",
            hint="Take it again from its top.",
            code="nothing_further",
        )
    box = Box(x_px=0, y_px=request.from_px, width_px=width_px, height_px=max(1, bottom_px - request.from_px))
    return Area(box=box, cut_off=_why(request, walk) if bottom_px < page_height_px else "", beside=beside)


def _stretch(request: PageRequest, measured: dict[str, Any]) -> Area:
    box = Box(**measured["box"])
    if box.width_px < 1 or box.height_px < 1:
        raise PageError(f"{request.element} is not visible on {request.address}.", code="element_missing")
    if request.extent == "between":
        box = Box(x_px=0, y_px=box.y_px, width_px=measured["widthPx"], height_px=box.height_px)
    return Area(box=box)


def _beside(width_px: int, wide_px: int) -> str:
    if wide_px <= width_px + _SLOPPY_PX:
        return ""
    return f"The page is {wide_px:,} px wide: what lies beyond {width_px:,} px is not in the picture."


def _why(request: PageRequest, walk: Walk) -> str:
    if walk.ended == "person":
        return "it was stopped there"
    if walk.ended == "grew":
        return f"the page kept growing for {request.timeouts.growth_screens} screens"
    return "the greatest height that was asked for"
