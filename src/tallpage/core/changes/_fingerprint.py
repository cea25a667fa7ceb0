"""A page at a glance: a digest of each row of pixels, and how much of it is one colour."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Self

import numpy as np
from numpy.typing import NDArray

from tallpage.core.picture import StripManifest, open_file

NEARLY_BLANK = 0.99
"""From this share of one colour on, a page shows nearly nothing: a heading alone has more."""
_DIGEST_BYTES = 8
_LEVEL_BITS = 4
_EVERY = 2
_STRIPS_KEPT = 2

Digests = NDArray[np.uint64]


@dataclass(frozen=True, slots=True, kw_only=True)
class Fingerprint:
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


def fingerprint_of(folder: Path, manifest: StripManifest) -> Fingerprint:
    """Fingerprint at a whole capture, strip by strip."""
    digests: list[bytes] = []
    colours = np.zeros(1 << (3 * _LEVEL_BITS), dtype=np.int64)
    reader = RowReader(folder, manifest)
    for strip in manifest.strips:
        rows = reader.rows(strip.top_px, strip.height_px)
        digests += [hashlib.blake2b(row.tobytes(), digest_size=_DIGEST_BYTES).digest() for row in rows]
        colours += _colours(rows[::_EVERY, ::_EVERY])
    return Fingerprint(
        rows=np.frombuffer(b"".join(digests), dtype=np.uint64),
        commonest_share=float(colours.max() / colours.sum()),
    )


class RowReader:
    """Pixels of a capture by rows; the strips that were read last are kept decoded."""

    def __init__(self, folder: Path, manifest: StripManifest) -> None:
        self.height_px = manifest.height_px
        self._folder = folder
        self._manifest = manifest
        self._decoded = lru_cache(maxsize=_STRIPS_KEPT)(self._decode)

    def rows(self, top_px: int, height_px: int) -> NDArray[np.uint8]:
        """Pixels (height, width, 3) of some rows; none where ``height_px`` is 0."""
        parts = [np.empty((0, self._manifest.width_px, 3), dtype=np.uint8)]
        for number, strip in enumerate(self._manifest.strips):
            first = max(top_px, strip.top_px) - strip.top_px
            last = min(top_px + height_px, strip.top_px + strip.height_px) - strip.top_px
            if first < last:
                parts.append(self._decoded(number)[first:last])
        return np.concatenate(parts)

    def _decode(self, number: int) -> NDArray[np.uint8]:
        strip = self._manifest.strips[number]
        raster = open_file(self._folder / strip.file).without_alpha()
        return raster.rows(0, strip.height_px)


def _colours(pixels: NDArray[np.uint8]) -> NDArray[np.int64]:
    """How often each colour comes, at four bits a channel."""
    levels = (pixels >> (8 - _LEVEL_BITS)).astype(np.int32)
    packed = (levels[..., 0] << (2 * _LEVEL_BITS)) | (levels[..., 1] << _LEVEL_BITS) | levels[..., 2]
    return np.bincount(packed.ravel(), minlength=1 << (3 * _LEVEL_BITS)).astype(np.int64)
