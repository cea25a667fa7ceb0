"""From a frame and a place's wishes to pixels."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.errors import FitError
from tallpage.core.geometry import Size
from tallpage.core.picture import Raster
from tallpage.core.sizing import Sizing, plan_size, sized

SIDES = st.integers(1, 16_000)
FRAMES = st.builds(Size, width_px=st.integers(1, 4_000), height_px=st.integers(1, 100_000))
SIZINGS = st.builds(
    Sizing,
    way=st.sampled_from(["width", "height", "fill", "pad", "share"]),
    width_px=SIDES,
    height_px=SIDES,
    percent=st.integers(1, 400),
    anchor=st.sampled_from(["start", "middle", "end"]),
    enlarge=st.booleans(),
)


@given(FRAMES, SIZINGS)
def test_a_plan_shows_a_part_of_the_frame_on_a_part_of_the_file(frame: Size, sizing: Sizing) -> None:
    plan = plan_size(frame, sizing)
    assert plan.shown.lies_on(frame)
    assert plan.picture.lies_on(plan.canvas)
    if sizing.way in ("fill", "pad") and not plan.kept_small:
        assert (plan.canvas.width_px, plan.canvas.height_px) == (sizing.width_px, sizing.height_px)
    if sizing.way == "pad":
        assert (plan.canvas.width_px, plan.canvas.height_px) == (sizing.width_px, sizing.height_px)
    if sizing.way != "fill":
        assert plan.shown.size == frame
    if sizing.way != "pad":
        assert plan.picture.size == plan.canvas


@given(FRAMES, SIZINGS)
def test_nothing_is_enlarged_unless_asked_for(frame: Size, sizing: Sizing) -> None:
    plan = plan_size(frame, sizing)
    if sizing.enlarge or (sizing.way == "share" and sizing.percent > 100):
        assert not plan.kept_small
    else:
        assert plan.picture.width_px <= plan.shown.width_px
        assert plan.picture.height_px <= plan.shown.height_px


@given(FRAMES, SIZINGS)
def test_the_shape_is_kept_but_for_rounding(frame: Size, sizing: Sizing) -> None:
    plan = plan_size(frame, sizing)
    across = plan.picture.width_px / plan.shown.width_px
    along = plan.picture.height_px / plan.shown.height_px
    off = max(1 / plan.picture.width_px, 1 / plan.picture.height_px)
    off = max(off, 1 / plan.shown.width_px, 1 / plan.shown.height_px)
    assert abs(across - along) <= 2 * off * max(across, along)


@pytest.mark.parametrize(
    ("sizing", "canvas", "kept_small"),
    [
        (Sizing(width_px=640), (640, 400), False),
        (Sizing(width_px=1_920), (1_280, 800), True),
        (Sizing(width_px=1_920, enlarge=True), (1_920, 1_200), False),
        (Sizing(way="height", height_px=200), (320, 200), False),
        (Sizing(way="height", height_px=900), (1_280, 800), True),
        (Sizing(way="share", percent=50), (640, 400), False),
        (Sizing(way="share", percent=150), (1_920, 1_200), False),
        (Sizing(way="fill", width_px=600, height_px=600), (600, 600), False),
        (Sizing(way="fill", width_px=1_600, height_px=1_600), (800, 800), True),
        (Sizing(way="pad", width_px=1_600, height_px=1_600), (1_600, 1_600), True),
    ],
)
def test_a_screen_full_comes_to_each_size(sizing: Sizing, canvas: tuple[int, int], kept_small: bool) -> None:
    plan = plan_size(Size(width_px=1_280, height_px=800), sizing)
    assert (plan.canvas.width_px, plan.canvas.height_px, plan.kept_small) == (*canvas, kept_small)


def _columns() -> Raster:
    """Red on the left, green in the middle, blue on the right; 30 × 10 px."""
    rows = np.zeros((10, 30, 3), dtype=np.uint8)
    for channel in range(3):
        rows[:, 10 * channel : 10 * channel + 10, channel] = 255
    return Raster.from_rows(rows)


@pytest.mark.parametrize(("anchor", "channel"), [("start", 0), ("middle", 1), ("end", 2)])
def test_filling_keeps_the_part_at_the_anchor(anchor: str, channel: int) -> None:
    raster = _columns()
    sizing = Sizing(way="fill", width_px=10, height_px=10, anchor=anchor)  # type: ignore[arg-type]
    rows = sized(raster, plan_size(raster.size, sizing), background=(0, 0, 0)).rows(0, 10)
    assert rows.shape == (10, 10, 3)
    assert (rows[..., channel] == 255).all()


def test_padding_leaves_room_of_the_colour_around() -> None:
    raster = _columns()
    plan = plan_size(raster.size, Sizing(way="pad", width_px=30, height_px=20))
    rows = sized(raster, plan, background=(9, 8, 7)).rows(0, 20)
    assert (rows[:5] == (9, 8, 7)).all()
    assert (rows[15:] == (9, 8, 7)).all()
    assert (rows[5:15, :10] == (255, 0, 0)).all()


@pytest.mark.parametrize(
    ("wishes", "code"),
    [
        ({"width_px": 0}, "width_impossible"),
        ({"width_px": 10_000_000}, "width_impossible"),
        ({"way": "height", "height_px": 0}, "height_impossible"),
        ({"way": "fill", "width_px": 100}, "height_impossible"),
        ({"way": "share", "percent": 401}, "share_impossible"),
    ],
)
def test_a_size_that_cannot_be_made_is_refused(wishes: dict, code: str) -> None:
    with pytest.raises(FitError) as refused:
        Sizing(**wishes)
    assert refused.value.code == code
    assert refused.value.hint
