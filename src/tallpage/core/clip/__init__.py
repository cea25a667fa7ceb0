"""A few seconds of a page: which frames are seen, how, and as which file under a limit."""

from tallpage.core.clip._advice import ClipAdvice
from tallpage.core.clip._document import ClipDocument
from tallpage.core.clip._drawing import draw
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
from tallpage.core.clip._judging import fidelity_over_time
from tallpage.core.clip._playing import Shown, length_ms, played
from tallpage.core.clip._search import ClipFile, ClipRules, fit_clip
from tallpage.core.clip.encoding._reading import read_clip
from tallpage.core.clip.encoding._settings import CLIP_FORMATS, ClipFormat, ClipSettings, clip_format

__all__ = [
    "CLIP_FORMATS",
    "MOST_RATE_FPS",
    "MOST_SECONDS",
    "ClipAdvice",
    "ClipDocument",
    "ClipFile",
    "ClipFormat",
    "ClipRules",
    "ClipSettings",
    "Frame",
    "Frames",
    "FramesWriter",
    "Shown",
    "clip_format",
    "draw",
    "fidelity_over_time",
    "fit_clip",
    "length_ms",
    "open_frames",
    "played",
    "read_clip",
    "require_rate",
    "too_long",
]
