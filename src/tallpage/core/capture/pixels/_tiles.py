"""Dividing a page into the pieces that are taken one after the other. Pure."""

from __future__ import annotations

from dataclasses import dataclass

from tallpage.core.geometry import Box, bands
from tallpage.core.picture import MAX_STRIP_HEIGHT_PX

_MOST_TILE_PIXELS = 29_000_000
"""Chromium's own full-page picture goes blank after some 110 million device px; stay far from that."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Tile:
    """A piece of the page in CSS px, and the heights in device px of the strips it is stored as."""

    clip_px: Box
    strip_heights_device_px: tuple[int, ...]


def plan_tiles(area_px: Box, scale: int) -> list[Tile]:
    """Tiles that cover ``area_px`` (CSS px) from top to bottom, without overlap or gap.

    Each picture that is taken costs a layout of the whole page, so a tile holds as many strips as
    its pixels allow.
    """
    strip_px = MAX_STRIP_HEIGHT_PX // scale
    strip_device_pixels = area_px.width_px * strip_px * scale * scale
    strips_per_tile = max(1, _MOST_TILE_PIXELS // strip_device_pixels)
    return _tiles(area_px, scale, tile_px=strips_per_tile * strip_px, strip_px=strip_px)


def tiles_in_view(clip_px: Box, scale: int) -> list[Tile]:
    """A piece that is seen in the window, a tile for each strip."""
    strip_px = MAX_STRIP_HEIGHT_PX // scale
    return _tiles(clip_px, scale, tile_px=strip_px, strip_px=strip_px)


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
