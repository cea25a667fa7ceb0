"""How far a page moved is told by the words that two views share, however far it was scrolled."""

from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.capture.pixels._joining import Piece, WindowView, displacement

VIEW_PX = 800


def _view(
    heights: list[int], top_px: int, *, words: str = "row {}", more: tuple[Piece, ...] = ()
) -> WindowView:
    """What is seen of rows one below the other, so far from their top; row by row with its words."""
    pieces, y_px = [], -top_px
    for number, height_px in enumerate(heights):
        if y_px + height_px > 0 and y_px < VIEW_PX:
            pieces.append(Piece(words=words.format(number), x_px=8, y_px=y_px + 4, height_px=16))
        y_px += height_px
    return WindowView(top_px=top_px, content_px=sum(heights), view_px=VIEW_PX, pieces=(*more, *pieces))


rows = st.lists(st.integers(30, 120), min_size=60, max_size=60)


@given(rows, st.integers(0, 1_000), st.integers(20, 560), st.integers(-120, 120))
def test_rows_tell_how_far_they_moved_whatever_scrolling_says(
    heights: list[int], top_px: int, moved_px: int, wrong_px: int
) -> None:
    before, after = _view(heights, top_px), _view(heights, top_px + moved_px)
    found = displacement(before, after, expected_px=moved_px + wrong_px)
    assert found is not None
    assert (found.px, found.agreed) == (moved_px, 1.0)


@given(st.integers(0, 1_000), st.integers(1, 10))
def test_of_rows_that_say_the_same_the_nearest_to_what_was_scrolled_is_taken(top_px: int, count: int) -> None:
    heights = [50] * 60
    before = _view(heights, top_px, words="a pier")
    after = _view(heights, top_px + count * 50, words="a pier")
    found = displacement(before, after, expected_px=count * 50)
    assert found is not None
    assert found.px == count * 50


def test_what_hangs_in_the_window_does_not_count() -> None:
    bar = tuple(
        Piece(words=f"menu {number}", x_px=number * 90, y_px=10, height_px=16) for number in range(40)
    )
    before, after = _view([40] * 60, 0, more=bar), _view([40] * 60, 500, more=bar)
    found = displacement(before, after, expected_px=500)
    assert found is not None
    assert (found.px, found.agreed) == (500, 1.0)


def test_another_screen_has_moved_nowhere() -> None:
    before, after = _view([40] * 60, 0, words="first {}"), _view([40] * 60, 0, words="second {}")
    assert displacement(before, after, expected_px=560) is None
    assert displacement(before, after, expected_px=None) is None


def test_rows_that_were_lost_in_between_leave_doubt() -> None:
    before = _view([40] * 60, 0)
    shuffled = WindowView(
        top_px=560,
        content_px=2_400,
        view_px=VIEW_PX,
        pieces=tuple(
            Piece(words=f"row {number * 7 % 60}", x_px=8, y_px=number * 40.0, height_px=16)
            for number in range(20)
        ),
    )
    found = displacement(before, shuffled, expected_px=560)
    assert found is None or found.agreed < 0.5


def test_the_end_is_where_nothing_is_left_to_scroll() -> None:
    assert _view([40] * 60, 1_600).at_end
    assert not _view([40] * 60, 1_500).at_end
