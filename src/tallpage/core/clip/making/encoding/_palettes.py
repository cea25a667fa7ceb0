"""Frames in the colours of a palette, for GIF."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Iterator, Sequence
from itertools import count

import av
import av.filter
import numpy as np
from numpy.typing import NDArray

from tallpage.core.clip._drawing import Pixels
from tallpage.core.clip._playing import Shown
from tallpage.core.clip._settings import ClipSettings, GifStep
from tallpage.core.geometry import Size

_READ_FOR_PALETTE = 60
"""From at most so many frames, evenly over the clip, a palette for all is chosen."""


def held_still(pictures: Iterable[tuple[Pixels, Shown]], tolerance: int) -> Iterator[tuple[Pixels, Shown]]:
    """The same, but what changes by no more than ``tolerance`` levels stays as it was.

    A GIF stores only what changes, and pays for every pixel of it.
    """
    before: NDArray[np.int16] | None = None
    for pixels, row in pictures:
        if before is None or tolerance == 0:
            before = pixels.astype(np.int16)
            yield pixels, row
            continue
        changes = np.abs(pixels.astype(np.int16) - before).max(axis=2) > tolerance
        before[changes] = pixels[changes]
        yield before.astype(np.uint8), row


def paletted(
    shown: Sequence[Shown],
    draw_all: Callable[[Sequence[Shown]], Iterable[tuple[Pixels, Shown]]],
    size: Size,
    settings: ClipSettings,
) -> Iterator[tuple[av.VideoFrame, Shown]]:
    """Every picture in the colours of one palette for all, or of one of its own."""
    step = settings.gif
    pictures = held_still(draw_all(shown), step.tolerance)
    if settings.palette == "each":
        for pixels, row in pictures:
            yield _Painter(size, _palette([pixels], size, step), step).painted(pixels), row
        return
    some = draw_all(shown[:: math.ceil(len(shown) / _READ_FOR_PALETTE)])
    painter = _Painter(size, _palette((pixels for pixels, _ in some), size, step), step)
    for pixels, row in pictures:
        yield painter.painted(pixels), row


def _palette(pictures: Iterable[Pixels], size: Size, step: GifStep) -> av.VideoFrame:
    graph = av.filter.Graph()
    source = _source(graph, size, "bgra")
    chooser = graph.add("palettegen", f"max_colors={step.colours + 1}:stats_mode=full")
    sink = graph.add("buffersink")
    source.link_to(chooser)
    chooser.link_to(sink)
    graph.configure()
    for number, pixels in enumerate(pictures):
        source.push(_frame(pixels, number))
    source.push(None)
    palette = sink.pull()
    if not isinstance(palette, av.VideoFrame):
        raise TypeError("a palette is a picture")
    return palette


class _Painter:
    """Paints pictures in the colours of a palette."""

    def __init__(self, size: Size, palette: av.VideoFrame, step: GifStep) -> None:
        self._graph = graph = av.filter.Graph()  # its parts do not keep it
        self._source = _source(graph, size, "bgra")
        colours = _source(graph, Size(width_px=palette.width, height_px=palette.height), palette.format.name)
        dither = "bayer:bayer_scale=4" if step.dither == "bayer" else step.dither
        painter = graph.add("paletteuse", f"dither={dither}:diff_mode=rectangle")
        self._sink = graph.add("buffersink")
        self._source.link_to(painter, 0, 0)
        colours.link_to(painter, 0, 1)
        painter.link_to(self._sink)
        graph.configure()
        palette.pts = 0
        colours.push(palette)
        colours.push(None)
        self._numbers = count()

    def painted(self, pixels: Pixels) -> av.VideoFrame:
        """A picture in the palette's colours."""
        self._source.push(_frame(pixels, next(self._numbers)))
        painted = self._sink.pull()
        if not isinstance(painted, av.VideoFrame):
            raise TypeError("a painted picture is a picture")
        return painted


def _source(graph: av.filter.Graph, size: Size, format_: str) -> av.filter.FilterContext:
    told = f"video_size={size.width_px}x{size.height_px}:pix_fmt={format_}:time_base=1/100:pixel_aspect=1/1"
    return graph.add("buffer", told)


def _frame(pixels: Pixels, number: int) -> av.VideoFrame:
    frame = av.VideoFrame.from_ndarray(np.ascontiguousarray(pixels), format="rgb24").reformat(format="bgra")
    frame.pts = number
    return frame
