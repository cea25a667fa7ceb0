"""Evenly spread bands of a picture, in memory: a small stand-in for a large one."""

from __future__ import annotations

from tallpage.core.geometry import Box, bands
from tallpage.core.picture import Raster

_LEAST_PIXELS, _MOST_PIXELS = 250_000, 750_000
QUICK_PIXELS = 350_000
"""Enough for a first word on a page that is not held, of which each band costs a strip to be decoded."""
_SHARE_OF_LARGE = 0.06
"""Of a tall page, 250,000 pixels would be five bands: too few to meet what is on it in its proportions."""
_BAND_PX = 64
_SHARE_AT_MOST = 0.34
_JOINT_PX = 10
"""Where joints lie in the blocks of 16 px that encoders work in: inside, as most edges of a page do. What
lies between two is smeared by WebP, and costs JPEG too little."""
_WHOLE_PIXELS = 60_000
"""Of a picture as small as this, a sample would say too little, and the whole is as quick."""


def sampled_rows(raster: Raster, *, most_pixels: int = _MOST_PIXELS) -> Raster:
    """250,000 to 750,000 pixels of ``raster`` in evenly spread bands; all of it when it is small anyway."""
    size = raster.size
    if size.pixels <= _WHOLE_PIXELS:
        return raster
    rows = bands(size.height_px, min(_BAND_PX, max(2, size.height_px // 256) * 16))
    wanted_pixels = min(max(_LEAST_PIXELS, _SHARE_OF_LARGE * size.pixels), most_pixels)
    share = min(_SHARE_AT_MOST, wanted_pixels / size.pixels)
    step = max(1, round(1 / share))
    picked = rows[step // 2 :: step]
    return Raster.stacked([_band(raster, *row, is_first=row == picked[0]) for row in picked]).held()


def _band(raster: Raster, top_px: int, height_px: int, *, is_first: bool) -> Raster:
    """A band, moved so that its rows keep their places in the encoders' blocks."""
    size = raster.size
    if is_first:
        height_px = max(1, height_px - 16 + _JOINT_PX)
    else:
        top_px = min(top_px + _JOINT_PX, size.height_px - 1)
        height_px = min(height_px, size.height_px - top_px)
    return raster.cropped(Box(x_px=0, y_px=top_px, width_px=size.width_px, height_px=height_px))
