"""What is connected is found over the edges of bands, as it is on the whole page at once."""

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from numpy.typing import NDArray

from tallpage.core.clearing import RowMask, connected_with, union, with_boxes, without
from tallpage.core.geometry import Box

Bits = NDArray[np.bool_]
SEED = st.integers(0, 10_000)


def _mask(rows: Bits, band_px: int) -> RowMask:
    bands = [rows[top : top + band_px] for top in range(0, len(rows), band_px)]
    return RowMask.of(bands, width_px=rows.shape[1], band_px=band_px)


def _bits(mask: RowMask, height: int) -> Bits:
    return mask.rows(0, height)


def _flooded(rows: Bits, x: int, y: int) -> Bits:
    """The plain way: from px to px."""
    found, open_ = np.zeros_like(rows), [(y, x)]
    while open_:
        row, column = open_.pop()
        if not (0 <= row < rows.shape[0] and 0 <= column < rows.shape[1]):
            continue
        if rows[row, column] and not found[row, column]:
            found[row, column] = True
            open_ += [(row + 1, column), (row - 1, column), (row, column + 1), (row, column - 1)]
    return found


@given(SEED, st.integers(1, 40), st.integers(1, 30), st.integers(1, 12), st.floats(0.3, 0.9))
def test_connected_px_are_those_that_a_plain_flood_finds(
    seed: int, height: int, width: int, band_px: int, share: float
) -> None:
    random = np.random.default_rng(seed)
    rows = random.random((height, width)) < share
    y, x = int(random.integers(height)), int(random.integers(width))
    found = connected_with(_mask(rows, band_px), [(x, y)])
    np.testing.assert_array_equal(_bits(found, height), _flooded(rows, x, y))


@given(SEED, st.integers(1, 30), st.integers(1, 9))
def test_masks_are_joined_and_taken_from_each_other(seed: int, height: int, band_px: int) -> None:
    random = np.random.default_rng(seed)
    one, other = random.random((2, height, 13)) < 0.5
    first, second = _mask(one, band_px), _mask(other, band_px)
    np.testing.assert_array_equal(_bits(union([first, second]), height), one | other)
    np.testing.assert_array_equal(_bits(without(first, second), height), one & ~other)
    box = Box(x_px=3, y_px=height // 3, width_px=20, height_px=height)
    expected = one.copy()
    expected[box.y_px :, 3:] = True
    np.testing.assert_array_equal(_bits(with_boxes(first, [box]), height), expected)
    middle = height // 2
    np.testing.assert_array_equal(first.rows(middle, height - middle), one[middle:])
