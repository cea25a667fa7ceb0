"""Marks whose letters would be too small to be read are drawn larger, and stay where they are."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import TypeAdapter

from tallpage.core.marks import Mark, draw_marks, kept_legible, smallest_letters_px
from tallpage.core.paths import Extent

MARK: TypeAdapter[Mark] = TypeAdapter(Mark)
PAGE = Extent(0, 0, 1_280, 2_400)


def _mark(kind: str, **more: Any) -> Mark:
    return MARK.validate_python({"kind": kind, "x_px": 300, "y_px": 500, **more})


def _text(**more: Any) -> Mark:
    return _mark("text", text="Be there at noon", outline_px=2, **more)


def test_the_smallest_letters_are_those_of_texts_and_numbers() -> None:
    arrow = MARK.validate_python(
        {"kind": "arrow", "from_x_px": 0, "from_y_px": 0, "to_x_px": 9, "to_y_px": 9}
    )
    assert smallest_letters_px([arrow, _mark("text", text=" ")]) is None
    assert smallest_letters_px([arrow, _text(size_px=30), _mark("badge", size_px=40)]) == pytest.approx(22.4)


@given(st.floats(4, 60), st.floats(4, 80), st.floats(-45, 45))
def test_letters_come_to_the_size_and_the_middle_stays(
    size_px: float, least_px: float, angle_deg: float
) -> None:
    for mark in (_text(size_px=size_px, angle_deg=angle_deg), _mark("badge", size_px=size_px)):
        legible = kept_legible(mark, least_px, PAGE)
        now_px, before_px = smallest_letters_px([legible]), smallest_letters_px([mark])
        assert now_px is not None
        assert before_px is not None
        assert now_px == pytest.approx(max(least_px, before_px))
        if before_px >= least_px:
            assert legible is mark
            continue
        before, after = (draw_marks([row], PAGE)[0].extent() for row in (mark, legible))
        assert before is not None
        assert after is not None
        if after.left_px > 0 and after.right_px < PAGE.right_px and mark.kind == "badge":
            assert after.middle == pytest.approx(before.middle, abs=0.5)


def test_a_text_that_would_leave_the_page_is_moved_inside() -> None:
    mark = _text(size_px=10).model_copy(update={"x_px": 1_180.0, "y_px": 2_380.0})
    held = draw_marks([kept_legible(mark, 40, PAGE)], PAGE)[0].held
    assert held is not None
    assert held.right_px == pytest.approx(PAGE.right_px)
    assert held.bottom_px == pytest.approx(PAGE.bottom_px)
    long = _text(size_px=10).model_copy(update={"text": "m" * 200})
    assert draw_marks([kept_legible(long, 40, PAGE)], PAGE)[0].held.left_px == 0  # type: ignore[union-attr]
