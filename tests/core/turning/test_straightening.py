"""The angle of a scan is found in what it shows; a level page, and what has no lines, stays."""

import numpy as np
import pytest
from PIL import Image

from tallpage.core.picture import Raster
from tallpage.core.turning import edge_colour, find_angle
from tests.long import long_but
from tests.pictures import Pixels, gradient, noise, photograph, text_page

PAPER = (244, 243, 238)


def _scan(rows: Pixels, angle: float, *, grain: float) -> Pixels:
    turned = Image.fromarray(rows).rotate(-angle, Image.Resampling.BICUBIC, expand=True, fillcolor=PAPER)
    grainy = np.asarray(turned) + np.random.default_rng(3).normal(0, grain, np.asarray(turned).shape)
    return np.clip(grainy, 0, 255).astype(np.uint8)


SCANS = [(700, 900, 0), (1_200, 800, 10), (500, 4_000, 5)]


@pytest.mark.parametrize("angle", long_but([-12.0, 0.5], [-12.0, -3.7, -0.6, 0.5, 2.2, 9.5]))
@pytest.mark.parametrize(("width", "height", "grain"), long_but([SCANS[0]], SCANS))
def test_the_angle_of_a_scan_is_found(angle: float, width: int, height: int, grain: float) -> None:
    scan = _scan(text_page(width, height), angle, grain=grain)
    assert find_angle(Raster.from_rows(scan)) == pytest.approx(-angle, abs=0.3)


@pytest.mark.parametrize("seed", long_but([0], range(4)))
def test_a_level_page_is_never_turned(seed: int) -> None:
    level = np.vstack([text_page(800, 700, seed=seed), photograph(800, 300, seed=seed)])
    assert find_angle(Raster.from_rows(level)) == 0
    assert find_angle(Raster.from_rows(_scan(level, 0, grain=8))) == 0


@pytest.mark.parametrize(
    "rows", [np.full((300, 400, 3), 255, np.uint8), noise(400, 300), gradient(400, 300), noise(1, 1)]
)
def test_what_has_no_lines_stays(rows: Pixels) -> None:
    assert find_angle(Raster.from_rows(rows)) == 0


def test_corners_take_the_colour_of_the_edges() -> None:
    scan = _scan(text_page(600, 500), 3, grain=2)
    assert np.abs(np.subtract(edge_colour(Raster.from_rows(scan)), PAPER)).max() <= 3
