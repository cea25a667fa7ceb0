"""Stamps: a text or a picture, once at an edge or in the middle of a picture, or all over it."""

from __future__ import annotations

import struct
from collections.abc import Iterator, Mapping

from tallpage.core.dressing._models import Stamp
from tallpage.core.geometry import Box
from tallpage.core.marks import DrawnMark, PlacedPicture, Shape
from tallpage.core.paths import Extent, Path, Point
from tallpage.core.text import lay_out


def stamp_parts(stamp: Stamp, picture: Box, shown: Box, pictures: Mapping[str, bytes]) -> DrawnMark:
    """A stamp on a picture, as far as it reaches into ``shown``, a part of the file.

    Text that no font has is left out.
    """
    width_px, height_px, text = _size(stamp, pictures)
    parts: list[Shape | PlacedPicture] = []
    for x, y in _middles(stamp, picture, width_px, height_px):
        box = Extent(x - width_px / 2, y - height_px / 2, x + width_px / 2, y + height_px / 2)
        turned = Path.rectangle(box).turned(stamp.angle_deg, (x, y)).extent()
        if turned.bottom_px < shown.y_px or turned.top_px > shown.bottom_px:
            continue
        if text is None:
            parts.append(PlacedPicture(name=stamp.picture or "", box=box, angle_deg=stamp.angle_deg))
        else:
            letters = text.moved(box.left_px, box.top_px).turned(stamp.angle_deg, (x, y))
            parts.append(Shape(path=letters, fill=stamp.colour))
    return DrawnMark(id="stamp", parts=tuple(parts), opacity=stamp.opacity)


def _size(stamp: Stamp, pictures: Mapping[str, bytes]) -> tuple[float, float, Path | None]:
    """Width and height of a stamp that is not turned, and its letters."""
    if stamp.text is not None:
        laid = lay_out(stamp.text, size_px=stamp.size_px, weight=stamp.weight)
        return laid.width_px, laid.height_px, laid.path
    # Of a PNG file, bytes 16 to 24 are its width and height.
    width, height = struct.unpack(">II", pictures[stamp.picture or ""][16:24])
    return stamp.size_px, stamp.size_px * height / width, None


def _middles(stamp: Stamp, picture: Box, width_px: float, height_px: float) -> Iterator[Point]:
    """The middles of all of a stamp's places."""
    turned = Path.rectangle(Extent(0, 0, width_px, height_px)).turned(stamp.angle_deg, (0, 0)).extent()
    across, down = turned.right_px - turned.left_px, turned.bottom_px - turned.top_px
    if stamp.place == "tiled":
        yield from _tiles(picture, across + stamp.margin_px, down + stamp.margin_px)
        return
    x = picture.x_px + picture.width_px / 2
    y = picture.y_px + picture.height_px / 2
    if "left" in stamp.place:
        x = picture.x_px + stamp.margin_px + across / 2
    if "right" in stamp.place:
        x = picture.right_px - stamp.margin_px - across / 2
    if "top" in stamp.place:
        y = picture.y_px + stamp.margin_px + down / 2
    if "bottom" in stamp.place:
        y = picture.bottom_px - stamp.margin_px - down / 2
    yield x, y


def _tiles(picture: Box, across: float, down: float) -> Iterator[Point]:
    """Rows of places that cover a picture; each second row is moved by half a place."""
    across, down = max(across, 8.0), max(down, 8.0)
    row, y = 0, picture.y_px + down / 2
    while y - down / 2 < picture.bottom_px:
        x = picture.x_px + (across / 2 if row % 2 == 0 else 0.0)
        while x - across / 2 < picture.right_px:
            yield x, y
            x += across
        row, y = row + 1, y + down
