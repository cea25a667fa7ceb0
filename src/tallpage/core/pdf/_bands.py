"""The pixels of a page as pictures of a PDF: bands, each stored in the way that is lightest."""

from __future__ import annotations

import zlib
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np
import pikepdf
from numpy.typing import NDArray

from tallpage.core.geometry import Size, bands
from tallpage.core.picture import Raster, encode_jpeg, encode_png

BAND_PX = 3_072
OVERLAP_PX = 2
"""Rows that a band repeats of the next one: viewers soften the edges of pictures, and would show a line."""
BEST_QUALITY = 92
_MOST_COLOURS = 256
_LOOKED_AT_ROWS = 16
_PNG_SIGNATURE_BYTES = 8


@dataclass(frozen=True, slots=True, kw_only=True)
class Band:
    """Rows of a picture, stored: the stream's data, and what says how they are to be read."""

    top_px: int
    size: Size
    data: bytes
    keys: dict[str, Any]


def stored_bands(raster: Raster, quality: int, *, draft: bool = False) -> Iterator[Band]:
    """The bands of a picture without alpha, from top to bottom.

    Each is stored as a JPEG of that quality, or without any loss where that is lighter. ``draft`` ones are
    made much faster and are some 20 % heavier.
    """
    size = raster.size
    for top_px, height_px in bands(size.height_px, BAND_PX):
        rows_px = min(height_px + OVERLAP_PX, size.height_px - top_px)
        rows = raster.rows(top_px, rows_px)
        data, keys = _lightest(rows, quality, draft=draft)
        yield Band(top_px=top_px, size=Size(width_px=size.width_px, height_px=rows_px), data=data, keys=keys)


def _lightest(rows: NDArray[np.uint8], quality: int, *, draft: bool) -> tuple[bytes, dict[str, Any]]:
    indexed = _indexed(rows)
    if indexed is not None:
        return indexed
    raster = Raster.from_rows(rows)
    jpeg = encode_jpeg(raster, quality=quality, subsample=quality < 60, draft=draft)
    png = encode_png(raster, compression=6, row_filter="all") if not draft or _is_flat(rows) else None
    if png is not None and len(png) < len(jpeg):
        predictor = pikepdf.Dictionary(Predictor=15, Colors=3, Columns=rows.shape[1])
        return _png_data(png), {
            "ColorSpace": pikepdf.Name.DeviceRGB,
            "Filter": pikepdf.Name.FlateDecode,
            "DecodeParms": predictor,
        }
    return jpeg, {"ColorSpace": pikepdf.Name.DeviceRGB, "Filter": pikepdf.Name.DCTDecode}


def _is_flat(rows: NDArray[np.uint8]) -> bool:
    """Whether most px are as the one before: such rows may be lighter without any loss."""
    some = rows[::_LOOKED_AT_ROWS]
    return bool((some[:, 1:] == some[:, :-1]).all(axis=2).mean() > 0.7)


def _indexed(rows: NDArray[np.uint8]) -> tuple[bytes, dict[str, Any]] | None:
    """Rows of few colours, as their numbers in a palette; None where there are too many."""
    if len(_colours(rows[::_LOOKED_AT_ROWS])) > _MOST_COLOURS:
        return None
    packed = _packed(rows)
    colours = np.unique(packed)
    if len(colours) > _MOST_COLOURS:
        return None
    numbers = np.searchsorted(colours, packed).astype(np.uint8)
    palette = np.stack([colours >> 16, colours >> 8 & 255, colours & 255], axis=1).astype(np.uint8)
    space = pikepdf.Array(
        [pikepdf.Name.Indexed, pikepdf.Name.DeviceRGB, len(colours) - 1, pikepdf.String(palette.tobytes())]
    )
    return zlib.compress(numbers.tobytes(), 9), {"ColorSpace": space, "Filter": pikepdf.Name.FlateDecode}


def _colours(rows: NDArray[np.uint8]) -> NDArray[np.uint32]:
    return np.unique(_packed(rows))


def _packed(rows: NDArray[np.uint8]) -> NDArray[np.uint32]:
    red, green, blue = (rows[..., at].astype(np.uint32) for at in range(3))
    return np.asarray(red << 16 | green << 8 | blue, dtype=np.uint32)


def _png_data(png: bytes) -> bytes:
    """The compressed rows of a PNG, which a PDF stores in the same way. Source: PNG (W3C), 5.3 chunks."""
    parts, at = [], _PNG_SIGNATURE_BYTES
    while at < len(png):
        length = int.from_bytes(png[at : at + 4])
        if png[at + 4 : at + 8] == b"IDAT":
            parts.append(png[at + 8 : at + 8 + length])
        at += length + 12
    return b"".join(parts)
