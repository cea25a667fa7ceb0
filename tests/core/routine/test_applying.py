"""Routines on a page: what each step makes of the cut, and what happens where it finds nothing."""

from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.cut import Cut
from tallpage.core.errors import FrameError
from tallpage.core.geometry import Box
from tallpage.core.render import Rendering, RenderRules
from tallpage.core.routine import PictureSkipped, RunEnded, apply_as_far_as_possible, apply_routine
from tallpage.core.sizing import Sizing
from tests.core.routine.pages import BLOCKS, HEIGHT_PX, WIDTH_PX, page, routine

TABLE = BLOCKS[3].box
ALL = Box(x_px=0, y_px=0, width_px=WIDTH_PX, height_px=HEIGHT_PX)


def _cut(folder: Path, *steps: dict[str, Any], **more: Any) -> Cut:
    return apply_routine(routine(*steps), page(folder, **more)).cut


def _box(folder: Path, *steps: dict[str, Any]) -> tuple[int, int, int, int]:
    box = _cut(folder, *steps).frame.box
    return box.x_px, box.y_px, box.width_px, box.height_px


@pytest.mark.parametrize(
    ("steps", "box"),
    [
        ([], (0, 0, 600, 2_000)),
        ([{"kind": "frame_block", "block": {"role": "table"}}], (20, 240, 400, 200)),
        ([{"kind": "frame_block", "block": {"role": "table"}, "room_px": 30}], (0, 210, 450, 260)),
        ([{"kind": "frame_block", "block": {"role": "table"}, "as_wide": "page"}], (0, 240, 600, 200)),
        (
            [{"kind": "frame_stretch", "from_block": {"says": "Cars"}, "to_block": {"role": "table"}}],
            (0, 200, 600, 240),
        ),
        (
            [
                {
                    "kind": "frame_stretch",
                    "from_block": {"role": "heading"},
                    "to_block": {"role": "heading", "number": -1},
                    "with_last": False,
                }
            ],
            (0, 100, 600, 800),
        ),
        ([{"kind": "frame_stretch", "from_block": {"says": "Winter timetable"}}], (0, 960, 600, 1_040)),
        (
            [{"kind": "frame_corner", "corner": "bottom-right", "x_px": 10, "y_px": 5, "width_px": 100,
              "height_px": 50}],
            (490, 1_945, 100, 50),
        ),
        ([{"kind": "frame_corner", "width_px": 5_000, "height_px": 90}], (0, 0, 600, 90)),
        ([{"kind": "frame_screens", "screens": 2}], (0, 0, 600, 800)),
        ([{"kind": "frame_screens", "screens": 90}], (0, 0, 600, 2_000)),
        ([{"kind": "trim"}], (0, 100, 600, 1_820)),
        ([{"kind": "trim", "sides": ["bottom"]}], (0, 0, 600, 1_920)),
        ([{"kind": "frame_block", "block": {"role": "table"}, "off": True}], (0, 0, 600, 2_000)),
        (
            # Each works on what the one before left.
            [
                {"kind": "frame_stretch", "from_block": {"says": "Bikes", "role": "heading"}},
                {"kind": "frame_block", "block": {"role": "table"}, "room_px": 10},
                {"kind": "trim"},
            ],
            (20, 540, 400, 150),
        ),
    ],
)  # fmt: skip
def test_frames_by_rule(tmp_path: Path, steps: list[dict[str, Any]], box: tuple[int, ...]) -> None:
    assert _box(tmp_path, *steps) == box


@pytest.mark.parametrize(
    ("step", "words"),
    [
        ({"kind": "frame_block", "block": {"role": "form"}}, "there is no form on the page"),
        ({"kind": "frame_stretch", "from_block": {"says": "lorries"}}, "no “lorries” on the page"),
        (
            {"kind": "frame_stretch", "from_block": {"role": "navigation"}, "to_block": {"role": "table"}},
            "no table below where the stretch begins",
        ),
        ({"kind": "frame_corner", "width_px": 900, "height_px": 9, "smaller": False}, "is too small"),
        ({"kind": "fold_blocks", "block": {"role": "video"}}, "there is no video"),
        ({"kind": "hide_blocks", "block": {"role": "video"}}, "there is no video"),
        ({"kind": "marks", "marks": [{"kind": "badge", "x_px": 0.0, "y_px": 0.0}],
          "at": {"block": {"role": "video"}}}, "there is no video"),
    ],
)  # fmt: skip
def test_where_nothing_is_found_the_step_says_what_happens(
    tmp_path: Path, step: dict[str, Any], words: str
) -> None:
    tried = page(tmp_path)
    with pytest.raises(PictureSkipped, match=words) as skipped:
        apply_routine(routine(step), tried)
    assert skipped.value.sentence.startswith("Step 1: ")
    with pytest.raises(RunEnded, match=words):
        apply_routine(routine({**step, "if_missing": "stop"}), tried)
    passed = apply_routine(routine({**step, "if_missing": "whole"}), tried)
    assert passed.cut == Cut.whole(tried.source.size)
    assert passed.warnings[0].step == 1
    assert words in str(passed.warnings[0])
    assert apply_routine(routine({**step, "off": True}), tried).warnings == ()


def test_what_is_not_known_of_a_picture_counts_as_missing(tmp_path: Path) -> None:
    by_words = routine({"kind": "hide_words", "sought": "email"})
    with pytest.raises(PictureSkipped, match="words of this picture are not known"):
        apply_routine(by_words, page(tmp_path, words=False))
    with pytest.raises(PictureSkipped, match="on which screen"):
        apply_routine(routine({"kind": "frame_screens"}), page(tmp_path, screen=False))


def test_hidden_are_words_blocks_and_areas_from_any_corner(tmp_path: Path) -> None:
    cut = _cut(
        tmp_path,
        {"kind": "hide_words", "sought": "email", "how": "pixelate"},
        {"kind": "hide_blocks", "block": {"selector": ".fares"}, "colour": "#123456"},
        {
            "kind": "hide_areas",
            "areas": [{"x_px": 5, "y_px": 10, "width_px": 50, "height_px": 20}],
            "at": {"block": {"role": "table", "number": 3}, "corner": "bottom-right"},
        },
    )
    boxes = [(row.box.x_px, row.box.y_px, row.box.width_px, row.box.height_px) for row in cut.hidden]
    assert boxes[0] == (18, 698, 204, 24), "the words, with a little around them"
    assert boxes[1:3] == [(20, 240, 400, 200), (20, 540, 400, 150)]
    assert boxes[3] == (420 - 5 - 50, 1_110 - 10 - 20, 50, 20)
    assert len({row.id for row in cut.hidden}) == 4
    assert cut.sought[0].kind == "email"


def test_folds_count_from_what_is_shown(tmp_path: Path) -> None:
    cut = _cut(
        tmp_path,
        {"kind": "frame_stretch", "from_block": {"role": "heading", "says": "Fares"}},
        {"kind": "fold_bands", "folds": [{"top_px": 10, "height_px": 20}]},
        {"kind": "fold_blocks", "block": {"role": "table"}},
        {"kind": "seam", "seam": {"look": "hairline"}},
    )
    tops = [(fold.top_px, fold.height_px) for fold in cut.frame.folds]
    assert tops == [(110, 20), (240, 200), (540, 150), (960, 150)]
    assert cut.seam is not None


def test_marks_go_to_their_block_or_to_a_corner_of_what_is_shown(tmp_path: Path) -> None:
    mark = {"kind": "badge", "x_px": -10.0, "y_px": 4.0}
    cut = _cut(
        tmp_path,
        {"kind": "frame_stretch", "from_block": {"role": "heading", "says": "Bikes"}},
        {"kind": "marks", "marks": [mark], "at": {"block": {"role": "table"}}},
        {"kind": "marks", "marks": [mark], "at": {"corner": "bottom-right"}},
    )
    assert [(row.x_px, row.y_px) for row in cut.marks] == [(10.0, 544.0), (590.0, 2_004.0)]  # type: ignore[union-attr]
    assert len({row.id for row in cut.marks}) == 2


def test_tone_and_dressing_add_up_and_the_later_counts(tmp_path: Path) -> None:
    cut = _cut(
        tmp_path,
        {"kind": "tone", "tone": {"grey": True}},
        {"kind": "tone", "tone": {"brightness": 1.5}},
        {"kind": "dress", "dressing": {"border": {"width_px": 3}, "corner_px": 4}},
        {"kind": "dress", "dressing": {"border": {"width_px": 9}}},
    )
    assert cut.tone is not None
    assert cut.dressing is not None
    assert (cut.tone.grey, cut.tone.brightness) == (True, 1.5)
    assert cut.dressing.border is not None
    assert (cut.dressing.border.width_px, cut.dressing.corner_px) == (9, 4)


def test_a_turned_page_is_framed_by_where_its_blocks_lie_then(tmp_path: Path) -> None:
    turned = {"kind": "turn", "orientation": {"turn_deg": 90}}
    cut = _cut(tmp_path, turned, {"kind": "hide_areas", "areas": [{"x_px": 0, "y_px": 0, "width_px": 9,
                                                                   "height_px": 9}]})  # fmt: skip
    assert cut.frame.size.width_px == HEIGHT_PX


def test_after_each_step_there_is_the_cut_so_far(tmp_path: Path) -> None:
    applied = apply_routine(
        routine(
            {"kind": "take"},
            {"kind": "frame_block", "block": {"role": "table"}},
            {"kind": "tone", "tone": {"grey": True}, "off": True},
            {"kind": "slot", "width_px": 90, "limit_bytes": 9_000},
        ),
        page(tmp_path),
    )
    boxes = [cut.frame.box for cut in applied.after_step]
    assert boxes == [ALL, TABLE, TABLE, TABLE]
    assert applied.cut == applied.after_step[-1]


def test_a_chain_that_is_alike_at_first_goes_on_from_there(tmp_path: Path) -> None:
    missing = {"kind": "fold_blocks", "block": {"role": "video"}, "if_missing": "whole"}
    first = routine({"kind": "frame_block", "block": {"role": "table"}}, missing)
    changed = routine(*({"kind": "frame_block", "block": {"role": "table"}}, missing), {"kind": "trim"})
    tried = page(tmp_path)
    before = apply_as_far_as_possible(first, tried)
    gone_on = apply_as_far_as_possible(changed, tried, before=before, alike=2)
    assert gone_on == apply_routine(changed, tried)
    assert gone_on.after_step[:2] == before.after_step
    assert [row.step for row in gone_on.warnings] == [2]


@given(st.data())
def test_whatever_the_steps_of_a_frame_the_cut_lies_on_the_page(
    tmp_path_factory: pytest.TempPathFactory, data: st.DataObject
) -> None:
    px = st.integers(0, 700)
    rule = st.fixed_dictionaries({"role": st.sampled_from(["table", "heading", "section", "navigation"]),
                                  "number": st.sampled_from([1, 2, -1])})  # fmt: skip
    step = st.one_of(
        st.fixed_dictionaries({"kind": st.just("frame_block"), "block": rule, "room_px": px}),
        st.fixed_dictionaries({"kind": st.just("frame_stretch"), "from_block": rule, "to_block": rule,
                               "with_last": st.booleans(), "room_px": px}),
        st.fixed_dictionaries({"kind": st.just("frame_corner"), "x_px": px, "y_px": px,
                               "width_px": st.integers(1, 900), "height_px": st.integers(1, 3_000),
                               "corner": st.sampled_from(["top-left", "bottom-right", "centre", "left"])}),
        st.fixed_dictionaries({"kind": st.just("fold_blocks"), "block": rule, "room_px": px}),
    )  # fmt: skip
    steps = [{**row, "if_missing": "whole"} for row in data.draw(st.lists(step, max_size=5))]
    tried = page(tmp_path_factory.mktemp("page"))
    try:
        cut = apply_routine(routine(*steps), tried).cut
    except FrameError:
        return  # nothing would be left between folds
    assert cut.frame.box.lies_on(tried.source.size)
    rendering = Rendering(tried.source, cut, RenderRules(sizing=Sizing(way="share", percent=100)))
    assert rendering.size_of(rendering.whole()) == cut.frame.size
