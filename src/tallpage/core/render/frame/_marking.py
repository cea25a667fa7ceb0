"""Marks brought from the page to a file: where they come to lie, and their pixels, band by band."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace
from itertools import groupby

from tallpage.core.cut import Cut
from tallpage.core.geometry import Box, Size, bands
from tallpage.core.marks import (
    DrawnMark,
    Plane,
    draw_marks,
    kept_legible,
    placed,
    points_of,
    smallest_letters_px,
    svg_of,
)
from tallpage.core.page_map import Block
from tallpage.core.paths import Extent
from tallpage.core.picture import Raster, Sheet, blurred_where, draw_vectors, multiplied_by
from tallpage.core.sizing import SizePlan

_BAND_PX = 512
_AT_ONCE = 2
"""Bands drawn at once: each holds its own drawing, and the library draws one of them on one core."""
_BLUR_REACHES = 3
"""Standard deviations beyond which a blur takes nothing."""
_LEAST_BLUR_PX = 0.3
"""Standard deviation below which a blur changes no pixel."""


_OnFile = tuple[DrawnMark, Box]
"""A mark and the px of the file that it may touch."""


def marks_in_frame(cut: Cut, *, least_letters_px: float = 0.0) -> list[DrawnMark]:
    """The marks of a cut, in px of its frame, whose folds are closed.

    A mark's points move with the page; so an arrow across a fold becomes shorter and stays whole. A mark
    is left out when all of its points are folded away. Marks with letters smaller than asked for are drawn
    larger.
    """
    frame, size = cut.frame, cut.frame.size
    page = Extent(0, 0, size.width_px, size.height_px)
    marks = [kept_legible(placed(mark, frame.place_of), least_letters_px, page) for mark in cut.marks]
    return draw_marks(marks, page, shown=_shown(cut))


def smallest_letters_on(cut: Cut) -> float | None:
    """Size of the smallest letters of marks that a cut shows, in px of its frame; None without any."""
    return smallest_letters_px([mark for mark, shown in zip(cut.marks, _shown(cut), strict=True) if shown])


def _shown(cut: Cut) -> list[bool]:
    return [any(map(cut.frame.shows, points_of(mark))) for mark in cut.marks]


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
        """With the marks; what they do not reach stays as it is."""
        size = raster.size
        reaching = [(drawn, box) for drawn in self.drawn if (box := self._on_file(drawn, size)) is not None]
        if not reaching:
            return raster
        below = Sheet.of(raster)
        # What is blurred takes of what lies beyond the band, as it was before anything was drawn there.
        sheet = Sheet.of(below.raster) if self._reach_px else below

        def draw_band(band: Box, stretch: Sequence[_OnFile]) -> None:
            needed = band.grown(self._reach_px).overlap(Box.whole(size)) or band
            part = below.part(needed)
            self._mark(part, needed, [(drawn, at) for drawn, box in stretch if (at := box.overlap(needed))])
            sheet.put(part.part(band.seen_from(needed)), band)

        with ThreadPoolExecutor(max_workers=_AT_ONCE) as pool:
            list(pool.map(draw_band, *zip(*_bands_of(reaching), strict=True)))
        return sheet.raster

    @property
    def _reach_px(self) -> int:
        furthest = max((drawn.blur_px for drawn in self.drawn if drawn.blend == "blur"), default=0.0)
        return math.ceil(furthest * self.plane.across * _BLUR_REACHES)

    def _mark(self, part: Sheet, band: Box, within: Sequence[_OnFile]) -> None:
        """Draw on a band the marks that reach into it, each with its place on the file."""
        for blend, group in groupby(within, key=lambda row: row[0].blend):
            run = list(group)
            marks, place = [drawn for drawn, _ in run], _around([box for _, box in run])
            if blend == "blur":
                self._blur(part, band, marks[0])
                continue
            overlay = draw_vectors(svg_of(marks, shown=place, plane=self.plane, pictures=self.pictures))
            if blend == "multiply":
                part.change(multiplied_by(part.raster, overlay, place.seen_from(band)))
            else:
                part.lay_over(overlay, place.seen_from(band))

    def _blur(self, part: Sheet, band: Box, drawn: DrawnMark) -> None:
        sigma_px = drawn.blur_px * self.plane.across
        if sigma_px >= _LEAST_BLUR_PX:
            svg = svg_of([drawn], shown=band, plane=self.plane, pictures={}, as_mask=True)
            part.change(blurred_where(part.raster, draw_vectors(svg), sigma_px=sigma_px))

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


def _bands_of(reaching: Sequence[_OnFile]) -> list[tuple[Box, Sequence[_OnFile]]]:
    """Low bands of all rows that marks reach into, each with the marks among which it has its own."""
    stretches: list[list[int]] = []
    bottom_px = -1
    for at in sorted(range(len(reaching)), key=lambda at: reaching[at][1].y_px):
        box = reaching[at][1]
        if box.y_px > bottom_px:
            stretches.append([])
        stretches[-1].append(at)
        bottom_px = max(bottom_px, box.bottom_px)
    found: list[tuple[Box, Sequence[_OnFile]]] = []
    for stretch in stretches:
        rows = [reaching[at] for at in sorted(stretch)]
        around = _around([box for _, box in rows])
        found += [
            (replace(around, y_px=around.y_px + top_px, height_px=height_px), rows)
            for top_px, height_px in bands(around.height_px, _BAND_PX)
        ]
    return found


def _around(boxes: Sequence[Box]) -> Box:
    left_px, top_px = min(box.x_px for box in boxes), min(box.y_px for box in boxes)
    return Box(
        x_px=left_px,
        y_px=top_px,
        width_px=max(box.right_px for box in boxes) - left_px,
        height_px=max(box.bottom_px for box in boxes) - top_px,
    )
