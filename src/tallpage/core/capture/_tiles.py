"""Dividing a page into the pieces that are taken one after the other. Pure."""

from __future__ import annotations

from dataclasses import dataclass, replace

from tallpage.core.geometry import Box, bands
from tallpage.core.picture import MAX_STRIP_HEIGHT_PX

_MOST_TILE_PIXELS = 29_000_000
"""Chromium's own full-page picture goes blank after some 110 million device px; stay far from that."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Tile:
    """A piece of the page in CSS px, and the heights in device px of the strips it is stored as."""

    clip_px: Box
    strip_heights_device_px: tuple[int, ...]
    scroll_px: int = 0
    """Where what scrolls must stand, for a tile that is taken by scrolling along."""
    shift_px: int = 0
    """How much further down it lies in the picture than where it is taken."""
    alone: bool = False
    """Whether only the inner scroller is taken, without what lies around it."""


def plan_steps(area_px: Box, scale: int, *, view_height_px: int) -> list[Tile]:
    """Tiles of a screen each, for a page that only draws what is near its window."""
    step_px = min(view_height_px, MAX_STRIP_HEIGHT_PX // scale)
    tiles = _tiles(area_px, scale, tile_px=step_px, strip_px=step_px)
    return [replace(tile, scroll_px=tile.clip_px.y_px) for tile in tiles]


def plan_inner_steps(
    area_px: Box, scale: int, *, scroller_px: Box, content_height_px: int, page_height_px: int
) -> list[Tile]:
    """Tiles for an inner scroller that only draws what is near its own window.

    ``area_px`` lies on the page as it would be if the scroller (``scroller_px`` on the page as it is)
    had its whole length: what is above it, its content screen by screen, what is below it.
    """
    strip_px = MAX_STRIP_HEIGHT_PX // scale
    first_bottom_px = scroller_px.bottom_px
    last_scroll_px = max(0, content_height_px - scroller_px.height_px)
    pieces = [(0, first_bottom_px, 0, False)]  # top and bottom where it is taken, scrolled to, alone
    for done_px, height_px in bands(last_scroll_px, scroller_px.height_px):
        pieces.append((first_bottom_px - height_px, first_bottom_px, done_px + height_px, True))
    pieces.append((first_bottom_px, page_height_px, last_scroll_px, False))
    tiles = []
    for top_px, bottom_px, scroll_px, alone in pieces:
        shown_top_px = max(top_px + scroll_px, area_px.y_px)
        shown_bottom_px = min(bottom_px + scroll_px, area_px.bottom_px)
        if shown_bottom_px <= shown_top_px:
            continue
        clip_px = Box(
            x_px=area_px.x_px,
            y_px=shown_top_px - scroll_px,
            width_px=area_px.width_px,
            height_px=shown_bottom_px - shown_top_px,
        )
        tiles += [
            replace(tile, scroll_px=scroll_px, shift_px=scroll_px, alone=alone)
            for tile in _tiles(clip_px, scale, tile_px=strip_px, strip_px=strip_px)
        ]
    return tiles


def plan_tiles(area_px: Box, scale: int) -> list[Tile]:
    """Tiles that cover ``area_px`` (CSS px) from top to bottom, without overlap or gap.

    Each picture that is taken costs a layout of the whole page, so a tile holds as many strips as
    its pixels allow.
    """
    strip_px = MAX_STRIP_HEIGHT_PX // scale
    strip_device_pixels = area_px.width_px * strip_px * scale * scale
    strips_per_tile = max(1, _MOST_TILE_PIXELS // strip_device_pixels)
    return _tiles(area_px, scale, tile_px=strips_per_tile * strip_px, strip_px=strip_px)


def _tiles(area_px: Box, scale: int, *, tile_px: int, strip_px: int) -> list[Tile]:
    return [
        Tile(
            clip_px=Box(
                x_px=area_px.x_px, y_px=area_px.y_px + top, width_px=area_px.width_px, height_px=height
            ),
            strip_heights_device_px=tuple(strip * scale for _, strip in bands(height, strip_px)),
        )
        for top, height in bands(area_px.height_px, tile_px)
    ]
