"""Which stretch of a picture costs most: bytes along its height."""

from __future__ import annotations

from dataclasses import dataclass

from tallpage.core.fit.encoding._candidates import ready_for
from tallpage.core.fit.encoding._recipes import Choice, encode
from tallpage.core.fit.judging._content import content_class_of
from tallpage.core.geometry import Box, bands
from tallpage.core.picture import Raster

_LEAST_BAND_PX = 32
_MOST_BANDS = 48


@dataclass(frozen=True, slots=True, kw_only=True)
class WeightBand:
    """Rows of a file, and what they cost."""

    top_px: int
    height_px: int
    byte_count: int


def weight_line(raster: Raster, choice: Choice, byte_count: int) -> tuple[WeightBand, ...]:
    """Even bands from top to bottom, whose bytes together are the file's ``byte_count``.

    Each band is encoded quickly by itself; what that gives is brought to the whole file's bytes.
    """
    source, _ = ready_for(raster, [choice.format])
    size, content_class = source.size, content_class_of(source.size, source)
    band_px = max(_LEAST_BAND_PX, -(-size.height_px // _MOST_BANDS))
    rows = bands(size.height_px, band_px)
    sizes = []
    for top_px, height_px in rows:
        band = source.cropped(Box(x_px=0, y_px=top_px, width_px=size.width_px, height_px=height_px))
        sizes.append(len(encode(band, choice, content_class, draft=True)))
    # Every band's file has a head of its own, which the whole has only once.
    head = min(sizes) * 0.9 if len(sizes) > 1 else 0.0
    shares = [count - head for count in sizes]
    return tuple(
        WeightBand(top_px=top_px, height_px=height_px, byte_count=round(byte_count * share / sum(shares)))
        for (top_px, height_px), share in zip(rows, shares, strict=True)
    )
