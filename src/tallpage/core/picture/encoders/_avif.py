"""AVIF."""

from __future__ import annotations

from tallpage.core.picture.encoders._tall_avif import tall_avif
from tallpage.core.picture.encoders._writing import Metadata, written
from tallpage.core.picture.operations._raster import Raster

_GREATEST_SIDE_PX = 16_384
"""libvips writes none with a longer side."""
_PATIENT_EFFORT = 3


def encode_avif(
    raster: Raster,
    *,
    quality: int,
    draft: bool = False,
    thorough: bool = True,
    patient: bool = False,
    metadata: Metadata | None = None,
) -> bytes:
    """AVIF with full colour planes.

    A ``thorough`` one looks up to four points better at the same bytes; of large pictures it takes
    several times as long. A ``patient`` one is on letters and drawings again a little lighter and up
    to eight points better, in twice the time; more effort still gains little more.
    """
    careful = 2 if thorough else 1
    effort = 0 if draft else _PATIENT_EFFORT if patient else careful
    if max(raster.image.width, raster.image.height) > _GREATEST_SIDE_PX:
        rows, xmp = raster.rows(0, raster.image.height), metadata.xmp if metadata else None
        return tall_avif(rows, quality=quality, effort=effort, xmp=xmp)
    return written(
        raster,
        ".avif",
        metadata,
        Q=quality,
        compression="av1",
        effort=effort,
        subsample_mode="off",
        bitdepth=8,
    )
