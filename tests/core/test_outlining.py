"""Free outlines: what lies inside, and what is none."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from tallpage.core.geometry import Box
from tallpage.core.outlining import FreeOutline

SQUARE = ((10, 10), (110, 10), (110, 110), (10, 110))


@given(st.integers(0, 130), st.integers(0, 130), st.integers(1, 40), st.integers(1, 40))
def test_a_square_holds_what_a_box_holds(x_px: int, y_px: int, width_px: int, height_px: int) -> None:
    box = Box(x_px=x_px, y_px=y_px, width_px=width_px, height_px=height_px)
    within = x_px >= 10 and box.right_px < 110 and y_px >= 10 and box.bottom_px < 110
    assert FreeOutline(points=SQUARE).holds(box) is within


@pytest.mark.parametrize("first", range(4))
@pytest.mark.parametrize("step", [1, -1])
def test_it_makes_no_difference_where_it_begins_and_which_way_it_goes(first: int, step: int) -> None:
    points = (*SQUARE[first:], *SQUARE[:first])[::step]
    assert FreeOutline(points=points).holds(Box(x_px=20, y_px=20, width_px=50, height_px=50))


@pytest.mark.parametrize(
    ("points", "words"),
    [
        (((0, 0), (9, 9), (9, 0), (0, 9)), "crosses itself"),
        (((0, 0), (9, 0), (9, 9), (4, 0), (0, 9)), "crosses itself"),
        (((0, 0), (9, 0), (4, 0)), "nothing inside"),
        (((0, 0), (0, 0), (9, 9)), "nothing inside"),
    ],
)
def test_what_has_no_inside_is_refused(points: tuple[tuple[float, float], ...], words: str) -> None:
    with pytest.raises(ValidationError, match=words):
        FreeOutline(points=points)
