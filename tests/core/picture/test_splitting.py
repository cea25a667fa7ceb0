"""Strips out of one tall PNG: the same pixels, whoever wrote it."""

import io
import struct
import zlib

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from tallpage.core.picture import FilteredPng
from tests.pictures import Pixels, as_png, assert_same_pixels, decoded, noise, photograph


def _filtered(pixels: Pixels, kinds: list[int]) -> bytes:
    """A PNG whose rows are filtered as stated: as they are (0), by the left (1), by the upper pixel (2)."""
    height, width, channels = pixels.shape
    packed = bytearray()
    for number, kind in enumerate(kinds):
        row = pixels[number]
        if kind == 1:
            row = np.diff(row, axis=0, prepend=np.zeros((1, channels), np.uint8))
        if kind == 2:
            row = row - (pixels[number - 1] if number else 0)
        packed += bytes([kind]) + row.astype(np.uint8).tobytes()
    header = struct.pack(">IIBBBBB", width, height, 8, {3: 2, 4: 6}[channels], 0, 0, 0)
    data = b"\x89PNG\r\n\x1a\n"
    middle = len(packed) // 2
    squeezed = zlib.compress(bytes(packed))
    parts = [(b"IHDR", header), (b"IDAT", squeezed[:middle]), (b"IDAT", squeezed[middle:]), (b"IEND", b"")]
    for name, content in parts:
        data += struct.pack(">I", len(content)) + name + content
        data += struct.pack(">I", zlib.crc32(name + content))
    return data


def _split(png: bytes, heights: list[int]) -> list[bytes] | None:
    filtered = FilteredPng.read(png)
    return None if filtered is None else filtered.split(heights)


@given(
    st.lists(st.tuples(st.integers(1, 5), st.lists(st.integers(0, 2), min_size=5, max_size=5)), min_size=1)
)
def test_strips_show_what_the_whole_showed(parts: list[tuple[int, list[int]]]) -> None:
    heights = [height for height, _ in parts]
    kinds = [kind for height, kinds in parts for kind in kinds[:height]]
    pixels = noise(7, sum(heights))
    strips = _split(_filtered(pixels, kinds), heights)
    assert strips is not None
    assert [decoded(strip).shape[0] for strip in strips] == heights
    assert_same_pixels(np.vstack([decoded(strip) for strip in strips]), pixels)


def test_a_picture_with_transparency_keeps_it() -> None:
    pixels = np.dstack([noise(9, 12), noise(9, 12, seed=2)[..., 0]])
    strips = _split(_filtered(pixels, [2] * 12), [5, 7])
    assert strips is not None
    rows = [np.asarray(Image.open(io.BytesIO(strip))) for strip in strips]
    assert_same_pixels(np.vstack(rows), pixels)


@pytest.mark.parametrize(
    ("png", "heights"),
    [
        (as_png(photograph(90, 60)), [30, 30]),  # filtered by every neighbour
        (_filtered(noise(4, 6), [2] * 6), [3, 4]),  # rows that are not there
        (b"not a picture", [1]),
        (b"\x89PNG\r\n\x1a\n", [1]),
    ],
)
def test_what_is_not_built_so_is_left_to_others(png: bytes, heights: list[int]) -> None:
    assert _split(png, heights) is None


def test_a_cell_has_ink_where_a_row_differs_from_the_one_above() -> None:
    pixels = np.full((35, 42, 3), 250, dtype=np.uint8)
    pixels[18:20, 20:24] = 0
    filtered = FilteredPng.read(_filtered(pixels, [2] * 35))
    assert filtered is not None
    ink = filtered.ink()
    assert ink.shape == (4, 5), "what is left over at the edges is no cell"
    ink[0] = False  # the first row has none above it
    assert np.argwhere(ink).tolist() == [[2, 2]]
