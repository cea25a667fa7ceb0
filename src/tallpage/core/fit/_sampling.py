"""Evenly spread bands of a picture, in memory: a small stand-in for a large one."""

from __future__ import annotations

from tallpage.core.geometry import Box, bands
from tallpage.core.picture import Raster

SAMPLE_PIXELS = 250_000
_BAND_PX = 64
_SHARE_AT_MOST = 0.34
_WHOLE_PIXELS = 60_000
"""Of a picture as small as this, a sample would say too little, and the whole is as quick."""


def sampled_rows(raster: Raster) -> Raster:
    """Up to 250,000 pixels of ``raster`` in evenly spread bands, or all of it when it is small anyway."""
    size = raster.size
    if size.pixels <= _WHOLE_PIXELS:
        return raster
    rows = bands(size.height_px, min(_BAND_PX, max(2, size.height_px // 256) * 16))
    share = min(_SHARE_AT_MOST, SAMPLE_PIXELS / size.pixels)
    step = max(1, round(1 / share))
    picked = rows[step // 2 :: step]
    parts = [
        raster.cropped(Box(x_px=0, y_px=top_px, width_px=size.width_px, height_px=height_px))
        for top_px, height_px in picked
    ]
    return Raster.stacked(parts).held()
