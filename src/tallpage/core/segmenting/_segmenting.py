"""Blocks found from the pixels: what calm gaps keep apart, from the outside in.

The recursive cut along the widest gaps is that of G. Nagy and S. Seth, "Hierarchical representation of
optically scanned documents", 1984.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from tallpage.core.geometry import Box, Size
from tallpage.core.page_map import Block
from tallpage.core.picture import Raster

_LOOKED_AT_PX = 900
"""Width at which a picture is looked at."""
_LEAST_CHANGE = 18
"""How much lighter or darker the next px is, of 255, where something stands."""
_GRAIN = 5
"""Changes of so many times the usual one are no more grain."""
_LEAST_ROW_GAP_PX, _LEAST_COLUMN_GAP_PX = 7, 12
"""Gaps that keep blocks apart, below and beside each other; lines and words are nearer."""
_LIKE_THE_WIDEST = 0.55
"""Gaps of this share of the widest one part what is of the same rank."""
_LEAST_SIDE_PX = 12
_FURTHEST_INSIDE = 8
_OUTLINE_PX = 4
_OUTLINED = 0.9
"""Share of an edge that changes where there is an outline."""
_MOST_BLOCKS = 2_000
_PICTURE_LEVELS = 70
_GROUND = 0.2
"""Photographs have so many of 256 levels of grey, and no level that is the ground of a greater share."""

_Bits = NDArray[np.bool_]


@dataclass(frozen=True, slots=True)
class _Region:
    """A part of the small picture: rows and columns, the last ones excluded."""

    top: int
    bottom: int
    left: int
    right: int

    @property
    def sides(self) -> tuple[int, int]:
        return self.bottom - self.top, self.right - self.left


def find_blocks(raster: Raster) -> tuple[Block, ...]:
    """The blocks of a picture, from outer to inner; their roles are ``area``, ``image`` and ``text``."""
    page = raster.size
    width_px = min(_LOOKED_AT_PX, page.width_px)
    small = raster.flattened((255, 255, 255)).without_alpha()
    small = small.resized(Size(width_px=width_px, height_px=page.at_width(width_px).height_px)).held()
    grey = small.rows(0, small.size.height_px).mean(axis=2).astype(np.int16)
    changes = _changes(grey)
    scale = page.width_px / width_px
    found = []
    whole = _Region(0, grey.shape[0], 0, grey.shape[1])
    for region, role in _regions(grey, changes, whole, _FURTHEST_INSIDE):
        box = _on_page(region, scale, page)
        found.append(Block(role=role, level=None, box=box, text="", link="", alt=""))
        if len(found) == _MOST_BLOCKS:
            break
    return tuple(found)


def _changes(grey: NDArray[np.int16]) -> _Bits:
    """Where a px differs from the one to its left or above."""
    across = np.abs(np.diff(grey, axis=1, prepend=grey[:, :1]))
    down = np.abs(np.diff(grey, axis=0, prepend=grey[:1]))
    change = np.maximum(across, down)
    found: _Bits = change > max(_LEAST_CHANGE, _GRAIN * float(np.median(change)))
    return found


def _regions(
    grey: NDArray[np.int16], changes: _Bits, region: _Region, depth: int
) -> Iterator[tuple[_Region, str]]:
    """What stands in a region, and in its parts, each with its role."""
    shown = _around(changes, region)
    if shown is None or depth == 0:
        return
    if _is_picture(grey, shown):
        yield shown, "image"
        return
    parts = _parts(changes, shown)
    if len(parts) < 2:
        inside = _inside(changes, shown)
        inner = inside and _around(changes, inside)
        parts = [inner] if inner else []
    if min(shown.sides) >= _LEAST_SIDE_PX:
        yield shown, "area" if len(parts) > 1 else "text"
    for part in parts:
        yield from _regions(grey, changes, part, depth - 1)


def _around(changes: _Bits, region: _Region) -> _Region | None:
    """The smallest region around what stands in one."""
    part = changes[region.top : region.bottom, region.left : region.right]
    rows, columns = np.flatnonzero(part.any(axis=1)), np.flatnonzero(part.any(axis=0))
    if rows.size == 0:
        return None
    # A change lies after the px that it comes from: the first px of a block is where it begins.
    return _Region(
        region.top + int(rows[0]),
        region.top + int(rows[-1]) + 1,
        region.left + int(columns[0]),
        region.left + int(columns[-1]) + 1,
    )


def _parts(changes: _Bits, region: _Region) -> list[_Region]:
    """A region parted along its widest gaps, across or down; itself alone where there are none."""
    part = changes[region.top : region.bottom, region.left : region.right]
    down, across = _gaps(np.asarray(part.any(axis=1))), _gaps(np.asarray(part.any(axis=0)))
    widest_down = max((last - first for first, last in down), default=0)
    widest_across = max((last - first for first, last in across), default=0)
    if widest_down < _LEAST_ROW_GAP_PX and widest_across < _LEAST_COLUMN_GAP_PX:
        return [region]
    if widest_down >= _LEAST_ROW_GAP_PX and (
        widest_down >= widest_across or widest_across < _LEAST_COLUMN_GAP_PX
    ):
        least = max(_LEAST_ROW_GAP_PX, widest_down * _LIKE_THE_WIDEST)
        return [
            replace(region, top=region.top + first, bottom=region.top + last)
            for first, last in _between(down, least, region.sides[0])
        ]
    least = max(_LEAST_COLUMN_GAP_PX, widest_across * _LIKE_THE_WIDEST)
    return [
        replace(region, left=region.left + first, right=region.left + last)
        for first, last in _between(across, least, region.sides[1])
    ]


def _gaps(active: _Bits) -> list[tuple[int, int]]:
    """Stretches in which nothing stands: first and one after the last."""
    edges = np.flatnonzero(np.diff(np.concatenate([[True], active, [True]]).astype(np.int8)))
    return [(int(first), int(last)) for first, last in zip(edges[::2], edges[1::2], strict=True)]


def _between(gaps: list[tuple[int, int]], least: float, length: int) -> list[tuple[int, int]]:
    """What lies between the gaps that are at least so wide."""
    wide = [gap for gap in gaps if gap[1] - gap[0] >= least]
    starts = [0, *(last for _, last in wide)]
    ends = [*(first for first, _ in wide), length]
    return [(start, end) for start, end in zip(starts, ends, strict=True) if end > start]


def _inside(changes: _Bits, region: _Region) -> _Region | None:
    """What lies inside the outline of a card or a table; None where there is no outline."""
    part = changes[region.top : region.bottom, region.left : region.right]
    height, width = region.sides
    if height <= 4 * _OUTLINE_PX or width <= 4 * _OUTLINE_PX:
        return None
    left = part[:, :_OUTLINE_PX].any(axis=1).mean()
    right = part[:, -_OUTLINE_PX:].any(axis=1).mean()
    if min(left, right) < _OUTLINED:
        return None
    by = _OUTLINE_PX
    return _Region(region.top + by, region.bottom - by, region.left + by, region.right - by)


def _is_picture(grey: NDArray[np.int16], region: _Region) -> bool:
    """Whether a region is a photograph, in which gaps mean nothing."""
    part = grey[region.top : region.bottom, region.left : region.right]
    if min(part.shape) < _LEAST_SIDE_PX:
        return False
    levels = np.bincount(part.reshape(-1), minlength=256) / part.size
    return int((levels > 0.001).sum()) >= _PICTURE_LEVELS and float(levels.max()) < _GROUND


def _on_page(region: _Region, scale: float, page: Size) -> Box:
    left, top = max(0, round((region.left - 0.5) * scale)), max(0, round((region.top - 0.5) * scale))
    right, bottom = round((region.right - 0.5) * scale), round((region.bottom - 0.5) * scale)
    if scale == 1:
        left, top, right, bottom = region.left, region.top, region.right - 1, region.bottom - 1
    return Box(
        x_px=left,
        y_px=top,
        width_px=max(1, min(page.width_px, max(right, left + 1)) - left),
        height_px=max(1, min(page.height_px, max(bottom, top + 1)) - top),
    )
