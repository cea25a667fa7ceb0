import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.fit import Choice, fidelity, fidelity_in_words, fit_with
from tests.long import COSTLY
from tests.pictures import noise, photograph, raster_of, text_page


@COSTLY
@given(st.integers(1, 70), st.integers(1, 70))
def test_the_same_pixels_have_full_fidelity_at_any_size(width: int, height: int) -> None:
    raster = raster_of(noise(width, height))
    assert fidelity(raster, raster) == 100.0


@pytest.mark.parametrize("pixels", [photograph(300, 220), text_page(300, 220)], ids=["photo", "text"])
def test_more_damage_is_less_fidelity(pixels: np.ndarray) -> None:
    raster = raster_of(pixels)
    scores = [
        fit_with(raster, Choice(format="jpeg", quality=quality)).fidelity for quality in (15, 40, 70, 92)
    ]
    assert scores == sorted(scores)
    assert scores[0] < 60 < 80 < scores[-1]


def test_one_ruined_stretch_of_a_tall_page_is_not_averaged_away() -> None:
    page = text_page(300, 8_000)
    ruined = page.copy()
    ruined[4_000:4_300] = ruined[4_000:4_300].mean(axis=(0, 1)).astype(np.uint8)
    assert fidelity(raster_of(page), raster_of(ruined)) < 70


def test_transparency_is_seen_over_white() -> None:
    white = np.full((20, 20, 3), 255, dtype=np.uint8)
    clear = np.zeros((20, 20, 4), dtype=np.uint8)
    assert fidelity(raster_of(white), raster_of(clear)) == 100.0


def test_pictures_of_different_sizes_cannot_be_compared() -> None:
    with pytest.raises(ValueError, match="cannot compare"):
        fidelity(raster_of(noise(4, 4)), raster_of(noise(4, 5)))


def test_words_go_from_the_same_to_damaged() -> None:
    words = [fidelity_in_words(score) for score in (100, 92, 80, 65, 55, 10)]
    assert words[0] == "same pixels"
    assert words[-1] == "visibly damaged"
    assert len(set(words)) == len(words)
