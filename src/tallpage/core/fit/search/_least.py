"""About the smallest file of given pixels that still looks acceptable."""

from __future__ import annotations

from collections.abc import Sequence

from tallpage.core.fit.encoding._cached_encoder import CachedEncoder
from tallpage.core.fit.encoding._candidates import Candidate, measured, ready_for
from tallpage.core.fit.encoding._formats import Format
from tallpage.core.fit.encoding._memory import FitMemory
from tallpage.core.fit.encoding._recipes import JPEG_FULL_COLOUR, LOSSY, Recipe
from tallpage.core.fit.judging._fidelity import ACCEPTABLE_FIDELITY
from tallpage.core.fit.prediction._curve import calibrated, curve_of
from tallpage.core.fit.search._best import ShouldStop
from tallpage.core.picture import Raster

_VERIFIED_AT_MOST = 3


def least_acceptable(
    raster: Raster,
    formats: Sequence[Format],
    memory: FitMemory,
    *,
    should_stop: ShouldStop = lambda: None,
) -> Candidate | None:
    """About the smallest file that still looks acceptable, whatever any limit says.

    Which recipe and quality step that is is found on a sample; the file is then really made.
    """
    pixels, usable = ready_for(raster, formats)
    source = CachedEncoder(pixels, memory)
    sample = source.sample()
    predicted: list[tuple[float, Recipe, int]] = []
    for recipe in LOSSY:
        # Under limits as tight as that, the search makes no such file of photographs either.
        if recipe.format not in usable or (source.content_class.photographic and recipe is JPEG_FULL_COLOUR):
            continue
        should_stop()
        curve = curve_of(sample, recipe)
        quality_step = curve.least_for(ACCEPTABLE_FIDELITY)
        if quality_step is not None:
            curve = calibrated(curve, sample, quality_step)
            predicted.append((curve.bytes_at(quality_step), recipe, recipe.quality_steps.index(quality_step)))
    for _, recipe, position in sorted(predicted, key=lambda row: row[0]):
        for quality_step in recipe.quality_steps[position :: max(1, len(recipe.quality_steps) // 12)][
            :_VERIFIED_AT_MOST
        ]:
            should_stop()
            candidate = measured(source, recipe, recipe.choice_at(quality_step))
            if candidate.fidelity >= ACCEPTABLE_FIDELITY:
                return candidate
    return None
