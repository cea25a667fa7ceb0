"""What is told about a file besides the file: weight, worst places, content, why."""

import numpy as np
import pytest

from tallpage.core.fit import (
    Choice,
    FitOrder,
    fit_raster,
    fit_with,
    read_content,
    weight_line,
    why,
    worst_places,
)
from tallpage.core.geometry import Size
from tallpage.core.picture import decode
from tests.pictures import decoded, noise, photograph, raster_of, text_page


def test_the_weight_line_is_the_whole_file_and_shows_the_costly_stretch() -> None:
    page = np.full((1_000, 200, 3), 255, dtype=np.uint8)
    page[600:800] = noise(200, 200)
    raster = raster_of(page)
    made = fit_with(raster, Choice(format="jpeg", quality=70))
    line = weight_line(raster, made.choice, made.byte_count)
    assert sum(band.byte_count for band in line) == pytest.approx(made.byte_count, rel=0.02)
    assert [band.top_px + band.height_px for band in line[:-1]] == [band.top_px for band in line[1:]]
    costly = sum(band.byte_count for band in line if 590 <= band.top_px < 800)
    assert costly > 0.9 * made.byte_count


def test_the_worst_places_are_where_the_damage_is_and_do_not_overlap() -> None:
    page = text_page(600, 900)
    damaged = page.copy()
    damaged[500:540, 300:380] = 128
    damaged[100:104, 40:60] += 20
    places = worst_places(raster_of(page), raster_of(damaged), count=4, box_px=(120, 80))
    worst = places[0]
    assert worst.x_px <= 340 < worst.right_px
    assert worst.y_px <= 520 < worst.bottom_px
    for number, one in enumerate(places):
        for other in places[number + 1 :]:
            apart = abs(one.x_px - other.x_px) >= 120 or abs(one.y_px - other.y_px) >= 80
            assert apart
    assert worst_places(raster_of(page), raster_of(page), count=4, box_px=(120, 80)) == ()


def test_a_picture_smaller_than_a_place_is_one_place() -> None:
    (place,) = worst_places(
        raster_of(photograph(40, 30)), raster_of(noise(40, 30)), count=4, box_px=(120, 80)
    )
    assert (place.width_px, place.height_px) == (40, 30)


@pytest.mark.parametrize(
    ("pixels", "words"),
    [
        (photograph(400, 400), "mostly photographs"),
        (np.repeat(photograph(400, 400)[:, :, 1:2], 3, axis=2), "mostly photographs"),  # a grey one
        (text_page(400, 400), "mostly letters on plain colour"),
        (np.full((300, 300, 3), 200, dtype=np.uint8), "mostly plain colour"),
        (np.vstack([text_page(400, 600), photograph(400, 300)]), "letters on plain colour, with photographs"),
        (np.zeros((5, 5, 3), dtype=np.uint8), "mostly plain colour"),
    ],
)
def test_content_is_read_as_a_person_would_say_it(pixels: np.ndarray, words: str) -> None:
    content = read_content(raster_of(pixels))
    assert content.in_words() == words
    assert content.flat + content.text + content.photo == pytest.approx(1)


def _under(limit_bytes: int) -> FitOrder:
    return FitOrder(limit_bytes=limit_bytes, formats=("jpeg",))


def test_the_choice_is_explained_in_one_sentence() -> None:
    raster = raster_of(photograph(300, 300))
    searched = fit_raster(raster, limit_bytes=9_000, formats=["jpeg", "avif"])
    sentence = why(searched, read_content(raster), _under(9_000))
    assert "mostly photographs" in sentence
    assert "AVIF looks" in sentence
    assert "JPEG" in sentence
    alone = fit_raster(raster, limit_bytes=9_000, formats=["jpeg"])
    assert "JPEG is the one format that is accepted" in why(alone, read_content(raster), _under(9_000))
    same = fit_raster(raster_of(text_page(200, 100)), limit_bytes=90_000, formats=["png"])
    assert "keeps every pixel" in why(same, read_content(raster), _under(90_000))
    assert why(fit_raster(raster, limit_bytes=50, formats=["jpeg"]), read_content(raster), _under(50)) == ""


def test_a_sharpened_file_has_crisper_edges_and_is_judged_against_what_was_not_sharpened() -> None:
    raster = raster_of(text_page(200, 120))
    smaller = raster.resized(Size(width_px=120, height_px=72)).held()
    plain, sharp = (fit_with(smaller, Choice(format="png", sharpened=on)) for on in (False, True))
    assert decoded(sharp.data).std() > decoded(plain.data).std()
    assert plain.fidelity == 100.0 > sharp.fidelity


def test_a_softened_file_is_judged_against_what_was_not_softened() -> None:
    raster = raster_of(text_page(300, 200))
    soft = fit_with(raster, Choice(format="webp", quality=95, softened=True))
    assert soft.fidelity < fit_with(raster, Choice(format="webp", quality=95)).fidelity
    assert decode(soft.data).size == raster.size
