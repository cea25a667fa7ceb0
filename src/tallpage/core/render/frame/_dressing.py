"""What is put around a picture, drawn band by band."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from tallpage.core.dressing import DressedLayout, Dressing, is_plain, outline, stamp_parts
from tallpage.core.fields import rgb_of
from tallpage.core.geometry import Box, bands
from tallpage.core.marks import DrawnMark, Plane, Shape, svg_of
from tallpage.core.paths import Path
from tallpage.core.picture import Raster, blurred, draw_vectors, laid_over, masked, put_in, transparent

_BAND_PX = 1_024
_SIGMAS_IN_REACH = 2.5
"""A shadow reaches as far as its Gaussian is seen."""


@dataclass(frozen=True, slots=True)
class DressingStage:
    """A picture -> the file with its dressing; the picture moves to its place on it."""

    dressing: Dressing
    layout: DressedLayout
    pictures: Mapping[str, bytes]

    def draw(self, raster: Raster) -> Raster:
        """With everything around it; transparent where there is nothing."""
        file, picture = self.layout.file, self.layout.picture
        parts = []
        for top_px, height_px in bands(file.height_px, _BAND_PX):
            band = Box(x_px=0, y_px=top_px, width_px=file.width_px, height_px=height_px)
            part = self._around(band)
            place = picture.overlap(band)
            if place is not None:
                shown = self._stamped(raster.cropped(place.seen_from(picture)), place)
                part = self._put_on(part, shown, place, band)
            parts.append(self._captioned(part, band))
        dressed = Raster.stacked(parts)
        background = self.dressing.background
        return dressed.flattened(rgb_of(background)) if background else dressed

    def back(self, box: Box) -> tuple[Box, ...]:
        """From the file to the picture; nothing of what is around it."""
        inside = box.overlap(self.layout.picture)
        return (inside.seen_from(self.layout.picture),) if inside else ()

    def _put_on(self, part: Raster, shown: Raster, place: Box, band: Box) -> Raster:
        """A band with what it shows of the picture."""
        on_band = place.seen_from(band)
        if is_plain(self.dressing, self.layout.picture, place):
            if shown.has_alpha:
                return laid_over(part, shown, on_band)
            return put_in(part, shown.with_alpha(), on_band)
        inside = Shape(path=outline(self.dressing, self.layout.picture, place), fill="#FFFFFF")
        return laid_over(part, masked(shown, self._drawn([inside], place)), on_band)

    def _stamped(self, shown: Raster, place: Box) -> Raster:
        stamp = self.dressing.stamp
        if stamp is None:
            return shown
        drawn = stamp_parts(stamp, self.layout.picture, place, self.pictures)
        if not drawn.parts:
            return shown
        svg = svg_of([drawn], shown=place, plane=Plane(), pictures=self.pictures)
        return laid_over(shown, draw_vectors(svg), Box.whole(place.size))

    def _captioned(self, part: Raster, band: Box) -> Raster:
        caption, laid = self.dressing.caption, self.layout.caption
        if caption is None or laid is None or laid.path.is_empty:
            return part
        border_px = self.dressing.border.width_px if self.dressing.border else 0
        path = laid.path.moved(self.layout.picture.x_px - border_px, self.layout.caption_y_px)
        extent = path.extent()
        if extent.bottom_px < band.y_px or extent.top_px > band.bottom_px:
            return part
        letters = self._drawn([Shape(path=path, fill=caption.colour)], band)
        return laid_over(part, letters, Box.whole(band.size))

    def _around(self, band: Box) -> Raster:
        """What lies around the picture: the shadow, and the border over it."""
        border, shadow = self.dressing.border, self.dressing.shadow
        part = transparent(band.size)
        if shadow is not None:
            needed = band.grown(shadow.blur_px + shadow.down_px)
            cast = Shape(path=self._outer(needed).moved(0, shadow.down_px), fill=shadow.colour)
            soft = blurred(self._drawn([cast], needed), sigma_px=shadow.blur_px / _SIGMAS_IN_REACH)
            part = soft.cropped(band.seen_from(needed))
        if border is None:
            return part
        line = Shape(path=self._outer(band), fill=border.colour)
        if self.dressing.torn is not None:
            line = replace(line, stroke=border.colour, stroke_px=border.width_px * 2)
        return laid_over(part, self._drawn([line], band), Box.whole(band.size))

    def _outer(self, rows: Box) -> Path:
        """The outline with the border around it; around a torn side the border is a stroke."""
        border_px = self.dressing.border.width_px if self.dressing.border else 0
        return outline(self.dressing, self.layout.picture, rows, grown_px=border_px)

    def _drawn(self, shapes: Sequence[Shape], shown: Box) -> Raster:
        drawn = DrawnMark(id="dressing", parts=tuple(shapes))
        return draw_vectors(svg_of([drawn], shown=shown, plane=Plane(), pictures={}))
