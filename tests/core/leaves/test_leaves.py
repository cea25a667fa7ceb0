import itertools

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from numpy.typing import NDArray

from tallpage.core.errors import FitError
from tallpage.core.geometry import Box
from tallpage.core.leaves import Gap, divide, edge_density, gaps_of, leaf_rows, require_breaks
from tallpage.core.page_map import Block
from tests.pictures import Pixels, photograph, raster_of, text_page

LINE_PX = 20  # of text_page: letters stand in the upper part of each line

some_gaps = st.lists(
    st.builds(Gap, y_px=st.integers(1, 5_999), roughness=st.floats(-0.2, 12)),
    max_size=80,
    unique_by=lambda g: g.y_px,
)


def _block(role: str, top_px: int, height_px: int) -> Block:
    box = Box(x_px=0, y_px=top_px, width_px=300, height_px=height_px)
    return Block(role=role, level=None, box=box, text="", link="", alt="")


def _busyness(pixels: Pixels) -> NDArray[np.int32]:
    return edge_density(lambda top, height: raster_of(pixels[top : top + height]), len(pixels))


@given(some_gaps, st.integers(60, 6_000), st.integers(150, 6_000))
def test_leaves_cover_everything_once_and_none_is_too_high(
    gaps: list[Gap], height: int, greatest: int
) -> None:
    within = [gap for gap in gaps if gap.y_px < height]
    leaves = leaf_rows(height, divide(height, within, greatest_px=greatest))
    assert leaves[0][0] == 0
    assert sum(leaves[-1]) == height
    assert all(sum(upper) == lower[0] for upper, lower in itertools.pairwise(leaves))
    assert all(1 <= leaf_px <= greatest for _, leaf_px in leaves)
    assert len(leaves) <= -(-height // greatest) + 1


@given(some_gaps, st.integers(1, 12))
def test_as_many_leaves_as_were_asked_for(gaps: list[Gap], count: int) -> None:
    assert len(leaf_rows(6_000, divide(6_000, gaps, count=count))) == count


def test_a_calm_gap_is_taken_rather_than_the_even_height() -> None:
    gaps = [Gap(y_px=500, roughness=10.0), Gap(y_px=560, roughness=0.0)]
    assert divide(1_000, gaps, count=2) == (560,)


def test_one_more_leaf_is_made_rather_than_going_through_something() -> None:
    gaps = [Gap(y_px=500, roughness=10.0), Gap(y_px=330, roughness=0.0), Gap(y_px=670, roughness=0.2)]
    assert divide(1_000, gaps, greatest_px=500) == (330, 670)
    assert divide(1_000, gaps[:1], greatest_px=500) == (500,)


def test_no_break_goes_through_a_line_of_text() -> None:
    page = text_page(400, 3_000)
    gaps = gaps_of(_busyness(page), [], top_px=0)
    breaks = divide(3_000, gaps, greatest_px=700)
    assert len(breaks) >= 4
    for y_px in breaks:
        assert (page[y_px - 1 : y_px + 1] == page[0, 0]).all()


def test_the_sides_of_a_box_are_not_in_the_way_but_letters_are() -> None:
    page = np.full((400, 300, 3), 255, dtype=np.uint8)
    page[:, [20, 280]] = 40  # the sides of a table
    page[100:112, 100:200:4] = 0  # stems of letters
    busy = _busyness(page)
    assert busy[100:112].min() > 0
    assert busy[:100].max() == 0
    assert busy[112:].max() == 0


def test_a_picture_is_divided_only_when_there_is_nothing_else() -> None:
    page = np.full((1_000, 300, 3), 255, dtype=np.uint8)
    page[400:600] = photograph(300, 200)
    picture = _block("image", 400, 200)
    gaps = gaps_of(_busyness(page), [picture], top_px=0)
    (found,) = divide(1_000, gaps, count=2)
    assert not 400 < found < 600
    only_picture = gaps_of(_busyness(photograph(300, 1_000)), [], top_px=0)
    assert len(divide(1_000, only_picture, count=4)) == 3


def test_a_heading_stays_with_what_it_heads() -> None:
    heading = _block("heading", 505, 30)
    busy = np.ones(1_000, dtype=np.int32)
    busy[480:500] = busy[540:560] = 0
    (found,) = divide(1_000, gaps_of(busy, [heading], top_px=0), count=2)
    assert 480 <= found < 500


def test_breaks_set_by_hand_are_checked_in_words() -> None:
    assert require_breaks([600, 300], 1_000) == (300, 600)
    for bad in ([0], [1_000], [300, 305], list(range(20, 2_000, 20))):
        with pytest.raises(FitError) as refused:
            require_breaks(bad, 1_000)
        assert refused.value.code == "breaks_impossible"


def test_more_leaves_than_anybody_publishes_are_refused() -> None:
    with pytest.raises(FitError) as refused:
        divide(100_000, [], greatest_px=100)
    assert refused.value.code == "leaves_too_many"


def test_a_tall_page_is_read_in_pieces_to_the_same_end() -> None:
    page = text_page(120, 18_000).copy()
    page[8_100:8_300, 60] = 0  # a side that goes on from one piece into the next
    busy = _busyness(page)
    assert busy[8_192] == _busyness(page[7_000:9_000])[1_192]
    assert (busy[8_110:8_290] == 0).any()
