import io

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from tallpage.core.errors import FitError
from tallpage.core.fit import (
    ACCEPTABLE_FIDELITY,
    FORMATS,
    Advice,
    Candidate,
    Choice,
    FitOrder,
    FitResult,
    FitWatch,
    Verdict,
    fit_order,
    fit_raster,
    fit_with,
    require_formats,
)
from tests.long import COSTLY, long_but
from tests.pictures import assert_same_pixels, decoded, noise, photograph, raster_of, text_page

ALL = require_formats(["jpeg", "png", "webp", "avif"])
MAKERS = {"noise": noise, "photo": photograph, "text": text_page}


@COSTLY
@given(
    st.sampled_from(sorted(MAKERS)),
    st.integers(1, 160),
    st.integers(1, 160),
    st.integers(1, 30_000),
    st.sets(st.sampled_from(ALL), min_size=1),
)
def test_no_file_is_ever_over_its_limit(
    kind: str, width: int, height: int, limit: int, formats: set[str]
) -> None:
    pixels = MAKERS[kind](max(width, 24), max(height, 24))[:height, :width]
    result = fit_raster(raster_of(pixels), limit_bytes=limit, formats=require_formats(formats))
    for candidate in result.candidates:
        assert candidate.byte_count == len(candidate.data) <= limit
        assert candidate.choice.format in formats
        assert decoded(candidate.data).shape == pixels.shape
    assert result.chosen is None or result.chosen.fidelity == max(row.fidelity for row in result.candidates)


def test_what_fits_unchanged_stays_unchanged() -> None:
    pixels = text_page(200, 100)
    result = fit_raster(raster_of(pixels), limit_bytes=200_000, formats=ALL)
    assert result.chosen is not None
    assert result.chosen.fidelity == 100.0
    assert_same_pixels(decoded(result.chosen.data), pixels)


@pytest.mark.parametrize("name", ALL)
def test_each_format_says_what_it_is(name: str) -> None:
    result = fit_raster(raster_of(photograph(200, 150)), limit_bytes=12_000, formats=require_formats([name]))
    assert result.chosen is not None
    with Image.open(io.BytesIO(result.chosen.data)) as picture:
        assert picture.format == FORMATS[name].name.upper()  # type: ignore[index]
        assert "icc_profile" not in picture.info
        assert "exif" not in picture.info


def test_a_jpeg_comes_progressively() -> None:
    made = fit_with(raster_of(photograph(200, 150)), Choice(format="jpeg", quality=60))
    with Image.open(io.BytesIO(made.data)) as picture:
        assert picture.info.get("progressive")


def test_transparency_is_kept_where_a_format_can() -> None:
    pixels = np.zeros((60, 80, 4), dtype=np.uint8)
    pixels[10:50, 10:70] = (169, 59, 43, 255)
    result = fit_raster(raster_of(pixels), limit_bytes=20_000, formats=ALL)
    assert result.chosen is not None
    with Image.open(io.BytesIO(result.chosen.data)) as picture:
        assert picture.convert("RGBA").getpixel((0, 0))[3] == 0
    flattened = fit_raster(raster_of(pixels), limit_bytes=20_000, formats=["jpeg"])
    assert flattened.chosen is not None
    assert min(decoded(flattened.chosen.data)[0, 0]) > 245


def test_a_picture_taller_than_every_accepted_format_is_refused_in_words() -> None:
    tall = raster_of(np.full((20_000, 4, 3), 255, dtype=np.uint8))
    with pytest.raises(FitError, match="WebP") as refused:
        fit_raster(tall, limit_bytes=10_000, formats=["webp"])
    assert refused.value.code == "format_too_tall"
    assert fit_raster(tall, limit_bytes=10_000, formats=["webp", "png"]).met


def _fitted(pixels: np.ndarray, **order: object) -> FitResult:
    raster = raster_of(pixels)
    if "width_px" in order:
        raster = raster.resized(raster.size.at_width(order.pop("width_px")))  # type: ignore[arg-type]
    return fit_order(raster, FitOrder(**{"formats": ALL, **order}))  # type: ignore[arg-type]


def test_a_fit_resizes_to_the_width_and_the_height_follows() -> None:
    result = _fitted(photograph(400, 300), width_px=133, limit_bytes=9_000)
    assert result.met
    assert result.chosen is not None
    assert decoded(result.chosen.data).shape == (100, 133, 3)


@pytest.mark.long
@pytest.mark.parametrize("seed", long_but([1], [1, 2]))
def test_a_limit_that_cannot_be_met_comes_with_advice_that_works(seed: int) -> None:
    pixels = photograph(500, 600, seed=seed)
    formats, limit_bytes = ("jpeg",), 7_500
    result = _fitted(pixels, limit_bytes=limit_bytes, formats=formats)
    assert not result.met
    advice = {row.kind: row for row in result.advice}
    assert set(advice) == {"limit", "width", "format", "leaves", "fold"}
    assert _fitted(pixels, limit_bytes=advice["limit"].value, formats=formats).met
    assert advice["width"].value < 500
    assert _fitted(pixels, limit_bytes=limit_bytes, width_px=advice["width"].value, formats=formats).met
    other = _fitted(pixels, limit_bytes=limit_bytes, formats=(advice["format"].format,))
    assert other.met
    assert other.chosen is not None
    assert other.chosen.byte_count == advice["format"].value
    assert advice["fold"].rows_px is not None
    top_px, height_px = advice["fold"].rows_px
    folded = np.delete(pixels, slice(top_px, top_px + height_px), axis=0)
    assert _fitted(folded, limit_bytes=limit_bytes, formats=formats).met
    for leaf in np.array_split(pixels, advice["leaves"].value):
        assert _fitted(leaf, limit_bytes=limit_bytes, formats=formats).met


class Heard(FitWatch):
    """Notes all that there is to hear, in order."""

    def __init__(self) -> None:
        self.verdicts: list[Verdict] = []
        self.best: list[Candidate] = []
        self.advice: list[Advice] = []
        self.tried: list[tuple[str, int]] = []
        self.kinds: list[str] = []

    def expecting(self, verdict: Verdict) -> None:
        self.verdicts.append(verdict)
        self.kinds.append("verdict")

    def trying(self, what: str, tries_left: int) -> None:
        self.tried.append((what, tries_left))

    def best_so_far(self, candidate: Candidate) -> None:
        self.best.append(candidate)
        self.kinds.append("file")

    def advising(self, advice: Advice) -> None:
        self.advice.append(advice)
        self.kinds.append("advice")


def test_a_first_acceptable_file_is_told_of_before_the_best_and_each_is_better_than_the_last() -> None:
    heard = Heard()
    pixels = raster_of(photograph(300, 200))
    result = fit_raster(pixels, limit_bytes=12_000, formats=ALL, watch=heard)
    assert result.chosen is not None
    assert len(heard.best) > 1
    assert all(row.byte_count <= 12_000 for row in heard.best)
    looks = [row.fidelity for row in heard.best]
    assert looks[0] >= ACCEPTABLE_FIDELITY
    assert looks == sorted(looks)
    assert result.chosen.fidelity >= looks[-1]


def test_a_verdict_comes_first_and_is_about_right() -> None:
    heard = Heard()
    result = fit_raster(raster_of(photograph(450, 450)), limit_bytes=15_000, formats=ALL, watch=heard)
    assert result.chosen is not None
    last = heard.verdicts[-1]
    assert all(row.met for row in heard.verdicts)
    assert last.byte_count <= 60_000
    assert abs(last.fidelity - result.chosen.fidelity) < 12
    left = [tries_left for _, tries_left in heard.tried]
    assert left == sorted(left, reverse=True)
    assert left[-1] >= 0


def test_where_nothing_acceptable_fits_the_verdict_says_so_and_advice_comes_piece_by_piece() -> None:
    heard = Heard()
    pixels = raster_of(np.repeat(text_page(300, 300), 3, axis=1))
    order = FitOrder(limit_bytes=2_000, formats=("jpeg", "webp"))
    result = fit_order(pixels, order, watch=heard)
    assert not result.met
    assert not heard.verdicts[-1].met
    assert heard.advice
    assert sorted(row.kind for row in heard.advice) == sorted(row.kind for row in result.advice)
    assert heard.kinds.index("verdict") < heard.kinds.index("advice")


def test_softening_is_used_where_nothing_acceptable_fits_and_it_looks_better() -> None:
    pixels = np.repeat(text_page(300, 300), 3, axis=1)  # hard edges, which cost most
    plain = fit_with(raster_of(pixels), Choice(format="jpeg", quality=30))
    soft = fit_with(raster_of(pixels), Choice(format="jpeg", quality=30, softened=True))
    assert soft.byte_count < plain.byte_count
    assert soft.recipe == plain.recipe


def test_a_gif_is_only_made_where_it_is_asked_for() -> None:
    result = _fitted(photograph(300, 200), limit_bytes=60_000, formats=("gif",))
    assert result.chosen is not None
    assert result.chosen.choice.format == "gif"
    tight = _fitted(photograph(300, 200), limit_bytes=1_000, formats=("jpeg",))
    assert all(row.format != "gif" for row in tight.advice)


def test_a_choice_by_hand_is_made_even_over_the_limit_and_says_so() -> None:
    result = _fitted(photograph(200, 150), limit_bytes=900, choice=Choice(format="jpeg", quality=95))
    assert result.chosen is not None
    assert result.chosen.byte_count > 900
    assert not result.met


@pytest.mark.parametrize(
    ("order", "code"),
    [
        ({"limit_bytes": 0}, "limit_impossible"),
        ({"limit_bytes": None}, "limit_impossible"),
        ({"limit_bytes": 9_000, "fidelity": 20}, "fidelity_impossible"),
    ],
)
def test_absurd_orders_are_refused_in_words(order: dict[str, int], code: str) -> None:
    with pytest.raises(FitError) as refused:
        _fitted(photograph(100, 80), **order)
    assert refused.value.code == code
    assert refused.value.hint


def test_formats_are_known_by_name() -> None:
    assert require_formats(["PNG", " jpg "]) == ("jpeg", "png")
    for bad in ([], ["bmp"], ["png", "exe"]):
        with pytest.raises(FitError):
            require_formats(bad)


@pytest.mark.long
@COSTLY
@given(
    st.sampled_from(sorted(MAKERS)),
    st.floats(0.05, 4),
    st.sampled_from(ALL),
)
def test_no_format_takes_more_than_five_files(kind: str, bits_a_pixel: float, name: str) -> None:
    pixels = MAKERS[kind](360, 300)
    limit_bytes = round(bits_a_pixel * 360 * 300 / 8)
    result = fit_raster(raster_of(pixels), limit_bytes=limit_bytes, formats=require_formats([name]))
    assert result.tries <= 5


@pytest.mark.parametrize("bits_a_pixel", [0.5, 1.2])
def test_colours_of_letters_are_kept_whole_and_those_of_photographs_are_halved(bits_a_pixel: float) -> None:
    page = text_page(400, 300).copy()
    page[:, :, 1] //= 2  # paper in a colour, and with it every edge of a letter
    tried = {
        name: fit_raster(
            raster_of(pixels),
            limit_bytes=round(bits_a_pixel * 400 * 300 / 8),
            formats=require_formats(["jpeg"]),
        )
        for name, pixels in (("page", page), ("photograph", photograph(400, 300)))
    }
    assert {curve.recipe.name for curve in tried["page"].curves} == {
        "JPEG, full colour",
        "JPEG, halved colour",
    }
    assert {curve.recipe.name for curve in tried["photograph"].curves} == {"JPEG, halved colour"}


def test_of_files_that_look_like_nothing_the_one_with_most_bytes_is_chosen() -> None:
    result = fit_raster(raster_of(noise(200, 200)), limit_bytes=8_000, formats=["jpeg", "webp", "avif"])
    ruined = [row.byte_count for row in result.candidates if row.fidelity == 0]
    assert len(ruined) > 1
    assert result.chosen is not None
    assert (result.chosen.fidelity, result.chosen.byte_count) == (0, max(ruined))
