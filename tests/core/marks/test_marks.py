"""Marks as data and as shapes: numbers, styles, places, and what is drawn of them."""

from typing import Any
from xml.etree import ElementTree as ET

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import TypeAdapter, ValidationError

from tallpage.core.errors import CutError
from tallpage.core.geometry import Box
from tallpage.core.marks import (
    Mark,
    Plane,
    Style,
    captions_of,
    draw_marks,
    numbered_badges,
    placed,
    points_of,
    signs,
    styled,
    svg_of,
)
from tallpage.core.paths import Extent

MARK: TypeAdapter[Mark] = TypeAdapter(Mark)
PAGE = Extent(0, 0, 1_000, 2_000)
SHOWN = Box(x_px=0, y_px=0, width_px=500, height_px=500)
BOX = {"x_px": 100, "y_px": 200, "width_px": 300, "height_px": 120}
LINE = {"from_x_px": 100, "from_y_px": 200, "to_x_px": 400, "to_y_px": 320}
EVERY_KIND: list[dict[str, Any]] = [
    {"kind": "arrow", **LINE},
    {"kind": "line", **LINE},
    {"kind": "box", **BOX},
    {"kind": "ellipse", **BOX},
    {"kind": "pen", "points": [(100, 200), (200, 250), (400, 320)]},
    {"kind": "highlighter", "points": [(100, 200), (400, 320)]},
    {"kind": "text", "x_px": 100, "y_px": 200, "text": "Pier 2", "spot_x_px": 400, "spot_y_px": 320},
    {"kind": "dim", **BOX},
    {"kind": "badge", "x_px": 100, "y_px": 200},
    {"kind": "sticker", **BOX, "picture": "logo"},
]


def _mark(kind: str, **fields: Any) -> Mark:
    plain = next(row for row in EVERY_KIND if row["kind"] == kind)
    return MARK.validate_python({**plain, **fields})


def _badges(*sequences: int, **fields: Any) -> list[Mark]:
    return [_mark("badge", sequence=sequence, **fields) for sequence in sequences]


@given(st.lists(st.integers(1, 3), max_size=30))
def test_each_sequence_counts_from_one_in_the_order_of_the_marks(sequences: list[int]) -> None:
    rows = numbered_badges(_badges(*sequences))
    for sequence in set(sequences):
        labels = [row.label for row in rows if row.sequence == sequence]
        assert labels == [str(number) for number in range(1, len(labels) + 1)]


def test_letters_go_on_after_the_last() -> None:
    labels = [row.label for row in numbered_badges(_badges(*[1] * 54, letters=True))]
    assert labels[:2] + labels[25:28] + labels[51:] == ["A", "B", "Z", "AA", "AB", "AZ", "BA", "BB"]


def test_captions_are_a_list_without_the_badges_that_have_none() -> None:
    marks = [*_badges(1, caption="Choose the day."), *_badges(1), *_badges(1, caption="Pay.")]
    assert captions_of(marks) == "1. Choose the day.\n3. Pay.\n"


def test_a_style_gives_what_the_mark_does_not_say_itself() -> None:
    style = Style(filling="#111111", outline_px=9, plate="#222222")
    arrow = styled(_mark("arrow", style="quiet", outline_px=1), {"quiet": style})
    assert (arrow.filling, arrow.outline_px) == ("#111111", 1)  # type: ignore[union-attr]
    assert not hasattr(arrow, "plate")
    with pytest.raises(CutError, match="quiet"):
        styled(_mark("arrow", style="quiet"), {})


@pytest.mark.parametrize("plain", EVERY_KIND, ids=lambda row: row["kind"])
def test_every_kind_is_drawn_where_its_points_are(plain: dict[str, Any]) -> None:
    mark = MARK.validate_python(plain)
    drawn = draw_marks([mark], PAGE)[0]
    extent = drawn.extent()
    assert extent is not None
    for x, y in points_of(mark):
        assert extent.left_px - 1 <= x <= extent.right_px + 1
        assert extent.top_px - 1 <= y <= extent.bottom_px + 1
    pictures = {"logo": b""}
    svg = svg_of([drawn], shown=SHOWN, plane=Plane(), pictures=pictures)
    assert ET.fromstring(svg).tag.endswith("svg")  # noqa: S314 - made by us


@pytest.mark.parametrize("plain", EVERY_KIND, ids=lambda row: row["kind"])
@given(st.floats(-500, 500), st.floats(-500, 500))
def test_moving_the_points_moves_the_whole_mark(plain: dict[str, Any], x: float, y: float) -> None:
    mark = MARK.validate_python(plain)
    if mark.kind == "dim":  # what is dimmed is the rest of the page, which stays
        return
    before, after = (
        draw_marks([row], PAGE)[0].extent()
        for row in (mark, placed(mark, lambda point: (point[0] + x, point[1] + y)))
    )
    assert before is not None
    assert after is not None
    assert after.left_px == pytest.approx(before.left_px + x, abs=0.01)
    assert after.bottom_px == pytest.approx(before.bottom_px + y, abs=0.01)


def test_an_arrow_ends_at_its_point_whatever_its_bend() -> None:
    for bend_px in (-80, 0, 80):
        parts = draw_marks([_mark("arrow", bend_px=bend_px, outline_px=0)], PAGE)[0].parts
        corners = [numbers for part in parts for _, numbers in part.path.steps if numbers]  # type: ignore[union-attr]
        assert any(corner == pytest.approx((400, 320)) for corner in corners)


def test_several_dimmed_rests_leave_each_their_part() -> None:
    marks = [_mark("dim"), _mark("badge"), _mark("dim", x_px=600)]
    drawn = draw_marks(marks, PAGE)
    assert len(drawn) == 2
    assert [step for step, _ in drawn[0].parts[0].path.steps].count("M") == 3  # type: ignore[union-attr]


def test_badges_that_are_not_shown_count_all_the_same() -> None:
    marks = _badges(1, 1, 1)
    left_out = draw_marks(marks, PAGE, shown=[False, True, True])
    assert left_out == draw_marks(marks, PAGE)[1:]


@pytest.mark.parametrize(
    ("kind", "wrong"),
    [
        ("arrow", {"to_x_px": float("nan")}),
        ("arrow", {"to_x_px": float("inf")}),
        ("arrow", {"thickness_px": 0}),
        ("arrow", {"filling": "red"}),
        ("box", {"angle_deg": 10**9}),
        ("box", {"width_px": 10**30}),
        ("text", {"text": "x" * 100_000}),
        ("text", {"spot_y_px": None}),
        ("pen", {"points": []}),
        ("sticker", {"sign": "no such sign", "picture": None}),
        ("sticker", {"sign": "ship"}),
        ("badge", {"sequence": 0}),
    ],
)
def test_what_cannot_be_drawn_is_refused(kind: str, wrong: dict[str, Any]) -> None:
    with pytest.raises(ValidationError):
        _mark(kind, **wrong)


def test_every_sign_lies_in_its_square() -> None:
    for path in signs().values():
        extent = path.extent()
        assert min(extent.left_px, extent.top_px) >= 0
        assert max(extent.right_px, extent.bottom_px) <= 24
