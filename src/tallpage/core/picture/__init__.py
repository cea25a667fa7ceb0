"""Pixels: pictures read in, what is done to them, encoders."""

from tallpage.core.picture._libvips import libvips_version
from tallpage.core.picture.encoders._avif import encode_avif
from tallpage.core.picture.encoders._gif import encode_gif
from tallpage.core.picture.encoders._jpeg import encode_jpeg
from tallpage.core.picture.encoders._png import PngFilter, encode_palette_png, encode_png, write_png
from tallpage.core.picture.encoders._webp import encode_lossless_webp, encode_webp
from tallpage.core.picture.operations._raster import WHITE, Access, Colour, Raster
from tallpage.core.picture.reading._importing import MAX_PICTURE_PIXELS, check_picture, import_picture
from tallpage.core.picture.reading._opening import decode, open_file, open_foreign
from tallpage.core.picture.reading._splitting import INK_CELL_PX, FilteredPng
from tallpage.core.picture.reading._strips import (
    MAX_STRIP_HEIGHT_PX,
    Strip,
    StripManifest,
    StripWriter,
    strips_so_far,
)

__all__ = [
    "INK_CELL_PX",
    "MAX_PICTURE_PIXELS",
    "MAX_STRIP_HEIGHT_PX",
    "WHITE",
    "Access",
    "Colour",
    "FilteredPng",
    "PngFilter",
    "Raster",
    "Strip",
    "StripManifest",
    "StripWriter",
    "check_picture",
    "decode",
    "encode_avif",
    "encode_gif",
    "encode_jpeg",
    "encode_lossless_webp",
    "encode_palette_png",
    "encode_png",
    "encode_webp",
    "import_picture",
    "libvips_version",
    "open_file",
    "open_foreign",
    "strips_so_far",
    "write_png",
]
