"""A page with colours taken out of it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tallpage.core.clearing import (
    ClearedColour,
    Clearing,
    RowMask,
    clear_rows,
    connected_with,
    near,
    reach_px,
    union,
    with_boxes,
    without,
)
from tallpage.core.fields import rgb_of
from tallpage.core.geometry import Box, Size, bands
from tallpage.core.once import once
from tallpage.core.page_map import Block
from tallpage.core.page_words import PageWords
from tallpage.core.picture import Access, Raster, Sheet
from tallpage.core.render._source import Source

_BAND_PX = 512


@dataclass(frozen=True)
class ClearedSource:
    """A source that shows through where colours are cleared."""

    source: Source
    clearing: Clearing

    @property
    def size(self) -> Size:
        """Width and height in page px."""
        return self.source.size

    def region(self, box: Box, *, access: Access = "sequential") -> Raster:
        """The pixels of a box, with an alpha plane.

        Raises:
            FrameError: the box does not lie on the page.
        """
        box.require_on(self.size)
        reach = reach_px(self.clearing.soft_px)
        needed = box.grown(reach * len(self.clearing.colours)).overlap(Box.whole(self.size)) or box
        sheet = Sheet.of(self.source.region(needed, access=access).with_alpha())
        for number, colour in enumerate(self.clearing.colours):
            # The first of them decides where several would clear; each sees what the last one left.
            self._clear(sheet, needed, colour, self._limits[number], reach)
        return sheet.raster.cropped(box.seen_from(needed))

    def _clear(
        self, sheet: Sheet, place: Box, colour: ClearedColour, limit: RowMask | None, reach: int
    ) -> None:
        """Clear a colour from a sheet that shows a place of the page, band by band."""
        above = sheet.rows(0, 0)
        for top_px, height_px in bands(place.height_px, _BAND_PX):
            below_px = min(reach, place.height_px - top_px - height_px)
            band = np.concatenate([above, sheet.rows(top_px, height_px + below_px)])
            first_px = top_px - len(above)
            within = None
            if limit is not None:
                rows = limit.rows(place.y_px + first_px, len(band))
                within = rows[:, place.x_px : place.right_px]
            rgb = rgb_of(colour.colour)
            clear = clear_rows(band, rgb, colour.tolerance, within, soft_px=self.clearing.soft_px)
            # The next band looks at these rows as they were.
            above = band[: len(above) + height_px][-reach:] if reach else above
            sheet.put_rows(top_px, clear[top_px - first_px :][:height_px])

    def blocks(self) -> tuple[Block, ...]:
        """The source's blocks."""
        return self.source.blocks()

    def words(self) -> PageWords | None:
        """The source's words."""
        return self.source.words()

    @once
    def _limits(self) -> list[RowMask | None]:
        """For each colour, where it may be cleared; None where it is everywhere.

        The page is read once for each of the others.
        """
        clearing = self.clearing
        found = [
            None if colour.x_px is None and not clearing.put_back else self._mask(colour)
            for colour in clearing.colours
        ]
        masks = [mask for mask in found if mask is not None]
        if not clearing.put_back or not masks:
            return found
        kept = self._kept(masks)
        return [without(mask, kept) for mask in masks]

    def _kept(self, masks: Sequence[RowMask]) -> RowMask:
        """What is put back of all that would be cleared."""
        spots = [(spot.x_px, spot.y_px) for spot in self.clearing.put_back if spot.width_px is None]
        boxes = [
            Box(x_px=spot.x_px, y_px=spot.y_px, width_px=spot.width_px, height_px=spot.height_px)
            for spot in self.clearing.put_back
            if spot.width_px is not None and spot.height_px is not None
        ]
        return with_boxes(connected_with(union(masks), spots), boxes)

    def _mask(self, colour: ClearedColour) -> RowMask:
        """Where a colour is cleared, before anything is put back."""
        mask = RowMask.of(self._near(colour), width_px=self.size.width_px, band_px=_BAND_PX)
        if colour.x_px is None or colour.y_px is None:
            return mask
        return connected_with(mask, [(colour.x_px, colour.y_px)])

    def _near(self, colour: ClearedColour) -> Iterator[NDArray[np.bool_]]:
        """Where the page has a colour, in bands."""
        width_px = self.size.width_px
        for top_px, height_px in bands(self.size.height_px, _BAND_PX):
            band = self.source.region(Box(x_px=0, y_px=top_px, width_px=width_px, height_px=height_px))
            yield near(band.with_alpha().rows(0, height_px), rgb_of(colour.colour), colour.tolerance)
