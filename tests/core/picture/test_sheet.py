"""What is drawn on a sheet is what a pipeline would have drawn."""

from __future__ import annotations

import numpy as np
import pytest

from tallpage.core.geometry import Box
from tallpage.core.picture import Raster, Sheet, laid_over
from tallpage.core.picture.operations import _sheet

PLACE = Box(x_px=3, y_px=5, width_px=20, height_px=11)


def _noise(width_px: int, height_px: int, channels: int) -> Raster:
    rng = np.random.default_rng(channels)
    return Raster.from_rows(rng.integers(0, 256, (height_px, width_px, channels), dtype=np.uint8))


@pytest.mark.parametrize("channels", [3, 4])
def test_laid_over_a_sheet_as_over_a_raster(channels: int) -> None:
    below, upper = _noise(40, 30, channels), _noise(PLACE.width_px, PLACE.height_px, 4)
    sheet = Sheet.of(below)
    sheet.lay_over(upper, PLACE)

    drawn, expected = (
        raster.rows(0, 30).astype(int) for raster in (sheet.raster, laid_over(below, upper, PLACE))
    )
    assert abs(drawn - expected).max() <= 1
    outside = np.ones((30, 40), dtype=bool)
    outside[PLACE.y_px : PLACE.bottom_px, PLACE.x_px : PLACE.right_px] = False
    assert (drawn[outside] == below.rows(0, 30)[outside]).all()


def test_what_covers_is_there_and_what_shows_through_leaves_everything() -> None:
    below = _noise(40, 30, 3)
    sheet = Sheet.of(below)
    sheet.lay_over(Raster.from_rows(np.full((11, 20, 4), (9, 8, 7, 0), dtype=np.uint8)), PLACE)
    assert sheet.raster.digest() == below.digest()
    sheet.lay_over(Raster.from_rows(np.full((11, 20, 4), (9, 8, 7, 255), dtype=np.uint8)), PLACE)
    assert (sheet.raster.cropped(PLACE).rows(0, 11) == (9, 8, 7)).all()


def test_a_part_is_a_copy_until_it_is_put_back() -> None:
    sheet = Sheet.of(_noise(40, 30, 3))
    before = sheet.raster.digest()
    part = sheet.part(PLACE)
    part.change(Raster.from_rows(np.zeros((11, 20, 3), dtype=np.uint8)))
    assert sheet.raster.digest() == before
    sheet.put(part, PLACE)
    assert not sheet.raster.cropped(PLACE).rows(0, 11).any()


def test_a_tall_picture_lies_in_a_file_that_goes_with_it(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(_sheet, "HELD_IN_MEMORY_BYTES", 100)
    below = _noise(40, 30, 3)
    sheet = Sheet.of(below)
    assert isinstance(sheet._rows, np.memmap)
    assert sheet.raster.digest() == below.digest()
