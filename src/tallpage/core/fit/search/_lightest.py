"""The lightest file that looks at least so good: found on a sample, then really made and judged."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from tallpage.core.fit._watching import FitWatch, Verdict
from tallpage.core.fit.encoding._cached_encoder import CachedEncoder
from tallpage.core.fit.encoding._candidates import Candidate, measured, ready_for
from tallpage.core.fit.encoding._formats import Format
from tallpage.core.fit.encoding._memory import FitMemory
from tallpage.core.fit.encoding._recipes import LOSSLESS
from tallpage.core.fit.prediction._curve import Curve, calibrated, curve_of
from tallpage.core.fit.prediction._options import Options
from tallpage.core.fit.search._best import FitResult, ShouldStop
from tallpage.core.fit.search._progress import Teller
from tallpage.core.picture import Raster

_MOST_TRIES = 5
_CLOSE_ENOUGH = 0.6
"""Points above what is wanted from which a lighter file would save hardly anything."""
_WORTH_MAKING = 1.25
"""How many times the bytes of the lightest that is expected another recipe may be expected to need."""
_NO_LIMIT_BYTES = 2**40


@dataclass(frozen=True, slots=True)
class _Plan:
    """A recipe, about how heavy its lightest good enough file will be, and at which quality step."""

    curve: Curve
    position: int
    expected_bytes: float


def lightest(
    raster: Raster,
    *,
    fidelity: float,
    formats: Sequence[Format],
    memory: FitMemory | None = None,
    watch: FitWatch | None = None,
    should_stop: ShouldStop = lambda: None,
) -> FitResult:
    """The file with the fewest bytes that has at least ``fidelity``; the best-looking where none has.

    Whatever was predicted, only files that were made and judged count. ``met`` says whether it has.

    Raises:
        FitError: no accepted format can hold a picture of this size.
    """
    memory = memory or FitMemory()
    teller = Teller(watch or FitWatch())
    pixels, usable = ready_for(raster, formats)
    source = CachedEncoder(pixels, memory)
    options = Options(source.sample(), pixels.size, usable, _NO_LIMIT_BYTES, whole=source)
    plans = _plans(options, fidelity, should_stop)
    if plans:
        teller.expecting(_verdict(plans[0], fidelity))
        teller.planned(_MOST_TRIES * len(plans))
    found: list[Candidate] = []
    good: list[Candidate] = []
    for plan in plans:
        lightest_bytes = min((row.byte_count for row in good), default=math.inf)
        if plan.expected_bytes > _WORTH_MAKING * min(lightest_bytes, plans[0].expected_bytes):
            break
        for made in _made(source, plan, fidelity, teller, should_stop):
            found.append(made)
            if made.fidelity >= fidelity:
                good.append(made)
    for recipe in LOSSLESS:
        lightest_bytes = min((row.byte_count for row in good), default=math.inf)
        if recipe.format in usable and options.exact_bytes(recipe) < lightest_bytes:
            should_stop()
            teller.trying(recipe.name)
            good.append(measured(source, recipe, recipe.choice_at(0)))
    best = _best_of_each([*found, *good], fidelity)
    chosen = next(iter(best), None)
    return FitResult(
        chosen=chosen,
        candidates=best,
        met=bool(good),
        tries=source.encodes,
        curves=tuple(plan.curve for plan in plans if plan.curve.recipe.quality_steps),
    )


def search_lowest(
    looks_at: Callable[[int], float],
    count: int,
    start: int,
    wanted: float,
    *,
    estimate: Callable[[int], float],
    most_tries: int = _MOST_TRIES,
) -> int | None:
    """The lowest of ``count`` positions that was seen to look at least as good as ``wanted``, or None.

    ``estimate`` tells about how good a position looks; each real look corrects it. Ends without proof
    where a lower position would save hardly anything. Pure: looks come from a callback.
    """
    fails, passes, off = -1, count, 0.0
    position = start
    for _ in range(most_tries):
        looks = looks_at(position)
        off = looks - estimate(position)
        if looks >= wanted:
            passes = position
            if looks < wanted + _CLOSE_ENOUGH:
                break
        else:
            fails = position
        if passes - fails <= 1:
            break
        between = range(fails + 1, passes)
        likely = next((at for at in between if estimate(at) + off >= wanted), between[-1])
        # An estimate that points at the same edge again and again is halved against.
        position = likely if likely != position else (fails + passes) // 2
    return passes if passes < count else None


def _plans(options: Options, fidelity: float, should_stop: ShouldStop) -> list[_Plan]:
    """What each recipe is expected to need, the lightest first."""
    found: list[_Plan] = []
    for recipe in options.lossy:
        should_stop()
        sample = options.sample_for(recipe)
        curve = curve_of(sample, recipe)
        quality_step = curve.least_for(fidelity)
        if quality_step is None:
            continue
        curve = calibrated(curve, sample, quality_step)
        found.append(_Plan(curve, recipe.quality_steps.index(quality_step), curve.bytes_at(quality_step)))
    return sorted(found, key=lambda row: row.expected_bytes)


def _best_of_each(made: Sequence[Candidate], fidelity: float) -> tuple[Candidate, ...]:
    """The best file of each recipe, the best of all first: the lightest of those that look good enough, and
    where none does, the best-looking."""

    def worth(row: Candidate) -> tuple[bool, float]:
        good = row.fidelity >= fidelity
        return good, -row.byte_count if good else row.fidelity

    best: dict[str, Candidate] = {}
    for row in sorted(made, key=worth):
        best[row.recipe] = row
    return tuple(sorted(best.values(), key=worth, reverse=True))


def _verdict(plan: _Plan, fidelity: float) -> Verdict:
    return Verdict(
        recipe=plan.curve.recipe.name, byte_count=round(plan.expected_bytes), fidelity=fidelity, met=True
    )


def _made(
    source: CachedEncoder, plan: _Plan, fidelity: float, teller: Teller, should_stop: ShouldStop
) -> list[Candidate]:
    """The files of one recipe that were made on the way to its lightest good enough one."""
    recipe = plan.curve.recipe
    made: dict[int, Candidate] = {}

    def looks_at(position: int) -> float:
        should_stop()
        teller.trying(recipe.name)
        made[position] = measured(source, recipe, recipe.choice_at(recipe.quality_steps[position]))
        return made[position].fidelity

    search_lowest(
        looks_at,
        len(recipe.quality_steps),
        plan.position,
        fidelity,
        estimate=lambda position: plan.curve.fidelity_at(recipe.quality_steps[position]),
    )
    return list(made.values())
