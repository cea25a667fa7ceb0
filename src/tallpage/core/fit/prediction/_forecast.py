"""What a recipe would make of a picture under a limit, foretold by one careful file of its sample."""

from __future__ import annotations

import math
from dataclasses import replace

from tallpage.core.fit._watching import Verdict
from tallpage.core.fit.encoding._cached_encoder import CachedEncoder, Sample
from tallpage.core.fit.encoding._recipes import Recipe, softened_recipe
from tallpage.core.fit.judging._fidelity import ACCEPTABLE_FIDELITY
from tallpage.core.fit.prediction._curve import Curve, calibrated, rough_curve_of
from tallpage.core.once import once

_HOPELESS = 1.5
"""How far over the limit the lightest file must be expected for a recipe not to be tried at all."""
_UNLIKELY = 50.0
"""Points by which a recipe that is expected to be too heavy ranks behind the others."""
_MORE_LOOKS, _NEAR = 1, 0.15
"""How often a quality step is looked for again, from so far off the limit (as a logarithm): what a file of
the sample looks like says little of one that is a third heavier, least of all near the end of the scale."""
_POINTS_AN_E_FOLD = 25.0
"""Fidelity rises by about so much when bytes grow e-fold: 20 on pages, up to 40 on photographs."""
_SHARE_AN_E_FOLD = 0.8
"""And at most by such a share of what is missing from 100: where little is missing, bytes gain little."""


class Forecast:
    """A recipe, how heavy its files are, and how good its best one under the limit is expected to look."""

    def __init__(self, curve: Curve, sample: Sample, quality_step: int, limit_bytes: int) -> None:
        self.curve = curve
        self.recipe = curve.recipe
        self._sample = sample
        self.quality_step = quality_step
        self._limit_bytes = limit_bytes

    @once
    def looks(self) -> float:
        """Expected fidelity; judging takes as long as encoding, so it is done when it is asked for."""
        fidelity = self._sample.picture.fidelity(self.recipe.choice_at(self.quality_step))
        careful_bytes = self.curve.bytes_at(self.quality_step)
        if self.quality_step == self.recipe.quality_steps[0] and careful_bytes > self._limit_bytes:
            return fidelity - _UNLIKELY
        left = math.log(self._limit_bytes / careful_bytes)
        if self.quality_step == self.recipe.quality_steps[-1]:
            left = min(left, 0.0)  # what the highest leaves free, nothing makes use of
        if self.recipe.draft_weights is not None:
            fidelity += min(_POINTS_AN_E_FOLD, _SHARE_AN_E_FOLD * (100.0 - fidelity)) * left
        return min(fidelity, 100.0)

    def verdict(self) -> Verdict:
        """The forecast as it is told to a person."""
        careful_bytes = round(self.curve.bytes_at(self.quality_step))
        return Verdict(
            recipe=self.recipe.name,
            byte_count=min(careful_bytes, self._limit_bytes),
            fidelity=max(0.0, self.looks),
            met=self.looks >= ACCEPTABLE_FIDELITY,
        )


def forecast(
    sample: Sample, recipe: Recipe, limit_bytes: int, *, whole: CachedEncoder | None
) -> Forecast | None:
    """The forecast of one recipe; None where it is hopeless. It is surer when the ``whole`` is there."""
    return _foretold(rough_curve_of(sample, recipe), sample, limit_bytes, whole)


def softened_forecast(
    plain: Forecast, sample: Sample, limit_bytes: int, *, whole: CachedEncoder
) -> Forecast | None:
    """The forecast of a recipe from slightly softened pixels; None where it is hopeless or there is none."""
    recipe = softened_recipe(plain.recipe)
    return _foretold(replace(plain.curve, recipe=recipe), sample, limit_bytes, whole) if recipe else None


def _foretold(curve: Curve, sample: Sample, limit_bytes: int, whole: CachedEncoder | None) -> Forecast | None:
    recipe = curve.recipe
    quality_step = _quality_step_within(curve, limit_bytes)
    if quality_step is None:
        return None
    heavier = _heavier_by(curve, whole, sample, quality_step) if whole else 1.0
    within_bytes = limit_bytes / heavier
    quality_step = _quality_step_within(curve, within_bytes)
    if quality_step is None:
        return None
    curve = calibrated(curve, sample, quality_step)
    for _ in range(_MORE_LOOKS if whole else 0):
        nearer = _quality_step_within(curve, within_bytes)
        if (
            nearer in (None, quality_step)
            or abs(math.log(within_bytes / curve.bytes_at(quality_step))) < _NEAR
        ):
            break
        quality_step = nearer
        curve = calibrated(curve, sample, quality_step)
    curve = replace(curve, weight=curve.weight * heavier)
    # A forecast can err: what is expected to be only a little too heavy is tried.
    hopeless = (
        quality_step == recipe.quality_steps[0] and curve.bytes_at(quality_step) > _HOPELESS * limit_bytes
    )
    return None if hopeless else Forecast(curve, sample, quality_step, limit_bytes)


def _heavier_by(curve: Curve, whole: CachedEncoder, sample: Sample, quality_step: int) -> float:
    """How many times as heavy the whole is as its sample tells, by a draft of it near ``quality_step``."""
    if curve.recipe.draft_weights is None or sample.share == 1:
        return 1.0
    nearest = min(curve.points, key=lambda point: abs(point.quality_step - quality_step))
    whole_bytes = len(whole.encoded(nearest.choice, draft=True))
    return whole_bytes * nearest.weight / nearest.byte_count


def _quality_step_within(curve: Curve, limit_bytes: float) -> int | None:
    """The highest quality step expected to fit, or the lowest of all where that is not quite hopeless."""
    quality_step = curve.highest_within(limit_bytes)
    if quality_step is not None:
        return quality_step
    lowest = curve.recipe.quality_steps[0]
    return lowest if curve.bytes_at(lowest) <= 2 * _HOPELESS * limit_bytes else None
