"""Plain edges are left out, to the px; what stands out in them is not."""

from collections.abc import Callable

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.geometry import Box
from tallpage.core.picture import Raster
from tallpage.core.trimming import Side, trimmed
from tests.pictures import Pixels, photograph, text_page


def _pixels(rows: Pixels) -> Callable[[Box], Raster]:
    raster = Raster.from_rows(rows)
    return raster.cropped


def _whole(rows: Pixels) -> Box:
    return Box(x_px=0, y_px=0, width_px=rows.shape[1], height_px=rows.shape[0])


def _framed(inner: Pixels, top: int, right: int, bottom: int, left: int, colour: tuple[int, ...]) -> Pixels:
    height, width, channels = inner.shape
    rows = np.empty((height + top + bottom, width + left + right, channels), dtype=np.uint8)
    rows[:] = colour
    rows[top : top + height, left : left + width] = inner
    return rows


COLOUR = st.tuples(*[st.integers(0, 255)] * 3)
EDGE = st.integers(0, 700)


@given(EDGE, st.integers(0, 60), EDGE, st.integers(0, 60), COLOUR)
def test_edges_of_any_colour_and_size_go_and_nothing_else(
    top: int, right: int, bottom: int, left: int, colour: tuple[int, ...]
) -> None:
    inner = np.empty((90, 70, 3), dtype=np.uint8)
    inner[:] = colour[0] ^ 128, colour[1], colour[2]
    inner[np.indices((90, 70)).sum(axis=0) % 2 == 0, 1] ^= 128
    box = trimmed(_whole(rows := _framed(inner, top, right, bottom, left, colour)), _pixels(rows))
    assert box == Box(x_px=left, y_px=top, width_px=70, height_px=90)


@pytest.mark.parametrize("side", ["top", "right", "bottom", "left"])
def test_a_single_edge_can_be_trimmed(side: Side) -> None:
    rows = _framed(photograph(200, 150), 30, 40, 50, 20, (250, 250, 250))
    whole, box = _whole(rows), trimmed(_whole(rows), _pixels(rows), (side,))
    apart = {
        "top": box.y_px,
        "left": box.x_px,
        "right": whole.right_px - box.right_px,
        "bottom": whole.bottom_px - box.bottom_px,
    }
    assert apart == {
        **dict.fromkeys(apart, 0),
        side: {"top": 30, "right": 40, "bottom": 50, "left": 20}[side],
    }


def test_a_hairline_a_dot_and_a_pale_line_stand_out() -> None:
    for mark, colour in (((40, slice(None)), 0), ((40, 31), 0), ((40, slice(None)), 238)):
        rows = _framed(text_page(200, 200), 120, 0, 0, 0, (255, 255, 255))
        rows[mark] = colour
        assert trimmed(_whole(rows), _pixels(rows), ("top",)).y_px == 40


def test_noise_of_a_scan_or_of_a_jpeg_belongs_to_the_edge() -> None:
    rng = np.random.default_rng(5)
    for deviation in (1, 2, 4):
        rows = _framed(photograph(300, 200), 60, 50, 40, 30, (240, 238, 230)).astype(float)
        noisy = np.clip(rows + rng.normal(0, deviation, rows.shape), 0, 255).astype(np.uint8)
        box = trimmed(_whole(noisy), _pixels(noisy))
        assert (box.x_px, box.y_px, box.width_px, box.height_px) == (30, 60, 300, 200)


def test_edges_of_several_colours_and_what_shows_through() -> None:
    rows = _framed(photograph(200, 150), 20, 0, 0, 0, (10, 20, 30))
    rows = _framed(rows, 0, 0, 25, 0, (200, 0, 0))
    assert trimmed(_whole(rows), _pixels(rows)) == Box(x_px=0, y_px=20, width_px=200, height_px=150)
    see_through = np.zeros((100, 80, 4), dtype=np.uint8)
    see_through[:, :, :3] = np.random.default_rng(2).integers(0, 255, (100, 80, 3))
    see_through[30:70, 20:60, 3] = 255
    see_through[30:70, 20:60, :3] = 90
    assert trimmed(_whole(see_through), _pixels(see_through)) == Box(
        x_px=20, y_px=30, width_px=40, height_px=40
    )


def test_a_plain_picture_stays_and_a_part_is_trimmed_where_it_lies() -> None:
    plain = np.full((60, 50, 3), 9, dtype=np.uint8)
    assert trimmed(_whole(plain), _pixels(plain)) == _whole(plain)
    rows = _framed(photograph(200, 150), 30, 30, 30, 30, (255, 255, 255))
    part = Box(x_px=10, y_px=5, width_px=150, height_px=100)
    assert trimmed(part, _pixels(rows)) == Box(x_px=30, y_px=30, width_px=130, height_px=75)


@pytest.mark.parametrize("seed", range(1, 6))
def test_a_sky_is_no_plain_edge(seed: int) -> None:
    rows = photograph(400, 700, seed=seed)
    assert trimmed(_whole(rows), _pixels(rows), ("top", "left", "right")) == _whole(rows)


def test_a_soft_shadow_belongs_to_what_is_shown() -> None:
    rows = _framed(photograph(200, 150), 100, 100, 100, 100, (255, 255, 255)).astype(float)
    for far in range(1, 21):
        ring = slice(100 - far, 250 + far), slice(100 - far, 300 + far)
        darker = np.zeros(rows.shape[:2], dtype=bool)
        darker[ring] = True
        darker[100 - far + 1 : 250 + far - 1, 100 - far + 1 : 300 + far - 1] = False
        rows[darker] = 255 - (21 - far) * 3
    shadowed = rows.astype(np.uint8)
    box = trimmed(_whole(shadowed), _pixels(shadowed))
    assert 100 - 20 <= box.x_px <= 100 - 16
    assert box.y_px == box.x_px


def test_two_plain_halves_leave_nothing_and_are_left_alone() -> None:
    beside = np.zeros((60, 80, 3), dtype=np.uint8)
    beside[:, 40:] = 255
    stacked = np.ascontiguousarray(beside.swapaxes(0, 1))
    for rows in (beside, stacked):
        assert trimmed(_whole(rows), _pixels(rows)) == _whole(rows)
    assert trimmed(_whole(beside), _pixels(beside), ("left",)) == Box(
        x_px=40, y_px=0, width_px=40, height_px=60
    )
