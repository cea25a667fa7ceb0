"""Fidelity 0–100: how close an output looks to the resized cut it came from.

What is lost of the structure in windows of 8 × 8 px (the structure term of SSIM: Wang, Bovik, Sheikh,
Simoncelli, IEEE TIP 13(4), 2004), of luma at three scales and of both colours at half size, and the
error itself, masked by how busy its place is. The weights were fitted by non-negative least squares
to ssimulacra2's judgement of 936 encodings of 36 real screens and photographs; see bench/fidelity.
"""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass

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
# R, G, B -> Y, and B - Y, R - Y -> Cb, Cr (ITU-R BT.601, full range, without the offset of the colours).
_RED, _GREEN, _BLUE = np.float32(0.299), np.float32(0.587), np.float32(0.114)
_PER_BLUE, _PER_RED = np.float32(0.564334), np.float32(0.713267)
# Weights of the means, and of the fourth-power means, in which the worst places count most.
_STRUCTURE_HALF, _STRUCTURE_QUARTER = 35.9, 568.5
LUMA_WEIGHTS = (21.0, 5.2)
"""Weights of the lost structure and of the error, where they are worst."""
COLOUR_WEIGHTS = (21.4, 2.0)
"""The same weights, for the mean of both colours."""
_WORST_SHARE = 0.3
"""How much the worst stretch counts by itself: one ruined stretch of a tall page is not averaged away."""
_GAIN, _POWER = 10.0, 0.63

_KEPT_PIXELS = 2_000_000
"""Some 8 bytes are kept of each."""

Plane = NDArray[np.float32]
Terms = NDArray[np.float64]


@dataclass(frozen=True, slots=True, kw_only=True)
class Windowed:
    """A plane, and means and variances of its windows of 8 × 8, every 4 px."""

    plane: Plane
    mean: Plane
    variance: Plane


@dataclass(frozen=True, slots=True, kw_only=True)
class Seen:
    """Rows of a picture as they are judged: luma at three scales, both colours at half size."""

    luma: Windowed
    half: Windowed
    quarter: Windowed
    colours: tuple[Windowed, Windowed]


class Original:
    """A picture that files are judged against; what is read of a small one is kept for the next file."""

    def __init__(self, raster: Raster) -> None:
        self._raster = raster
        self._bands: dict[int, Seen] = {}

    def fidelity(self, result: Raster) -> float:
        """Fidelity of ``result``, of the same size; transparency is seen over white.

        Raises:
            ValueError: the sizes differ.
        """
        return round(float(np.clip(self.closeness(result), 0.0, 100.0)), 1)

    def closeness(self, result: Raster) -> float:
        """As the fidelity, with no end at 0: what does not look alike at all may do so more or less.

        Raises:
            ValueError: the sizes differ.
        """
        if self._raster.size != result.size:
            raise ValueError(f"cannot compare {self._raster.size} with {result.size}")
        rows = bands(result.size.height_px, BAND_PX)

        def terms_of(band: tuple[int, int]) -> Terms:
            return _terms(self._seen(*band), seen(result, *band))

        if len(rows) == 1:  # another thread would only have to be waited for
            terms = np.array([terms_of(rows[0])])
        else:
            with ThreadPoolExecutor(max_workers=_AT_ONCE) as pool:
                terms = np.array(list(pool.map(terms_of, rows)))
        shares = np.array([height_px for _, height_px in rows]) / result.size.height_px
        overall = _distortion(shares @ terms)
        worst = max(_distortion(row) for row in terms)
        distortion = (1 - _WORST_SHARE) * overall + _WORST_SHARE * worst
        return float(100.0 - _GAIN * distortion**_POWER)

    def _seen(self, top_px: int, height_px: int) -> Seen:
        if top_px in self._bands:
            return self._bands[top_px]
        found = seen(self._raster, top_px, height_px)
        if self._raster.size.pixels <= _KEPT_PIXELS:
            self._bands[top_px] = found
        return found


def fidelity(original: Raster, result: Raster) -> float:
    """Fidelity of ``result`` to ``original``, both of one size; transparency is seen over white.

    Raises:
        ValueError: the sizes differ.
    """
    return Original(original).fidelity(result)


def closeness(original: Raster, result: Raster) -> float:
    """As :func:`fidelity`, with no end at 0."""
    return Original(original).closeness(result)


def fidelity_in_words(score: float) -> str:
    """What a fidelity means, from “same pixels” down to “visibly damaged”."""
    return next(words for floor, words in _WORDS if score >= floor)


def seen(raster: Raster, top_px: int, height_px: int) -> Seen:
    """Some rows as they are judged, padded to what the smallest scale needs."""
    rows = raster.flattened((255, 255, 255)).without_alpha().rows(top_px, height_px)
    least = 8 * 2 ** (_SCALES - 1)
    missing = [max(0, least - side) for side in rows.shape[:2]]
    if any(missing):
        rows = np.pad(rows, [(0, missing[0]), (0, missing[1]), (0, 0)], mode="edge")
    red, green, blue = (rows[:, :, channel].astype(np.float32) for channel in range(3))
    half_red, half_blue = _halved(red), _halved(blue)
    luma = red
    for plane, weight in ((red, _RED), (green, _GREEN), (blue, _BLUE)):
        plane *= weight
    luma += green
    luma += blue
    half = _halved(luma)
    return Seen(
        luma=_windowed(luma),
        half=_windowed(half),
        quarter=_windowed(_halved(half)),
        colours=(_windowed(_PER_BLUE * (half_blue - half)), _windowed(_PER_RED * (half_red - half))),
    )


def _terms(original: Seen, result: Seen) -> Terms:
    """Means of what is weighed, over one band: of the structure lost, and of fourth powers."""
    structure, error = structure_and_error(original.luma, result.luma)
    half = structure_and_error(original.half, result.half)[0]
    quarter = structure_and_error(original.quarter, result.quarter)[0]
    colours = [
        structure_and_error(one, other) for one, other in zip(original.colours, result.colours, strict=True)
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


def structure_and_error(first: Windowed, second: Windowed) -> tuple[Plane, Plane]:
    """Structure lost (0 none, 1 all), and the masked error, in overlapping 8 × 8 windows, every 4 px."""
    difference = first.plane - second.plane
    difference *= difference
    squared = _window_means(difference)
    shift = first.mean - second.mean
    # 1 - (2 cov + C) / (var1 + var2 + C), written by the difference: exactly 0 for the same pixels.
    lost = squared - shift * shift
    np.maximum(lost, 0, out=lost)
    lost /= first.variance + second.variance + np.float32(_C2)
    wrong = np.sqrt(squared, out=squared)
    wrong /= np.sqrt(first.variance) + np.float32(_MASKING)
    return np.minimum(lost, np.float32(2), out=lost), wrong


def _windowed(plane: Plane) -> Windowed:
    mean = _window_means(plane)
    variance = _window_means(plane * plane)
    variance -= mean * mean
    return Windowed(plane=plane, mean=mean, variance=np.maximum(variance, 0, out=variance))


def _window_means(plane: Plane) -> Plane:
    blocks = _block_means(plane, 4)
    means: Plane = (blocks[:-1, :-1] + blocks[1:, :-1] + blocks[:-1, 1:] + blocks[1:, 1:]) * np.float32(0.25)
    return means


def _halved(plane: Plane) -> Plane:
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
