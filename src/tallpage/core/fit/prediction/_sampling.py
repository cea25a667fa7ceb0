"""Evenly spread bands of a picture, in memory: a small stand-in for a large one."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor

from tallpage.core.geometry import Box, bands
from tallpage.core.picture import Raster

_LEAST_PIXELS, _MOST_PIXELS = 250_000, 750_000
QUICK_PIXELS = 350_000
"""Enough for a first verdict on a page that is not held: each band costs the decoding of a strip."""
_SHARE_OF_LARGE = 0.06
"""Share of a tall page that is sampled. 250,000 pixels of it would be five bands: too few to hold
letters and photographs in the page's own proportions."""
_BAND_PX = 64
_SHARE_AT_MOST = 0.34
_JOINT_PX = 10
"""Where the joints of bands lie in the blocks of 16 px that encoders work in: inside a block, as most edges
of a page do. A joint between two blocks is smeared by WebP, and costs JPEG too little."""
_WHOLE_PIXELS = 60_000
"""Pictures up to this size are taken whole: a sample would say too little, and would not be quicker."""


def sampled_rows(raster: Raster) -> Raster:
    """250,000 to 750,000 pixels of ``raster`` in evenly spread bands; all of it when it is small anyway."""
    if raster.size.pixels <= _WHOLE_PIXELS:
        return raster
    return Raster.stacked(_picked_bands(raster, _MOST_PIXELS)).held()


def quickly_sampled_rows(raster: Raster, twin: Raster) -> Raster:
    """At most 350,000 pixels of a picture that was opened twice; all of it when it is small anyway.

    Two threads draw half of the bands each. Each has a raster of its own: libvips may close a file in
    one thread while another still reads it.
    """
    if raster.size.pixels <= _WHOLE_PIXELS:
        return raster
    upper, lower = _picked_bands(raster, QUICK_PIXELS), _picked_bands(twin, QUICK_PIXELS)
    middle = len(upper) // 2
    halves = [half for half in (upper[:middle], lower[middle:]) if half]
    with ThreadPoolExecutor(max_workers=len(halves)) as pool:
        return Raster.stacked(list(pool.map(lambda half: Raster.stacked(half).held(), halves))).held()


def _picked_bands(raster: Raster, most_pixels: int) -> list[Raster]:
    size = raster.size
    rows = bands(size.height_px, min(_BAND_PX, max(2, size.height_px // 256) * 16))
    wanted_pixels = min(max(_LEAST_PIXELS, _SHARE_OF_LARGE * size.pixels), most_pixels)
    share = min(_SHARE_AT_MOST, wanted_pixels / size.pixels)
    step = max(1, round(1 / share))
    picked = rows[step // 2 :: step]
    return [_band(raster, *row, is_first=row == picked[0]) for row in picked]


def _band(raster: Raster, top_px: int, height_px: int, *, is_first: bool) -> Raster:
    """A band, moved so that its rows keep their places in the encoders' blocks."""
    size = raster.size
    if is_first:
        height_px = max(1, height_px - 16 + _JOINT_PX)
    else:
        top_px = min(top_px + _JOINT_PX, size.height_px - 1)
        height_px = min(height_px, size.height_px - top_px)
    return raster.cropped(Box(x_px=0, y_px=top_px, width_px=size.width_px, height_px=height_px))
