"""Fidelity 0–100: how close an output looks to the resized cut it came from.

What is lost of the structure in windows of 8 × 8 px (the structure term of SSIM: Wang, Bovik, Sheikh,
Simoncelli, IEEE TIP 13(4), 2004), of luma at three scales and of both colours at half size, and the
error itself, masked by how busy its place is. The weights were fitted by non-negative least squares
to ssimulacra2's judgement of 936 encodings of 36 real screens and photographs; see bench/fidelity.
"""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor

import numpy as np
from numpy.typing import NDArray

from tallpage.core.geometry import bands
from tallpage.core.picture import Raster

ACCEPTABLE_FIDELITY = 50.0
"""Below this, damage is seen at a glance; such a file does not count as meeting a limit."""

_WORDS = (
    (99.95, "same pixels"),
    (88.0, "same to the eye"),
    (75.0, "very close"),
    (62.0, "close; small traces at 1:1"),
    (ACCEPTABLE_FIDELITY, "traces show"),
    (0.0, "visibly damaged"),
)

BAND_PX = 512
_AT_ONCE = 2
_SCALES = 3
_C2 = (0.03 * 255) ** 2
_MASKING = 8.0
"""Levels by which an error is less seen for each level of busyness around it, and this many anyway."""
# Rows: R, G, B -> Y, Cb, Cr (ITU-R BT.601, full range, without the offset of the colour planes).
_TO_YCC = np.array(
    [[0.299, 0.587, 0.114], [-0.168736, -0.331264, 0.5], [0.5, -0.418688, -0.081312]], dtype=np.float32
)
# Weights of the means, and of the fourth-power means, in which the worst places count most.
_STRUCTURE_HALF, _STRUCTURE_QUARTER = 35.9, 568.5
LUMA_WEIGHTS = (21.0, 5.2)
"""Of the structure lost and of the error, where they are worst."""
COLOUR_WEIGHTS = (21.4, 2.0)
"""The same, of the mean of both colours."""
_WORST_SHARE = 0.3
"""How much the worst stretch counts by itself: one ruined stretch of a tall page is not averaged away."""
_GAIN, _POWER = 10.0, 0.63

Plane = NDArray[np.float32]
Terms = NDArray[np.float64]


def fidelity(original: Raster, result: Raster) -> float:
    """Fidelity of ``result`` to ``original``, both of one size; transparency is seen over white.

    Raises:
        ValueError: the sizes differ.
    """
    if original.size != result.size:
        raise ValueError(f"cannot compare {original.size} with {result.size}")
    rows = bands(original.size.height_px, BAND_PX)

    def terms_of(band: tuple[int, int]) -> Terms:
        return _terms(band_planes(original, *band), band_planes(result, *band))

    with ThreadPoolExecutor(max_workers=_AT_ONCE) as pool:
        terms = np.array(list(pool.map(terms_of, rows)))
    shares = np.array([height_px for _, height_px in rows]) / original.size.height_px
    overall = _distortion(shares @ terms)
    worst = max(_distortion(row) for row in terms)
    distortion = (1 - _WORST_SHARE) * overall + _WORST_SHARE * worst
    return round(float(np.clip(100.0 - _GAIN * distortion**_POWER, 0.0, 100.0)), 1)


def fidelity_in_words(score: float) -> str:
    """What a fidelity means, from “same pixels” down to “visibly damaged”."""
    return next(words for floor, words in _WORDS if score >= floor)


def band_planes(raster: Raster, top_px: int, height_px: int) -> list[Plane]:
    """Luma and both colours of some rows, padded to what the smallest scale needs."""
    rows = raster.flattened((255, 255, 255)).without_alpha().rows(top_px, height_px)
    red, green, blue = (rows[:, :, channel].astype(np.float32) for channel in range(3))
    ycc = [by_red * red + by_green * green + by_blue * blue for by_red, by_green, by_blue in _TO_YCC]
    least = 8 * 2 ** (_SCALES - 1)
    missing = [max(0, least - side) for side in rows.shape[:2]]
    if any(missing):
        ycc = [np.pad(plane, [(0, missing[0]), (0, missing[1])], mode="edge") for plane in ycc]
    return ycc


def _terms(original: list[Plane], result: list[Plane]) -> Terms:
    """Means of what is weighed, over one band: of the structure lost, and of fourth powers."""
    luma, other_luma = original[0], result[0]
    structure, error = lost_and_wrong(luma, other_luma)
    half = lost_and_wrong(halved(luma), halved(other_luma))[0]
    quarter = lost_and_wrong(halved(halved(luma)), halved(halved(other_luma)))[0]
    colours = [
        lost_and_wrong(halved(first), halved(second))
        for first, second in zip(original[1:], result[1:], strict=True)
    ]
    return np.array(
        [
            half.mean(),
            quarter.mean(),
            _fourth(structure),
            _fourth(error),
            np.mean([_fourth(lost) for lost, _ in colours]),
            np.mean([_fourth(wrong) for _, wrong in colours]),
        ],
        dtype=np.float64,
    )


def _distortion(terms: Terms) -> float:
    weights = [*LUMA_WEIGHTS, *COLOUR_WEIGHTS]
    worst_places = np.maximum(terms[2:], 0) ** 0.25
    return float(_STRUCTURE_HALF * terms[0] + _STRUCTURE_QUARTER * terms[1] + weights @ worst_places)


def _fourth(plane: Plane) -> float:
    squares = plane * plane
    return float(np.mean(squares * squares))


def lost_and_wrong(first: Plane, second: Plane) -> tuple[Plane, Plane]:
    """Structure lost (0 none, 1 all), and the masked error, in overlapping 8 × 8 windows, every 4 px."""
    difference = first - second
    mean_1, mean_2, shift = _window_means(first), _window_means(second), _window_means(difference)
    variance_1 = np.maximum(_window_means(first * first) - mean_1 * mean_1, 0)
    variance_2 = np.maximum(_window_means(second * second) - mean_2 * mean_2, 0)
    squared = _window_means(difference * difference)
    # 1 - (2 cov + C) / (var1 + var2 + C), written by the difference: exactly 0 for the same pixels.
    structure = np.maximum(squared - shift * shift, 0) / (variance_1 + variance_2 + np.float32(_C2))
    error = np.sqrt(squared, dtype=np.float32) / (
        np.sqrt(variance_1, dtype=np.float32) + np.float32(_MASKING)
    )
    lost = np.minimum(structure, np.float32(2))
    return lost.astype(np.float32, copy=False), error.astype(np.float32, copy=False)


def _window_means(plane: Plane) -> Plane:
    blocks = _block_means(plane, 4)
    means: Plane = (blocks[:-1, :-1] + blocks[1:, :-1] + blocks[:-1, 1:] + blocks[1:, 1:]) * np.float32(0.25)
    return means


def halved(plane: Plane) -> Plane:
    """A plane at half its width and height."""
    return _block_means(plane, 2)


def _block_means(plane: Plane, side_px: int) -> Plane:
    """Means of blocks, as sums of every so many-th row and column: numpy is slow at short axes."""
    height, width = plane.shape[0] // side_px * side_px, plane.shape[1] // side_px * side_px
    columns = plane[0:height:side_px, :width].copy()
    for row in range(1, side_px):
        columns += plane[row:height:side_px, :width]
    sums: Plane = columns[:, 0::side_px].copy()
    for column in range(1, side_px):
        sums += columns[:, column::side_px]
    return sums * np.float32(1 / side_px**2)
