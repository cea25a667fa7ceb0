"""Having libvips write a file into memory."""

from __future__ import annotations

from tallpage.core.picture._libvips import translated
from tallpage.core.picture.operations._raster import Raster


def written(raster: Raster, suffix: str, **options: object) -> bytes:
    """The file of a raster, in the format of a suffix like ``.png``, with libvips' own options.

    Nothing but pixels is kept: no profile, no metadata.
    """
    with translated("The picture"):
        data: bytes = raster.image.write_to_buffer(suffix, keep="none", **options)
    return data
