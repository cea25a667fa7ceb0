"""The page map of what was taken, out of what the page said of its blocks."""

from __future__ import annotations

import math
from typing import Any

from tallpage.core.geometry import Box
from tallpage.core.page_map import Block, PageMap

MOST_BLOCKS = 6_000
MOST_CHARS = 4_000


def seen_on_the_way(found: list[dict[str, Any]], clip_px: Box, shift_px: int) -> list[dict[str, Any]]:
    """The blocks that lie in a tile of a page that is scrolled while it is taken, at their places in the
    picture."""
    return [
        {**row, "y_px": row["y_px"] + shift_px}
        for row in found
        if clip_px.y_px <= row["y_px"] < clip_px.bottom_px
    ]


def page_map(found: list[dict[str, Any]], *, area_px: Box, scale: int) -> PageMap:
    """The map of what was taken: ``found`` in CSS px of the page, clipped to ``area_px``, scaled."""
    blocks = []
    for row in found:
        left = max(math.floor(row["x_px"]), area_px.x_px)
        top = max(math.floor(row["y_px"]), area_px.y_px)
        right = min(math.ceil(row["x_px"] + row["width_px"]), area_px.right_px)
        bottom = min(math.ceil(row["y_px"] + row["height_px"]), area_px.bottom_px)
        if right <= left or bottom <= top:
            continue
        box = Box(
            x_px=(left - area_px.x_px) * scale,
            y_px=(top - area_px.y_px) * scale,
            width_px=(right - left) * scale,
            height_px=(bottom - top) * scale,
        )
        kept = {name: row[name] for name in ("role", "level", "text", "link", "alt")}
        blocks.append(Block(**kept, box=box))
    return PageMap(blocks=tuple(blocks))
