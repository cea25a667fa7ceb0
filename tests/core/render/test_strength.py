"""Squares and blur are as coarse as the letters below ask for."""

from pathlib import Path
from typing import Any

import pytest

from tallpage.core.cut import Cut, Frame
from tallpage.core.cut.models import HiddenArea
from tallpage.core.geometry import Box
from tallpage.core.page_map import Block, PageMap
from tallpage.core.page_words import PageWords, Word
from tallpage.core.render import CaptureSource, RenderRules, asked_strength_px, render_key
from tallpage.core.render.page._strength import strength_px
from tallpage.core.sizing import Sizing
from tests.pictures import strips_of, text_page

AREA = Box(x_px=20, y_px=20, width_px=260, height_px=120)


def _source(folder: Path, *lines: tuple[int, int], blocks: tuple[Block, ...] = ()) -> CaptureSource:
    """A page with a word at each (top, height); without any, its words are not known."""
    source = CaptureSource(folder, strips_of(text_page(300, 400), folder))
    boxes = [Box(x_px=30, y_px=top_px, width_px=50, height_px=height_px) for top_px, height_px in lines]
    if boxes:
        PageWords((tuple(Word("pier", (box,)) for box in boxes),)).save(folder)
    if blocks:
        PageMap(blocks=blocks).save(folder)
    return source


def test_the_highest_letters_below_decide(tmp_path: Path) -> None:
    assert asked_strength_px(AREA, _source(tmp_path, (30, 20), (60, 40), (300, 90))) == 60


def test_small_letters_ask_for_a_least_and_huge_ones_have_no_greater_limit_than_the_cut(
    tmp_path: Path,
) -> None:
    assert asked_strength_px(AREA, _source(tmp_path / "small", (30, 6))) == 16
    assert asked_strength_px(AREA, _source(tmp_path / "large", (30, 110))) == 165


def test_where_no_words_are_known_letters_may_be_as_high_as_the_area(tmp_path: Path) -> None:
    source = _source(tmp_path / "picture")
    assert asked_strength_px(AREA, source) == 64
    assert asked_strength_px(Box(x_px=20, y_px=20, width_px=200, height_px=30), source) == 30
    elsewhere = _source(tmp_path / "elsewhere", (300, 20))
    assert asked_strength_px(AREA, elsewhere) == 64


def test_a_picture_below_may_hold_letters_that_are_no_words(tmp_path: Path) -> None:
    image = Block(
        role="image",
        level=None,
        box=Box(x_px=100, y_px=50, width_px=90, height_px=80),
        text="",
        link="",
        alt="",
    )
    assert asked_strength_px(AREA, _source(tmp_path, (30, 14), blocks=(image,))) == 64


def test_what_somebody_says_is_kept_and_what_nobody_says_has_a_key_of_its_own(tmp_path: Path) -> None:
    def area(**more: Any) -> HiddenArea:
        return HiddenArea(how="pixelate", x_px=20, y_px=20, width_px=260, height_px=120, **more)

    source = _source(tmp_path, (30, 20))
    assert strength_px(area(strength_px=5), source) == 5
    assert strength_px(area(), source) == 30
    rules = RenderRules(sizing=Sizing(width_px=300))
    keys = {
        render_key("one", Cut(frame=Frame.of(AREA), hidden=(row,)), rules)
        for row in (area(), area(strength_px=30))
    }
    assert len(keys) == 2


@pytest.mark.parametrize("how", ["pixelate", "blur"])
def test_text_below_is_too_coarse_to_be_read_by_its_own_letters(tmp_path: Path, how: str) -> None:
    from tallpage.core.render.page._hiding import HidingSource

    source = _source(tmp_path, *((top, 16) for top in range(20, 140, 20)))
    hidden = HidingSource(
        source,
        (HiddenArea.model_validate({"how": how, "x_px": 20, "y_px": 20, "width_px": 260, "height_px": 120}),),
    )
    before, after = (row.region(AREA).rows(0, 120).astype(int) for row in (source, hidden))
    assert before.std() > 30
    assert after.std() < 14
