"""Dividing one tall PNG into strips without making its pixels anew.

A PNG's rows are filtered, then compressed. The browser filters each row by the one above; strips
can keep those rows as they are, all but the first of each. What is left is unpacking and packing,
a quarter of the work of decoding and encoding. What a row adds to the one above it also tells where
nothing is drawn.

Source: PNG specification (W3C), 5.3 chunks, 9.2 filter types, 10.1 compression.
"""

from __future__ import annotations

import itertools
import struct
import zlib
from collections.abc import Iterator, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from typing import Self

import numpy as np
from isal import isal_zlib
from numpy.typing import NDArray

_SIGNATURE = b"\x89PNG\r\n\x1a\n"
_CHANNELS = {2: 3, 6: 4}  # by colour type: true colour without and with alpha
_LIGHT, _PACKED_AT_ONCE = 1, 2
_AS_IT_IS, _BY_LEFT, _BY_ABOVE = 0, 1, 2
_HEADER = struct.Struct(">IIBBBBB")
INK_CELL_PX = 8


@dataclass(frozen=True, slots=True, kw_only=True)
class FilteredPng:
    """The rows of a PNG as it holds them: unpacked, their filters not undone."""

    width_px: int
    colour: int
    rows: NDArray[np.uint8]
    """One row a line: the kind of its filter, then its bytes."""

    @classmethod
    def read(cls, png: bytes) -> Self | None:
        """Unpack a PNG; None where it is not built as needed.

        That is 8 bits a channel, true colour, not interlaced, filtered only by the left or the upper
        pixel.
        """
        parts = dict(_chunks(png))
        if b"IHDR" not in parts or b"IDAT" not in parts:
            return None
        width_px, height_px, bits, colour, _, _, interlaced = _HEADER.unpack(parts[b"IHDR"])
        if bits != 8 or colour not in _CHANNELS or interlaced:
            return None
        stride = 1 + width_px * _CHANNELS[colour]
        packed = isal_zlib.decompress(parts[b"IDAT"], bufsize=height_px * stride)
        rows = np.frombuffer(packed, dtype=np.uint8)
        if rows.size != height_px * stride:
            return None
        rows = rows.reshape(height_px, stride)
        if not np.isin(rows[:, 0], (_AS_IT_IS, _BY_LEFT, _BY_ABOVE)).all():
            return None
        return cls(width_px=width_px, colour=colour, rows=rows)

    def split(self, heights_px: Sequence[int]) -> list[bytes] | None:
        """PNGs of the rows, so many in each from the top; None where there are not so many."""
        if sum(heights_px) != len(self.rows):
            return None
        tops = itertools.accumulate(heights_px, initial=0)
        firsts = _shown(self.rows, list(tops)[:-1], _CHANNELS[self.colour])
        with ThreadPoolExecutor(max_workers=_PACKED_AT_ONCE) as pool:
            packing = [
                pool.submit(
                    _written, self.width_px, self.colour, first, self.rows[top_px + 1 : top_px + height]
                )
                for (top_px, first), height in zip(firsts, heights_px, strict=True)
            ]
            return [strip.result() for strip in packing]

    def ink(self) -> NDArray[np.bool_]:
        """Whether anything is drawn in each cell of :data:`INK_CELL_PX` a side; rows × columns.

        Letters and lines differ from the row above them; plain paper does not. What is left over at
        the right and lower edges is no cell.
        """
        channels = _CHANNELS[self.colour]
        down, across = len(self.rows) // INK_CELL_PX, self.width_px // INK_CELL_PX
        if down == 0 or across == 0:
            return np.zeros((down, across), dtype=np.bool_)
        rows = self.rows[: down * INK_CELL_PX, 1 : 1 + across * INK_CELL_PX * channels]
        bands = rows.reshape(down, INK_CELL_PX, -1).max(axis=1)
        ink: NDArray[np.bool_] = bands.reshape(down, across, INK_CELL_PX * channels).any(axis=2)
        return ink


def _chunks(png: bytes) -> Iterator[tuple[bytes, bytes]]:
    """Name and content of each chunk; those of the pixels as one."""
    if not png.startswith(_SIGNATURE):
        return
    position, pixels = len(_SIGNATURE), []
    while position + 12 <= len(png):
        length, name = struct.unpack_from(">I4s", png, position)
        content = png[position + 8 : position + 8 + length]
        if name == b"IDAT":
            pixels.append(content)
        else:
            yield name, content
        position += 12 + length
    yield b"IDAT", b"".join(pixels)


def _shown(
    rows: NDArray[np.uint8], wanted: Sequence[int], channels: int
) -> Iterator[tuple[int, NDArray[np.uint8]]]:
    """The bytes that certain rows show, their filters undone; ``wanted`` ascends."""
    kinds = rows[:, 0]
    known, at = np.zeros(rows.shape[1] - 1, dtype=np.uint8), -1
    for number in wanted:
        # Rows filtered by the one above add up; one that is not begins a new sum.
        fresh = np.flatnonzero(kinds[at + 1 : number + 1] != _BY_ABOVE)
        if fresh.size:
            at = at + 1 + int(fresh[-1])
            known = rows[at, 1:]
            if kinds[at] == _BY_LEFT:
                known = np.cumsum(known.reshape(-1, channels), axis=0, dtype=np.uint8).reshape(-1)
        known = known + np.add.reduce(rows[at + 1 : number + 1, 1:], axis=0, dtype=np.uint8)
        at = number
        yield number, known


def _written(width_px: int, colour: int, first: NDArray[np.uint8], rest: NDArray[np.uint8]) -> bytes:
    """A PNG of a first row as it is shown, and of rows as they are filtered."""
    header = _HEADER.pack(width_px, 1 + len(rest), 8, colour, 0, 0, 0)
    packer = isal_zlib.compressobj(_LIGHT)
    pixels = packer.compress(bytes([_AS_IT_IS]) + first.tobytes()) + packer.compress(rest) + packer.flush()
    chunks = ((b"IHDR", header), (b"IDAT", pixels), (b"IEND", b""))
    return _SIGNATURE + b"".join(
        struct.pack(">I", len(content)) + name + content + struct.pack(">I", zlib.crc32(name + content))
        for name, content in chunks
    )
