"""A clip's file: drawn, encoded, judged, the best under a limit. Loads the encoders."""

from tallpage.core.clip.making._advice import ClipAdvice
from tallpage.core.clip.making._judging import fidelity_over_time
from tallpage.core.clip.making._search import ClipFile, ClipRules, fit_clip
from tallpage.core.clip.making.encoding._reading import read_clip
from tallpage.core.clip.making.encoding._writing import write_clip

__all__ = [
    "ClipAdvice",
    "ClipFile",
    "ClipRules",
    "fidelity_over_time",
    "fit_clip",
    "read_clip",
    "write_clip",
]
