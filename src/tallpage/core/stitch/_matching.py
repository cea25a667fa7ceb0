"""How far down one view lies below another, by what both show. Pure.

Possible displacements come from the cross-correlation of the rows; each is then looked at in cells of the
pixels themselves. One is believed only if no other is possible: of rows that stand there more than once
nobody can say which is which.

Source: J. P. Lewis, "Fast Normalized Cross-Correlation", 1995, for sums of squared differences of all
displacements at once by Fourier transforms, here with a weight for each place.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from scipy import fft

from tallpage.core.stitch._cells import Cells, Grey, Marked, difference, is_inked
from tallpage.core.stitch._views import Spectrum, View

_USUAL_HEIGHT_PX = 800
_MOST_SCALE = 3.0
_LEAST_OVERLAP_PX = 64
_LEAST_INKED = 64
"""Cells in which something stands that two views must share: about three lines of text. Both numbers are
those of a window of the usual height; a picture of a phone has larger letters, as it is higher."""
_LEAST_LINES = 3
"""Cells below each other, with something in them, that two views must share."""
_MOST_CANDIDATES = 8
_CANDIDATE = 0.7
"""Squared difference against the squares themselves; unrelated rows are at 1 and above."""
_WORSE_CANDIDATE = 0.25
"""How much further than the best one may be that is still looked at."""
_MATCHES = 0.06
"""Share of inked cells that may differ, by compression."""
_MATCHES_LARGELY = 0.25
_LARGE = 6
_LARGELY = 12
"""Times as many cells as the least number let more of them differ: something moves by itself there. With
few, boxes of one look would be taken for one another although the words in them are others."""
_CLEAN = 1.5
"""Mean difference, of 255, up to which no other place is looked for."""
_BETWEEN_ROWS = 0.5
"""Share of the cells that differ, up to which half a px beside may be right."""
_NEARER = 0.7
"""What is left of the difference half a px beside, if that is right."""
_LEAST_BAD = 2
"""Cells more than expected that differ before a displacement is ruled out."""
_ALIKE = 0.02
"""Shares of cells that differ so little do not tell which of two displacements is the better one."""
_NEARLY_ALL = 0.995
_MUCH_MORE = 8
"""Times as many cells that agree make a displacement possible although some differ there."""
_ELSEWHERE = 0.1
"""Share of what two views have in common that must stand somewhere else to cast doubt on it."""


_Drawn = Literal["as they are", "upper between", "lower between"]
_AS_THEY_ARE: _Drawn = "as they are"
_UPPER_BETWEEN: _Drawn = "upper between"
_LOWER_BETWEEN: _Drawn = "lower between"


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Differing:
    """How far the cells of what overlaps are apart, and where the first of them begin in both views."""

    apart: Cells
    bad: Marked
    inked: Marked
    upper_px: int
    lower_px: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Match:
    """How far the lower view lies below the upper one, in half px, and how well both agree there."""

    half_px: int
    inked: int
    """Cells in which something stands that both show."""
    bad: int
    """Those of them that differ."""
    least_inked: int
    """Cells that must be shared to be believed."""
    apart: float
    """Mean difference of the cells with something in them, 0–255."""
    differing: Differing

    @property
    def share(self) -> float:
        """Share of the cells that differ; 0–1."""
        return self.bad / self.inked if self.inked else 1.0

    @property
    def is_large(self) -> bool:
        """Whether many cells agree."""
        return self.inked - self.bad >= _LARGE * self.least_inked

    @property
    def matches(self) -> bool:
        """Whether it would be believed if there were no other."""
        if self.inked - self.bad >= _LARGELY * self.least_inked:
            return self.share <= _MATCHES_LARGELY
        return self.inked >= self.least_inked and self.share <= _MATCHES


@dataclass(frozen=True, slots=True, kw_only=True)
class Unsure:
    """Why no displacement is believed."""

    doubt: Literal["nothing_shared", "repeats", "blank"]


def find_displacement(upper: View, lower: View) -> Match | Unsure:
    """How far ``lower`` lies below ``upper``; negative when it lies above. Both are of one width."""
    found = possible_matches(upper, lower)
    possible = [match for match in found if match.matches]
    if not possible:
        return Unsure(doubt="blank" if _is_blank(upper) or _is_blank(lower) else "nothing_shared")
    least = min(match.share for match in possible)
    best = min(
        (match for match in possible if match.share <= least + _ALIKE),
        key=lambda match: (match.apart, -match.inked),
    )
    rivals = (match for match in found if abs(match.half_px - best.half_px) > 3)
    if any(_is_rival(match, best) for match in rivals) or _stands_elsewhere(upper, lower, best):
        return Unsure(doubt="repeats")
    return best


def possible_matches(upper: View, lower: View) -> list[Match]:
    """How well both agree where their rows do best."""
    looked_at = (look_at(upper, lower, at_px) for at_px in _candidates(upper, lower))
    return [match for match in looked_at if match is not None]


def look_at(upper: View, lower: View, at_px: int) -> Match | None:
    """How well both agree ``at_px`` or up to a px beside it; None when they hardly overlap there."""
    whole = _compared(upper, lower, 2 * at_px, _AS_THEY_ARE)
    if whole is None or whole.apart <= _CLEAN or whole.share > _BETWEEN_ROWS:
        return whole
    beside = [
        match
        for half_px in (2 * at_px - 1, 2 * at_px + 1)
        for drawn in (_UPPER_BETWEEN, _LOWER_BETWEEN)
        if (match := _compared(upper, lower, half_px, drawn)) is not None
    ]
    nearest = min(beside, key=lambda match: match.apart, default=whole)
    return nearest if nearest.apart < _NEARER * whole.apart and nearest.share <= whole.share else whole


def _compared(upper: View, lower: View, half_px: int, drawn: _Drawn) -> Match | None:
    """One displacement. Of a view that was drawn between rows each is the mean of two rows of the other."""
    at_px = half_px // 2
    first = max(upper.counted_rows[0], lower.counted_rows[0] + at_px)
    last = min(upper.counted_rows[1], lower.counted_rows[1] + at_px)
    if last - first < _LEAST_OVERLAP_PX * _scale(upper, lower):
        return None
    above, below = upper.grey[first:last], lower.grey[first - at_px : last - at_px]
    above_px, below_px = first, first - at_px
    if drawn == _LOWER_BETWEEN:
        above, below = _between(above), below[:-1]
    elif drawn == _UPPER_BETWEEN:
        above, below = above[1:], _between(below)
        above_px += 1
    apart = difference(above, below)
    edges = np.maximum(upper.edges(above_px, len(above)), lower.edges(below_px, len(below)))
    counts = upper.counts(above_px, len(above)) & lower.counts(below_px, len(below))
    inked = is_inked(edges) & counts
    if np.count_nonzero(inked.any(axis=1)) < _LEAST_LINES:
        inked[:] = False
    bad = inked & (apart > _allowed(apart, edges, inked))
    return Match(
        half_px=half_px,
        inked=int(inked.sum()),
        bad=int(bad.sum()),
        least_inked=round(_least_inked(upper, lower)),
        apart=float(apart[inked].mean()) if inked.any() else 0.0,
        differing=Differing(apart=apart, bad=bad, inked=inked, upper_px=above_px, lower_px=below_px),
    )


def _allowed(apart: Cells, edges: Cells, inked: Marked) -> Cells:
    """How far the same cell may be apart in two views: as far as most are, by noise of compression."""
    noise = float(np.median(apart[inked])) if inked.any() else 0.0
    own: Cells = 3 + 0.5 * edges
    return np.minimum(own, np.float32(4 + 4 * noise))


def _least_inked(upper: View, lower: View) -> float:
    # Where a part is not looked at, more of the rest must agree.
    times = _LARGE if upper.is_masked or lower.is_masked else 1
    return times * _LEAST_INKED * _scale(upper, lower) ** 2


def _scale(upper: View, lower: View) -> float:
    return min(max(upper.height_px, lower.height_px, _USUAL_HEIGHT_PX) / _USUAL_HEIGHT_PX, _MOST_SCALE)


def _between(grey: Grey) -> Grey:
    wide = grey.astype(np.uint16)
    return ((wide[:-1] + wide[1:] + 1) // 2).astype(np.uint8)


def _candidates(upper: View, lower: View) -> Iterator[int]:
    """Displacements at which the rows agree better than just above and below, the best first."""
    apart, energy = _correlated(upper, lower)
    places = np.arange(-lower.height_px + 1, upper.height_px)
    overlap = np.minimum(upper.height_px, lower.height_px + places) - np.maximum(0, places)
    counts = (overlap >= _LEAST_OVERLAP_PX * _scale(upper, lower)) & (energy > energy.max() * 1e-3)
    ratio = np.where(counts, apart / np.maximum(energy, 1e-6), np.inf)
    around = np.pad(ratio, 1, constant_values=np.inf)
    lowest = (ratio <= around[:-2]) & (ratio <= around[2:]) & (ratio < _CANDIDATE)
    at = np.flatnonzero(lowest)
    at = at[np.argsort(ratio[at], kind="stable")][:_MOST_CANDIDATES]
    for place in at:
        if ratio[place] <= ratio[at[0]] + _WORSE_CANDIDATE:
            yield int(places[place])


def _correlated(upper: View, lower: View) -> tuple[NDArray[np.float32], NDArray[np.float32]]:
    """Squared differences and squares of what overlaps, for each displacement from the least on."""
    length = fft.next_fast_len(upper.height_px + lower.height_px, real=True)
    weights, values, squares = upper.spectra(length)
    weights_below, values_below, squares_below = lower.spectra(length)
    own = np.einsum("rc,rc->r", squares, weights_below.conj()) + np.einsum(
        "rc,rc->r", weights, squares_below.conj()
    )
    energy = _crossed(own, length, lower, upper)
    shared = _crossed(np.einsum("rc,rc->r", values, values_below.conj()), length, lower, upper)
    return np.maximum(energy - 2 * shared, 0), energy


def _crossed(product: Spectrum, length: int, lower: View, upper: View) -> NDArray[np.float32]:
    rolled = fft.irfft(product, n=length)
    crossed: NDArray[np.float32] = np.concatenate(
        [rolled[length - lower.height_px + 1 :], rolled[: upper.height_px]]
    )
    return crossed


def _is_rival(match: Match, best: Match) -> bool:
    """Whether a displacement could be meant as well as the best one."""
    if match.inked < max(match.least_inked, _ELSEWHERE * best.inked):
        return False
    if match.matches and match.inked - match.bad >= _MUCH_MORE * (best.inked - best.bad):
        return True  # much more speaks for it, although something speaks against it as well
    return not (
        _is_more(match.bad, best.share * match.inked)
        or _is_more(_further_apart(match, best), (1 - _NEARLY_ALL) * match.inked)
    )


def _is_more(count: int, expected: float) -> bool:
    return count >= 2 * expected + 3 * math.sqrt(expected) + _LEAST_BAD


def _further_apart(match: Match, best: Match) -> int:
    """Cells that differ more than nearly all do at the best displacement: one figure in another row."""
    most = np.quantile(best.differing.apart[best.differing.inked], _NEARLY_ALL)
    return int(np.count_nonzero(match.differing.apart[match.differing.inked] > most))


def _stands_elsewhere(upper: View, lower: View, best: Match) -> bool:
    """Whether what both share stands in one of them a second time.

    Then as much may have been passed over as lies between: the next of rows that are all alike looks the
    same.
    """
    at_px = best.half_px // 2
    first, last = max(0, at_px), min(upper.height_px, lower.height_px + at_px)
    shared = upper.part(first, last)
    return any(
        _is_rival(match, best)
        for view, own_px in ((upper, first), (lower, first - at_px))
        for place in _candidates(view, shared)
        if abs(place - own_px) > 1 and (match := look_at(view, shared, place)) is not None
    )


def _is_blank(view: View) -> bool:
    first, last = view.counted_rows
    inked = is_inked(view.edges(first, last - first)) & view.counts(first, last - first)
    return bool(np.count_nonzero(inked) < _LEAST_INKED * _scale(view, view) ** 2)
