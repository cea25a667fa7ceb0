"""How far our choice is from the best that any recipe could have made, by ssimulacra2.

Of every recipe of every format the highest quality_step that fits is found by bisection, and its neighbours
above are tried as well, since bytes do not always rise; the two highest that fit are judged. WebP is
made with the settings of pages and with those of photographs, AVIF of pictures that are not large with more
time as well.
"""

from __future__ import annotations

import statistics
from collections.abc import Iterator
from dataclasses import replace

import numpy as np

from bench import kinds
from bench.fit import FORMATS, judged
from bench.pictures import Job, held_out, jobs
from tallpage.core.fit import fit_raster
from tallpage.core.fit.encoding._candidates import formats_that_hold
from tallpage.core.fit.encoding._recipes import (
    RECIPES,
    ContentClass,
    Recipe,
    encode,
    finer_palette,
    patient_recipe,
)
from tallpage.core.fit.judging._content import content_class_of
from tallpage.core.picture import Raster

_NEIGHBOURS = 3
_JUDGED = 2
_PATIENT_UP_TO_PIXELS = 1_500_000


def ways(raster: Raster) -> Iterator[tuple[str, Recipe, ContentClass]]:
    """Everything that could be tried."""
    content_class = content_class_of(raster.size, raster)
    usable = formats_that_hold(raster.size, FORMATS["all"], transparent=not raster.is_opaque)
    for recipe in RECIPES:
        if recipe.format not in usable:
            continue
        finer = recipe.name == "PNG, palette" and not content_class.photographic
        yield recipe.name, finer_palette(recipe) if finer else recipe, content_class
        if recipe.name == "AVIF" and raster.size.pixels <= _PATIENT_UP_TO_PIXELS:
            yield "AVIF, patient", patient_recipe(recipe), content_class
        if recipe.name == "WebP":
            yield (
                "WebP, the other way",
                recipe,
                replace(content_class, photographic=not content_class.photographic),
            )


def best_of(recipe: Recipe, content_class: ContentClass, raster: Raster, limit_bytes: int) -> float:
    """The best score among a recipe's files under the limit; -100 when none fits."""
    quality_steps = recipe.quality_steps or (0,)
    files: dict[int, bytes] = {}

    def fits(position: int) -> bool:
        if position not in files:
            files[position] = encode(raster, recipe.choice_at(quality_steps[position]), content_class)
        return len(files[position]) <= limit_bytes

    low, high = -1, len(quality_steps)
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if fits(middle) else (low, middle)
    for position in range(high, min(high + _NEIGHBOURS, len(quality_steps))):
        fits(position)
    fitting = sorted(position for position in files if fits(position))[-_JUDGED:]
    return max((judged(raster, files[position]) for position in fitting), default=-100.0)


def behind(job: Job) -> float:
    """Points that ours is behind the best of all recipes."""
    whole = Raster.from_rows(np.asarray(job.picture))
    raster = whole.resized(whole.size.at_width(job.width_px)).held()
    result = fit_raster(raster, limit_bytes=job.limit_bytes, formats=FORMATS["all"])
    ours = judged(raster, result.chosen.data) if result.chosen else -100.0
    scores = {
        name: best_of(recipe, content_class, raster, job.limit_bytes)
        for name, recipe, content_class in ways(raster)
    }
    best = max(scores, key=lambda name: scores[name])
    chosen = result.chosen.recipe if result.chosen else "none"
    print(
        f"{job.name:28} ours {ours:6.1f} {chosen:20} best {scores[best]:6.1f} {best:20} "
        f"behind {scores[best] - ours:5.1f}",
        flush=True,
    )
    return scores[best] - ours


def main() -> None:
    """Measure and print a row a job, then how many are within 2 points."""
    for name, rows in (("kinds", kinds.jobs()), ("tuned on", jobs()), ("held out", held_out())):
        gaps = [behind(job) for job in rows]
        within = sum(gap <= 2 for gap in gaps)
        print(
            f"{name}: {within} of {len(gaps)} within 2 points; "
            f"mean {statistics.mean(gaps):.1f} behind, most {max(gaps):.1f}"
        )


if __name__ == "__main__":
    main()
