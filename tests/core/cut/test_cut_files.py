"""Files of cuts: what is written is read again, what is not known is refused in words."""

import json
import re
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.cut import Cut, Fold, Frame, cut_file_schema, read_cut, write_cut
from tallpage.core.errors import CutError, FrameError
from tallpage.core.geometry import Box, Size

BOX = {"x_px": 10, "y_px": 20, "width_px": 300, "height_px": 900}
GOOD: dict[str, Any] = {"version": 1, "frame": BOX}


@given(st.lists(st.tuples(st.integers(0, 1_000), st.integers(1, 90)), max_size=4))
def test_what_is_written_is_read_again(folds: list[tuple[int, int]]) -> None:
    bands = [Fold(top_px=top_px, height_px=height_px) for top_px, height_px in folds]
    cut = Cut(frame=Frame.of(Box(**BOX), bands))
    assert read_cut(write_cut(cut)) == cut
    assert Cut.from_json(cut.as_json()) == cut


@pytest.mark.parametrize(
    ("changed", "word"),
    [
        ({"tone": "grey"}, "tone"),
        ({"frame": {**BOX, "colour": 3}}, "frame.colour"),
        ({"frame": {**BOX, "width_px": 0}}, "frame.width_px"),
        ({"frame": {**BOX, "x_px": -1}}, "frame.x_px"),
        ({"frame": {**BOX, "y_px": "7"}}, "frame.y_px"),
        ({"frame": {**BOX, "height_px": 10**30}}, "frame.height_px"),
        ({"frame": {**BOX, "folds": [{"top_px": 40}]}}, "frame.folds[0].height_px"),
        ({"frame": {**BOX, "folds": [{"top_px": 4, "height_px": 9, "torn": True}]}}, "frame.folds[0].torn"),
        (
            {"frame": {**BOX, "folds": [{"top_px": n, "height_px": 1} for n in range(300)]}},
            "frame.folds: has more than 200",
        ),
        ({"frame": {**BOX, "folds_down": [{"left_px": 4}]}}, "frame.folds_down[0].width_px"),
        ({"seam": {"look": "sewn"}}, "seam.look"),
        ({"outline": {"points": [[0, 0], [9, 9]]}}, "outline.points"),
        ({"outline": {"points": [[0, 0], [9, 9], [9, 0], [0, 9]]}}, "outline crosses itself"),
        ({"outline": {"points": [[0, 0], [9, 9], [4, 4]]}}, "outline has nothing inside"),
        ({"frame": None}, "frame"),
        ({"version": "one"}, "version"),
        ({"version": 0}, "version"),
    ],
)
def test_what_is_not_known_or_impossible_is_refused_by_name(changed: dict[str, Any], word: str) -> None:
    with pytest.raises(CutError, match=re.escape(word)):
        read_cut(json.dumps({**GOOD, **changed}).encode())


@pytest.mark.parametrize("data", [b"", b"{", b"[1]", b"\xff\xfe", b'{"frame": {}}', b"[" * 100_000])
def test_what_is_no_cut_is_refused(data: bytes) -> None:
    with pytest.raises(CutError):
        read_cut(data)


def test_a_newer_version_is_refused_as_such() -> None:
    with pytest.raises(CutError, match="version 2") as refused:
        read_cut(json.dumps({**GOOD, "version": 2, "marks": []}).encode())
    assert refused.value.code == "cut_too_new"
    assert "newer" in refused.value.hint


def test_a_frame_of_nothing_is_refused() -> None:
    folded = {**BOX, "folds": [{"top_px": 0, "height_px": 2_000}]}
    with pytest.raises(FrameError):
        read_cut(json.dumps({**GOOD, "frame": folded}).encode())
    with pytest.raises(FrameError):
        Cut(frame=Frame.of(Box(**BOX))).require_on(Size(width_px=300, height_px=2_000))


def test_the_schema_says_what_is_needed_and_that_nothing_else_is_taken() -> None:
    schema = cut_file_schema()
    assert schema["required"] == ["version", "frame"]
    assert schema["additionalProperties"] is False
    assert all(part["additionalProperties"] is False for part in schema["$defs"].values())
