"""Marks brought from the page to a file: where they come to lie, and their pixels, band by band."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import groupby

from tallpage.core.cut import Cut
from tallpage.core.geometry import Box, Size, bands
from tallpage.core.marks import DrawnMark, Plane, draw_marks, placed, points_of, svg_of
from tallpage.core.page_map import Block
from tallpage.core.paths import Extent
from tallpage.core.picture import Raster, blurred_where, draw_vectors, laid_over, multiplied_by
from tallpage.core.sizing import SizePlan

_BAND_PX = 1_024
_BLUR_REACHES = 3
"""Standard deviations beyond which a blur takes nothing."""
_LEAST_BLUR_PX = 0.3
"""Standard deviation below which a blur changes no pixel."""


def marks_in_frame(cut: Cut) -> list[DrawnMark]:
    """The marks of a cut, in px of its frame, whose folds are closed.

    A mark's points move with the page; so an arrow across a fold becomes shorter and stays whole. A mark
    is left out when all of its points are folded away.
    """
    frame, size = cut.frame, cut.frame.size
    marks = [placed(mark, frame.place_of) for mark in cut.marks]
    shown = [any(frame.shows_row(y) for _, y in points_of(mark)) for mark in cut.marks]
    return draw_marks(marks, Extent(0, 0, size.width_px, size.height_px), shown=shown)


def marks_as_blocks(cut: Cut, page: Size) -> tuple[Block, ...]:
    """Where marks stand on the page, for dividing it beside them and not through them."""
    marks = [mark for mark in cut.marks if mark.kind != "dim"]
    extents = [drawn.extent() for drawn in draw_marks(marks, Extent(0, 0, page.width_px, page.height_px))]
    boxes = [box_around(extent).overlap(Box.whole(page)) for extent in extents if extent is not None]
    return tuple(
        Block(role="mark", level=None, box=box, text="", link="", alt="") for box in boxes if box is not None
    )


@dataclass(frozen=True, slots=True)
class MarkStage:
    """A file -> the file with marks drawn on it; nothing moves."""

    drawn: Sequence[DrawnMark]
    plane: Plane
    """How the frame lies on the file."""
    picture: Box
    """What of the file shows the page; marks end at its edges."""
    pictures: Mapping[str, bytes]

    @classmethod
    def of(
        cls, drawn: Sequence[DrawnMark], plan: SizePlan, *, top_px: int, pictures: Mapping[str, bytes]
    ) -> MarkStage:
        """The stage for a leaf that begins at a row of the frame and is sized as planned."""
        across = plan.picture.width_px / plan.shown.width_px
        down = plan.picture.height_px / plan.shown.height_px
        plane = Plane(
            across=across,
            down=down,
            x_px=plan.picture.x_px - plan.shown.x_px * across,
            y_px=plan.picture.y_px - (top_px + plan.shown.y_px) * down,
        )
        return cls(drawn, plane, plan.picture, pictures)

    def draw(self, raster: Raster) -> Raster:
        """With the marks; bands without any are passed on as they are."""
        reaching = [
            (drawn, box) for drawn in self.drawn if (box := self._on_file(drawn, raster.size)) is not None
        ]
        if not reaching:
            return raster
        parts = []
        for top_px, height_px in bands(raster.size.height_px, _BAND_PX):
            band = Box(x_px=0, y_px=top_px, width_px=raster.size.width_px, height_px=height_px)
            # What is blurred takes of what lies beyond the band.
            needed = band.grown(self._reach_px).overlap(Box.whole(raster.size)) or band
            within = [(drawn, part) for drawn, box in reaching if (part := box.overlap(needed))]
            parts.append(self._marked(raster.cropped(needed), needed, within).cropped(band.seen_from(needed)))
        return Raster.stacked(parts)

    @property
    def _reach_px(self) -> int:
        furthest = max((drawn.blur_px for drawn in self.drawn if drawn.blend == "blur"), default=0.0)
        return math.ceil(furthest * self.plane.across * _BLUR_REACHES)

    def _marked(self, part: Raster, band: Box, within: Sequence[tuple[DrawnMark, Box]]) -> Raster:
        """A band with the marks that reach into it, each with its place on the file."""
        for blend, group in groupby(within, key=lambda row: row[0].blend):
            run = list(group)
            place = _around([box for _, box in run])
            marks = [drawn for drawn, _ in run]
            if blend == "blur":
                part = self._blurred(part, band, marks[0])
                continue
            overlay = draw_vectors(svg_of(marks, shown=place, plane=self.plane, pictures=self.pictures))
            meet = multiplied_by if blend == "multiply" else laid_over
            part = meet(part, overlay, place.seen_from(band))
        return part

    def _blurred(self, part: Raster, band: Box, drawn: DrawnMark) -> Raster:
        sigma_px = drawn.blur_px * self.plane.across
        if sigma_px < _LEAST_BLUR_PX:
            return part
        svg = svg_of([drawn], shown=band, plane=self.plane, pictures={}, as_mask=True)
        return blurred_where(part, draw_vectors(svg), sigma_px=sigma_px)

    def _on_file(self, drawn: DrawnMark, file: Size) -> Box | None:
        """The px of the file that a mark may touch."""
        extent = drawn.extent()
        if extent is None:
            return None
        plane = self.plane
        on_file = Extent(
            extent.left_px * plane.across + plane.x_px,
            extent.top_px * plane.down + plane.y_px,
            extent.right_px * plane.across + plane.x_px,
            extent.bottom_px * plane.down + plane.y_px,
        )
        inside = box_around(on_file).grown(1).overlap(self.picture)
        return inside and inside.overlap(Box.whole(file))


def box_around(extent: Extent) -> Box:
    """The whole px that a rectangle touches."""
    left_px, top_px = math.floor(extent.left_px), math.floor(extent.top_px)
    return Box(
        x_px=left_px,
        y_px=top_px,
        width_px=max(1, math.ceil(extent.right_px) - left_px),
        height_px=max(1, math.ceil(extent.bottom_px) - top_px),
    )


def _around(boxes: Sequence[Box]) -> Box:
    left_px, top_px = min(box.x_px for box in boxes), min(box.y_px for box in boxes)
    return Box(
        x_px=left_px,
        y_px=top_px,
        width_px=max(box.right_px for box in boxes) - left_px,
        height_px=max(box.bottom_px for box in boxes) - top_px,
    )
