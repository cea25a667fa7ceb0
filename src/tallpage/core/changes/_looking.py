"""A page at a glance: a digest of each row of pixels, and how much of it is one colour."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass
from pathlib import Path
from typing import Self

import numpy as np
from numpy.typing import NDArray

from tallpage.core.picture import Raster, StripManifest

NEARLY_BLANK = 0.99
"""From this share of one colour on, a page shows nearly nothing: a heading alone has more."""
_DIGEST_BYTES = 8
_LEVEL_BITS = 4
_EVERY = 2

Digests = NDArray[np.uint64]


@dataclass(frozen=True, slots=True, kw_only=True)
class Look:
    """Row digests of a picture (8 bytes a row), and the share of its commonest colour (0–1)."""

    rows: Digests
    commonest_share: float

    @property
    def digest(self) -> str:
        """The same for two pictures that show the same."""
        return hashlib.blake2b(self.rows.tobytes(), digest_size=16).hexdigest()

    def to_bytes(self) -> bytes:
        """For keeping: the share as a float of 8 bytes, then the rows' digests."""
        return np.float64(self.commonest_share).tobytes() + self.rows.tobytes()

    @classmethod
    def from_bytes(cls, data: bytes) -> Self:
        """What :meth:`to_bytes` gave."""
        share = float(np.frombuffer(data, dtype=np.float64, count=1)[0])
        return cls(rows=np.frombuffer(data, dtype=np.uint64, offset=8), commonest_share=share)


def look_at(folder: Path, manifest: StripManifest) -> Look:
    """Look at a whole capture, strip by strip."""
    digests: list[bytes] = []
    colours = np.zeros(1 << (3 * _LEVEL_BITS), dtype=np.int64)
    for strip in manifest.strips:
        rows = rows_of(folder, manifest, strip.top_px, strip.height_px)
        digests += [hashlib.blake2b(row.tobytes(), digest_size=_DIGEST_BYTES).digest() for row in rows]
        colours += _colours(rows[::_EVERY, ::_EVERY])
    return Look(
        rows=np.frombuffer(b"".join(digests), dtype=np.uint64),
        commonest_share=float(colours.max() / colours.sum()),
    )


def rows_of(folder: Path, manifest: StripManifest, top_px: int, height_px: int) -> NDArray[np.uint8]:
    """Pixels (height, width, 3) of some rows of a capture."""
    parts = []
    for strip in manifest.strips:
        first = max(top_px, strip.top_px)
        last = min(top_px + height_px, strip.top_px + strip.height_px)
        if first < last:
            raster = Raster.open_file(folder / strip.file).without_alpha()
            parts.append(raster.rows(first - strip.top_px, last - first))
    return np.concatenate(parts)


def _colours(pixels: NDArray[np.uint8]) -> NDArray[np.int64]:
    """How often each colour comes, at four bits a channel."""
    levels = (pixels >> (8 - _LEVEL_BITS)).astype(np.int32)
    packed = (levels[..., 0] << (2 * _LEVEL_BITS)) | (levels[..., 1] << _LEVEL_BITS) | levels[..., 2]
    return np.bincount(packed.ravel(), minlength=1 << (3 * _LEVEL_BITS)).astype(np.int64)
