"""The best-looking file of given pixels under a limit, over every recipe of the accepted formats."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from concurrent.futures import Executor, ThreadPoolExecutor
from dataclasses import dataclass

from tallpage.core.fit._advice import Advice
from tallpage.core.fit._curve import Curve, calibrated, curve_of
from tallpage.core.fit._fidelity import ACCEPTABLE_FIDELITY
from tallpage.core.fit._formats import Format
from tallpage.core.fit._making import Candidate, measured, ready_for
from tallpage.core.fit._memory import FitMemory, KnownPicture
from tallpage.core.fit._recipes import LOSSLESS, LOSSY, Choice, Recipe, softened_recipe
from tallpage.core.fit._sampling import Sample, sample_of
from tallpage.core.fit._search import search_knob
from tallpage.core.picture import Raster

_MOST_TRIES = 5
"""Full files of a format at most, where it may turn out the best."""
_TRIES_FOR_COMPARISON = 1
_FIRST_TRIES = 2
_CAUTION = 1.04
"""A single try is aimed a little below the limit."""
_NEAR_ENOUGH, _COMPARABLE = 0.96, 0.88
"""Shares of the limit from which another file would look hardly better, or tell hardly more."""
_IN_THE_RUNNING = 4.0
"""Points of expected fidelity behind the best within which a format is searched as carefully."""
_WORTH_COMPARING = 15.0
"""And within which one file is made; of the others the curve tells enough."""
_LIGHTEST: dict[Format, float] = {"png": 0.67, "webp": 0.4}
"""As light as these shares of a quickly made PNG a careful lossless file may be."""
_UNLIKELY = 50.0
"""Points by which a recipe that is expected to be too heavy ranks behind the others."""
_HOPELESS = 1.5
"""How far over the limit the lightest file must be expected for a recipe not to be tried at all."""
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
        curves: tuple[Curve, ...] = ()
        search.try_lossless()
        if not search.found:  # nothing can look better than the same pixels
            curves = tuple(curve_of(search.sample, row) for row in LOSSY if row.format in usable)
            if on_first is not None:
                search.try_quickly(curves, on_first)
            search.try_lossy(curves)
            search.try_softened(curves)
    found = search.found
    chosen = max(found, key=lambda row: (row.fidelity, -row.byte_count), default=None)
    return FitResult(
        chosen=chosen,
        candidates=tuple(sorted(found, key=lambda row: -row.fidelity)),
        met=chosen is not None and chosen.fidelity >= ACCEPTABLE_FIDELITY,
        tries=source.encodes,
        curves=curves,
    )


@dataclass(frozen=True, slots=True)
class _Plan:
    curve: Curve
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
        self.sample = sample
        self.found: list[Candidate] = []
        self._source = source
        self._limit_bytes = limit_bytes
        self._usable = usable
        self._pool = pool
        self._should_stop = should_stop

    def try_lossless(self) -> None:
        """The same pixels, where a quick look does not rule them out."""
        quick_png = self._quickly(Choice(format="png"))
        likely = [
            row
            for row in LOSSLESS
            if row.format in self._usable and quick_png * _LIGHTEST[row.format] <= self._limit_bytes
        ]
        self._note(self._pool.map(self._same_pixels, likely))

    def try_quickly(self, curves: Sequence[Curve], on_first: Callable[[Candidate], None]) -> None:
        """A file made in the quickest way there is; it competes with none of the others."""
        # JPEG comes first among the recipes, and is the quickest.
        curve = next((row for row in curves if row.recipe.draft_weight is not None), None)
        if curve is None:
            return
        recipe, wanted_bytes = curve.recipe, float(self._limit_bytes)
        draft = Curve(recipe=recipe, points=curve.points)
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
            wanted_bytes *= self._limit_bytes / len(data) / _CAUTION

    def try_lossy(self, curves: Sequence[Curve]) -> None:
        """The likeliest recipe of each format, in as many files as its chances deserve."""
        plans = self._plan(curves)
        self._note(self._pool.map(self._best_of, plans))
        compared = [row for row in plans if row.most_tries < _MOST_TRIES]
        best = max(self.found, key=lambda row: row.fidelity, default=None)
        # What was only tried for comparison may fit all the same, or turn out the best.
        again = [row for row in compared if best is None or best.recipe == row.curve.recipe.name]
        self._note(self._pool.map(self._best_of, [_Plan(row.curve, _MOST_TRIES) for row in again]))

    def try_softened(self, curves: Sequence[Curve]) -> None:
        """Where nothing acceptable fits, the likeliest format again from slightly softened pixels."""
        best = max((row.fidelity for row in self.found), default=0.0)
        if best >= ACCEPTABLE_FIDELITY or not curves:
            return
        likeliest = max(curves, key=lambda row: row.best_within(self._limit_bytes) or 0.0)
        recipe = softened_recipe(likeliest.recipe)
        if recipe is None:
            return
        curve = curve_of(self.sample, recipe)
        if (curve.best_within(self._limit_bytes) or 0.0) < best + _SOFTENING_GAINS:
            return
        candidate = self._best_of(_Plan(curve, _MOST_TRIES))
        if candidate is not None and candidate.fidelity >= best + _SOFTENING_GAINS:
            self.found.append(candidate)

    def _note(self, made: Iterable[Candidate | None]) -> None:
        self.found += [candidate for candidate in made if candidate]

    def _quickly(self, choice: Choice) -> float:
        """About how heavy a hastily made file would be."""
        return len(self.sample.picture.encoded(choice, draft=True)) / self.sample.share

    def _plan(self, curves: Sequence[Curve]) -> list[_Plan]:
        """Which recipe of each format is made in full, and how many files it may take; the best first."""
        best: dict[Format, tuple[float, Curve]] = {}
        for curve, looks in zip(curves, self._pool.map(self._expected, curves), strict=True):
            known = best.get(curve.recipe.format)
            if looks is not None and (known is None or looks > known[0]):
                best[curve.recipe.format] = (looks, curve)
        ranked = sorted(best.values(), key=lambda row: -row[0])
        plans = []
        for looks, curve in ranked:
            behind = ranked[0][0] - looks
            if behind <= _WORTH_COMPARING:
                tries = _MOST_TRIES if behind <= _IN_THE_RUNNING else _TRIES_FOR_COMPARISON
                plans.append(_Plan(calibrated(curve, self.sample, self._limit_bytes), tries))
        return plans

    def _expected(self, curve: Curve) -> float | None:
        """The fidelity expected under the limit; None where a recipe is hopeless."""
        self._should_stop()
        looks = curve.best_within(self._limit_bytes)
        if looks is not None:
            return looks
        # A prediction can err: what is expected to be only a little too heavy is tried.
        lowest = curve.points[0]
        if curve.bytes_at(lowest.knob) > _HOPELESS * self._limit_bytes:
            return None
        return lowest.fidelity - _UNLIKELY

    def _same_pixels(self, recipe: Recipe) -> Candidate | None:
        """The lossless file of a recipe, if it fits."""
        self._should_stop()
        choice = recipe.choice_at(0)
        if recipe.format == "webp" and self._quickly(choice) > _HOPELESS * self._limit_bytes:
            return None
        fits = len(self._source.encoded(choice)) <= self._limit_bytes
        return measured(self._source, recipe, choice) if fits else None

    def _best_of(self, plan: _Plan) -> Candidate | None:
        """The best fitting file of one recipe."""
        recipe = plan.curve.recipe
        caution = _CAUTION if plan.most_tries == _TRIES_FOR_COMPARISON else 1.0

        def size_at(knob: int) -> int:
            self._should_stop()
            return len(self._source.encoded(recipe.choice_at(knob)))

        outcome = search_knob(
            size_at,
            recipe.knobs,
            self._limit_bytes,
            estimate=lambda knob: plan.curve.bytes_at(knob) * caution,
            most_tries=plan.most_tries,
            near_enough=_NEAR_ENOUGH if plan.most_tries == _MOST_TRIES else _COMPARABLE,
        )
        return (
            None if outcome.knob is None else measured(self._source, recipe, recipe.choice_at(outcome.knob))
        )


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
            curve = calibrated(curve, sample, round(curve.bytes_at(knob)) + 1)
            predicted.append((curve.bytes_at(knob), recipe, recipe.knobs.index(knob)))
    for _, recipe, position in sorted(predicted, key=lambda row: row[0]):
        for knob in recipe.knobs[position :: max(1, len(recipe.knobs) // 12)][:_VERIFIED_AT_MOST]:
            should_stop()
            candidate = measured(source, recipe, recipe.choice_at(knob))
            if candidate.fidelity >= ACCEPTABLE_FIDELITY:
                return candidate
    return None
