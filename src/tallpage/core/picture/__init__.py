"""Pixels: taking pictures in, strips, operations, encoders."""

from tallpage.core.picture._importing import MAX_PICTURE_PIXELS, check_picture, import_picture
from tallpage.core.picture._splitting import INK_CELL_PX, FilteredPng
from tallpage.core.picture._strips import (
    MAX_STRIP_HEIGHT_PX,
    Strip,
    StripManifest,
    StripWriter,
    strips_so_far,
)
from tallpage.core.picture._vips import WHITE, Access, Colour, PngFilter, Raster, libvips_version

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
    "import_picture",
    "libvips_version",
    "strips_so_far",
]
