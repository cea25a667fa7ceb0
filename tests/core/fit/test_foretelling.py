"""What is said of the best file before one is made."""

import numpy as np
import pytest

from tallpage.core.errors import FitError
from tallpage.core.fit import FitMemory, FitOrder, FitWatch, Verdict, fit_raster, foretell_order
from tallpage.core.fit.encoding._formats import Format
from tallpage.core.picture import Raster
from tests.long import long_but
from tests.pictures import Pixels, photograph, raster_of, text_page

ALL: tuple[Format, ...] = ("jpeg", "png", "webp", "avif")


class Verdicts(FitWatch):
    def __init__(self) -> None:
        self.told: list[Verdict] = []

    def expecting(self, verdict: Verdict) -> None:
        self.told.append(verdict)


def _page(height_px: int) -> Pixels:
    """Letters with a photograph now and then."""
    letters, photo = text_page(480, 300), photograph(480, 200)
    rows = [letters, photo, letters[:, ::-1]]
    return np.concatenate([rows[number % 3] for number in range(height_px // 200)])[:height_px]


def _foretold(pixels: Pixels, limit_bytes: int, formats: tuple[Format, ...] = ALL) -> list[Verdict]:
    heard = Verdicts()
    order = FitOrder(limit_bytes=limit_bytes, formats=formats)
    foretell_order(lambda: raster_of(pixels), order, memory=FitMemory(), watch=heard)
    return heard.told


VERDICTS = [(1.2, True), (0.8, True), (0.02, False)]


@pytest.mark.parametrize(("bits_a_pixel", "met"), long_but([(0.02, False)], VERDICTS))
def test_a_verdict_from_a_sample_is_what_the_search_finds(bits_a_pixel: float, met: bool) -> None:
    pixels = _page(2_400)
    limit_bytes = int(bits_a_pixel * 480 * 2_400 / 8)
    told = _foretold(pixels, limit_bytes)
    result = fit_raster(raster_of(pixels), limit_bytes=limit_bytes, formats=ALL)
    assert told[-1].met == met == result.met
    assert all(row.byte_count <= limit_bytes for row in told)
    if met and result.chosen is not None:
        assert abs(told[-1].fidelity - result.chosen.fidelity) < 15
        assert [row.fidelity for row in told] == sorted(row.fidelity for row in told), "better and better"


def test_what_fits_losslessly_needs_no_verdict() -> None:
    assert _foretold(np.full((900, 480, 3), 200, np.uint8), 40_000) == []


def test_no_more_of_a_page_is_drawn_than_its_sample(monkeypatch: pytest.MonkeyPatch) -> None:
    pixels = _page(6_000)
    held: list[int] = []

    def note(self: Raster) -> Raster:
        held.append(self.size.pixels)
        return hold(self)

    hold = Raster.held
    monkeypatch.setattr(Raster, "held", note)
    assert _foretold(pixels, 200_000)
    assert max(held) < 480 * 6_000 / 2


def test_a_page_that_is_too_tall_is_refused_before_anything_is_drawn() -> None:
    with pytest.raises(FitError) as refused:
        _foretold(np.full((20_500, 480, 3), 200, np.uint8), 40_000, ("avif", "webp"))
    assert refused.value.code == "format_too_tall"
