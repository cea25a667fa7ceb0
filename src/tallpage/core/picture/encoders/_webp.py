"""WebP: lossy and lossless."""

from __future__ import annotations

from tallpage.core.picture.encoders._writing import Metadata, written
from tallpage.core.picture.operations._raster import Raster


def encode_webp(
    raster: Raster,
    *,
    quality: int,
    draft: bool = False,
    sharp_colour: bool = True,
    thorough: bool = False,
    deblocked: bool = False,
    metadata: Metadata | None = None,
) -> bytes:
    """Lossy WebP; the alpha plane is compressed at about the same quality.

    ``sharp_colour`` keeps coloured edges sharp, and takes twice the time. A ``thorough`` file is up
    to a point better, and takes an eighth longer. With ``deblocked`` the encoder tries how much a
    viewer is to smooth between its blocks: as many bytes, mostly two points better, three times as long.
    """
    careful = 5 if thorough else 4
    effort = 0 if draft else careful
    return written(
        raster,
        ".webp",
        metadata,
        Q=quality,
        alpha_q=max(quality, 80),
        effort=effort,
        smart_subsample=sharp_colour and not draft,
        smart_deblock=deblocked,
    )


def encode_lossless_webp(raster: Raster, *, draft: bool = False, metadata: Metadata | None = None) -> bytes:
    """Lossless WebP."""
    return written(raster, ".webp", metadata, lossless=True, effort=1 if draft else 4)
