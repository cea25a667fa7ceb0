"""Places go there and back through every orientation, and boxes stay around what they were around."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from tallpage.core.errors import FrameError
from tallpage.core.geometry import Box, Size
from tallpage.core.turning import Orientation, TurnedPage

SIDE = st.integers(1, 60_000)
SIZE = st.builds(lambda width, height: Size(width_px=width, height_px=height), SIDE, SIDE)
QUARTERS = st.sampled_from([0, 90, 180, 270])
ANGLE = st.one_of(st.just(0.0), st.floats(-180, 180, allow_nan=False))
ORIENTATION = st.builds(
    lambda mirror, turn, angle: Orientation(mirror=mirror, turn_deg=turn, angle_deg=angle),
    st.booleans(),
    QUARTERS,
    ANGLE,
)
SHARE = st.floats(0, 1)


@given(SIZE, ORIENTATION, SHARE, SHARE)
def test_a_point_goes_there_and_back(
    page: Size, orientation: Orientation, across: float, down: float
) -> None:
    turned = TurnedPage(page, orientation)
    point = across * page.width_px, down * page.height_px
    there = turned.there(point)
    assert turned.back(there) == pytest.approx(point, abs=1e-4)
    assert -1e-4 <= there[0] <= turned.size.width_px + 1e-4, "a filled page shows all of it"
    assert -1e-4 <= there[1] <= turned.size.height_px + 1e-4


@given(SIZE, st.booleans(), QUARTERS, st.data())
def test_quarters_and_mirror_keep_boxes_to_the_px(
    page: Size, mirror: bool, turn: int, data: st.DataObject
) -> None:
    left = data.draw(st.integers(0, page.width_px - 1))
    top = data.draw(st.integers(0, page.height_px - 1))
    box = Box(
        x_px=left,
        y_px=top,
        width_px=data.draw(st.integers(1, page.width_px - left)),
        height_px=data.draw(st.integers(1, page.height_px - top)),
    )
    turned = TurnedPage(page, Orientation(mirror=mirror, turn_deg=turn))
    there = turned.box_there(box)
    assert there is not None
    assert turned.box_back(there) == box
    assert {there.width_px, there.height_px} == {box.width_px, box.height_px}


@given(st.integers(20, 3_000), st.integers(20, 3_000), st.floats(-180, 180), SHARE, SHARE)
def test_a_page_with_cropped_corners_shows_nothing_but_the_page(
    width: int, height: int, angle: float, across: float, down: float
) -> None:
    page = Size(width_px=width, height_px=height)
    turned = TurnedPage(page, Orientation(angle_deg=angle, corners="cropped"))
    size = turned.size
    x, y = turned.back((across * size.width_px, down * size.height_px))
    assert -0.01 <= x <= width + 0.01
    assert -0.01 <= y <= height + 0.01
    filled = TurnedPage(page, Orientation(angle_deg=angle)).size
    assert size.width_px <= filled.width_px
    assert size.height_px <= filled.height_px


def test_a_line_that_is_cropped_away_says_so() -> None:
    line = Size(width_px=4_000, height_px=1)
    with pytest.raises(FrameError, match="Nothing of the page is left"):
        _ = TurnedPage(line, Orientation(angle_deg=30, corners="cropped")).size


def test_a_quarter_turns_clockwise() -> None:
    page = TurnedPage(Size(width_px=100, height_px=40), Orientation(turn_deg=90))
    assert page.size == Size(width_px=40, height_px=100)
    assert page.there((0, 0)) == (40, 0)
    mirrored_first = TurnedPage(Size(width_px=100, height_px=40), Orientation(mirror=True, turn_deg=90))
    assert mirrored_first.there((0, 0)) == (40, 100)


@pytest.mark.parametrize("angle", [1e9, -181.0, float("nan"), float("inf")])
def test_an_absurd_angle_is_refused(angle: float) -> None:
    with pytest.raises(ValidationError):
        Orientation(angle_deg=angle)
