"""What a recipe would make of a picture at any quality step, predicted from a sample of it."""

from __future__ import annotations

import bisect
import math
from dataclasses import dataclass, replace

from tallpage.core.fit.encoding._cached_encoder import Sample
from tallpage.core.fit.encoding._recipes import Recipe, patient_recipe
from tallpage.core.once import once


def of_the_whole(byte_count: int, sample: Sample, fixed_bytes: int) -> float:
    """Bytes of the whole, when its sample takes ``byte_count``."""
    fixed_bytes = min(fixed_bytes, byte_count // 2)
    return fixed_bytes + (byte_count - fixed_bytes) / sample.share


class CurvePoint:
    """One quality step: how heavy the whole would be, how good it would look; found out when asked for."""

    def __init__(
        self, quality_step: int, recipe: Recipe, sample: Sample, *, draft: bool, weight: float = 1.0
    ) -> None:
        self.quality_step = quality_step
        self.choice = recipe.choice_at(quality_step)
        self.weight = weight
        self._draft = draft
        self._fixed_bytes = recipe.fixed_bytes
        self._sample = sample

    @once
    def byte_count(self) -> float:
        """Bytes of the whole as a careful file."""
        data = self._sample.picture.encoded(self.choice, draft=self._draft)
        return self.weight * of_the_whole(len(data), self._sample, self._fixed_bytes)

    @once
    def fidelity(self) -> float:
        """Fidelity of the whole; judging takes longer than encoding."""
        return self._sample.picture.fidelity(self.choice, draft=self._draft)


@dataclass(frozen=True, slots=True, kw_only=True)
class Curve:
    """A recipe's trade-off between bytes and fidelity; ``points`` ascend by quality step."""

    recipe: Recipe
    points: tuple[CurvePoint, ...]
    weight: float = 1.0
    """By which the points' bytes are multiplied, as files that were really made tell."""

    def bytes_at(self, quality_step: int) -> float:
        """Bytes expected of the whole; between points they grow as an exponential of the quality step."""
        low, high, share = self._around(quality_step)
        return self.weight * math.exp(
            (1 - share) * math.log(low.byte_count) + share * math.log(high.byte_count)
        )

    def fidelity_at(self, quality_step: int) -> float:
        """Fidelity expected of the whole."""
        low, high, share = self._around(quality_step)
        if share in (0, 1):
            return (high if share else low).fidelity
        return (1 - share) * low.fidelity + share * high.fidelity

    def highest_within(self, limit_bytes: float) -> int | None:
        """The highest quality step whose file is expected to fit; None when none is."""
        quality_steps = self.recipe.quality_steps
        count = bisect.bisect_right(quality_steps, limit_bytes, key=self.bytes_at)
        return quality_steps[count - 1] if count else None

    def best_within(self, limit_bytes: float) -> float | None:
        """The fidelity that is expected under a limit; None when nothing is expected to fit."""
        quality_step = self.highest_within(limit_bytes)
        return None if quality_step is None else self.fidelity_at(quality_step)

    def least_for(self, wanted_fidelity: float) -> int | None:
        """The lowest quality step that is expected to look at least so good."""
        return next(
            (
                quality_step
                for quality_step in self.recipe.quality_steps
                if self.fidelity_at(quality_step) >= wanted_fidelity
            ),
            None,
        )

    def _around(self, quality_step: int) -> tuple[CurvePoint, CurvePoint, float]:
        """The points on either side of a quality step, and how far it lies from the first to the second."""
        quality_steps = [point.quality_step for point in self.points]
        if len(quality_steps) == 1:
            return self.points[0], self.points[0], 0.0
        at = min(max(bisect.bisect_left(quality_steps, quality_step), 1), len(quality_steps) - 1)
        low, high = self.points[at - 1], self.points[at]
        if self.recipe.palette:  # each doubling counts alike
            return (
                low,
                high,
                math.log(quality_step / low.quality_step) / math.log(high.quality_step / low.quality_step),
            )
        return low, high, (quality_step - low.quality_step) / (high.quality_step - low.quality_step)


def curve_of(sample: Sample, recipe: Recipe) -> Curve:
    """The curve of a recipe, right in bytes and in looks."""
    return _careful_curve(sample, recipe, draft=recipe.drafts_look_alike)


def rough_curve_of(sample: Sample, recipe: Recipe) -> Curve:
    """The curve from drafts, where there are any: found quickly, and only its bytes tell."""
    return _careful_curve(sample, recipe, draft=True)


def draft_curve_of(sample: Sample, recipe: Recipe) -> Curve:
    """The curve of the drafts themselves; the recipe must have some."""
    points = tuple(CurvePoint(quality_step, recipe, sample, draft=True) for quality_step in recipe.probed)
    return Curve(recipe=recipe, points=points)


def calibrated(curve: Curve, sample: Sample, quality_step: int) -> Curve:
    """The curve with its weight found at ``quality_step``, by one careful file of the sample.

    What is left of the difference is a matter of the picture more than of the quality step.
    """
    data = sample.picture.encoded(curve.recipe.choice_at(quality_step))
    careful_bytes = of_the_whole(len(data), sample, curve.recipe.fixed_bytes)
    return replace(curve, weight=curve.weight * careful_bytes / curve.bytes_at(quality_step))


def patient_curve(plain: Curve, sample: Sample, quality: int) -> Curve:
    """The curve of AVIF with more time for each file; what that saves is found at one ``quality``."""
    recipe = patient_recipe(plain.recipe)
    hasty, patient = (len(sample.picture.encoded(row.choice_at(quality))) for row in (plain.recipe, recipe))
    return replace(plain, recipe=recipe, weight=plain.weight * patient / hasty)


def _careful_curve(sample: Sample, recipe: Recipe, *, draft: bool) -> Curve:
    weights = recipe.draft_weights
    if weights is None or not draft:
        points = tuple(
            CurvePoint(quality_step, recipe, sample, draft=False) for quality_step in recipe.probed
        )
        return Curve(recipe=recipe, points=points)
    by_quality_step = weights.photographs if sample.picture.content_class.photographic else weights.pages
    points = tuple(
        CurvePoint(quality_step, recipe, sample, draft=True, weight=weight)
        for quality_step, weight in zip(recipe.probed, by_quality_step, strict=True)
    )
    return Curve(recipe=recipe, points=points)
