"""The one renderer: a source, a cut and the rules of a place in, pixels out.

Its stages, in the order of work: the page turned, what is hidden, the frame, the leaves, the size, tone,
marks, dressing, the number line, the ground. Each is a pure function from pixels to pixels; those that move
pixels know where their places were before, and come to lie.
"""

from tallpage.core.render._drawing import Rendering
from tallpage.core.render._key import RENDERER_VERSION, render_key
from tallpage.core.render._rules import LEAST_LETTERS_PX, RenderRules
from tallpage.core.render._source import CaptureSource, PictureSource, RasterSource, Source
from tallpage.core.render._views import (
    dressed_view,
    hidden_view,
    piece_view,
    prepared_spine,
    prepared_tile,
    save_joined_png,
    save_png,
    squeezed,
    step_view,
    strip_view,
    thumbnail,
    whole_page,
)
from tallpage.core.render.frame._leaves import Leaf
from tallpage.core.render.page._hidden_words import without_hidden_words
from tallpage.core.render.page._prepared import prepared, straightened, turned
from tallpage.core.render.page._strength import asked_strength_px

__all__ = [
    "LEAST_LETTERS_PX",
    "RENDERER_VERSION",
    "CaptureSource",
    "Leaf",
    "PictureSource",
    "RasterSource",
    "RenderRules",
    "Rendering",
    "Source",
    "asked_strength_px",
    "dressed_view",
    "hidden_view",
    "piece_view",
    "prepared",
    "prepared_spine",
    "prepared_tile",
    "render_key",
    "save_joined_png",
    "save_png",
    "squeezed",
    "step_view",
    "straightened",
    "strip_view",
    "thumbnail",
    "turned",
    "whole_page",
    "without_hidden_words",
]
