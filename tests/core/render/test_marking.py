"""Marks in the pixels of a file: where they are asked for, and nowhere else."""

from pathlib import Path
from typing import Any

import numpy as np
import pytest
from pydantic import TypeAdapter

from tallpage.core.cut import Cut, Fold, Frame
from tallpage.core.geometry import Box
from tallpage.core.marks import Mark
from tallpage.core.render import CaptureSource, Rendering, RenderRules
from tallpage.core.sizing import Sizing
from tests.pictures import Pixels, assert_same_pixels, strips_of, text_page

MARK: TypeAdapter[Mark] = TypeAdapter(Mark)
OWN_SIZE = RenderRules(sizing=Sizing(way="share", percent=100))
WHITE = np.full((2_600, 400, 3), 255, dtype=np.uint8)
RED, GREEN = (255, 0, 0), (0, 128, 0)


def _drawn(
    folder: Path,
    page: Pixels,
    *marks: dict[str, Any],
    folds: tuple[Fold, ...] = (),
    box: Box | None = None,
    rules: RenderRules = OWN_SIZE,
) -> Pixels:
    source = CaptureSource(folder, strips_of(page, folder))
    frame = Frame.of(box or Box.whole(source.size), folds)
    cut = Cut(frame=frame, marks=tuple(MARK.validate_python(mark) for mark in marks))
    rendering = Rendering(source, cut, rules)
    raster = rendering.draw(rendering.whole())
    return raster.rows(0, raster.size.height_px)


def _filled(x_px: int, y_px: int, width_px: int, height_px: int, colour: str = "#FF0000") -> dict[str, Any]:
    box = {"x_px": x_px, "y_px": y_px, "width_px": width_px, "height_px": height_px}
    return {"kind": "box", **box, "filling": colour, "outline_px": 0}


def test_a_box_covers_exactly_its_pixels_across_bands(tmp_path: Path) -> None:
    page = text_page(400, 2_600)
    drawn = _drawn(tmp_path, page, _filled(50, 900, 120, 1_300))
    expected = page.copy()
    expected[900:2_200, 50:170] = RED
    assert_same_pixels(drawn, expected)


def test_an_arrow_has_its_filling_inside_and_its_outline_around(tmp_path: Path) -> None:
    arrow = {
        "kind": "arrow", "from_x_px": 40, "from_y_px": 100, "to_x_px": 300, "to_y_px": 100,
        "thickness_px": 20, "filling": "#FF0000", "outline_colour": "#008000", "outline_px": 4,
    }  # fmt: skip
    drawn = _drawn(tmp_path, WHITE[:200], arrow)
    assert tuple(drawn[100, 100]) == RED
    assert tuple(drawn[88, 100]) == GREEN
    assert tuple(drawn[80, 100]) == (255, 255, 255)
    assert tuple(drawn[100, 290]) == RED
    assert tuple(drawn[100, 310]) == (255, 255, 255)


def test_a_highlighter_leaves_letters_black(tmp_path: Path) -> None:
    page = WHITE[:100].copy()
    page[45:55, 100:120] = 0
    stroke = {"kind": "highlighter", "points": [[20, 50], [300, 50]], "thickness_px": 40, "colour": "#FFE000"}
    drawn = _drawn(tmp_path, page, stroke)
    assert tuple(drawn[50, 110]) == (0, 0, 0)
    assert tuple(drawn[50, 200]) == (255, 224, 0)
    assert tuple(drawn[90, 200]) == (255, 255, 255)


def test_marks_shrink_and_move_with_the_frame(tmp_path: Path) -> None:
    rules = RenderRules(sizing=Sizing(width_px=100))
    box = Box(x_px=200, y_px=1_000, width_px=200, height_px=1_000)
    drawn = _drawn(tmp_path, WHITE, _filled(240, 1_200, 80, 400), box=box, rules=rules)
    expected = WHITE[:500, :100].copy()
    expected[100:300, 20:60] = RED
    assert_same_pixels(drawn, expected)


def test_a_mark_across_a_fold_stays_whole_and_one_within_it_goes(tmp_path: Path) -> None:
    fold = Fold(top_px=300, height_px=1_000)
    drawn = _drawn(
        tmp_path, WHITE, _filled(50, 200, 60, 1_200), _filled(200, 400, 60, 500, "#008000"), folds=(fold,)
    )
    expected = WHITE[:1_600].copy()
    expected[200:400, 50:110] = RED
    assert_same_pixels(drawn, expected)


def test_each_leaf_has_its_share_of_a_mark(tmp_path: Path) -> None:
    source = CaptureSource(tmp_path, strips_of(WHITE, tmp_path))
    mark = MARK.validate_python(_filled(50, 500, 60, 1_500))
    rules = RenderRules(sizing=Sizing(width_px=400), breaks=(700, 1_400))
    rendering = Rendering(source, Cut(frame=Frame.of(Box.whole(source.size)), marks=(mark,)), rules)
    leaves = [rendering.draw(leaf) for leaf in rendering.leaves()]
    joined = np.vstack([leaf.rows(0, leaf.size.height_px) for leaf in leaves])
    expected = WHITE.copy()
    expected[500:2_000, 50:110] = RED
    assert_same_pixels(joined, expected)


@pytest.mark.parametrize("how", ["darken", "blur"])
def test_the_rest_is_dimmed_and_what_is_kept_is_not_touched(tmp_path: Path, how: str) -> None:
    page = text_page(400, 2_600)
    dim = {"kind": "dim", "x_px": 100, "y_px": 900, "width_px": 200, "height_px": 300, "how": how}
    drawn = _drawn(tmp_path, page, dim)
    assert_same_pixels(drawn[901:1_199, 101:299], page[901:1_199, 101:299])
    assert np.abs(drawn[:800].astype(int) - page[:800]).mean() > 5
    # Bands meet without a seam: rows of equal pixels stay equal.
    if how == "blur":
        flat = np.repeat(page[:1, :, :], 2_600, axis=0)
        blurred = _drawn(tmp_path / "flat", flat, dim)
        assert_same_pixels(blurred[950:1_190, :60], blurred[2_000:2_240, :60])


def test_what_lies_beyond_the_page_is_left_out(tmp_path: Path) -> None:
    marks = [_filled(-5_000, -5_000, 100, 100), _filled(380, 2_590, 900_000, 900_000)]
    drawn = _drawn(tmp_path, WHITE, *marks)
    expected = WHITE.copy()
    expected[2_590:, 380:] = RED
    assert_same_pixels(drawn, expected)


def test_a_padded_file_has_no_marks_on_its_padding(tmp_path: Path) -> None:
    rules = RenderRules(sizing=Sizing(way="pad", width_px=400, height_px=200))
    drawn = _drawn(tmp_path, WHITE[:400], _filled(-200, 100, 1_000, 100), rules=rules)
    expected = np.full((200, 400, 3), 255, dtype=np.uint8)
    expected[50:100, 100:300] = RED
    assert_same_pixels(drawn, expected)


def test_a_page_is_divided_beside_a_mark_and_not_through_it(tmp_path: Path) -> None:
    source = CaptureSource(tmp_path, strips_of(WHITE, tmp_path))
    rules = RenderRules(sizing=Sizing(width_px=400), leaf_count=2)
    frame = Frame.of(Box.whole(source.size))
    plain = Rendering(source, Cut(frame=frame), rules).leaves()[1].top_px
    mark = MARK.validate_python(_filled(50, plain - 60, 60, 160))
    divided = Rendering(source, Cut(frame=frame, marks=(mark,)), rules).leaves()[1].top_px
    assert not plain - 60 < divided < plain + 100


def test_letters_can_be_kept_legible_in_a_small_file(tmp_path: Path) -> None:
    text = {
        "kind": "text",
        "x_px": 100,
        "y_px": 100,
        "text": "noon",
        "size_px": 20,
        "plate": "#FF0000",
        "outline_px": 0,
    }
    page, sizing = WHITE[:600], Sizing(width_px=100)
    small = _drawn(tmp_path / "small", page, text, rules=RenderRules(sizing=sizing))
    legible = _drawn(tmp_path / "legible", page, text, rules=RenderRules(sizing=sizing, legible_marks=True))
    rows = [
        int((np.abs(picture.astype(int) - 255).sum(axis=2) > 200).any(axis=1).sum())
        for picture in (small, legible)
    ]
    assert rows[0] in (8, 9)  # 1.6 letters of 5 px
    assert rows[1] in (14, 15, 16)  # of 9 px


def test_how_small_letters_become_is_told(tmp_path: Path) -> None:
    source = CaptureSource(tmp_path, strips_of(WHITE[:600], tmp_path))
    badge = MARK.validate_python({"kind": "badge", "x_px": 100, "y_px": 550, "size_px": 50})
    folded = (Fold(top_px=500, height_px=100),)

    def smallest(rules: RenderRules, folds: tuple[Fold, ...] = ()) -> float | None:
        cut = Cut(frame=Frame.of(Box.whole(source.size), folds), marks=(badge,))
        return Rendering(source, cut, rules).smallest_letters_px()

    assert smallest(RenderRules(sizing=Sizing(width_px=100))) == pytest.approx(7)
    assert smallest(RenderRules(sizing=Sizing(width_px=100), legible_marks=True)) == 9
    assert smallest(RenderRules(sizing=Sizing(width_px=100)), folded) is None
