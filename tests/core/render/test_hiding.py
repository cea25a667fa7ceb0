"""Hidden means hidden: what lies under an area is in no pixel of a file."""

from dataclasses import replace
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.cut import Cut
from tallpage.core.cut.models import HiddenArea, SoughtWords
from tallpage.core.geometry import Box
from tallpage.core.page_map import Block, PageMap
from tallpage.core.page_words import Link, PageWords, Word
from tallpage.core.render import CaptureSource, without_hidden_words
from tallpage.core.render.page._hiding import HidingSource
from tests.long import COSTLY
from tests.pictures import Pixels, assert_same_pixels, strips_of, text_page

AREA = {"x_px": 31, "y_px": 57, "width_px": 150, "height_px": 90}
WAYS = ["solid", "pixelate", "blur", "patch"]


def _hiding(folder: Path, page: Pixels, *areas: dict[str, Any]) -> HidingSource:
    source = CaptureSource(folder, strips_of(page, folder, strip_px=128))
    return HidingSource(source, tuple(HiddenArea.model_validate({**AREA, **area}) for area in areas))


def _shown(source: HidingSource, box: Box | None = None) -> Pixels:
    raster = source.region(box or Box.whole(source.size))
    return raster.rows(0, raster.size.height_px)


@pytest.mark.parametrize("how", ["solid", "patch"])
def test_another_text_below_gives_the_same_pixels(tmp_path: Path, how: str) -> None:
    first, second = text_page(300, 400), text_page(300, 400).copy()
    second[57:147, 31:181] = text_page(150, 90, seed=9)
    shown = [
        _shown(_hiding(tmp_path / str(number), page, {"how": how}))
        for number, page in enumerate((first, second))
    ]
    assert_same_pixels(shown[0], shown[1])


@pytest.mark.parametrize("how", ["pixelate", "blur"])
def test_letters_below_are_too_coarse_to_be_told_apart(tmp_path: Path, how: str) -> None:
    page = text_page(300, 400)
    shown = _shown(_hiding(tmp_path, page, {"how": how}))[57:147, 31:181].astype(int)
    assert page[57:147, 31:181].std() > 30
    assert shown.std() < 12


@pytest.mark.parametrize("how", WAYS)
def test_pixels_around_are_not_touched(tmp_path: Path, how: str) -> None:
    page = text_page(300, 400)
    shown = _shown(_hiding(tmp_path, page, {"how": how}))
    outside = np.ones(page.shape[:2], dtype=bool)
    outside[57:147, 31:181] = False
    assert np.array_equal(shown[outside], page[outside])


@pytest.mark.parametrize("how", WAYS)
@COSTLY
@given(st.integers(1, 399), st.integers(1, 299))
def test_a_part_shows_the_same_as_the_whole(
    tmp_path_factory: pytest.TempPathFactory, how: str, row: int, column: int
) -> None:
    source = _hiding(tmp_path_factory.mktemp("page"), text_page(300, 400), {"how": how})
    whole = _shown(source)
    lower = Box(x_px=column, y_px=row, width_px=300 - column, height_px=400 - row)
    assert_same_pixels(_shown(source, lower), whole[row:, column:])


def test_what_is_blurred_never_shows_what_is_solid(tmp_path: Path) -> None:
    pages = [text_page(300, 400), text_page(300, 400).copy()]
    pages[1][80:100, 40:80] = 0
    solid = {"how": "solid", "x_px": 40, "y_px": 80, "width_px": 40, "height_px": 20}
    shown = [
        _shown(_hiding(tmp_path / f"{order}{number}", page, *([{"how": "blur"}, solid][::order])))
        for order in (1, -1)
        for number, page in enumerate(pages)
    ]
    assert_same_pixels(shown[0], shown[1])
    assert_same_pixels(shown[0], shown[2])


def test_a_patch_on_plain_paper_is_paper(tmp_path: Path) -> None:
    page = np.full((400, 300, 3), (247, 244, 236), dtype=np.uint8)
    page[60:140, 40:170] = text_page(130, 80)
    assert_same_pixels(
        _shown(_hiding(tmp_path, page, {"how": "patch"})),
        np.full((400, 300, 3), (247, 244, 236), dtype=np.uint8),
    )


def test_an_area_that_covers_the_page_or_lies_beyond_is_no_trouble(tmp_path: Path) -> None:
    page = text_page(300, 400)
    everything = {"x_px": 0, "y_px": 0, "width_px": 900_000, "height_px": 900_000}
    for how in WAYS:
        shown = _shown(_hiding(tmp_path / how, page, {"how": how, **everything}))
        assert shown.shape == page.shape
        assert not np.array_equal(shown, page)
    beyond = {"how": "blur", "x_px": 5_000, "y_px": 5_000}
    assert_same_pixels(_shown(_hiding(tmp_path / "beyond", page, beyond)), page)


@pytest.mark.parametrize("how", ["pixelate", "blur", "patch"])
def test_what_is_solid_lies_over_whatever_overlaps_it(tmp_path: Path, how: str) -> None:
    around = {"x_px": 0, "y_px": 20, "width_px": 300, "height_px": 300, "how": how}
    shown = _shown(_hiding(tmp_path, text_page(300, 400), {"how": "solid", "colour": "#1D2B2A"}, around))
    assert (shown[57:147, 31:181] == (0x1D, 0x2B, 0x2A)).all()


def test_the_words_below_are_not_told_either(tmp_path: Path) -> None:
    boxes = [
        Box(x_px=30, y_px=60, width_px=100, height_px=20),
        Box(x_px=0, y_px=200, width_px=90, height_px=20),
    ]
    source = _hiding(tmp_path, text_page(300, 400), {"how": "solid"})
    blocks = [
        Block(role="paragraph", level=None, box=box, text=text, link="", alt="")
        for box, text in zip(boxes, ("secret", "open"), strict=True)
    ]
    PageMap(blocks=tuple(blocks)).save(tmp_path)
    assert [block.text for block in source.blocks()] == ["", "open"]
    assert [block.box for block in source.blocks()] == boxes


def test_a_cut_keeps_what_it_hides_through_json() -> None:
    hidden = (HiddenArea.model_validate({**AREA, "how": "pixelate", "strength_px": 20}),)
    cut = Cut(hidden=hidden, frame=Cut.whole(Box(x_px=0, y_px=0, width_px=9, height_px=9).size).frame)
    assert Cut.from_json(cut.as_json()) == cut


def test_a_link_goes_with_its_words_and_where_its_address_tells_what_is_hidden(tmp_path: Path) -> None:
    hiding = _hiding(tmp_path, text_page(300, 400), {"how": "solid"})
    under, beside = (
        Box(x_px=40, y_px=60, width_px=60, height_px=14),
        Box(x_px=40, y_px=300, width_px=60, height_px=14),
    )
    words = ((Word("isa@pier.example,", (under,)),), (Word("Write", (beside,)),))
    links = (
        Link("https://pier.example/under", (under,)),
        Link("https://pier.example/beside", (beside,)),
        Link("mailto:Isa%40pier.example?subject=Boats", (beside,)),
    )
    PageWords(runs=words, links=links).save(tmp_path)
    left = hiding.words()
    assert left is not None
    assert [word.text for run in left.runs for word in run] == ["Write"]
    assert [link.address for link in left.links] == ["https://pier.example/beside"]


@pytest.mark.parametrize(
    ("title", "told"),
    [
        ("A letter of Odd Marwick, of 12 May", "A letter of … …, of 12 May"),
        ("ODD days: a letter", "… days: a letter"),
        ("Letters", "Letters"),
        ("Ring 0047 555 01234 or write", "Ring … or write"),
    ],
)
def test_a_title_says_nothing_that_the_cut_hides_and_shows_nowhere(
    tmp_path: Path, title: str, told: str
) -> None:
    under, beside = (
        Box(x_px=40, y_px=60, width_px=60, height_px=14),
        Box(x_px=40, y_px=300, width_px=60, height_px=14),
    )
    source = CaptureSource(tmp_path, strips_of(text_page(300, 400), tmp_path))
    runs = (
        (Word("Odd", (under,)), Word("Marwick’s", (under,)), Word("letter", (under,))),
        (Word("The", (beside,)), Word("letter,", (beside,))),
    )
    PageWords(runs=runs).save(tmp_path)
    whole = Cut.whole(Box(x_px=0, y_px=0, width_px=300, height_px=400).size)
    area = HiddenArea.model_validate({**AREA, "how": "solid"})
    sought = SoughtWords(id="a", kind="telephone")
    cut = replace(whole, hidden=(area,), sought=(sought,))
    assert without_hidden_words(title, source, cut) == told
    assert without_hidden_words(title, source, whole) == title
