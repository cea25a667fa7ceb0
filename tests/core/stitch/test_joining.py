"""Views are joined to the pixel, or the place is named where a piece is missing; never wrongly."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from tallpage.core.stitch import Join, JoinDrawer, find_join, moved_seam
from tests.core.stitch.sequences import (
    Pixels,
    Views,
    beside_side_bar,
    compressed,
    like_rows,
    over_foot_line,
    scrolled,
    shuffled,
    under_header,
    with_animation,
    with_button,
)
from tests.long import COSTLY
from tests.pictures import text_page

WIDTH_PX, WINDOW_PX = 480, 400
PAGE = text_page(WIDTH_PX, 2_400)
TOPS_PX = (0.0, 210.0, 395.0, 640.0, 830.0)


def joined(views: Views, *, in_order: bool = True) -> Join:
    return find_join([grey(pixels) for pixels in views.views], in_order=in_order)


def grey(pixels: Pixels) -> Pixels:
    return np.asarray(Image.fromarray(pixels).convert("L"))


def drawn(views: Views, join: Join, *, band_px: int = 170) -> Pixels:
    drawer = JoinDrawer(join, lambda view, top_px, count: views.views[view][top_px : top_px + count])
    tops = range(0, join.height_px, band_px)
    return np.concatenate([drawer.rows(top, min(band_px, join.height_px - top)) for top in tops])


def gaps(join: Join) -> list[tuple[int, int, str]]:
    return [(gap.below, gap.above, gap.doubt) for gap in join.gaps]


@COSTLY
@given(steps=st.lists(st.integers(20, 300), min_size=1, max_size=6), seed=st.integers(0, 99))
def test_views_in_any_order_give_the_page(steps: list[int], seed: int) -> None:
    tops = np.cumsum([0, *steps]).astype(float)
    views = shuffled(scrolled(PAGE, list(tops), WINDOW_PX), np.random.default_rng(seed))
    assert np.array_equal(drawn(views, joined(views, in_order=False)), views.whole)


@COSTLY
@given(steps=st.lists(st.integers(-180, 280), min_size=2, max_size=8))
def test_who_scrolls_to_and_fro_gets_the_page_as_far_as_it_was_seen(steps: list[int]) -> None:
    tops = [800.0]
    for step in steps:
        tops.append(float(np.clip(tops[-1] + step, 0, len(PAGE) - WINDOW_PX)))
    views = scrolled(PAGE, tops, WINDOW_PX)
    assert np.array_equal(drawn(views, joined(views)), views.whole)


def test_bars_at_each_edge_are_shown_once() -> None:
    views = under_header(beside_side_bar(scrolled(PAGE, TOPS_PX, WINDOW_PX), 120), 40)
    views = over_foot_line(views, 32)
    join = joined(views)
    assert (join.bars.top_px, join.bars.bottom_px, join.bars.left_px) == (40, 32, 120)
    assert np.array_equal(drawn(views, join), views.whole)


def test_what_floats_over_the_page_lies_on_it_at_most_once() -> None:
    views = with_button(scrolled(PAGE, TOPS_PX, WINDOW_PX))
    differs = (drawn(views, joined(views)) != views.whole).any(axis=2)
    rows = np.flatnonzero(differs.any(axis=1))
    assert rows.size == 0 or (rows[0] > TOPS_PX[-1] and rows[-1] - rows[0] < 70)


def test_compression_does_not_move_a_row() -> None:
    exact = under_header(scrolled(PAGE, TOPS_PX, WINDOW_PX), 40)
    views = compressed(exact, 70)
    join = joined(views)
    assert join.tops_px == TOPS_PX
    noise = np.abs(views.views[0].astype(int) - exact.views[0]).mean()
    assert np.abs(drawn(views, join).astype(int) - views.whole).mean() < 1.2 * noise


def test_what_moves_by_itself_in_a_corner_is_looked_past() -> None:
    views = with_animation(scrolled(PAGE, TOPS_PX, WINDOW_PX), np.random.default_rng(1), side_px=90)
    assert joined(views).tops_px == TOPS_PX


def test_half_pixels_do_not_add_up() -> None:
    tops = (0.0, 200.5, 401.0, 611.5, 822.0, 1_022.5)
    views = scrolled(PAGE, tops, WINDOW_PX)
    found = np.array(joined(views).tops_px)
    assert np.abs(found - tops).max() <= 0.5


def test_a_page_that_was_scrolled_too_far_says_between_which_views() -> None:
    views = scrolled(PAGE, (0.0, 200.0, 900.0, 1_100.0), WINDOW_PX)
    assert gaps(joined(views)) == [(1, 2, "nothing_shared")]
    back = scrolled(PAGE, (0.0, 200.0, 900.0, 1_100.0, 500.0, 700.0), WINDOW_PX)
    assert np.array_equal(drawn(back, joined(back)), back.whole), "who scrolls back fills the gap"


def test_rows_that_are_all_alike_are_refused_and_numbered_ones_are_not() -> None:
    for numbered in (False, True):
        rows = like_rows(30, WIDTH_PX, numbered=numbered)
        page = np.concatenate([PAGE[:WINDOW_PX], rows, PAGE[WINDOW_PX : 2 * WINDOW_PX]])
        views = scrolled(page, [float(top) for top in range(0, 1_600, 240)], WINDOW_PX)
        join = joined(views)
        if numbered:
            assert np.array_equal(drawn(views, join), views.whole)
        else:
            assert {doubt for _, _, doubt in gaps(join)} == {"repeats"}


def test_a_row_passed_over_among_rows_that_are_alike_is_never_lost_unsaid() -> None:
    page = like_rows(60, WIDTH_PX, numbered=False, row_px=230)
    views = scrolled(page, [0.0, 430.0, 860.0], WINDOW_PX)
    assert not joined(views).is_whole


def test_a_blank_stretch_as_high_as_the_window_is_a_gap() -> None:
    blank = np.full((WINDOW_PX + 80, WIDTH_PX, 3), 255, dtype=np.uint8)
    page = np.concatenate([PAGE[:WINDOW_PX], blank, PAGE[WINDOW_PX : 2 * WINDOW_PX]])
    views = scrolled(page, [float(top) for top in range(0, 881, 220)], WINDOW_PX)
    doubts = gaps(joined(views))
    assert doubts
    assert {doubt for _, _, doubt in doubts} <= {"blank", "nothing_shared"}


def test_a_view_of_another_page_is_named() -> None:
    views = scrolled(PAGE, TOPS_PX, WINDOW_PX)
    foreign = text_page(WIDTH_PX, WINDOW_PX, seed=9)
    join = find_join([grey(pixels) for pixels in (*views.views, foreign)], in_order=False)
    assert gaps(join) == [(4, 5, "nothing_shared")]


def test_boxes_that_look_alike_around_other_words_are_not_taken_for_one_another() -> None:
    tips = []
    for number in range(6):
        tip = text_page(WIDTH_PX, 240, seed=20 + number).copy()
        tip[:30] = tip[-30:] = 250
        tip[20:24], tip[-24:-20], tip[20:-20, 20:24], tip[20:-20, -24:-20] = 120, 120, 120, 120
        tips.append(tip)
    views = scrolled(np.concatenate(tips), (0.0, 480.0, 960.0), WINDOW_PX)
    assert len(gaps(joined(views))) == 2


def test_one_view_is_a_whole_join_and_the_same_view_twice_adds_nothing() -> None:
    views = scrolled(PAGE, (0.0,), WINDOW_PX)
    assert np.array_equal(drawn(views, joined(views)), views.whole)
    twice = scrolled(PAGE, (0.0, 0.0, 200.0, 200.0), WINDOW_PX)
    assert np.array_equal(drawn(twice, joined(twice)), twice.whole)


def test_a_seam_moves_within_the_rows_that_both_views_show() -> None:
    views = scrolled(PAGE, (0.0, 250.0), WINDOW_PX)
    join = joined(views)
    lower = join.stretches[1]
    assert (lower.least_px, lower.most_px) == (250, 400)
    upper, lower = moved_seam(join.stretches, 1, 390)
    assert (upper.bottom_px, lower.top_px) == (390, 390)
    with pytest.raises(ValueError, match="from 250 to 400"):
        moved_seam(join.stretches, 1, 410)
    with pytest.raises(ValueError, match="no seam 2"):
        moved_seam(join.stretches, 2, 300)


@pytest.mark.parametrize("shape", [(1, 1), (7, 300), (300, 7), (9, 9)])
def test_views_with_hardly_a_pixel_are_gaps(shape: tuple[int, int]) -> None:
    views = [np.random.default_rng(seed).integers(0, 256, shape, dtype=np.uint8) for seed in range(3)]
    for in_order in (True, False):
        assert {gap.doubt for gap in find_join(views, in_order=in_order).gaps} == {"blank"}


def test_views_of_several_widths_are_refused() -> None:
    with pytest.raises(ValueError, match="one width"):
        find_join([grey(PAGE[:400]), grey(PAGE[:400, :300])], in_order=True)
    with pytest.raises(ValueError, match="at least one"):
        find_join([], in_order=True)
