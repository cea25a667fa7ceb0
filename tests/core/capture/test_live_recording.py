"""What a person did becomes steps that can be read and done again."""

from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.capture import Step
from tallpage.core.capture.live import KeyInput, PointerInput, Recording, TextInput, TouchInput
from tallpage.core.capture.live._input import takes_place_of
from tallpage.core.capture.opening._steps import MOST_STEPS


def _lines(recording: Recording) -> list[str]:
    return [str(step) for step in recording.steps]


def test_what_leads_up_to_a_step_is_no_step() -> None:
    done = (
        Recording()
        .pointed("#menu")
        .clicked("#menu")
        .clicked("#name")
        .typed("#name", "Ol")
        .typed("#name", "Ola")
    )
    assert _lines(done) == ["click #menu", "type #name = Ola"]


def test_a_menu_that_was_only_pointed_at_stays_pointed_at() -> None:
    done = Recording().pointed("#one").pointed("#two").clicked('"Relief crew"')
    assert _lines(done) == ["hover #two", 'click "Relief crew"']


def test_scrolling_counts_by_where_it_ended() -> None:
    assert _lines(Recording().scrolled("#a").scrolled("#b").clicked("#c").scrolled("#d")) == [
        "scroll #b",
        "click #c",
        "scroll #d",
    ]


def test_a_password_is_no_step_and_neither_is_the_way_to_its_field() -> None:
    done = Recording().typed("#name", "Ola").clicked("#word").typed_password("#word").pressed("Enter")
    assert _lines(done) == ["type #name = Ola", "press Enter"]
    assert done.left_out == {"password"}


def test_what_only_types_or_moves_about_is_no_key_that_was_pressed() -> None:
    assert _lines(Recording().pressed("a").pressed("Shift").pressed("Tab").pressed("Escape")) == [
        "press Escape"
    ]


def test_a_page_that_is_loaded_begins_anew() -> None:
    done = Recording().clicked("#a").in_frame().loaded("http://b.example/")
    assert (done.address, done.steps, done.left_out) == ("http://b.example/", (), frozenset())


def test_a_step_can_be_left_out_and_one_that_is_not_there_changes_nothing() -> None:
    done = Recording().clicked("#a").clicked("#b")
    assert _lines(done.without(0)) == ["click #b"]
    assert done.without(7) == done


_ACTS = st.lists(
    st.one_of(
        st.tuples(st.sampled_from(["clicked", "pointed", "scrolled"]), st.sampled_from(["#a", '"B c"'])),
        st.tuples(st.just("typed"), st.sampled_from(["#a", "#b"]), st.text(max_size=9)),
        st.tuples(st.just("pressed"), st.sampled_from(["Enter", "x", "ArrowDown"])),
        st.tuples(st.just("typed_password"), st.just("#a")),
    ),
    max_size=60,
)


@given(_ACTS)
def test_whatever_is_done_can_be_asked_of_a_capture(acts: list[tuple[str, ...]]) -> None:
    done = Recording()
    for name, *values in acts:
        done = getattr(done, name)(*values)
    assert len(done.steps) <= MOST_STEPS
    assert ("more" in done.left_out) or len(done.steps) < MOST_STEPS or len(acts) >= MOST_STEPS
    for step in done.steps:
        assert Step.parse(str(step)).kind == step.kind


def test_the_browser_is_told_in_its_own_words() -> None:
    down = PointerInput(kind="down", x_px=3, y_px=4, button="left", buttons=1, clicks=2, modifiers=8)
    assert down.as_command() == (
        "Input.dispatchMouseEvent",
        {
            "type": "mousePressed",
            "x": 3,
            "y": 4,
            "button": "left",
            "buttons": 1,
            "clickCount": 2,
            "modifiers": 8,
        },
    )
    wheel = PointerInput(kind="wheel", x_px=0, y_px=0, down_px=40).as_command()[1]
    assert (wheel["deltaX"], wheel["deltaY"]) == (0, 40)
    assert KeyInput(kind="down", key="a", text="a").as_command()[1]["type"] == "keyDown"
    assert KeyInput(kind="down", key="Shift").as_command()[1]["type"] == "rawKeyDown"
    assert TextInput(text="né").as_command() == ("Input.insertText", {"text": "né"})
    touch = TouchInput(kind="start", fingers=((5, 6, 0),)).as_command()[1]
    assert touch["touchPoints"] == [{"x": 5, "y": 6, "id": 0}]


def test_only_moves_that_wait_are_left_out_for_later_ones() -> None:
    move = PointerInput(kind="move", x_px=1, y_px=1)
    drag = PointerInput(kind="move", x_px=2, y_px=2, buttons=1)
    wheel = PointerInput(kind="wheel", x_px=2, y_px=2, down_px=10)
    finger = TouchInput(kind="move", fingers=((1, 1, 0),))
    assert takes_place_of(PointerInput(kind="move", x_px=9, y_px=9), move)
    assert takes_place_of(finger, finger)
    assert not takes_place_of(drag, move)
    assert not takes_place_of(wheel, wheel)
    assert not takes_place_of(move, finger)
