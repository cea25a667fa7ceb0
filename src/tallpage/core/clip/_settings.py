"""The formats of a clip, and the steps of quality that each of them has, from lightest to best."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

from tallpage.core.errors import ClipError

ClipFormat = Literal["gif", "webp", "avif", "mp4", "webm"]
CLIP_FORMATS: tuple[ClipFormat, ...] = get_args(ClipFormat)
LEAST_WIDTH_PX, MOST_WIDTH_PX = 64, 2_560
Palette = Literal["all", "each"]
"""Whether a GIF has one palette for all frames, or each frame its own."""
Dither = Literal["none", "bayer", "sierra2_4a"]


@dataclass(frozen=True, slots=True, kw_only=True)
class GifStep:
    """How a GIF is made; ``tolerance`` is by how many levels a pixel may differ and still stay."""

    colours: int
    tolerance: int
    dither: Dither = "none"


_GIF_STEPS = (
    GifStep(colours=8, tolerance=48),
    GifStep(colours=16, tolerance=36),
    GifStep(colours=24, tolerance=28),
    GifStep(colours=32, tolerance=22),
    GifStep(colours=48, tolerance=18),
    GifStep(colours=64, tolerance=14),
    GifStep(colours=96, tolerance=10),
    GifStep(colours=128, tolerance=8),
    GifStep(colours=192, tolerance=5),
    GifStep(colours=255, tolerance=3),
    GifStep(colours=255, tolerance=0),
    GifStep(colours=255, tolerance=3, dither="bayer"),
    GifStep(colours=255, tolerance=0, dither="sierra2_4a"),
)
_WEBP_QUALITIES = tuple(range(0, 101, 2))
_H264_FACTORS = tuple(range(51, 10, -1))
_VP9_FACTORS = _AV1_FACTORS = tuple(range(63, 7, -1))


@dataclass(frozen=True, slots=True, kw_only=True)
class ClipSettings:
    """A way to write a clip; ``step`` counts from 0, the lightest."""

    format: ClipFormat
    step: int
    palette: Palette = "all"
    """For GIF only."""

    @property
    def gif(self) -> GifStep:
        """What the step means for a GIF."""
        return _GIF_STEPS[self.step]

    @property
    def quality(self) -> int:
        """What the step means for a WebP (0 to 100), or as the rate factor of a video (less is better)."""
        return _QUALITIES[self.format][self.step]

    def in_words(self) -> str:
        """What a person is told of it."""
        if self.format == "gif":
            gif = self.gif
            dithered = "" if gif.dither == "none" else ", dithered"
            whose = "" if self.palette == "all" else ", a palette for each frame"
            return f"{gif.colours} colours{dithered}{whose}"
        return f"quality {self.quality}" if self.format == "webp" else f"rate factor {self.quality}"


_QUALITIES = {"webp": _WEBP_QUALITIES, "avif": _AV1_FACTORS, "mp4": _H264_FACTORS, "webm": _VP9_FACTORS}
STEPS: dict[ClipFormat, int] = {
    format_: len(_GIF_STEPS) if format_ == "gif" else len(_QUALITIES[format_]) for format_ in CLIP_FORMATS
}
"""How many steps of quality each format has."""


def clip_format(name: str) -> ClipFormat:
    """The format of a file name's extension, without its dot.

    Raises:
        ClipError: it is none of a clip.
    """
    for format_ in CLIP_FORMATS:
        if name.lower() == format_:
            return format_
    raise ClipError(
        f"“{name[:20]}” is not a format of clips.",
        hint=f"Use one of {', '.join(CLIP_FORMATS)}.",
        code="format_unknown",
    )
