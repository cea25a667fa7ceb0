"""Finding the highest quality step whose file fits, in few encodes. Pure: sizes come from a callback."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

_SURELY_OVER = 1.01
_TRUSTED_TRIES = 3
"""After so many, what was seen on both sides is surer than an estimate that was wrong each time."""
_BEYOND = 1.0
"""How far beyond two tries, in distances between them, what they say is believed to go on."""
_HARDLY_ANY = 2
_SPARE = 0.96
"""Share of the limit at which the second of two that are tried at once is aimed."""
_CAREFUL = 0.92
"""Share of the limit that is aimed at when tries run out and none has fitted."""


@dataclass(frozen=True, slots=True, kw_only=True)
class SearchOutcome:
    """The best quality step that was seen to fit, or None when none did, and how many were tried."""

    quality_step: int | None
    tries: int


def search_quality_step(
    sizes_at: Callable[[Sequence[int]], Sequence[int]],
    quality_steps: Sequence[int],
    limit_bytes: int,
    *,
    estimate: Callable[[int], float] | None = None,
    most_tries: int = 8,
    at_once: int = 1,
    near_enough: float = 1.0,
) -> SearchOutcome:
    """Highest of ``quality_steps`` (ascending) whose size is at most ``limit_bytes``.

    Only sizes that ``sizes_at`` really returned count: whatever the function does, the outcome
    fits. Where size rises with the quality step and tries suffice, it is the highest that fits. It is asked
    for one quality step at a time or, with ``at_once`` 2, for two where the second makes up for a first that
    is a little over.

    ``estimate`` predicts sizes cheaply, up to a factor; each real size corrects that factor. A
    search ends without proof from ``near_enough`` of the limit on, or, when that is below 1, where
    the next quality step is expected to be over the limit.
    """
    if not quality_steps:
        raise ValueError("a search needs at least one quality_step")
    sizes: dict[int, int] = {}  # position in quality steps -> bytes
    fits, over = -1, len(quality_steps)  # highest position known to fit, lowest known not to
    while over - fits > 1 and len(sizes) < most_tries:
        left = most_tries - len(sizes)
        if fits < 0 and left == 1 and most_tries > 1 and sizes:
            asked = [0]  # the last chance to end with a file at all
        else:
            within = limit_bytes * (_CAREFUL if fits < 0 and left <= _HARDLY_ANY and sizes else 1.0)
            asked = [_next_position(quality_steps, sizes, fits, over, within, estimate)]
            if min(at_once, left) > 1:
                spare = _next_position(quality_steps, sizes, fits, asked[0], within * _SPARE, estimate)
                asked = [spare, *asked] if fits < spare < asked[0] else asked
        sizes |= dict(zip(asked, sizes_at([quality_steps[position] for position in asked]), strict=True))
        for position in asked:
            if sizes[position] <= limit_bytes and position > fits:
                fits = position
        over = min([position for position in sizes if position > fits], default=over)
        if fits in asked and near_enough < 1 and estimate is not None and fits + 1 < over:
            factor = sizes[fits] / max(1.0, estimate(quality_steps[fits]))
            next_bytes = factor * estimate(quality_steps[fits + 1])
            if sizes[fits] >= near_enough * limit_bytes or next_bytes > limit_bytes * _SURELY_OVER:
                break
    return SearchOutcome(quality_step=quality_steps[fits] if fits >= 0 else None, tries=len(sizes))


def _next_position(
    quality_steps: Sequence[int],
    sizes: dict[int, int],
    fits: int,
    over: int,
    limit_bytes: float,
    estimate: Callable[[int], float] | None,
) -> int:
    """A position strictly between ``fits`` and ``over``."""
    bracketed = fits in sizes and over in sizes
    if estimate is not None and (len(sizes) < _TRUSTED_TRIES or not bracketed):
        return _highest_estimated(fits, over, limit_bytes, _corrected(quality_steps, sizes, estimate))
    if bracketed:
        # Bytes grow roughly as an exponential of the quality step: interpolate in logarithms.
        low, high = math.log(max(1, sizes[fits])), math.log(max(1, sizes[over]))
        share = (math.log(max(1, limit_bytes)) - low) / (high - low) if high > low else 0.5
        guess = fits + round(share * (over - fits))
        return min(max(guess, fits + 1), over - 1)
    return (fits + over) // 2


def _corrected(
    quality_steps: Sequence[int], sizes: dict[int, int], estimate: Callable[[int], float]
) -> Callable[[int], float]:
    """The estimate of a position, times what it was off by at the two nearest positions tried.

    What it was off by is taken to change evenly, a little beyond the two as well: an estimate may
    rise too steeply as well as be too high.
    """
    off = {at: math.log(max(1, size) / max(1.0, estimate(quality_steps[at]))) for at, size in sizes.items()}

    def expected(at: int) -> float:
        nearest = sorted(off, key=lambda tried: abs(tried - at))[:2]
        if not nearest:
            return estimate(quality_steps[at])
        low, high = min(nearest), max(nearest)
        share = (at - low) / (high - low) if high > low else 0.0
        share = min(max(share, -_BEYOND), 1 + _BEYOND)
        return estimate(quality_steps[at]) * math.exp((1 - share) * off[low] + share * off[high])

    return expected


def _highest_estimated(fits: int, over: int, limit_bytes: float, expected: Callable[[int], float]) -> int:
    """Highest position between the two expected within ``limit_bytes``; else the lowest between."""
    low, high = fits, over
    while high - low > 1:
        middle = (low + high) // 2
        if expected(middle) <= limit_bytes:
            low = middle
        else:
            high = middle
    return min(max(low, fits + 1), over - 1)
