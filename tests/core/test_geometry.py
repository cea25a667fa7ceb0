import pytest
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.errors import FrameError
from tallpage.core.geometry import Box, Size, bands, round_half_up

sides = st.integers(min_value=1, max_value=200_000)
sizes = st.builds(lambda w, h: Size(width_px=w, height_px=h), sides, sides)


@st.composite
def sizes_with_box(draw: st.DrawFn) -> tuple[Size, Box]:
    size = draw(sizes)
    x, y = draw(st.integers(0, size.width_px - 1)), draw(st.integers(0, size.height_px - 1))
    return size, Box(
        x_px=x,
        y_px=y,
        width_px=draw(st.integers(1, size.width_px - x)),
        height_px=draw(st.integers(1, size.height_px - y)),
    )


@given(st.integers(0, 100_000), st.integers(1, 5_000))
def test_bands_cover_every_row_once_and_in_order(length_px: int, band_px: int) -> None:
    rows = bands(length_px, band_px)
    assert sum(height for _, height in rows) == length_px
    assert all(1 <= height <= band_px for _, height in rows)
    assert all(rows[n][0] + rows[n][1] == rows[n + 1][0] for n in range(len(rows) - 1))
    assert not rows or rows[0][0] == 0


@given(st.integers(0, 10**12), st.integers(1, 10**6))
def test_rounding_is_to_the_nearest_with_halves_up(numerator: int, denominator: int) -> None:
    rounded = round_half_up(numerator, denominator)
    assert -denominator <= 2 * (numerator - rounded * denominator) < denominator


@given(sizes, sides)
def test_a_size_at_another_width_keeps_its_shape_to_half_a_pixel(size: Size, width_px: int) -> None:
    other = size.at_width(width_px)
    assert other.width_px == width_px
    exact = size.height_px * width_px / size.width_px
    assert other.height_px == 1 if exact < 1 else abs(other.height_px - exact) <= 0.5 + 1e-6


@given(sizes)
def test_a_size_at_its_own_width_is_itself(size: Size) -> None:
    assert size.at_width(size.width_px) == size


@given(sizes_with_box())
def test_a_box_drawn_on_a_page_lies_on_it_and_one_moved_off_does_not(given_box: tuple[Size, Box]) -> None:
    page, box = given_box
    assert box.require_on(page) is box
    for moved in (
        Box(x_px=box.x_px - page.width_px, y_px=box.y_px, width_px=box.width_px, height_px=box.height_px),
        Box(x_px=box.x_px, y_px=page.height_px, width_px=box.width_px, height_px=box.height_px),
    ):
        assert not moved.lies_on(page)


def test_a_box_outside_the_page_is_refused_with_its_numbers() -> None:
    box = Box(x_px=10, y_px=20, width_px=100, height_px=1)
    with pytest.raises(FrameError, match=r"100 × 1 px at 10, 20 .* 50 × 60 px"):
        box.require_on(Size(width_px=50, height_px=60))


@pytest.mark.parametrize(("width_px", "height_px"), [(0, 1), (1, 0), (-3, 5)])
def test_a_size_below_one_pixel_cannot_be_made(width_px: int, height_px: int) -> None:
    with pytest.raises(ValueError, match="at least 1 × 1 px"):
        Size(width_px=width_px, height_px=height_px)
