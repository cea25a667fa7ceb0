"""Opening picture files: ours, and those from outside."""

from __future__ import annotations

from pathlib import Path

import pyvips

from tallpage.core.picture._libvips import translated
from tallpage.core.picture.operations._raster import Access, Raster


def open_file(path: Path, *, access: Access = "random") -> Raster:
    """Open a picture file of ours; damage shows as an error, never as grey rows."""
    with translated(path.name):
        return Raster(pyvips.Image.new_from_file(str(path), access=access, fail_on="error"))


def open_foreign(path: Path) -> Raster:
    """Open a picture from outside, to be pulled once.

    Raises:
        PictureUnreadable: not a picture of a format that is taken in, or damaged.
    """
    with translated("The picture"):
        return Raster(pyvips.Image.new_from_file(str(path), access="sequential", fail_on="error"))


def decode(data: bytes) -> Raster:
    """Open an encoded picture of ours."""
    with translated("The file"):
        image = pyvips.Image.new_from_buffer(data, "", access="sequential", fail_on="error")
        if image.bands < 3:
            image = image.colourspace("srgb")
        return Raster(image)
