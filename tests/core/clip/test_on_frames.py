"""Hidden areas and marks on the frames of a clip."""

from __future__ import annotations

import json
from pathlib import Path

import numpy as np
import pytest
from pydantic import ValidationError

from tallpage.core.clip import ClipDocument, HiddenOnFrames, MarkOnFrames, draw, seen_through
from tallpage.core.cut import read_cut
from tallpage.core.errors import ClipError
from tallpage.core.geometry import Box, Size
from tests.core.clip.made_up import frames_of, noise

_AREA = {"x_px": 40, "y_px": 20, "width_px": 80, "height_px": 60}
_FRAME = Size(width_px=320, height_px=200)


def _hidden(**more: object) -> HiddenOnFrames:
    how = more.pop("how", "solid")
    return HiddenOnFrames.model_validate({"area": {"how": how, "colour": "#102030", **_AREA}, **more})


def _inside(pixels: np.ndarray) -> np.ndarray:
    return pixels[20:80, 40:120]


def test_a_hidden_area_is_in_the_frames_of_its_range_and_in_no_other(tmp_path: Path) -> None:
    pictures = noise(4)
    frames = frames_of(tmp_path / "clip", pictures)
    document = ClipDocument(hidden=(_hidden(first=1, last=2),))

    for number in range(4):
        drawn = draw(frames, document, number, _FRAME)
        if number in (1, 2):
            assert (_inside(drawn) == (0x10, 0x20, 0x30)).all()
            assert (drawn[90:] == pictures[number][90:]).all()
        else:
            assert (drawn == pictures[number]).all()


@pytest.mark.parametrize("how", ["pixelate", "blur", "patch"])
def test_other_ways_of_hiding_leave_nothing_that_was_there(tmp_path: Path, how: str) -> None:
    (pixels,) = noise(1)
    frames = frames_of(tmp_path / "clip", [pixels])

    drawn = draw(frames, ClipDocument(hidden=(_hidden(how=how),)), 0, _FRAME)

    changed = (drawn != pixels).any(axis=2)
    assert changed[25:75, 45:115].mean() > 0.99
    assert not changed[90:].any()


def test_a_mark_lies_on_all_frames_and_is_sized_with_the_part_that_is_shown(tmp_path: Path) -> None:
    frames = frames_of(tmp_path / "clip", [np.full((200, 320, 3), 255, np.uint8)] * 2)
    mark = {"kind": "box", "filling": "#FF0000", "outline_px": 0, **_AREA}
    document = ClipDocument(
        marks=(MarkOnFrames.model_validate({"mark": mark}),),
        box=Box(x_px=40, y_px=20, width_px=160, height_px=100),
    )

    for number in range(2):
        drawn = draw(frames, document, number, Size(width_px=80, height_px=50))
        assert (np.abs(drawn[4:26, 4:36] - np.array((255, 0, 0))) < 8).all()
        assert (drawn[36:, 46:] > 247).all()


def test_what_is_hidden_is_hidden_below_a_mark(tmp_path: Path) -> None:
    frames = frames_of(tmp_path / "clip", noise(1))
    text = {"kind": "text", "x_px": 45, "y_px": 25, "text": "Berth 2", "plate": "#FFFFFF"}
    document = ClipDocument(hidden=(_hidden(),), marks=(MarkOnFrames.model_validate({"mark": text}),))

    inside = _inside(draw(frames, document, 0, _FRAME))

    is_colour = (inside == (0x10, 0x20, 0x30)).all(axis=2)
    assert is_colour.any()
    assert (inside[~is_colour] > 200).all(axis=1).mean() > 0.3


@pytest.mark.parametrize(
    "said",
    [
        {"first": 3, "last": 2},
        {"first": -1},
        {"mark": {"kind": "sticker", "picture": "logo", **_AREA}},
        {"mark": {"kind": "box", "style": "our look", **_AREA}},
        {"mark": {"kind": "spiral"}},
    ],
)
def test_what_cannot_be_on_frames_is_refused(said: dict[str, object]) -> None:
    with pytest.raises(ValidationError):
        MarkOnFrames.model_validate({"mark": {"kind": "box", **_AREA}, **said})


def test_a_clip_has_not_thousands_of_marks() -> None:
    with pytest.raises(ClipError, match="201 hidden areas"):
        ClipDocument(hidden=(_hidden(),) * 201)


def _cut(**parts: object) -> bytes:
    return json.dumps({"version": 1, "frame": {**_AREA, "folds": []}, **parts}).encode()


def test_a_cut_gives_its_box_what_it_hides_and_its_marks() -> None:
    mark = {"kind": "box", "style": "ours", **_AREA}
    cut = read_cut(_cut(hidden=[_AREA], marks=[mark], styles={"ours": {"outline_colour": "#00AA00"}}))

    document = seen_through(cut, ClipDocument(repeats=3))

    assert (document.box, document.repeats) == (Box(**_AREA), 3)
    assert [row.area.box for row in document.hidden] == [Box(**_AREA)]
    assert [row.mark.outline_colour for row in document.marks] == ["#00AA00"]  # type: ignore[union-attr]


def test_parts_of_a_cut_that_clips_do_not_have_are_named() -> None:
    folded = {**_AREA, "folds": [{"top_px": 30, "height_px": 10}]}
    with pytest.raises(ClipError, match="folds, tone"):
        seen_through(read_cut(_cut(frame=folded, tone={"grey": True})), ClipDocument())
