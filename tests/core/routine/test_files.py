"""Files of routines: read again as written, refused in words where they are wrong; values are asked for."""

import base64
import json
from typing import Any

import pytest

from tallpage.core.errors import RoutineError
from tallpage.core.routine import (
    document_of,
    questions_of,
    read_routine,
    request_of,
    routine_file_schema,
    slots_of,
    starter_names,
    starter_routine,
    with_answers,
    write_routine,
)
from tests.core.routine.pages import routine
from tests.pictures import as_png, gradient

SLOT = {"kind": "slot", "width_px": 600, "limit_bytes": 60_000}
PICTURE = base64.b64encode(as_png(gradient(20, 20))).decode()
STAMP = {"kind": "dress", "dressing": {"stamp": {"picture": "crest"}}}


def test_what_is_written_is_read_again_with_its_pictures() -> None:
    made = routine(
        {"kind": "frame_block", "block": {"role": "table"}, "if_missing": "stop"},
        STAMP,
        SLOT,
        pictures={"crest": PICTURE},
    )
    again = read_routine(write_routine(made))
    assert again == made
    assert document_of(again) == document_of(made)
    assert again.pictures["crest"].startswith(b"\x89PNG")


@pytest.mark.parametrize(
    ("changed", "words"),
    [
        ({"version": 2}, "version 2; this program reads up to version 1"),
        ({"version": "1"}, "version: "),
        ({"name": ""}, "name: "),
        ({"author": "x"}, "author: is not known"),
        ({"steps": [{"kind": "sharpen"}]}, "steps[0].kind: “sharpen” is not one of"),
        ({"steps": [{}]}, "steps[0].kind: is missing"),
        (
            {"steps": [{"kind": "frame_block", "block": {"role": "table", "colour": 1}}]},
            "steps[0].block.colour: is not known",
        ),
        ({"steps": [{"kind": "frame_block", "block": {}}]}, "steps[0].block: a block is given by"),
        (
            {"steps": [SLOT, {"kind": "trim"}]},
            "step 2 (trim) comes before step 1 (slot) in the order of work",
        ),
        ({"steps": [{"kind": "take"}, {"kind": "take"}]}, "more than one step “take”"),
        ({"steps": [{"kind": "take", "screen": "9x9"}]}, "steps[0] (take): A screen of 9 × 9 px"),
        ({"steps": [{"kind": "take", "steps": ["dance"]}]}, "steps[0] (take): “dance” is not a step"),
        ({"steps": [{"kind": "slot", "width_px": 0, "limit_bytes": 9}]}, "steps[0] (slot): "),
        ({"steps": [{"kind": "slot", "width_px": 9}]}, "Neither a limit nor a fidelity"),
        ({"steps": [{**SLOT, "formats": ["bmp"]}]}, "bmp"),
        ({"steps": [STAMP]}, "The routine has no picture “crest”"),
        ({"steps": [STAMP], "pictures": {"crest": "bm90IGEgcGljdHVyZQ=="}}, "pictures.crest: "),
        (
            {
                "steps": [
                    {"kind": "marks", "marks": [{"kind": "badge", "x_px": 1.0, "y_px": 1.0, "style": "loud"}]}
                ]
            },
            "steps[0].marks[0].style: the routine has no style “loud”",
        ),
        ({"steps": [{"kind": "out", "way": "folder"}]}, "into which folder"),
        ({"steps": [{"kind": "out", "names": "{colour}"}]}, "{colour} is no field"),
        ({"steps": [{"kind": "out", "way": "pdf", "paper": "vellum"}]}, "“vellum” is no paper"),
        (
            {"steps": [{**SLOT, "ask": [{"name": "width", "field": "breadth", "words": "How wide?"}]}]},
            "the step has no field “breadth”",
        ),
        (
            {"steps": [{**SLOT, "ask": [{"name": "formats", "field": "formats", "words": "Which?"}]}]},
            "is no single value",
        ),
        (
            {"steps": [{**SLOT, "ask": [{"name": "kind", "field": "kind", "words": "What?"}]}]},
            "cannot stand for kind",
        ),
    ],
)
def test_what_is_not_known_or_impossible_is_refused_with_its_place(
    changed: dict[str, Any], words: str
) -> None:
    with pytest.raises(RoutineError) as refused:
        read_routine(json.dumps({"version": 1, "name": "Tried", "steps": [], **changed}).encode())
    assert words in refused.value.sentence


@pytest.mark.parametrize("data", [b"", b"[]", b"{", b"\xff\xfe", b"[" * 100_000])
def test_what_is_no_routine_at_all_is_refused(data: bytes) -> None:
    with pytest.raises(RoutineError, match="routine"):
        read_routine(data)


ASKING = (
    {"kind": "dress", "dressing": {"caption": {"text": "Fares"}},
     "ask": [{"name": "words", "field": "dressing.caption.text", "words": "What it says"}]},
    {**SLOT, "ask": [{"name": "width", "field": "width_px", "words": "How wide?"},
                     {"name": "limit", "field": "limit_bytes", "words": "How heavy?"},
                     {"name": "enlarge", "field": "enlarge", "words": "Enlarge?"}]},
    {**SLOT, "ask": [{"name": "width", "field": "width_px", "words": "How wide?"}]},
)  # fmt: skip


def test_open_values_are_asked_for_once_with_their_usual_value_and_filled_everywhere() -> None:
    made = routine(*ASKING)
    asked = {row.name: row.usual for row in questions_of(made)}
    assert asked == {"words": "Fares", "width": 600, "limit": 60_000, "enlarge": False}
    filled = with_answers(made, {"width": "320", "limit": "12.5 kB", "words": "600", "enlarge": "yes"})
    assert [slot.rules.sizing.width_px for slot in slots_of(filled)] == [320, 320]
    assert filled.steps[0].dressing.caption.text == "600"  # type: ignore[union-attr]
    assert slots_of(filled)[0].order.limit_bytes == 12_500
    assert slots_of(filled)[0].rules.sizing.enlarge
    assert with_answers(made, {}) == made


@pytest.mark.parametrize(
    ("answers", "words"),
    [
        ({"height": "9"}, "does not ask for “height”"),
        ({"width": "wide"}, "“wide” cannot be given for width"),
        ({"width": "0"}, "steps[1] (slot)"),
        ({"limit": "heavy"}, "“heavy” is not a size in bytes"),
        ({"words": ""}, "cannot be given for words"),
    ],
)
def test_values_that_cannot_be_are_refused(answers: dict[str, str], words: str) -> None:
    with pytest.raises(RoutineError) as refused:
        with_answers(routine(*ASKING), answers)
    assert words in refused.value.sentence


def test_a_step_that_is_off_asks_nothing() -> None:
    assert questions_of(routine({**ASKING[0], "off": True})) == []


def test_how_a_page_is_taken_is_said_by_its_step() -> None:
    taking = routine(
        {"kind": "take", "screen": "390x844@3", "touch": True, "steps": ['click "Accept"'], "max_screens": 2}
    )
    request = request_of(taking, "http://skerrin.example/")
    assert (request.screen.scale, request.screen.touch, str(request.steps[0])) == (3, True, 'click "Accept"')
    assert request_of(routine(), "http://skerrin.example/").screen.width_px == 1_280


def test_six_routines_ship_and_each_can_be_read() -> None:
    assert len(starter_names()) == 6
    for name in starter_names():
        assert starter_routine(name).steps, name


def test_the_schema_names_every_step() -> None:
    schema = routine_file_schema()
    assert len(schema["properties"]["steps"]["items"]["oneOf"]) == 20
