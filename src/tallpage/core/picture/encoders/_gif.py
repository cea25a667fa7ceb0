"""GIF."""

from __future__ import annotations

from tallpage.core.picture.encoders._writing import written
from tallpage.core.picture.operations._raster import Raster


def encode_gif(raster: Raster, *, colours: int, dithered: bool) -> bytes:
    """GIF with at most ``colours`` (2, 4, 16 or 256) colours; a pixel is transparent or is not."""
    bits = {2: 1, 4: 2, 16: 4, 256: 8}[colours]
    dither = 1.0 if dithered else 0.0
    return written(raster, ".gif", bitdepth=bits, dither=dither, effort=4)
