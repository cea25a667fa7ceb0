"""Frames as they are shown: with pointer, hidden areas and marks, the part that was chosen, at its size."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageDraw

from tallpage.core.clip._document import ClipDocument
from tallpage.core.clip._frames import Frame, Frames
from tallpage.core.clip._on_frames import those_on
from tallpage.core.clip._playing import Shown
from tallpage.core.cut import Cut
from tallpage.core.geometry import Box, Size
from tallpage.core.picture import Raster, open_file
from tallpage.core.render import RasterSource, Rendering, RenderRules
from tallpage.core.sizing import Sizing

Pixels = NDArray[np.uint8]
"""Height × width × 3, sRGB."""

_ARROW = ((0, 0), (0, 17), (4.2, 13.2), (7, 19.5), (10, 18.2), (7.2, 12), (12.6, 12))
"""A pointer's corners, in px from its tip."""
_FINER = 4
"""Pointers are drawn so many times larger, for smooth edges."""
_REACH_PX = 26
_RING_PX, _RING_WIDTH_PX = 18, 3
_DARK, _LIGHT, _RING = (28, 32, 40, 255), (255, 255, 255, 255), (224, 86, 36, 230)


def draw(frames: Frames, document: ClipDocument, number: int, size: Size) -> Pixels:
    """A frame, counted from 0, as it is shown.

    Raises:
        PictureUnreadable: its picture is gone or damaged.
        ClipError: the part that is shown does not lie on it.
    """
    frame = frames.frames[number]
    raster = open_file(frames.folder / frame.file).flattened((255, 255, 255)).without_alpha()
    if document.pointer and frame.pointer_px is not None:
        raster = _with_pointer(raster, frame)
    drawn = _with_marks(raster, document, number).cropped(document.box_on(frames.size)).resized(size)
    return drawn.rows(0, size.height_px)


def draw_all(
    frames: Frames, document: ClipDocument, shown: Iterable[Shown], size: Size
) -> Iterator[tuple[Pixels, Shown]]:
    """What is seen, one after the other; only one of them is in memory."""
    for row in shown:
        yield draw(frames, document, row.frame, size), row


def _with_marks(raster: Raster, document: ClipDocument, number: int) -> Raster:
    """With what is hidden and drawn on a frame: by the renderer that draws cuts."""
    hidden = tuple(row.area for row in those_on(document.hidden, number))
    marks = tuple(row.mark for row in those_on(document.marks, number))
    if not hidden and not marks:
        return raster
    # Hidden areas are read more than once, and a picture can be pulled only once.
    source = RasterSource(raster.held())
    cut = replace(Cut.whole(source.size), hidden=hidden, marks=marks)
    rendering = Rendering(source, cut, RenderRules(sizing=Sizing(way="width", width_px=source.size.width_px)))
    return rendering.draw(rendering.whole())


def _with_pointer(raster: Raster, frame: Frame) -> Raster:
    if frame.pointer_px is None:
        return raster
    x_px, y_px = frame.pointer_px
    around = Box(
        x_px=x_px - _REACH_PX, y_px=y_px - _REACH_PX, width_px=2 * _REACH_PX, height_px=2 * _REACH_PX
    ).overlap(Box.whole(raster.size))
    if around is None:
        return raster
    pixels = raster.rows(0, raster.size.height_px).copy()
    piece = pixels[around.y_px : around.bottom_px, around.x_px : around.right_px]
    mark = _pointer(pressed=frame.pressed)
    left, top = around.x_px - (x_px - _REACH_PX), around.y_px - (y_px - _REACH_PX)
    mark = mark[top : top + around.height_px, left : left + around.width_px]
    share = mark[:, :, 3:] / 255
    piece[:] = np.round(piece * (1 - share) + mark[:, :, :3] * share).astype(np.uint8)
    return Raster.from_rows(pixels)


def _pointer(*, pressed: bool) -> Pixels:
    """The pointer with its tip in the middle, as colours and opacity."""
    side_px = 2 * _REACH_PX * _FINER
    picture = Image.new("RGBA", (side_px, side_px), (255, 255, 255, 0))
    pen = ImageDraw.Draw(picture)
    middle = side_px / 2
    if pressed:
        reach = _RING_PX * _FINER
        pen.ellipse(
            (middle - reach, middle - reach, middle + reach, middle + reach),
            outline=_RING,
            width=_RING_WIDTH_PX * _FINER,
        )
    corners = [(middle + x * _FINER, middle + y * _FINER) for x, y in _ARROW]
    pen.polygon(corners, fill=_DARK)
    pen.line([*corners, corners[0]], fill=_LIGHT, width=round(1.5 * _FINER), joint="curve")
    small = picture.resize((2 * _REACH_PX, 2 * _REACH_PX), Image.Resampling.BOX)
    return np.asarray(small)
