"""What is mended is not seen: the ground goes on as it does around it."""

from collections.abc import Callable

import numpy as np
import pytest
from numpy.typing import NDArray

from tallpage.core.geometry import Box
from tallpage.core.mending import mended
from tests.pictures import text_page

HOLES = [
    Box(x_px=180, y_px=130, width_px=90, height_px=60),
    Box(x_px=240, y_px=200, width_px=33, height_px=81),
    Box(x_px=0, y_px=150, width_px=50, height_px=40),
    Box(x_px=470, y_px=378, width_px=50, height_px=42),
]
Y, X = (axis[:, :, None].astype(float) for axis in np.mgrid[0:420, 0:520])
FIRST, SECOND = np.array([214.0, 226, 219]), np.array([120.0, 160, 190])
Ground = Callable[[], NDArray[np.float64]]
SHARP: dict[str, Ground] = {
    "plain": lambda: FIRST + 0 * X,
    "shaded across": lambda: FIRST + (SECOND - FIRST) * X / 520,
    "shaded askew": lambda: FIRST + (SECOND - FIRST) * (X + 2 * Y) / 1_360,
    "shaded round": lambda: FIRST + (SECOND - FIRST) * ((X - 200) ** 2 + (Y - 250) ** 2) / 250_000,
    "stripes across": lambda: np.where(Y // 9 % 2 > 0, FIRST, SECOND),
    "stripes down": lambda: np.where(X // 14 % 2 > 0, FIRST, SECOND),
    "shaded stripes": lambda: np.where(Y // 20 % 2 > 0, FIRST, FIRST * 0.85) * (1 - X / 2_600),
    "stripes askew": lambda: FIRST + (SECOND - FIRST) * (np.sin((X + Y) / 4) + 1) / 2,
    "checks": lambda: np.where((X // 11 + Y // 11) % 2 > 0, FIRST, SECOND),
}


def _noise() -> NDArray[np.float64]:
    return np.random.default_rng(5).normal(0, 4, (420, 520, 1))


def _mended(page: NDArray[np.uint8], hole: Box, seed: int = 1) -> NDArray[np.uint8]:
    """What the hole is filled with, where a stray notice of any colours lies over it."""
    seen = page.copy()
    notice = np.random.default_rng(seed).integers(0, 255, (hole.height_px, hole.width_px, 3))
    seen[hole.y_px : hole.bottom_px, hole.x_px : hole.right_px] = notice
    return mended(seen, hole, np.ones(page.shape[:2], dtype=bool))


def _under(page: NDArray[np.uint8], hole: Box) -> NDArray[np.uint8]:
    return page[hole.y_px : hole.bottom_px, hole.x_px : hole.right_px]


@pytest.mark.parametrize("hole", HOLES[:2], ids=str)
@pytest.mark.parametrize("ground", SHARP)
def test_a_ground_goes_on(ground: str, hole: Box) -> None:
    page = np.clip(np.rint(SHARP[ground]()), 0, 255).astype(np.uint8)
    apart = np.abs(_mended(page, hole).astype(int) - _under(page, hole))
    assert np.percentile(apart, 99) <= 2


@pytest.mark.parametrize("hole", HOLES[2:], ids=str)
@pytest.mark.parametrize("ground", ["plain", "stripes across"])
def test_a_ground_goes_on_at_the_edge_of_the_page(ground: str, hole: Box) -> None:
    page = np.clip(np.rint(SHARP[ground]()), 0, 255).astype(np.uint8)
    assert np.array_equal(_mended(page, hole), _under(page, hole))


def test_paper_keeps_its_grain() -> None:
    page = np.clip(np.rint(FIRST + _noise()), 0, 255).astype(np.uint8)
    found, under = _mended(page, HOLES[0]).astype(float), _under(page, HOLES[0]).astype(float)
    assert abs(found.std(axis=(0, 1)) - under.std(axis=(0, 1))).max() < 1
    assert abs(found.mean(axis=(0, 1)) - under.mean(axis=(0, 1))).max() < 2


def test_letters_beside_it_are_not_carried_across() -> None:
    page = np.full((420, 520, 3), 245, dtype=np.uint8)
    page[100:320, 20:176] = text_page(156, 220)
    page[20:122, 20:500] = text_page(480, 102)
    assert np.ptp(_mended(page, HOLES[0])) < 6


def test_what_lies_under_it_makes_no_difference() -> None:
    page = np.clip(np.rint(SHARP["checks"]() + _noise()), 0, 255).astype(np.uint8)
    assert np.array_equal(_mended(page, HOLES[0], seed=1), _mended(page, HOLES[0], seed=2))


def test_nothing_is_taken_from_what_may_not_be_used() -> None:
    page = np.clip(np.rint(SHARP["stripes askew"]()), 0, 255).astype(np.uint8)
    known = np.zeros(page.shape[:2], dtype=bool)
    known[:, :300] = True
    other = page.copy()
    other[:, 300:] = 9
    assert np.array_equal(mended(page, HOLES[0], known), mended(other, HOLES[0], known))


def test_a_hole_with_nothing_around_it_is_white() -> None:
    page = np.zeros((30, 40, 3), dtype=np.uint8)
    assert (
        mended(page, Box(x_px=0, y_px=0, width_px=40, height_px=30), np.ones((30, 40), bool)) == 255
    ).all()
