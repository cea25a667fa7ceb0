"""A page in another orientation: all that comes after knows only the turned page."""

from __future__ import annotations

import math
from dataclasses import replace

from tallpage.core.fields import rgb_of
from tallpage.core.geometry import Box, Size
from tallpage.core.once import once
from tallpage.core.page_map import Block
from tallpage.core.page_words import PageWords
from tallpage.core.picture import (
    SMOOTHING_REACH_PX,
    Access,
    Raster,
    mapped_onto,
    mirrored,
    quarter_turned,
)
from tallpage.core.render._source import Source
from tallpage.core.turning import Orientation, TurnedPage


class TurnedSource:
    """A source whose page is turned."""

    def __init__(self, source: Source, orientation: Orientation) -> None:
        self._source = source
        self._page = TurnedPage(source.size, orientation)

    @property
    def size(self) -> Size:
        """Width and height of the turned page in px."""
        return self._size

    @once
    def _size(self) -> Size:
        return self._page.size

    def region(self, box: Box, *, access: Access = "sequential") -> Raster:  # noqa: ARG002
        """The pixels of a box of the turned page.

        Raises:
            FrameError: the box does not lie on the turned page.
        """
        box.require_on(self.size)
        angled = self._page.orientation.angle_deg != 0
        needed = self._page.box_back(box, room_px=SMOOTHING_REACH_PX if angled else 0)
        # What is all corner shows nothing of the page; any px of it says what a px is.
        needed = needed or Box(x_px=0, y_px=0, width_px=1, height_px=1)
        raster = self._quartered(needed)
        return self._angled(raster, needed, box) if angled else raster

    def blocks(self) -> tuple[Block, ...]:
        """The source's blocks, each in the box around it; those that are cropped away are not there."""
        return tuple(
            replace(block, box=turned)
            for block in self._source.blocks()
            if (turned := self._page.box_there(block.box)) is not None
        )

    def words(self) -> PageWords | None:
        """The source's words and links where they lie now."""
        words = self._source.words()
        return words and words.changed(self._turned)

    def _turned(self, boxes: tuple[Box, ...]) -> tuple[Box, ...]:
        return tuple(turned for box in boxes if (turned := self._page.box_there(box)) is not None)

    def _quartered(self, needed: Box) -> Raster:
        """A part of the page, mirrored and turned by quarters."""
        orientation = self._page.orientation
        raster = self._source.region(needed)
        # A turned row is a column of the page: it is read out of order, so it is pulled first, once.
        raster = raster.held() if orientation.turn_deg or orientation.angle_deg else raster
        raster = mirrored(raster) if orientation.mirror else raster
        return quarter_turned(raster, orientation.turn_deg)

    def _angled(self, raster: Raster, needed: Box, box: Box) -> Raster:
        page, after = self._page, self.size
        before = page.quartered
        corner = page.after_quarters(needed)
        sine = math.sin(math.radians(page.orientation.angle_deg))
        cosine = math.cos(math.radians(page.orientation.angle_deg))
        x, y = corner.x_px - before.width_px / 2, corner.y_px - before.height_px / 2
        moved_px = (
            cosine * x - sine * y + after.width_px / 2,
            sine * x + cosine * y + after.height_px / 2,
        )
        return mapped_onto(raster, (cosine, -sine, sine, cosine), moved_px, box, self._ground_rgba)

    @property
    def _ground_rgba(self) -> tuple[int, int, int, int]:
        colour = self._page.orientation.colour
        return (*rgb_of(colour), int(colour[7:9], 16) if len(colour) == 9 else 255)
