"""Frames, folds, hidden areas and marks on the page as it is now."""

from dataclasses import replace
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.clearing import ClearedColour, Clearing, PutBack
from tallpage.core.cut import Cut, Fold, FoldDown, Frame
from tallpage.core.cut.models import MOST_HIDDEN, HiddenArea, SoughtWords
from tallpage.core.following import CarriedCut, Page, carry_by_px, carry_over
from tallpage.core.geometry import Box, Size
from tallpage.core.marks import Arrow, Badge, BoxMark, Pen, Text
from tallpage.core.outlining import FreeOutline
from tallpage.core.page_map import Block
from tallpage.core.page_words import PageWords, Word
from tests.core.following.edited_pages import Writer, laid_out

WIDTH_PX = 800


def page(*rows: tuple[str, int]) -> Page:
    """Paragraphs under each other with their heights, 20 px apart, 40 px from the left."""
    blocks, y_px = [], 20
    for text, height_px in rows:
        box = Box(x_px=40, y_px=y_px, width_px=600, height_px=height_px)
        blocks.append(Block(role="paragraph", level=None, box=box, text=text, link="", alt=""))
        y_px += height_px + 20
    return Page(size=Size(width_px=WIDTH_PX, height_px=y_px), blocks=blocks)


FARES, BOATS, FOG, LOST = (
    ("Fares of the summer", 60),
    ("Boats of the line", 80),
    ("Crossings in fog", 40),
    ("Lost things", 40),
)
BEFORE = page(FARES, BOATS, FOG, LOST)
"""Fares at 20–80, boats at 100–180, fog at 200–240, lost things at 260–300."""


def carried(cut: Cut, now: Page, before: Page = BEFORE) -> CarriedCut:
    return carry_over(cut, before, now)


def with_parts(**parts: Any) -> Cut:
    return replace(Cut.whole(BEFORE.size), **parts)


def states(found: CarriedCut) -> list[tuple[str, str, str, bool]]:
    return [(row.part, row.id, row.state, row.doubt) for row in found.parts]


@given(st.integers(0, 500), st.data())
def test_on_the_same_page_everything_stays(seed: int, data: st.DataObject) -> None:
    size, blocks, _ = laid_out(Writer(seed).page(sections=2))
    x_px, y_px = data.draw(st.integers(0, size.width_px - 60)), data.draw(st.integers(0, size.height_px - 60))
    spot = Badge(kind="badge", id="n", x_px=x_px, y_px=y_px)
    around = BoxMark(kind="box", id="b", x_px=x_px, y_px=y_px, width_px=50, height_px=40)
    cut = replace(Cut.whole(size), marks=(spot, around))
    found = carry_over(cut, Page(size=size, blocks=blocks), Page(size=size, blocks=blocks))
    assert found.cut == cut
    assert not found.needs_a_look
    assert {row.state for row in found.parts} == {"same"}


def test_marks_go_with_what_they_point_at() -> None:
    arrow = Arrow(kind="arrow", id="a", from_x_px=700, from_y_px=10, to_x_px=300, to_y_px=110)
    number = Badge(kind="badge", id="n", x_px=30, y_px=215)
    words = Text(kind="text", id="t", x_px=650, y_px=280, text="Here", spot_x_px=200, spot_y_px=150)
    line = Pen(kind="pen", id="p", points=((100, 265), (200, 290)))
    found = carried(
        with_parts(marks=(arrow, number, words, line)), page(("New today", 100), FARES, BOATS, FOG, LOST)
    )
    assert states(found) == [
        ("frame", "", "resized", False),
        *(("mark", name, "moved", False) for name in ("a", "n", "t", "p")),
    ]
    moved_arrow, moved_number, moved_words, moved_line = found.cut.marks
    assert isinstance(moved_arrow, Arrow)
    assert isinstance(moved_number, Badge)
    assert isinstance(moved_words, Text)
    assert isinstance(moved_line, Pen)
    assert (moved_arrow.from_y_px, moved_arrow.to_y_px) == (130, 230)
    assert moved_number.y_px == 335
    assert (moved_words.y_px, moved_words.spot_y_px) == (400, 270)
    assert moved_line.points == ((100, 385), (200, 410))
    assert not found.needs_a_look


def test_a_box_around_a_block_grows_with_it() -> None:
    box = BoxMark(kind="box", id="b", x_px=36, y_px=96, width_px=608, height_px=88)
    found = carried(with_parts(marks=(box,)), page(FARES, ("Boats of the line", 140), FOG, LOST))
    (grown,) = found.cut.marks
    assert isinstance(grown, BoxMark)
    assert (grown.y_px, grown.height_px) == (96, 148)
    assert states(found)[-1] == ("mark", "b", "resized", False)


def test_what_pointed_at_something_that_is_gone_is_kept_aside() -> None:
    """Boats, at 320–400, are far from what is left of the page."""
    before = page(FARES, ("A", 200), BOATS, ("B", 200), FOG, LOST)
    now = page(FARES, ("Quite another thing that was never said", 300), FOG, LOST)
    badge = Badge(kind="badge", id="n", x_px=100, y_px=360)
    area = HiddenArea(id="h", x_px=60, y_px=330, width_px=100, height_px=30)
    cut = replace(Cut.whole(before.size), marks=(badge,), hidden=(area,))
    found = carried(cut, now, before)
    assert (found.cut.marks, found.cut.hidden) == ((), ())
    assert states(found)[1:] == [("hidden", "h", "lost", True), ("mark", "n", "lost", True)]
    assert found.aside == ({"hidden": area.model_dump()}, {"mark": badge.model_dump()})
    assert found.needs_a_look


def test_a_part_of_a_text_that_was_reworded_is_in_doubt() -> None:
    area = HiddenArea(id="h", x_px=200, y_px=205, width_px=60, height_px=20)
    before = page(FARES, BOATS, ("Crossings in fog are told by the mate", 40), LOST)
    now = page(FARES, BOATS, ("Crossings in thick fog are told by the mate", 40), LOST)
    found = carried(with_parts(hidden=(area,)), now, before)
    assert states(found)[-1] == ("hidden", "h", "same", True)


def test_more_places_than_a_cut_may_hide_are_all_covered() -> None:
    boxes = [Box(x_px=5 * (at % 100), y_px=4 * (at // 100), width_px=4, height_px=3) for at in range(2_500)]
    words = PageWords(runs=tuple((Word("a@b.example", (box,)),) for box in boxes))
    cut = replace(Cut.whole(BEFORE.size), sought=(SoughtWords(id="mails", kind="email"),))
    hidden = cut.hidden_anew(words).hidden
    assert len(hidden) == MOST_HIDDEN
    last = hidden[-1].box
    assert all(box.overlap(last) == box for box in boxes[MOST_HIDDEN:])


def test_a_frame_and_its_folds_follow() -> None:
    frame = Frame.of(Box(x_px=0, y_px=90, width_px=WIDTH_PX, height_px=160), [Fold(top_px=185, height_px=10)])
    found = carried(with_parts(frame=frame), page(("New today", 100), FARES, BOATS, FOG, LOST))
    assert found.cut.frame == Frame.of(
        Box(x_px=0, y_px=210, width_px=WIDTH_PX, height_px=160), [Fold(top_px=305, height_px=10)]
    )
    assert states(found) == [("frame", "", "moved", False), ("fold", "185", "moved", False)]


def test_the_whole_page_stays_the_whole_page() -> None:
    now = page(("New today", 100), FARES, BOATS, FOG, LOST)
    found = carried(Cut.whole(BEFORE.size), now)
    assert found.cut.frame.box == Box.whole(now.size)
    assert not found.needs_a_look


def test_a_frame_that_is_not_found_is_in_doubt_and_nothing_is_left_out() -> None:
    frame = Frame.of(Box(x_px=40, y_px=100, width_px=600, height_px=80))
    now = page(("Something else altogether is written here", 50))
    found = carried(with_parts(frame=frame), now)
    assert found.cut.frame.box == Box.whole(now.size)
    assert states(found) == [("frame", "", "lost", True)]


def test_on_a_page_without_blocks_everything_stays_and_is_in_doubt() -> None:
    empty = Page(size=Size(width_px=WIDTH_PX, height_px=200), blocks=())
    on, beside = (
        Badge(kind="badge", id=name, x_px=100, y_px=y_px) for name, y_px in (("n", 140), ("m", 260))
    )
    found = carried(with_parts(marks=(on, beside)), empty)
    assert found.cut.marks == (on,)
    assert states(found)[1:] == [("mark", "n", "same", True), ("mark", "m", "lost", True)]
    assert [row["mark"]["id"] for row in found.aside] == ["m"]


def test_an_outline_a_cleared_place_and_a_fold_down_the_page_go_along() -> None:
    around_boats = FreeOutline(points=((40, 100), (640, 100), (640, 180), (40, 180)), smooth=True)
    cleared = Clearing(
        colours=(ClearedColour(colour="#ffffff", x_px=50, y_px=110), ClearedColour(colour="#000000")),
        put_back=(
            PutBack(x_px=60, y_px=120),
            PutBack(x_px=40, y_px=200, width_px=600, height_px=40),
        ),
    )
    frame = Frame.of(Box.whole(BEFORE.size), folds_down=[FoldDown(left_px=100, width_px=50)])
    cut = replace(with_parts(outline=around_boats, cleared=cleared), frame=frame)
    found = carried(cut, page(("New today", 100), FARES, BOATS, FOG, LOST))
    outline, clearing = found.cut.outline, found.cut.cleared
    assert outline is not None
    assert clearing is not None
    assert outline.points == ((40, 220), (640, 220), (640, 300), (40, 300))
    assert [(row.x_px, row.y_px) for row in clearing.colours] == [(50, 230), (None, None)]
    assert [row.y_px for row in clearing.put_back] == [240, 320]
    assert not found.needs_a_look


def test_what_lay_on_a_block_that_is_gone_is_told() -> None:
    around_fog = FreeOutline(points=((40, 200), (640, 200), (640, 240), (40, 240)))
    cleared = Clearing(colours=(ClearedColour(colour="#ffffff", x_px=50, y_px=210),))
    found = carried(with_parts(outline=around_fog, cleared=cleared), page(FARES, BOATS, LOST))
    assert found.cut.outline is None
    assert found.cut.cleared == Clearing()
    assert {row.part for row in found.parts if row.state == "lost"} == {"outline", "cleared"}


def test_by_px_everything_stays_where_it_is_and_nothing_is_in_doubt() -> None:
    number = Badge(kind="badge", id="n", x_px=30, y_px=215)
    box = Box(x_px=0, y_px=20, width_px=300, height_px=90)
    cut = replace(with_parts(marks=(number,)), frame=Frame.of(box))
    found = carry_by_px(cut, BEFORE, page(("New today", 100), FARES, BOATS, FOG, LOST))
    assert found.cut == cut
    assert not found.needs_a_look


def test_by_px_a_frame_beyond_a_smaller_page_needs_a_look() -> None:
    frame = Frame.of(Box(x_px=0, y_px=60, width_px=300, height_px=200))
    found = carry_by_px(replace(with_parts(), frame=frame), BEFORE, page(FARES))
    assert found.cut.frame.box.bottom_px == 100
    assert found.needs_a_look
