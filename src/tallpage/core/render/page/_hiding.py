"""A page without what a cut hides: nothing that comes after ever meets those pixels."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from urllib.parse import unquote

import numpy as np

from tallpage.core.cut.models import HiddenArea
from tallpage.core.fields import rgb_of
from tallpage.core.geometry import Box, Size
from tallpage.core.mending import MOST_MENDED_PX, REACH_PX, mended
from tallpage.core.page_map import Block
from tallpage.core.page_words import PageWords
from tallpage.core.picture import (
    Access,
    Raster,
    blurred,
    edge_line,
    patched,
    pixelated,
    plain,
    put_in,
)
from tallpage.core.render._source import Source
from tallpage.core.render.page._strength import strength_px

_EDGE_PX = 12
"""Thickness of what a patch takes its colours from."""
_AROUND_WORDS = ".,;:!?()[]<>\"'“”‘’«»"
_TELLING_DIGITS = 5
_BLUR_REACHES = 3
"""Standard deviations beyond which a blur takes nothing."""


@dataclass(frozen=True, slots=True)
class HidingSource:
    """A source whose hidden areas show something else."""

    source: Source
    hidden: tuple[HiddenArea, ...]

    @property
    def size(self) -> Size:
        """Width and height in page px."""
        return self.source.size

    def region(self, box: Box, *, access: Access = "sequential") -> Raster:
        """The pixels of a box, without what is hidden.

        Raises:
            FrameError: the box does not lie on the page.
        """
        solid = _SolidSource(self.source, tuple(row for row in self.hidden if row.how == "solid"))
        raster = solid.region(box, access=access)
        for area in self.hidden:
            place = area.box.overlap(box)
            if area.how == "solid" or place is None:
                continue
            # Pulled here, once and in order, as a source must be.
            piece = self._replaced(solid, area, place).held()
            raster = put_in(raster, piece, place.seen_from(box))
        # What is solid lies over everything: an area that is blurred never shows it.
        return solid.covered(raster, box)

    def blocks(self) -> tuple[Block, ...]:
        """The source's blocks. Those that a hidden area touches keep their place and lose their words."""
        return tuple(
            replace(block, text="", alt="", link="") if self._hides_of(block.box) else block
            for block in self.source.blocks()
        )

    def words(self) -> PageWords | None:
        """The source's words and links, but for those that a hidden area touches.

        A link that holds an address or number that is hidden goes as well, wherever it is.
        """
        words = self.source.words()
        if words is None:
            return None
        kept = words.changed(lambda boxes: () if any(map(self._hides_of, boxes)) else boxes)
        telling = {
            word.text.strip(_AROUND_WORDS).casefold()
            for run in words.runs
            for word in run
            if _tells_who(word.text) and any(map(self._hides_of, word.boxes))
        }
        links = (row for row in kept.links if not any(text in _said_in(row.address) for text in telling))
        return replace(kept, links=tuple(links))

    def _replaced(self, solid: _SolidSource, area: HiddenArea, place: Box) -> Raster:
        """What is shown of an area in ``place``, a part of it."""
        on_page = area.box.overlap(Box.whole(self.size)) or place
        match area.how:
            case "pixelate":
                cell_px = strength_px(area, self.source)
                cells = _on_grid(place, on_page, cell_px)
                return pixelated(solid.region(cells), cell_px).cropped(place.seen_from(cells))
            case "blur":
                sigma_px = strength_px(area, self.source) / 2
                needed = place.grown(round(sigma_px * _BLUR_REACHES)).overlap(on_page) or place
                return blurred(solid.region(needed), sigma_px=sigma_px).cropped(place.seen_from(needed))
            case _ if on_page.size.pixels <= MOST_MENDED_PX:
                others = [row.box for row in self.hidden if row is not area and row.how != "solid"]
                return _mended(solid, on_page, others).cropped(place.seen_from(on_page))
            case _:
                return _patched(solid, on_page, place)

    def _hides_of(self, box: Box) -> bool:
        return any(area.box.overlap(box) for area in self.hidden)


@dataclass(frozen=True, slots=True)
class _SolidSource:
    """A source with its solid areas covered; the others are drawn from this one."""

    source: Source
    solid: Sequence[HiddenArea]

    def region(self, box: Box, *, access: Access = "sequential") -> Raster:
        """The pixels of a box."""
        return self.covered(self.source.region(box, access=access), box)

    def covered(self, raster: Raster, box: Box) -> Raster:
        """``raster``, which shows ``box``, with the colours of the areas over it."""
        for area in self.solid:
            place = area.box.overlap(box)
            if place is not None:
                raster = put_in(
                    raster, plain(place.size, rgb_of(area.colour), like=raster), place.seen_from(box)
                )
        return raster


def _mended(source: _SolidSource, area: Box, others: Sequence[Box]) -> Raster:
    """An area filled from what surrounds it, of which nothing that is hidden is taken."""
    page = Box.whole(source.source.size)
    across_px, down_px = area.width_px + REACH_PX, area.height_px + REACH_PX
    around = Box(
        x_px=area.x_px - across_px,
        y_px=area.y_px - down_px,
        width_px=area.width_px + 2 * across_px,
        height_px=area.height_px + 2 * down_px,
    )
    place = around.overlap(page) or area
    raster = source.region(place)
    known = np.ones((place.height_px, place.width_px), dtype=bool)
    for other in others:
        inside = other.overlap(place)
        if inside is not None:
            box = inside.seen_from(place)
            known[box.y_px : box.bottom_px, box.x_px : box.right_px] = False
    return Raster.from_rows(mended(raster.rows(0, place.height_px), area.seen_from(place), known))


def _patched(source: _SolidSource, area: Box, place: Box) -> Raster:
    page = source.source.size
    top_px, left_px = max(0, area.y_px - _EDGE_PX), max(0, area.x_px - _EDGE_PX)
    bottom_px = min(page.height_px, area.bottom_px + _EDGE_PX)
    right_px = min(page.width_px, area.right_px + _EDGE_PX)
    strips = (
        replace(area, y_px=top_px, height_px=area.y_px - top_px),
        replace(area, x_px=area.right_px, width_px=right_px - area.right_px),
        replace(area, y_px=area.bottom_px, height_px=bottom_px - area.bottom_px),
        replace(area, x_px=left_px, width_px=area.x_px - left_px),
    )
    edges = [
        edge_line(source.region(strip), flat=number % 2 == 0).held()
        if strip.width_px and strip.height_px
        else None
        for number, strip in enumerate(strips)
    ]
    if not any(edges):
        return plain(place.size, (255, 255, 255), like=source.region(replace(place, height_px=1)))
    return patched(area.size, edges, place.seen_from(area))


def _tells_who(text: str) -> bool:
    """Whether a word can stand for somebody by itself, wherever it is read."""
    return "@" in text.strip("@") or sum(map(str.isdigit, text)) >= _TELLING_DIGITS


def _said_in(address: str) -> str:
    return unquote(address).casefold()


def _on_grid(place: Box, area: Box, cell_px: int) -> Box:
    """The whole squares that cover ``place``; they count from the corner of ``area`` and end at its edges."""
    left_px = area.x_px + (place.x_px - area.x_px) // cell_px * cell_px
    top_px = area.y_px + (place.y_px - area.y_px) // cell_px * cell_px
    right_px = min(area.right_px, area.x_px - (area.x_px - place.right_px) // cell_px * cell_px)
    bottom_px = min(area.bottom_px, area.y_px - (area.y_px - place.bottom_px) // cell_px * cell_px)
    return Box(x_px=left_px, y_px=top_px, width_px=right_px - left_px, height_px=bottom_px - top_px)
