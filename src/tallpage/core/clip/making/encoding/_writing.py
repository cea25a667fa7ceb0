"""Clips written frame by frame: however long one is, no more than some frames are in memory."""

from __future__ import annotations

import os
from collections.abc import Callable, Iterable, Iterator, Sequence
from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import numpy as np
from av.video.reformatter import ColorRange, Colorspace

from tallpage.core.clip._drawing import Pixels
from tallpage.core.clip._frames import MOST_RATE_FPS
from tallpage.core.clip._playing import Shown
from tallpage.core.clip._settings import ClipSettings
from tallpage.core.clip.making.encoding._palettes import paletted
from tallpage.core.clip.making.encoding._priority import leave_real_time
from tallpage.core.errors import ClipError
from tallpage.core.files import storage_errors
from tallpage.core.geometry import Size

DrawAll = Callable[[Sequence[Shown]], Iterable[tuple[Pixels, Shown]]]
"""Draws some of what is seen, in order: a palette is chosen from some, before all are painted."""

os.environ.setdefault("SVT_LOG", "1")  # the AV1 encoder tells of errors, not of itself
_MS, _CENTISECONDS = Fraction(1, 1_000), Fraction(1, 100)
_BT709 = 1
"""Of colours' primaries, transfer and matrix alike (ITU-T H.273)."""
_CODECS = {"webp": "libwebp_anim", "avif": "libsvtav1", "mp4": "libx264", "webm": "libvpx-vp9"}


def needs_even_sides(settings: ClipSettings) -> bool:
    """Whether a format keeps colours at half size, and so knows no odd sides."""
    return settings.format in ("avif", "mp4", "webm")


def write_clip(
    path: Path,
    shown: Sequence[Shown],
    draw_all: DrawAll,
    size: Size,
    settings: ClipSettings,
    *,
    repeats: int,
) -> None:
    """Write a clip of pictures of one size; it plays ``repeats`` times, 0 for ever, where the format knows.

    Raises:
        ClipError: it could not be encoded.
        StorageError: it could not be written.
    """
    with storage_errors(path.parent):
        try:
            if settings.format == "gif":
                _write_gif(path, shown, draw_all, size, settings, repeats)
            else:
                _write_coded(path, shown, draw_all, size, settings, repeats)
        except (av.FFmpegError, ValueError) as error:
            if isinstance(error, OSError) and error.errno:
                raise
            raise ClipError(
                f"The clip could not be written as {settings.format}: {error}",
                hint="Choose another format or width.",
                code="clip_encoding",
            ) from error


def _write_gif(
    path: Path,
    shown: Sequence[Shown],
    draw_all: DrawAll,
    size: Size,
    settings: ClipSettings,
    repeats: int,
) -> None:
    last_cs = max(2, round(shown[-1].duration_ms / 10))
    # A GIF counts how often it plays again; -1 is not at all.
    loop = {0: "0", 1: "-1"}.get(repeats, str(repeats - 1))
    options = {"loop": loop, "final_delay": str(last_cs)}
    with av.open(str(path), "w", format="gif", options=options) as container:
        stream: Any = container.add_stream("gif", rate=100)
        stream.width, stream.height, stream.pix_fmt = size.width_px, size.height_px, "pal8"
        stream.codec_context.time_base = _CENTISECONDS
        for frame, row in paletted(shown, draw_all, size, settings):
            frame.pts, frame.time_base = round(row.start_ms / 10), _CENTISECONDS
            container.mux(stream.encode(frame))
        container.mux(stream.encode(None))


def _write_coded(
    path: Path,
    shown: Sequence[Shown],
    draw_all: DrawAll,
    size: Size,
    settings: ClipSettings,
    repeats: int,
) -> None:
    options = {"loop": str(repeats)} if settings.format in ("webp", "avif") else {}
    if settings.format == "mp4":
        options = {"movflags": "+faststart", "video_track_timescale": "1000"}
    with av.open(str(path), "w", format=settings.format, options=options) as container:
        stream: Any = container.add_stream(
            _CODECS[settings.format], rate=MOST_RATE_FPS, options=_options(settings)
        )
        stream.width, stream.height = size.width_px, size.height_px
        stream.pix_fmt = "bgra" if settings.format == "webp" else "yuv420p"
        context = stream.codec_context
        context.time_base = _MS
        if settings.format != "webp":
            context.color_primaries = context.color_trc = context.colorspace = _BT709
            context.color_range = ColorRange.MPEG
        context.open()
        leave_real_time()
        for pixels, start_ms in _moments(shown, draw_all, settings):
            frame = av.VideoFrame.from_ndarray(np.ascontiguousarray(pixels), format="rgb24")
            if settings.format != "webp":
                frame = frame.reformat(
                    format="yuv420p",
                    dst_colorspace=Colorspace.ITU709,
                    dst_color_range=ColorRange.MPEG,
                )
            else:
                frame = frame.reformat(format="bgra")
            frame.pts, frame.time_base = start_ms, _MS
            container.mux(stream.encode(frame))
        container.mux(stream.encode(None))


def _moments(
    shown: Sequence[Shown], draw_all: DrawAll, settings: ClipSettings
) -> Iterator[tuple[Pixels, int]]:
    """Pictures and when they begin. The last comes twice, which says how long it lasts."""
    end_ms = shown[-1].start_ms + shown[-1].duration_ms
    # Of WebP, the library lets the last picture last as long as the others do on average.
    share = len(shown) / (len(shown) + 1)
    again_ms = round(end_ms * share) if settings.format == "webp" else end_ms - 1
    for pixels, row in draw_all(shown):
        yield pixels, row.start_ms
    if again_ms > row.start_ms:
        yield pixels, again_ms


def _options(settings: ClipSettings) -> dict[str, str]:
    quality = str(settings.quality)
    match settings.format:
        case "webp":
            return {"quality": quality, "compression_level": "4"}
        case "avif":
            return {"crf": quality, "preset": "8", "svtav1-params": "scm=1:keyint=300"}
        case "mp4":
            return {"crf": quality, "preset": "medium", "g": "300"}
        case _:
            return {
                "crf": quality,
                "b": "0",
                "deadline": "good",
                "cpu-used": "4",
                "row-mt": "1",
                "g": "300",
                "tune-content": "screen",
            }
