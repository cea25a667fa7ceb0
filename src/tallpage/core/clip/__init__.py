"""A few seconds of a page: its frames, which of them are seen, when, and how."""

from tallpage.core.clip._document import ClipDocument
from tallpage.core.clip._drawing import Pixels, draw, draw_all
from tallpage.core.clip._frames import (
    MOST_RATE_FPS,
    MOST_SECONDS,
    Frame,
    Frames,
    FramesWriter,
    open_frames,
    require_rate,
    too_long,
)
from tallpage.core.clip._of_cut import seen_through
from tallpage.core.clip._on_frames import MOST_ON_FRAMES, HiddenOnFrames, MarkOnFrames
from tallpage.core.clip._playing import Shown, length_ms, played, thinned
from tallpage.core.clip._settings import (
    CLIP_FORMATS,
    LEAST_WIDTH_PX,
    MOST_WIDTH_PX,
    STEPS,
    ClipFormat,
    ClipSettings,
    Palette,
    clip_format,
)

__all__ = [
    "CLIP_FORMATS",
    "LEAST_WIDTH_PX",
    "MOST_ON_FRAMES",
    "MOST_RATE_FPS",
    "MOST_SECONDS",
    "MOST_WIDTH_PX",
    "STEPS",
    "ClipDocument",
    "ClipFormat",
    "ClipSettings",
    "Frame",
    "Frames",
    "FramesWriter",
    "HiddenOnFrames",
    "MarkOnFrames",
    "Palette",
    "Pixels",
    "Shown",
    "clip_format",
    "draw",
    "draw_all",
    "length_ms",
    "open_frames",
    "played",
    "require_rate",
    "seen_through",
    "thinned",
    "too_long",
]
