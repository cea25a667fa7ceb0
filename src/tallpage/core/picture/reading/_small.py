"""Small pictures from outside that are drawn on others: logos, stickers, stamps."""

from __future__ import annotations

import pyvips

from tallpage.core.errors import PictureTooLarge, PictureUnreadable
from tallpage.core.picture._libvips import translated
from tallpage.core.picture.encoders._png import encode_png
from tallpage.core.picture.operations._raster import Raster

MOST_SIDE_PX = 2_000
_MOST_PIXELS = 40_000_000
_BEGINNINGS = (b"\x89PNG\r\n\x1a\n", b"\xff\xd8\xff", b"RIFF")
"""How PNG, JPEG and WebP files begin. What a file is called says nothing."""


def small_png(data: bytes) -> bytes:
    """A picture file as a PNG in sRGB, upright, without metadata, its sides at most 2,000 px.

    Raises:
        PictureTooLarge: it has more than 40 million pixels.
        PictureUnreadable: it is no PNG, JPEG or WebP, or it is damaged.
    """
    if not data.startswith(_BEGINNINGS):
        raise PictureUnreadable("It is not a PNG, JPEG or WebP picture.")
    with translated("The picture"):
        image = pyvips.Image.new_from_buffer(data, "", fail_on="error")
        if image.width * image.height > _MOST_PIXELS:
            raise PictureTooLarge(
                f"The picture has {image.width * image.height:,} pixels; {_MOST_PIXELS:,} at most."
            )
        raster = Raster(image).normalised()
        scale = min(1.0, MOST_SIDE_PX / max(raster.size.width_px, raster.size.height_px))
        if scale < 1:
            raster = raster.resized(raster.size.at_width(max(1, round(raster.size.width_px * scale))))
        return encode_png(raster)
