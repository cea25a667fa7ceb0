"""Places on the page, in the frame and in the file: there and back."""

from hypothesis import assume, given
from hypothesis import strategies as st

from tallpage.core.cut import Cut, Fold, Frame
from tallpage.core.geometry import Box, Size
from tallpage.core.render import RenderRules, render_key
from tallpage.core.render._stages import FrameStage, SizeStage
from tallpage.core.sizing import Sizing, plan_size

PAGE = Size(width_px=60, height_px=700)
FOLDS = st.lists(st.builds(Fold, top_px=st.integers(0, 700), height_px=st.integers(1, 150)), max_size=4)


def _boxes(size: Size) -> st.SearchStrategy[Box]:
    @st.composite
    def box(draw: st.DrawFn) -> Box:
        x_px, y_px = draw(st.integers(0, size.width_px - 1)), draw(st.integers(0, size.height_px - 1))
        return Box(
            x_px=x_px,
            y_px=y_px,
            width_px=draw(st.integers(1, size.width_px - x_px)),
            height_px=draw(st.integers(1, size.height_px - y_px)),
        )

    return box()


@given(_boxes(PAGE), FOLDS, st.data())
def test_what_a_frame_shows_is_found_again_on_the_page(
    box: Box, folds: list[Fold], data: st.DataObject
) -> None:
    assume(
        any(all(not f.top_px <= row < f.bottom_px for f in folds) for row in range(box.y_px, box.bottom_px))
    )
    frame = Frame.of(box, folds)
    stage, inside = FrameStage(frame), data.draw(_boxes(frame.size))
    parts = stage.back(inside)
    assert sum(part.height_px for part in parts) == inside.height_px
    for part in parts:
        part.require_on(PAGE)
        (found,) = stage.there(part)
        assert (found.x_px, found.width_px, found.height_px) == (inside.x_px, inside.width_px, part.height_px)
    joined = [found for part in parts for found in stage.there(part)]
    assert joined[0].y_px == inside.y_px
    assert joined[-1].bottom_px == inside.bottom_px


@given(_boxes(PAGE), FOLDS)
def test_what_lies_outside_or_is_folded_comes_to_lie_nowhere(box: Box, folds: list[Fold]) -> None:
    assume(
        any(all(not f.top_px <= row < f.bottom_px for f in folds) for row in range(box.y_px, box.bottom_px))
    )
    stage = FrameStage(Frame.of(box, folds))
    for fold in stage.frame.folds:
        assert stage.there(Box(x_px=0, y_px=fold.top_px, width_px=60, height_px=fold.height_px)) == ()
    right_of = Box(x_px=box.right_px, y_px=box.y_px, width_px=5, height_px=box.height_px)
    assert stage.there(right_of) == ()


SIZINGS = st.one_of(
    st.builds(Sizing, way=st.just("width"), width_px=st.integers(1, 200), enlarge=st.booleans()),
    st.builds(Sizing, way=st.just("share"), percent=st.integers(5, 300)),
    st.builds(
        Sizing,
        way=st.sampled_from(["fill", "pad"]),
        width_px=st.integers(1, 120),
        height_px=st.integers(1, 120),
        anchor=st.sampled_from(["start", "middle", "end"]),
        enlarge=st.booleans(),
    ),
)


@given(_boxes(PAGE), SIZINGS, st.data())
def test_a_place_in_the_file_is_found_on_the_frame_and_there_again(
    frame: Box, sizing: Sizing, data: st.DataObject
) -> None:
    plan = plan_size(frame.size, sizing)
    stage, place = SizeStage(plan, (255, 255, 255)), data.draw(_boxes(plan.canvas))
    for shown in stage.back(place):
        shown.require_on(frame.size)
        (again,) = stage.there(shown)
        again.require_on(plan.canvas)
        one_px = max(1, -(-plan.picture.width_px // plan.shown.width_px))
        assert again.x_px <= max(place.x_px, plan.picture.x_px) + one_px
        assert again.right_px >= min(place.right_px, plan.picture.right_px) - one_px
    around = Box(x_px=0, y_px=plan.picture.bottom_px, width_px=1, height_px=3)
    assert stage.back(around) == ()


def test_equal_keys_are_equal_pixels_and_any_difference_makes_another() -> None:
    cut, rules = Cut.whole(PAGE), RenderRules(sizing=Sizing(width_px=40))
    keys = {
        render_key("one", cut, rules),
        render_key("two", cut, rules),
        render_key("one", Cut(frame=Frame.of(Box.whole(PAGE), [Fold(top_px=5, height_px=5)])), rules),
        render_key("one", cut, RenderRules(sizing=Sizing(width_px=41))),
        render_key("one", cut, RenderRules(sizing=Sizing(width_px=40), background=(0, 0, 0))),
        render_key("one", cut, RenderRules(sizing=Sizing(width_px=40), leaf_count=2)),
    }
    assert len(keys) == 6
    again = RenderRules.from_json(RenderRules(sizing=Sizing(width_px=40)).as_json())
    assert render_key("one", Cut.from_json(cut.as_json()), again) in keys
