"""A routine out of a cut does the same to its own page, and finds the same places on others."""

from pathlib import Path
from typing import Any

import pytest

from tallpage.core.clearing import ClearedColour, Clearing
from tallpage.core.cut import Cut, Fold, Frame
from tallpage.core.cut.models import HiddenArea, SoughtWords
from tallpage.core.dressing import Border, Dressing, Stamp
from tallpage.core.geometry import Box
from tallpage.core.marks import Badge, BoxMark, Style
from tallpage.core.routine import Routine, apply_routine, find_block, routine_of_cut, slot_of_rules
from tallpage.core.tone import Tone
from tests.core.routine.pages import BLOCKS, HEIGHT_PX, WIDTH_PX, block, page
from tests.pictures import as_png, gradient


def _kept(cut: Cut, folder: Path, **more: Any) -> Routine:
    source = page(folder).source
    return routine_of_cut(cut, source.size, BLOCKS, name="Kept", **more)


def _box(x_px: int, y_px: int, width_px: int, height_px: int) -> Box:
    return Box(x_px=x_px, y_px=y_px, width_px=width_px, height_px=height_px)


@pytest.mark.parametrize(
    ("box", "kind"),
    [
        (_box(0, 0, WIDTH_PX, HEIGHT_PX), None),
        (_box(20, 240, 400, 200), "frame_block"),
        (_box(12, 532, 416, 166), "frame_block"),
        (_box(0, 500, WIDTH_PX, 400), "frame_stretch"),
        (_box(0, 900, WIDTH_PX, 1_100), "frame_stretch"),
        (_box(77, 333, 111, 222), "frame_corner"),
    ],
)
def test_a_frame_becomes_the_rule_that_finds_it(tmp_path: Path, box: Box, kind: str | None) -> None:
    kept = _kept(Cut(frame=Frame.of(box)), tmp_path)
    assert [step.kind for step in kept.steps] == ([kind] if kind else [])
    assert apply_routine(kept, page(tmp_path)).cut.frame.box == box


def test_everything_of_a_cut_is_kept_and_comes_to_the_same(tmp_path: Path) -> None:
    picture = as_png(gradient(20, 20))
    cut = Cut(
        hidden=(
            HiddenArea(id="a", x_px=30, y_px=250, width_px=40, height_px=20, how="blur"),
            HiddenArea(id="b", x_px=18, y_px=698, width_px=204, height_px=24, found_by="mail"),
        ),
        sought=(SoughtWords(id="mail", kind="email"),),
        cleared=Clearing(colours=(ClearedColour(colour="#ffffff"),)),
        frame=Frame.of(_box(0, 500, WIDTH_PX, 400), [Fold(top_px=700, height_px=100)]),
        tone=Tone(grey=True),
        marks=(
            Badge(kind="badge", id="m1", x_px=60.0, y_px=560.0, style="loud"),
            BoxMark(kind="box", id="m2", x_px=500.0, y_px=820.0, width_px=50.0, height_px=40.0),
        ),
        dressing=Dressing(border=Border(width_px=2), stamp=Stamp(picture="crest")),
        styles={"loud": Style(filling="#FF0000")},
        pictures={"crest": picture},
    )
    kept = _kept(cut, tmp_path, take={"screen": "1280x800"}, slots=[{"width_px": 90, "limit_bytes": 900}])
    assert [step.kind for step in kept.steps] == [
        *("take", "hide_words", "hide_areas", "clear", "frame_stretch", "fold_bands", "tone"),
        *("marks", "marks", "dress", "dress", "slot"),
    ]
    marks = [step for step in kept.steps if step.kind == "marks"]
    assert marks[0].at.block is not None, "it is on a table, and goes along with it"
    again = apply_routine(kept, page(tmp_path)).cut
    assert again.frame == cut.frame
    assert {(row.box, row.how) for row in again.hidden} == {(row.box, row.how) for row in cut.hidden}
    assert [(mark.x_px, mark.y_px) for mark in again.marks] == [(60.0, 560.0), (500.0, 820.0)]  # type: ignore[union-attr]
    assert (again.tone, again.dressing, again.cleared) == (cut.tone, cut.dressing, cut.cleared)
    assert (set(again.styles), set(again.pictures)) == ({"loud"}, {"crest"})


def test_the_rule_says_as_little_as_possible_of_this_one_page(tmp_path: Path) -> None:
    def rule(at: int) -> dict[str, Any]:
        step = _kept(Cut(frame=Frame.of(BLOCKS[at].box)), tmp_path).steps[0]
        block: dict[str, Any] = step.block.model_dump()  # type: ignore[union-attr]
        return block

    assert rule(8) == {"role": "navigation"}
    assert rule(7) == {"selector": "table.times"}
    assert rule(3) == {"role": "table"}, "the first of its kind"
    assert rule(5) == {"role": "table", "below": "Bikes"}


def test_names_of_a_page_that_no_rule_can_give_are_passed_over(tmp_path: Path) -> None:
    odd = [
        block("table", (0, 0, 600, 50), path="body > table"),
        block("table", (20, 240, 400, 200), path=r"body > table#fares\.2026"),
        block("table", (20, 540, 400, 150), path="body > table" + ".wide" * 80),
    ]
    for at in (1, 2):
        cut = Cut(frame=Frame.of(odd[at].box))
        kept = routine_of_cut(cut, page(tmp_path).source.size, odd, name="Kept")
        assert find_block(kept.steps[0].block, odd) is odd[at]  # type: ignore[union-attr]


def test_a_slot_with_a_long_name_is_kept_under_the_first_of_it() -> None:
    assert len(slot_of_rules({"width_px": 90}, "The Harbour Gazette: " * 9)["name"]) == 80
