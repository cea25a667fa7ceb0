"""PNG: lossless, or with a palette."""

from __future__ import annotations

import bisect
import io
from pathlib import Path
from typing import Literal

from tallpage.core.picture._libvips import translated
from tallpage.core.picture.encoders._writing import Metadata, written
from tallpage.core.picture.operations._raster import Raster

PngFilter = Literal["none", "sub", "all"]
"""What a PNG stores of a row: its pixels; how they differ from those on the left; or what is likely to
come out lightest, row by row. Source: PNG specification (W3C), 9.2 filter types, 12.7 filter selection."""

_HEAD_BYTES = 8 + 4 + 4 + 13 + 4
"""Signature and IHDR, which comes first. Source: PNG specification (W3C), 5.2 and 11.2.1."""
_PALETTE_QUALITIES = (97, 94, 90, 85, 80, 74, 67, 60, 50, 40, 30, 20)


def encode_png(raster: Raster, *, compression: int = 3, row_filter: PngFilter = "none") -> bytes:
    """Lossless PNG."""
    return written(raster, ".png", compression=compression, filter=row_filter)


def encode_palette_png(raster: Raster, *, colours: int, dithered: bool) -> bytes:
    """PNG with at most ``colours`` colours, 2 to 256, each pixel's the nearest or ``dithered``.

    Greater effort takes five times as long over photographs and finds no better palette.
    """
    bits = next(bits for bits in (1, 2, 4, 8) if colours <= 2**bits)
    careful = _palette_of(raster, bits, dithered=dithered)
    if _palette_size(careful) <= colours:
        return careful
    # libvips takes no number of colours: a palette of lower quality has fewer.
    count = bisect.bisect_left(
        _PALETTE_QUALITIES,
        -colours,
        key=lambda quality: (
            -_palette_size(_palette_of(raster, bits, dithered=dithered, quality=quality, compression=1))
        ),
    )
    if count == len(_PALETTE_QUALITIES):
        return encode_palette_png(raster, colours=2 ** (bits // 2), dithered=dithered)
    return _palette_of(raster, bits, dithered=dithered, quality=_PALETTE_QUALITIES[count])


def _palette_of(
    raster: Raster, bits: int, *, dithered: bool, quality: int = 100, compression: int = 9
) -> bytes:
    return written(
        raster,
        ".png",
        palette=True,
        Q=quality,
        bitdepth=bits,
        dither=1.0 if dithered else 0.0,
        effort=4,
        compression=compression,
    )


def write_png(raster: Raster, path: Path, *, compression: int = 3) -> None:
    """Write a lossless PNG file row by row."""
    with translated("The picture"):
        raster.image.write_to_file(str(path), compression=compression, keep="none")


def png_with_metadata(png: bytes, metadata: Metadata) -> bytes:
    """A PNG with XMP in an iTXt chunk, where every reader looks; libvips writes it into another.

    Source: ISO 16684-3 (XMP, storage in files), PNG; PNG specification (W3C), 11.3.3.4 iTXt.
    """
    from PIL.PngImagePlugin import putchunk

    file = io.BytesIO()
    file.write(png[:_HEAD_BYTES])
    putchunk(file, b"iTXt", b"XML:com.adobe.xmp\0\0\0\0\0", metadata.xmp)
    file.write(png[_HEAD_BYTES:])
    return file.getvalue()


def _palette_size(png: bytes) -> int:
    """Number of colours in a PNG's palette: three bytes each, their number before the chunk's name."""
    name_at = png.index(b"PLTE")
    return int.from_bytes(png[name_at - 4 : name_at]) // 3
