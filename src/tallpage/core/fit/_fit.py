"""The best-looking file of given pixels under a limit, over every recipe of the accepted formats."""

from __future__ import annotations

import functools
from collections.abc import Callable, Iterable, Sequence
from concurrent.futures import Executor, ThreadPoolExecutor
from dataclasses import dataclass, replace

from tallpage.core.fit._advice import Advice
from tallpage.core.fit._curve import Curve, calibrated, curve_of, rough_curve_of
from tallpage.core.fit._fidelity import ACCEPTABLE_FIDELITY
from tallpage.core.fit._forecast import Forecast, forecast, softened_forecast
from tallpage.core.fit._formats import Format
from tallpage.core.fit._making import Candidate, measured, ready_for
from tallpage.core.fit._memory import FitMemory, KnownPicture
from tallpage.core.fit._recipes import LOSSLESS, LOSSY, PALETTE_RECIPES, Choice, Recipe
from tallpage.core.fit._sampling import Sample, sample_of
from tallpage.core.fit._search import search_knob
from tallpage.core.picture import Raster

_MOST_TRIES = 5
"""Full files of a format at most, where it may turn out the best."""
_TRIES_FOR_COMPARISON = 1
_FIRST_TRIES = 2
_CAUTION, _CAUTION_ONCE = 1.0, 1.03
"""Files are aimed a little below the limit, a single one a little more."""
_NEAR_ENOUGH, _COMPARABLE = 0.955, 0.88
"""Shares of the limit from which another file would look hardly better, or tell hardly more."""
_IN_THE_RUNNING = 4.0
"""Points of expected fidelity behind the best within which a format is searched as carefully."""
_WORTH_COMPARING = 15.0
"""And within which one file is made; of the others the curve tells enough."""
_LIGHTEST: dict[Format, float] = {"png": 0.67, "webp": 0.4}
"""As light as these shares of a quickly made PNG a careful lossless file may be."""
_PALETTE_SAVES = 6.0
"""Palettes that leave a picture acceptable make it so many times lighter than lossless at most."""
_FAR_OVER = 1.5
"""How far over the limit a quickly made lossless file must be for no careful one to be made."""
_SOFTENING_GAINS = 4.0
"""Points that a softened file must be ahead: our fidelity likes softness a little more than people do."""
_VERIFIED_AT_MOST = 3
_AT_ONCE = 2
_ALONE_FROM_PIXELS = 8_000_000
"""An encoder holds some 20 bytes a pixel: of large pictures one is encoded at a time."""

ShouldStop = Callable[[], None]


@dataclass(frozen=True, slots=True, kw_only=True)
class FitResult:
    """The chosen file, what else was made, and what would help when the limit is not met.

    ``chosen`` is the best under the limit, or None when nothing fits. ``met`` also needs it to
    look acceptable.
    """

    chosen: Candidate | None
    candidates: tuple[Candidate, ...]
    met: bool
    tries: int
    advice: tuple[Advice, ...] = ()
    curves: tuple[Curve, ...] = ()
    """What the recipes were expected to make at other sizes; none where the same pixels fit."""


def fit_raster(
    raster: Raster,
    *,
    limit_bytes: int,
    formats: Sequence[Format],
    memory: FitMemory | None = None,
    on_first: Callable[[Candidate], None] | None = None,
    should_stop: ShouldStop = lambda: None,
) -> FitResult:
    """The file with the highest fidelity that is never over ``limit_bytes``.

    ``raster`` is read many times: hold it first. A picture with transparency is only flattened
    (over white) when no accepted format keeps it. What was encoded before is looked up in ``memory``;
    ``tries`` of the result counts what was not. ``on_first`` is told of a quickly made
    file that is acceptable, if there is one, long before the best is found.

    Raises:
        FitError: no accepted format can hold a picture of this size.
    """
    memory = memory or FitMemory()
    pixels, usable = ready_for(raster, formats)
    source = KnownPicture(pixels, memory)
    sample = sample_of(source, memory)
    at_once = 1 if pixels.size.pixels >= _ALONE_FROM_PIXELS else _AT_ONCE
    with ThreadPoolExecutor(max_workers=at_once) as pool:
        search = _Search(source, sample, limit_bytes, usable, pool, should_stop)
        if on_first is not None:
            search.try_quickly(on_first)
        search.try_lossless()
        if not search.found:  # nothing can look better than the same pixels
            search.try_lossy()
            search.try_softened()
    found = search.found
    chosen = max(found, key=lambda row: (row.fidelity, -row.byte_count), default=None)
    return FitResult(
        chosen=chosen,
        candidates=tuple(sorted(found, key=lambda row: -row.fidelity)),
        met=chosen is not None and chosen.fidelity >= ACCEPTABLE_FIDELITY,
        tries=source.encodes,
        curves=search.curves,
    )


@dataclass(frozen=True, slots=True)
class _Plan:
    forecast: Forecast
    most_tries: int


class _Search:
    """One search, with what it has found so far."""

    def __init__(
        self,
        source: KnownPicture,
        sample: Sample,
        limit_bytes: int,
        usable: Sequence[Format],
        pool: Executor,
        should_stop: ShouldStop,
    ) -> None:
        self.found: list[Candidate] = []
        self.curves: tuple[Curve, ...] = ()
        self._sample = sample
        self._source = source
        self._limit_bytes = limit_bytes
        self._usable = usable
        self._pool = pool
        self._should_stop = should_stop
        self._likeliest: Forecast | None = None

    def try_quickly(self, on_first: Callable[[Candidate], None]) -> None:
        """A file made in the quickest way there is; it competes with none of the others.

        None is made where lossless files are likely to fit, or where the best comes as soon.
        """
        if len(self._usable) == 1 or self._quick_png <= self._limit_bytes:
            return
        # JPEG comes first among the recipes, and is the quickest.
        recipe = next(
            (row for row in LOSSY if row.format in self._usable and row.draft_weight is not None), None
        )
        if recipe is None:
            return
        draft = replace(rough_curve_of(self._sample, recipe), weight=1.0)
        wanted_bytes = float(self._limit_bytes)
        for _ in range(_FIRST_TRIES):
            knob = draft.highest_within(wanted_bytes)
            if knob is None:
                return
            data = self._source.encoded(recipe.choice_at(knob), draft=True)
            if len(data) <= self._limit_bytes:
                first = measured(self._source, recipe, recipe.choice_at(knob), draft=True)
                if first.fidelity >= ACCEPTABLE_FIDELITY:
                    on_first(first)
                return
            wanted_bytes *= self._limit_bytes / len(data) / _CAUTION_ONCE

    def try_lossless(self) -> None:
        """The same pixels, where a quick look does not rule them out."""
        likely = [
            row
            for row in LOSSLESS
            if row.format in self._usable and self._quick_png * _LIGHTEST[row.format] <= self._limit_bytes
        ]
        self._note(self._pool.map(self._same_pixels, likely))

    def try_lossy(self) -> None:
        """The likeliest recipe of each format, in as many files as its chances deserve."""
        recipes = self._recipes()
        self.curves = tuple(curve_of(self._sample, row) for row in recipes)
        # The slowest comes last among the recipes, and starts first.
        expected = [self._pool.submit(self._expected, row) for row in reversed(recipes)]
        plans = _planned([found for future in expected if (found := future.result())])
        self._note(self._pool.map(self._best_of, plans))
        compared = [row for row in plans if row.most_tries < _MOST_TRIES]
        best = max(self.found, key=lambda row: row.fidelity, default=None)
        # What was only tried for comparison may fit all the same, or turn out the best.
        again = [row for row in compared if best is None or best.recipe == row.forecast.recipe.name]
        self._note(self._pool.map(self._best_of, [_Plan(row.forecast, _MOST_TRIES) for row in again]))
        self._likeliest = plans[0].forecast if plans else None

    def try_softened(self) -> None:
        """Where nothing acceptable fits, the likeliest format again from slightly softened pixels."""
        best = max((row.fidelity for row in self.found), default=0.0)
        if best >= ACCEPTABLE_FIDELITY or self._likeliest is None:
            return
        found = softened_forecast(self._likeliest, self._source, self._sample, self._limit_bytes)
        # Foretold against foretold: a sample errs alike for both.
        if found is None or found.looks < self._likeliest.looks + _SOFTENING_GAINS:
            return
        candidate = self._best_of(_Plan(found, _MOST_TRIES))
        if candidate is not None and candidate.fidelity >= best + _SOFTENING_GAINS:
            self.found.append(candidate)

    @functools.cached_property
    def _quick_png(self) -> float:
        """About how heavy the same pixels would be as PNG."""
        return self._quickly(Choice(format="png"))

    def _recipes(self) -> list[Recipe]:
        """The lossy recipes worth a look: palettes where the picture is simple or nothing else is taken."""
        found = [row for row in LOSSY if row.format in self._usable]
        without = [row for row in found if row not in PALETTE_RECIPES]
        if not without or len(without) == len(found):
            return found
        return found if self._quick_png <= _PALETTE_SAVES * self._limit_bytes else without

    def _note(self, made: Iterable[Candidate | None]) -> None:
        self.found += [candidate for candidate in made if candidate]

    def _quickly(self, choice: Choice) -> float:
        """About how heavy a hastily made file would be."""
        return len(self._sample.picture.encoded(choice, draft=True)) / self._sample.share

    def _expected(self, recipe: Recipe) -> Forecast | None:
        self._should_stop()
        return forecast(self._source, self._sample, recipe, self._limit_bytes)

    def _same_pixels(self, recipe: Recipe) -> Candidate | None:
        """The lossless file of a recipe, if it fits."""
        self._should_stop()
        choice = recipe.choice_at(0)
        if recipe.format == "webp" and self._quickly(choice) > _FAR_OVER * self._limit_bytes:
            return None
        fits = len(self._source.encoded(choice)) <= self._limit_bytes
        return measured(self._source, recipe, choice) if fits else None

    def _best_of(self, plan: _Plan) -> Candidate | None:
        """The best fitting file of one recipe."""
        self._should_stop()
        curve = plan.forecast.curve
        caution = _CAUTION if plan.most_tries == _MOST_TRIES else _CAUTION_ONCE

        def size_at(knob: int) -> int:
            self._should_stop()
            return len(self._source.encoded(curve.recipe.choice_at(knob)))

        outcome = search_knob(
            size_at,
            curve.recipe.knobs,
            self._limit_bytes,
            estimate=lambda knob: curve.bytes_at(knob) * caution,
            most_tries=plan.most_tries,
            near_enough=_NEAR_ENOUGH if plan.most_tries == _MOST_TRIES else _COMPARABLE,
        )
        return (
            None
            if outcome.knob is None
            else measured(self._source, curve.recipe, curve.recipe.choice_at(outcome.knob))
        )


def _planned(forecasts: Iterable[Forecast]) -> list[_Plan]:
    """Which recipe of each format is made in full, and how many files it may take; the best first."""
    best: dict[Format, Forecast] = {}
    for found in forecasts:
        known = best.get(found.recipe.format)
        if known is None or found.looks > known.looks:
            best[found.recipe.format] = found
    ranked = sorted(best.values(), key=lambda row: -row.looks)
    plans = []
    for found in ranked:
        behind = ranked[0].looks - found.looks
        if behind <= _WORTH_COMPARING:
            tries = _MOST_TRIES if behind <= _IN_THE_RUNNING else _TRIES_FOR_COMPARISON
            plans.append(_Plan(found, tries))
    return plans


def least_acceptable(
    raster: Raster,
    formats: Sequence[Format],
    memory: FitMemory,
    *,
    should_stop: ShouldStop = lambda: None,
) -> Candidate | None:
    """About the smallest file that still looks acceptable, whatever any limit says.

    Which recipe and knob that is is found on a sample; the file is then really made.
    """
    pixels, usable = ready_for(raster, formats)
    source = KnownPicture(pixels, memory)
    sample = sample_of(source, memory)
    predicted: list[tuple[float, Recipe, int]] = []
    for recipe in LOSSY:
        if recipe.format not in usable:
            continue
        should_stop()
        curve = curve_of(sample, recipe)
        knob = curve.least_for(ACCEPTABLE_FIDELITY)
        if knob is not None:
            curve = calibrated(curve, sample, knob)
            predicted.append((curve.bytes_at(knob), recipe, recipe.knobs.index(knob)))
    for _, recipe, position in sorted(predicted, key=lambda row: row[0]):
        for knob in recipe.knobs[position :: max(1, len(recipe.knobs) // 12)][:_VERIFIED_AT_MOST]:
            should_stop()
            candidate = measured(source, recipe, recipe.choice_at(knob))
            if candidate.fidelity >= ACCEPTABLE_FIDELITY:
                return candidate
    return None
