"""Blocks of a picture are found from its pixels: paragraphs, photographs, cards and what is in them."""

import numpy as np
import pytest

from tallpage.core.geometry import Box
from tallpage.core.picture import Raster
from tallpage.core.segmenting import find_blocks
from tests.pictures import Pixels, noise, photograph, text_page

PHOTO = Box(x_px=60, y_px=500, width_px=400, height_px=250)
CARD = Box(x_px=500, y_px=500, width_px=260, height_px=250)
TEXT = Box(x_px=60, y_px=60, width_px=700, height_px=300)


def dropped_page(ground: int = 255) -> Pixels:
    rows = np.full((900, 820, 3), ground, dtype=np.uint8)
    _put(rows, TEXT, _letters(TEXT, ground))
    _put(rows, PHOTO, photograph(PHOTO.width_px, PHOTO.height_px))
    _put(rows, CARD, np.full((CARD.height_px, CARD.width_px, 3), 120, dtype=np.uint8))
    inner = Box(x_px=502, y_px=502, width_px=256, height_px=246)
    _put(rows, inner, np.full((246, 256, 3), ground, dtype=np.uint8))
    letters = Box(x_px=530, y_px=540, width_px=200, height_px=120)
    _put(rows, letters, _letters(letters, ground))
    return rows


def _letters(box: Box, ground: int) -> Pixels:
    """Lines of dark strokes that fill a box."""
    rows = np.full((box.height_px, box.width_px, 3), ground, dtype=np.uint8)
    lines = np.arange(box.height_px) % 20 < 12
    lines[-12:] = True
    strokes = np.arange(box.width_px) % 5 < 3
    strokes[-1] = True
    rows[np.ix_(lines, strokes)] = 20
    return rows


def _put(rows: Pixels, box: Box, piece: Pixels) -> None:
    rows[box.y_px : box.bottom_px, box.x_px : box.right_px] = piece


def _alike(first: Box, second: Box) -> float:
    """Area of what two boxes share over that of what either has."""
    shared = first.overlap(second)
    if shared is None:
        return 0.0
    both = shared.size.pixels
    return both / (first.size.pixels + second.size.pixels - both)


@pytest.mark.parametrize("scale", [1, 2])
@pytest.mark.parametrize("ground", [255, 232])
def test_each_block_is_found_where_it_is(scale: int, ground: int) -> None:
    rows = dropped_page(ground).repeat(scale, axis=0).repeat(scale, axis=1)
    found = find_blocks(Raster.from_rows(rows))
    for box in (PHOTO, CARD, TEXT, Box(x_px=530, y_px=540, width_px=200, height_px=120)):
        sides = {name: getattr(box, name) * scale for name in ("x_px", "y_px", "width_px", "height_px")}
        assert max(_alike(Box(**sides), block.box) for block in found) > 0.95, box
    assert (
        next(
            block
            for block in found
            if _alike(
                block.box,
                Box(
                    **{
                        name: getattr(PHOTO, name) * scale
                        for name in ("x_px", "y_px", "width_px", "height_px")
                    }
                ),
            )
            > 0.95
        ).role
        == "image"
    )
    assert all(block.box.lies_on(Raster.from_rows(rows).size) for block in found)


def test_outer_blocks_come_before_inner_ones() -> None:
    found = find_blocks(Raster.from_rows(dropped_page()))
    card = next(at for at, block in enumerate(found) if _alike(block.box, CARD) > 0.95)
    letters = Box(x_px=530, y_px=540, width_px=200, height_px=120)
    assert card < next(at for at, block in enumerate(found) if _alike(block.box, letters) > 0.95)


@pytest.mark.parametrize("rows", [np.full((300, 200, 3), 255, dtype=np.uint8), noise(1, 1)])
def test_nothing_is_found_where_nothing_stands(rows: Pixels) -> None:
    assert find_blocks(Raster.from_rows(rows)) == ()


def test_a_tall_page_has_its_paragraphs() -> None:
    rows = np.vstack([text_page(600, 400, seed=seed) for seed in range(6)])
    assert len(find_blocks(Raster.from_rows(rows))) > 6
