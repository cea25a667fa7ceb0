"""Pixels: pictures read in, what is done to them, encoders."""

from tallpage.core.picture._libvips import libvips_version
from tallpage.core.picture.encoders._avif import encode_avif
from tallpage.core.picture.encoders._gif import encode_gif
from tallpage.core.picture.encoders._jpeg import encode_jpeg
from tallpage.core.picture.encoders._png import (
    PngFilter,
    encode_palette_png,
    encode_png,
    png_with_metadata,
    write_png,
)
from tallpage.core.picture.encoders._webp import encode_lossless_webp, encode_webp
from tallpage.core.picture.encoders._writing import Metadata
from tallpage.core.picture.operations._blending import (
    blurred,
    blurred_where,
    laid_over,
    masked,
    multiplied_by,
    put_in,
)
from tallpage.core.picture.operations._hiding import edge_line, patched, pixelated, plain, transparent
from tallpage.core.picture.operations._raster import WHITE, Access, Colour, Raster
from tallpage.core.picture.operations._regions import label_regions
from tallpage.core.picture.operations._sheet import Sheet
from tallpage.core.picture.operations._toning import brightened, greyed, inverted, thresholded
from tallpage.core.picture.operations._turning import (
    SMOOTHING_REACH_PX,
    mapped_onto,
    mirrored,
    quarter_turned,
)
from tallpage.core.picture.reading._importing import MAX_PICTURE_PIXELS, check_picture, import_picture
from tallpage.core.picture.reading._opening import decode, open_file, open_foreign
from tallpage.core.picture.reading._small import small_png
from tallpage.core.picture.reading._splitting import INK_CELL_PX, FilteredPng
from tallpage.core.picture.reading._strips import (
    MAX_STRIP_HEIGHT_PX,
    Strip,
    StripManifest,
    StripWriter,
    strips_so_far,
)
from tallpage.core.picture.reading._vectors import draw_vectors

__all__ = [
    "INK_CELL_PX",
    "MAX_PICTURE_PIXELS",
    "MAX_STRIP_HEIGHT_PX",
    "SMOOTHING_REACH_PX",
    "WHITE",
    "Access",
    "Colour",
    "FilteredPng",
    "Metadata",
    "PngFilter",
    "Raster",
    "Sheet",
    "Strip",
    "StripManifest",
    "StripWriter",
    "blurred",
    "blurred_where",
    "brightened",
    "check_picture",
    "decode",
    "draw_vectors",
    "edge_line",
    "encode_avif",
    "encode_gif",
    "encode_jpeg",
    "encode_lossless_webp",
    "encode_palette_png",
    "encode_png",
    "encode_webp",
    "greyed",
    "import_picture",
    "inverted",
    "label_regions",
    "laid_over",
    "libvips_version",
    "mapped_onto",
    "masked",
    "mirrored",
    "multiplied_by",
    "open_file",
    "open_foreign",
    "patched",
    "pixelated",
    "plain",
    "png_with_metadata",
    "put_in",
    "quarter_turned",
    "small_png",
    "strips_so_far",
    "thresholded",
    "transparent",
    "write_png",
]
