"""Taking in a picture from outside: decoded, never trusted."""

from __future__ import annotations

from pathlib import Path

from tallpage.core.errors import PictureTooLarge
from tallpage.core.geometry import Box, Size, bands
from tallpage.core.picture.encoders._png import encode_png
from tallpage.core.picture.operations._raster import Raster
from tallpage.core.picture.reading._opening import open_foreign
from tallpage.core.picture.reading._strips import MAX_STRIP_HEIGHT_PX, StripManifest, StripWriter

MAX_PICTURE_PIXELS = 500_000_000
"""Room for 1280 × 390,000 px; uncompressed on disk that is 1.5 GB while it is taken in."""


def check_picture(path: Path) -> Size:
    """Size that the file claims, from its header alone.

    Raises:
        PictureUnreadable: not a picture of a format that is taken in.
        PictureTooLarge: it claims more pixels than are taken in. Nothing was decoded.
    """
    return _opened(path).size


def import_picture(path: Path, folder: Path) -> StripManifest:
    """Decode a picture whole and write it as strips into ``folder``, which exists and is empty.

    Raises:
        PictureUnreadable, PictureTooLarge, StorageError: nothing of the picture is kept.
    """
    # Decoding to the end first shows any damage before a single strip is written.
    raster = _opened(path).normalised().held()
    writer = StripWriter(folder, width_px=raster.size.width_px)
    for top_px, height_px in bands(raster.size.height_px, MAX_STRIP_HEIGHT_PX):
        box = Box(x_px=0, y_px=top_px, width_px=raster.size.width_px, height_px=height_px)
        writer.add(encode_png(raster.cropped(box)), height_px=height_px)
    return writer.finish()


def _opened(path: Path) -> Raster:
    raster = open_foreign(path)
    size = raster.size
    if size.pixels > MAX_PICTURE_PIXELS:
        raise PictureTooLarge(
            f"The picture says it is {size.width_px:,} × {size.height_px:,} px: "
            f"more than the {MAX_PICTURE_PIXELS // 1_000_000} million pixels that are taken in."
        )
    return raster
