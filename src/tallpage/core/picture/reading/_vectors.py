"""Vector drawings of our own, brought to pixels. SVG from outside is never opened."""

from __future__ import annotations

import pyvips

from tallpage.core.picture._libvips import translated
from tallpage.core.picture.operations._raster import Raster

# Only a drawing in memory: no file, whatever it is called, is taken for one.
pyvips.operation_block_set("VipsForeignLoadSvgBuffer", False)


def draw_vectors(svg: bytes) -> Raster:
    """An SVG document of our own, at its own size, with transparency where it draws nothing."""
    with translated("A drawing"):
        image = pyvips.Image.svgload_buffer(svg, unlimited=True)
        return Raster(image.copy(interpretation="srgb"))
