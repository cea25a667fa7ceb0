"""What a recipe would make of a picture at any knob, predicted from a sample of it."""

from __future__ import annotations

import bisect
import functools
import math
from dataclasses import dataclass, replace

from tallpage.core.fit._recipes import Recipe
from tallpage.core.fit._sampling import Sample


def of_the_whole(byte_count: int, sample: Sample, fixed_bytes: int) -> float:
    """Bytes of the whole, when its sample takes ``byte_count``."""
    fixed_bytes = min(fixed_bytes, byte_count // 2)
    return fixed_bytes + (byte_count - fixed_bytes) / sample.share


class CurvePoint:
    """One knob: how heavy the whole would be, how good it would look; found out when it is asked for."""

    def __init__(self, knob: int, recipe: Recipe, sample: Sample, *, draft: bool) -> None:
        self.knob = knob
        self.choice = recipe.choice_at(knob)
        self._draft = draft
        self._fixed_bytes = recipe.fixed_bytes
        self._sample = sample

    @functools.cached_property
    def byte_count(self) -> float:
        """Bytes of the whole as such a file."""
        data = self._sample.picture.encoded(self.choice, draft=self._draft)
        return of_the_whole(len(data), self._sample, self._fixed_bytes)

    @functools.cached_property
    def fidelity(self) -> float:
        """Fidelity of the whole; judging takes longer than encoding."""
        return self._sample.picture.fidelity(self.choice, draft=self._draft)


@dataclass(frozen=True, slots=True, kw_only=True)
class Curve:
    """A recipe's trade-off between bytes and fidelity; ``points`` ascend by knob."""

    recipe: Recipe
    points: tuple[CurvePoint, ...]
    weight: float = 1.0
    """By which the points' bytes are multiplied, for a careful file of the whole."""

    def bytes_at(self, knob: int) -> float:
        """Bytes expected of the whole; between points they grow as an exponential of the knob."""
        low, high, share = self._around(knob)
        return self.weight * math.exp(
            (1 - share) * math.log(low.byte_count) + share * math.log(high.byte_count)
        )

    def fidelity_at(self, knob: int) -> float:
        """Fidelity expected of the whole."""
        low, high, share = self._around(knob)
        if share in (0, 1):
            return (high if share else low).fidelity
        return (1 - share) * low.fidelity + share * high.fidelity

    def highest_within(self, limit_bytes: float) -> int | None:
        """The highest knob whose file is expected to fit; None when none is."""
        knobs = self.recipe.knobs
        count = bisect.bisect_right(knobs, limit_bytes, key=self.bytes_at)
        return knobs[count - 1] if count else None

    def best_within(self, limit_bytes: float) -> float | None:
        """The fidelity that is expected under a limit; None when nothing is expected to fit."""
        knob = self.highest_within(limit_bytes)
        return None if knob is None else self.fidelity_at(knob)

    def least_for(self, wanted_fidelity: float) -> int | None:
        """The lowest knob that is expected to look at least so good."""
        return next((knob for knob in self.recipe.knobs if self.fidelity_at(knob) >= wanted_fidelity), None)

    def _around(self, knob: int) -> tuple[CurvePoint, CurvePoint, float]:
        """The points on either side of a knob, and how far it lies from the first to the second."""
        knobs = [point.knob for point in self.points]
        if len(knobs) == 1:
            return self.points[0], self.points[0], 0.0
        at = min(max(bisect.bisect_left(knobs, knob), 1), len(knobs) - 1)
        low, high = self.points[at - 1], self.points[at]
        return low, high, (knob - low.knob) / (high.knob - low.knob)


def curve_of(sample: Sample, recipe: Recipe) -> Curve:
    """The curve of a recipe, right in bytes and in looks."""
    draft = recipe.draft_weight is not None and recipe.drafts_look_alike
    return _curve(sample, recipe, draft=draft)


def rough_curve_of(sample: Sample, recipe: Recipe) -> Curve:
    """The curve from drafts, where there are any: found quickly, and only its bytes tell."""
    return _curve(sample, recipe, draft=recipe.draft_weight is not None)


def calibrated(curve: Curve, sample: Sample, knob: int) -> Curve:
    """The curve with its weight found at ``knob``, by one careful file of the sample.

    How much lighter than drafts they are differs by picture more than by knob.
    """
    data = sample.picture.encoded(curve.recipe.choice_at(knob))
    careful_bytes = of_the_whole(len(data), sample, curve.recipe.fixed_bytes)
    return replace(curve, weight=curve.weight * careful_bytes / curve.bytes_at(knob))


def _curve(sample: Sample, recipe: Recipe, *, draft: bool) -> Curve:
    points = tuple(CurvePoint(knob, recipe, sample, draft=draft) for knob in recipe.probed)
    return Curve(recipe=recipe, points=points, weight=(recipe.draft_weight or 1.0) if draft else 1.0)
