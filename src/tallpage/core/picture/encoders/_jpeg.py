"""JPEG."""

from __future__ import annotations

from tallpage.core.picture.encoders._writing import Metadata, written
from tallpage.core.picture.operations._raster import Raster


def encode_jpeg(
    raster: Raster,
    *,
    quality: int,
    subsample: bool,
    draft: bool = False,
    metadata: Metadata | None = None,
) -> bytes:
    """Progressive JPEG with trellis quantisation; ``subsample`` halves the colour planes.

    A draft is some 20 % heavier and made ten times as fast: good enough to predict sizes.
    """
    careful = not draft
    return written(
        raster,
        ".jpg",
        metadata,
        Q=quality,
        subsample_mode="on" if subsample else "off",
        optimize_coding=True,
        interlace=careful,
        trellis_quant=careful,
        overshoot_deringing=careful,
        optimize_scans=careful,
        quant_table=2,
    )
