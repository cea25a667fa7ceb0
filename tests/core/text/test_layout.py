"""Text laid out in outlines: lines, letters that are missing, scripts of both directions."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.text import lay_out

WORDS = st.lists(st.text("abcdefgh", min_size=1, max_size=12), min_size=1, max_size=12).map(" ".join)


@given(WORDS, st.integers(60, 400))
def test_no_line_is_wider_than_asked_and_no_letter_is_lost(text: str, width_px: int) -> None:
    laid = lay_out(text, size_px=16, width_px=width_px)
    drawn = laid.path.extent()
    assert drawn.right_px <= width_px + 1
    assert drawn.left_px >= -1
    assert drawn.bottom_px <= laid.height_px
    alone = lay_out(text.replace(" ", ""), size_px=16)
    assert len(laid.path.steps) == len(alone.path.steps)


def test_a_word_that_is_longer_than_the_line_is_broken() -> None:
    laid = lay_out("m" * 40, size_px=20, width_px=100)
    assert laid.path.extent().right_px <= 101
    assert laid.height_px > 100


@pytest.mark.parametrize("text", ["Ferry", "Ωμέγα", "Паром", "שלום", "السلام", "→ 14:35 €"])
def test_letters_of_several_scripts_are_drawn(text: str) -> None:
    laid = lay_out(text, size_px=20)
    assert laid.missing == ()
    assert laid.path.extent().right_px > 20


def test_what_no_font_has_is_named_and_left_out() -> None:
    laid = lay_out("Skerrin 𓀀𓀀 🜲", size_px=20)
    assert laid.missing == ("𓀀", "🜲")
    assert laid.path == lay_out("Skerrin  ", size_px=20).path


def test_a_line_from_right_to_left_is_drawn_so_and_its_figures_are_not_turned() -> None:
    first = lay_out("אב 12", size_px=20).path
    # Alef is read first and stands at the right; the figures stand at the left, in their own order.
    alef, figures = lay_out("א", size_px=20).path, lay_out("12", size_px=20).path
    assert first.extent().right_px == pytest.approx(
        lay_out("12 בא"[::-1], size_px=20).path.extent().right_px, abs=2
    )
    assert first.steps[: len(figures.steps)] == figures.steps
    moved = alef.moved(first.extent().right_px - alef.extent().right_px, 0)
    assert any(step == pytest.approx(moved.steps[0][1], abs=0.01) for _, step in first.steps if step)


def test_arabic_letters_are_joined() -> None:
    joined, apart = lay_out("سلام", size_px=20), lay_out("س ل ا م", size_px=20)
    assert joined.path.extent().right_px < apart.path.extent().right_px * 0.8


def test_lines_are_aligned_within_the_width() -> None:
    left, right = (lay_out("a\nlonger line", size_px=20, align=align) for align in ("left", "right"))
    assert left.path.steps[0][1][0] < right.path.steps[0][1][0]
    assert left.width_px == right.width_px


def test_empty_text_has_the_height_of_a_line() -> None:
    laid = lay_out("", size_px=20)
    assert (laid.path.steps, laid.width_px) == ((), 0)
    assert laid.height_px == pytest.approx(26)
