"""Frames with folds: what is shown, and where it is on the page."""

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from tallpage.core.cut import MOST_FOLDS, Fold, FoldDown, Frame
from tallpage.core.errors import FrameError
from tallpage.core.geometry import Box

BOXES = st.builds(
    Box,
    x_px=st.integers(0, 50),
    y_px=st.integers(0, 300),
    width_px=st.integers(1, 50),
    height_px=st.integers(1, 300),
)
FOLDS = st.lists(st.builds(Fold, top_px=st.integers(0, 700), height_px=st.integers(1, 200)), max_size=6)


def _frame(box: Box, folds: list[Fold]) -> Frame:
    hidden = _hidden(folds) & set(range(box.y_px, box.bottom_px))
    assume(len(hidden) < box.height_px)
    return Frame.of(box, folds)


def _hidden(folds: list[Fold]) -> set[int]:
    return {row for fold in folds for row in range(fold.top_px, fold.bottom_px)}


@given(BOXES, FOLDS)
def test_every_row_that_is_not_folded_is_shown_once_in_order(box: Box, folds: list[Fold]) -> None:
    frame = _frame(box, folds)
    shown = [row for part in frame.parts(0, frame.size.height_px) for row in range(part.y_px, part.bottom_px)]
    assert shown == [row for row in range(box.y_px, box.bottom_px) if row not in _hidden(folds)]
    assert frame.size.height_px == len(shown)
    assert [frame.row_of(row) for row in shown] == list(range(len(shown)))


@given(BOXES, FOLDS, st.data())
def test_pieces_of_a_frame_are_what_the_whole_shows_there(
    box: Box, folds: list[Fold], data: st.DataObject
) -> None:
    frame = _frame(box, folds)
    top = data.draw(st.integers(0, frame.size.height_px - 1))
    height = data.draw(st.integers(1, frame.size.height_px - top))
    rows = [row for part in frame.parts(top, height) for row in range(part.y_px, part.bottom_px)]
    assert [frame.row_of(row) for row in rows] == list(range(top, top + height))


@given(BOXES, FOLDS)
def test_a_stored_frame_is_the_same_again(box: Box, folds: list[Fold]) -> None:
    frame = _frame(box, folds)
    assert Frame.from_json(frame.as_json()) == frame
    assert ("folds" in frame.as_json()) is bool(frame.folds)


@given(BOXES, FOLDS)
def test_folds_down_do_to_columns_what_folds_across_do_to_rows(box: Box, folds: list[Fold]) -> None:
    frame = _frame(box, folds)
    lying = Box(x_px=box.y_px, y_px=box.x_px, width_px=box.height_px, height_px=box.width_px)
    turned = Frame.of(
        lying, folds_down=[FoldDown(left_px=row.top_px, width_px=row.height_px) for row in folds]
    )
    assert turned.size.width_px == frame.size.height_px
    rows = [(part.y_px, part.bottom_px) for part in frame.parts(0, frame.size.height_px)]
    assert [(part.x_px, part.right_px) for part in turned.columns(0, turned.size.width_px)] == rows
    for place in (box.y_px, box.y_px + 7, box.bottom_px):
        assert turned.column_of(place) == frame.row_of(place)
        assert turned.shows((place, 0)) == frame.shows((0, place))
        assert turned.place_of((place, 0))[0] == frame.place_of((0, place))[1]
    assert Frame.from_json(turned.as_json()) == turned
    assert turned.seams() == (frame.seams()[1], frame.seams()[0])


def test_a_frame_must_show_something() -> None:
    box = Box(x_px=0, y_px=10, width_px=5, height_px=20)
    with pytest.raises(FrameError, match="Nothing"):
        Frame.of(box, [Fold(top_px=0, height_px=15), Fold(top_px=12, height_px=50)])
    many = [Fold(top_px=row, height_px=1) for row in range(0, 2 * MOST_FOLDS + 2, 2)]
    with pytest.raises(FrameError, match="more than"):
        Frame.of(Box(x_px=0, y_px=0, width_px=5, height_px=2_000), many)
