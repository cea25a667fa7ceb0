"""When a page counts as whole, and what is said when it does not."""

from typing import Any

import numpy as np
import pytest

from tallpage.core.capture.words._wholeness import Ink, Passage, passages, undrawn, wholeness
from tallpage.core.geometry import Box


def _found(
    *, words: int = 1_000, lacking: tuple[dict[str, Any], ...] = (), pictures: int = 0
) -> dict[str, Any]:
    return {"words": words, "shown": [], "lacking": list(lacking), "pictures": pictures}


def _lacks(why: str, words: int, target: str = "") -> dict[str, Any]:
    return {"why": why, "words": words, "first": "The ferry leaves", "target": target}


@pytest.mark.parametrize(("missing", "whole"), [(0, True), (24, True), (39, True), (40, False), (900, False)])
def test_a_small_share_of_words_may_be_missing(missing: int, whole: bool) -> None:
    verdict = wholeness([("", _found(lacking=(_lacks("panel", missing),)))], None, [])
    assert verdict.is_whole == whole
    assert bool(verdict.as_sentence()) == (not whole)


def test_a_few_words_of_a_short_page_may_be_missing() -> None:
    assert wholeness([("", _found(words=30, lacking=(_lacks("panel", 20),)))], None, []).is_whole


def test_the_greatest_lack_is_told_first_with_its_words() -> None:
    rows = (_lacks("see_through", 60), _lacks("panel", 300, "#board"))
    verdict = wholeness([("", _found(lacking=rows))], None, [])
    assert [row.why for row in verdict.lacking] == ["panel", "see_through"]
    assert verdict.lacking[0].target == "#board"
    assert "360 of 1,000 words" in verdict.as_sentence()
    assert "The ferry leaves" in verdict.as_sentence()


def test_a_frame_is_told_by_its_address() -> None:
    verdict = wholeness(
        [("", _found()), ("https://skerrin.example/board", _found(lacking=(_lacks("frame", 400),)))], None, []
    )
    assert verdict.lacking[0].target == "https://skerrin.example/board"
    assert verdict.words == 2_000


def test_a_layer_that_says_little_is_no_lack() -> None:
    assert wholeness([("", _found(lacking=(_lacks("layer", 20),)))], None, []).lacking == ()


def test_a_blank_page_is_not_whole_when_its_scripts_failed() -> None:
    failed = wholeness([("", _found(words=0))], None, ["TypeError: app is null"])
    assert not failed.is_whole
    assert "TypeError: app is null" in failed.as_sentence()
    assert wholeness([("", _found(words=0))], None, []).is_whole
    assert wholeness([("", _found(words=0, pictures=1))], None, ["TypeError"]).is_whole


def test_words_are_missing_where_nothing_is_drawn() -> None:
    cells = np.zeros((100, 160), dtype=np.bool_)
    cells[10:12, 2:40] = True
    ink = [Ink(piece_px=Box(x_px=0, y_px=0, width_px=1_280, height_px=800), scale=1, cells=cells)]
    shown = {"shown": [[16, 80, 300, 16, 5], [16, 400, 300, 16, 7], [16, 403, 4, 5, 1]]}
    found = passages([("", shown), ("https://frame.example/", {"shown": [[0, 0, 50, 20, 3]]})])
    blank = undrawn(found, ink)
    assert [(passage.y_px, passage.words, passage.number) for passage in blank] == [(400, 7, 1)]


@pytest.mark.parametrize("scale", [1, 2, 3])
def test_ink_is_looked_for_in_the_piece_that_a_passage_ends_on(scale: int) -> None:
    height_px = 680
    lower = np.zeros((height_px * scale // 8, 160 * scale), dtype=np.bool_)
    pieces = [
        Ink(
            piece_px=Box(x_px=0, y_px=number * height_px, width_px=1_280, height_px=height_px),
            scale=scale,
            cells=lower if number else np.ones_like(lower),
        )
        for number in range(2)
    ]
    place = Passage(x_px=100, y_px=height_px + 100, width_px=200, height_px=20, words=4, number=0)
    assert undrawn([place], pieces) == [place]
    assert undrawn([Passage(x_px=100, y_px=100, width_px=200, height_px=20, words=4, number=0)], pieces) == []
