"""Stretches without anything in them are found, over the edges of bands too."""

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.geometry import Box
from tallpage.core.picture import Raster
from tallpage.core.trimming import BlankStretch, blank_columns, blank_stretches
from tests.pictures import noise


@given(st.lists(st.tuples(st.booleans(), st.integers(1, 700)), min_size=1, max_size=6), st.integers(1, 400))
def test_each_stretch_is_found_to_the_px(parts: list[tuple[bool, int]], least_px: int) -> None:
    rows, expected, top_px = [], [], 0
    merged: list[tuple[bool, int]] = []
    for blank, height_px in parts:
        if merged and merged[-1][0] == blank:
            merged[-1] = (blank, merged[-1][1] + height_px)
        else:
            merged.append((blank, height_px))
    for blank, height_px in merged:
        rows.append(np.full((height_px, 30, 3), 240, np.uint8) if blank else noise(30, height_px))
        if blank and height_px >= least_px:
            expected.append(BlankStretch(top_px=top_px, height_px=height_px))
        top_px += height_px
    raster = Raster.from_rows(np.vstack(rows))
    assert blank_stretches(Box.whole(raster.size), raster.cropped, least_px=least_px) == expected
    lying = Raster.from_rows(np.ascontiguousarray(np.vstack(rows).transpose(1, 0, 2)))
    assert blank_columns(Box.whole(lying.size), lying.cropped, least_px=least_px) == expected


def test_a_box_is_looked_at_alone() -> None:
    rows = np.full((300, 100, 3), 255, np.uint8)
    rows[:, 80:] = noise(20, 300)
    raster = Raster.from_rows(rows)
    box = Box(x_px=0, y_px=50, width_px=80, height_px=200)
    assert blank_stretches(box, raster.cropped, least_px=10) == [BlankStretch(top_px=50, height_px=200)]
    assert blank_stretches(Box.whole(raster.size), raster.cropped, least_px=10) == []


def test_a_column_is_looked_at_over_the_edges_of_bands() -> None:
    rows = np.full((1_300, 60, 3), 255, np.uint8)
    rows[1_290, 20:30] = 0
    rows[700:, 40:50] = 200
    raster = Raster.from_rows(rows)
    assert blank_columns(Box.whole(raster.size), raster.cropped, least_px=5) == [
        BlankStretch(top_px=0, height_px=20),
        BlankStretch(top_px=30, height_px=10),
        BlankStretch(top_px=50, height_px=10),
    ]
