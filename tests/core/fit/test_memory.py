"""What was found out once is not found out again, and changes nothing."""

from tallpage.core.fit import FitMemory, fit_raster, require_formats
from tests.pictures import photograph, raster_of, text_page

FORMATS = require_formats(["jpeg", "webp", "png"])


def test_the_same_pixels_under_the_same_limit_take_no_encode() -> None:
    memory = FitMemory()
    pixels = photograph(300, 200)
    first = fit_raster(raster_of(pixels), limit_bytes=12_000, formats=FORMATS, memory=memory)
    again = fit_raster(raster_of(pixels.copy()), limit_bytes=12_000, formats=FORMATS, memory=memory)
    assert first.tries > 0
    assert again.tries == 0
    assert again.chosen == first.chosen


def test_what_is_remembered_of_another_limit_does_not_change_what_is_chosen() -> None:
    memory = FitMemory()
    pixels = raster_of(photograph(300, 200))
    for limit_bytes in (20_000, 9_000, 12_000):
        alone = fit_raster(pixels, limit_bytes=limit_bytes, formats=FORMATS)
        shared = fit_raster(pixels, limit_bytes=limit_bytes, formats=FORMATS, memory=memory)
        assert shared.chosen == alone.chosen
        assert shared.tries <= alone.tries


def test_pictures_are_told_apart_by_their_pixels_and_shape() -> None:
    memory = FitMemory()
    square = text_page(64, 64)
    for pixels in (square, square.reshape(32, 128, 3), text_page(64, 64, seed=2)):
        result = fit_raster(raster_of(pixels), limit_bytes=60_000, formats=FORMATS, memory=memory)
        assert result.tries > 0


def test_only_so_much_is_remembered() -> None:
    memory = FitMemory(held_bytes=1)
    pixels = raster_of(photograph(120, 90))
    first = fit_raster(pixels, limit_bytes=4_000, formats=FORMATS, memory=memory)
    again = fit_raster(pixels, limit_bytes=4_000, formats=FORMATS, memory=memory)
    assert again.tries == first.tries > 0
    assert again.chosen == first.chosen
