"""Settings that the search decides on by itself, because they make a file lighter or better."""

import numpy as np
import pytest

from tallpage.core.fit import Choice, fit_raster, fit_with
from tallpage.core.fit.encoding._formats import Format
from tallpage.core.picture import decode, encode_lossless_webp, encode_png
from tests.pictures import Pixels, decoded, gradient, photograph, raster_of, text_page

PNG = Choice(format="png")


def test_a_png_of_shades_stores_differences_and_one_of_letters_does_not() -> None:
    shades, letters = raster_of(gradient(400, 300)), raster_of(text_page(400, 300))
    assert len(fit_with(shades, PNG).data) < 0.3 * len(encode_png(shades, compression=9))
    assert len(fit_with(letters, PNG).data) == len(encode_png(letters, compression=9))


def test_shades_that_fit_without_loss_are_found_to() -> None:
    raster = raster_of(gradient(640, 420))
    result = fit_raster(raster, limit_bytes=34_000, formats=("jpeg", "png", "webp", "avif"))
    assert result.chosen is not None
    assert result.chosen.fidelity == 100


def _boxes_on_block_edges() -> np.ndarray:
    pixels = np.full((480, 480, 3), 255, np.uint8)
    for top_px in range(32, 416, 96):
        pixels[top_px : top_px + 64, 64:416] = photograph(352, 64, seed=top_px)
    return pixels


def test_a_webp_is_smoothed_between_its_blocks_as_suits_the_picture() -> None:
    raster = raster_of(_boxes_on_block_edges())
    chosen = fit_raster(raster, limit_bytes=6_000, formats=("webp",)).chosen
    assert chosen is not None
    assert chosen.choice.deblocked
    assert chosen.byte_count <= 6_000
    plainly = Choice(format="webp", quality=chosen.choice.quality)
    assert chosen.fidelity > fit_with(raster, plainly).fidelity + 5


@pytest.mark.parametrize("format_", ["jpeg", "webp", "avif"])
def test_a_limit_below_all_that_looks_well_still_gets_its_file(format_: Format) -> None:
    raster = raster_of(photograph(500, 400))
    least = len(fit_with(raster, Choice(format=format_, quality=2)).data)
    result = fit_raster(raster, limit_bytes=round(1.04 * least), formats=(format_,))
    assert not result.met
    assert result.chosen is not None
    assert result.chosen.byte_count <= 1.04 * least


@pytest.mark.long
def test_colour_is_not_halved_where_the_limit_leaves_room_for_all_of_it() -> None:
    # Halved at its highest quality it is far below the limit; the bytes left make it no better.
    pixels = text_page(640, 900).copy()
    pixels[200:600, 100:500] = photograph(400, 400)
    pixels[::7, :, 0] = 200
    raster = raster_of(pixels)
    halved, full = (
        fit_with(raster, Choice(format="jpeg", quality=98, subsampled=subsampled))
        for subsampled in (True, False)
    )
    chosen = fit_raster(raster, limit_bytes=2 * full.byte_count, formats=("jpeg",)).chosen
    assert chosen is not None
    assert full.fidelity > halved.fidelity
    assert chosen.choice == full.choice


def _code(width_px: int, height_px: int) -> Pixels:
    """Coloured letters on a dark ground."""
    letters = 255 - text_page(width_px, height_px)
    tints = np.array([[156, 220, 208], [232, 168, 124], [195, 166, 255]], dtype=np.float64) / 255
    rows = tints[np.arange(height_px) // 20 % 3]
    return (20 + 0.9 * letters * rows[:, None, :]).astype(np.uint8)


def test_drawings_that_repeat_themselves_are_kept_losslessly_where_that_fits() -> None:
    pixels = np.concatenate([_code(800, 160)] * 5)
    exact = len(encode_lossless_webp(raster_of(pixels)))
    assert len(encode_png(raster_of(pixels), compression=6)) > exact / 0.37, (
        "which its weight as PNG tells little of"
    )
    result = fit_raster(raster_of(pixels), limit_bytes=exact + 500, formats=("jpeg", "png", "webp", "avif"))
    assert result.chosen is not None
    assert (result.chosen.fidelity, result.chosen.choice.format) == (100, "webp")


@pytest.mark.long
def test_more_time_for_avif_of_letters_pays_and_never_breaks_the_limit() -> None:
    pixels = _code(600, 400)
    limit_bytes = 20_000
    result = fit_raster(raster_of(pixels), limit_bytes=limit_bytes, formats=("avif",))
    assert result.chosen is not None
    assert result.chosen.choice.patient
    assert result.chosen.byte_count <= limit_bytes
    quick = [
        fit_with(raster_of(pixels), Choice(format="avif", quality=quality)) for quality in range(10, 40, 2)
    ]
    best_quick = max(row.fidelity for row in quick if row.byte_count <= limit_bytes)
    assert result.chosen.fidelity >= best_quick


@pytest.mark.long
def test_avif_goes_to_20_000_px_by_another_way_and_looks_the_same() -> None:
    column = np.concatenate([photograph(64, 500), text_page(64, 500)] * 17)  # 17,000 px
    tall = fit_with(raster_of(column), Choice(format="avif", quality=50))
    shape = decoded(tall.data).shape
    assert shape == column.shape
    low = fit_with(raster_of(column[:16_000]), Choice(format="avif", quality=50))
    assert abs(tall.fidelity - low.fidelity) < 4
    assert abs(tall.byte_count / low.byte_count - 17 / 16) < 0.1
    see_through = np.dstack([column, np.tile(np.arange(64, dtype=np.uint8) * 4, (17_000, 1))])
    assert decode(fit_with(raster_of(see_through), Choice(format="avif", quality=50)).data).has_alpha


def _discs(side_px: int) -> Pixels:
    """A mark of few colours with soft edges on a plain ground."""
    y, x = np.mgrid[0:side_px, 0:side_px]
    from_centre_px = np.hypot(y - side_px / 2, x - side_px / 2)
    pixels = np.full((side_px, side_px, 3), 255.0)
    for share, colour in ((0.48, (31, 78, 107)), (0.38, (244, 239, 226)), (0.25, (217, 119, 43))):
        cover = np.clip((share * side_px - from_centre_px) / 3, 0, 1)[:, :, None]
        pixels = pixels * (1 - cover) + np.array(colour) * cover
    return pixels.astype(np.uint8)


@pytest.mark.parametrize("colours", [2, 4, 16, 32, 64, 128, 256])
def test_a_palette_has_no_more_colours_than_were_asked_for(colours: int) -> None:
    data = fit_with(raster_of(_discs(240)), Choice(format="png", colours=colours)).data
    shown = np.unique(decoded(data).reshape(-1, 3), axis=0)
    assert colours / 2 <= len(shown) <= colours


def test_plain_areas_of_a_drawing_are_not_speckled_by_a_small_palette() -> None:
    data = fit_with(raster_of(_discs(240)), Choice(format="png", colours=4)).data
    centre = decoded(data)[105:135, 105:135].reshape(-1, 3)
    assert len(np.unique(centre, axis=0)) == 1


def test_a_drawing_gets_as_many_colours_as_its_limit_has_room_for() -> None:
    raster = raster_of(_discs(240))
    few, some = (fit_with(raster, Choice(format="png", colours=count)) for count in (16, 64))
    chosen = fit_raster(raster, limit_bytes=some.byte_count, formats=("png",)).chosen
    assert chosen is not None
    assert few.byte_count < chosen.byte_count <= some.byte_count
    assert chosen.fidelity > few.fidelity
