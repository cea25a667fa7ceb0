"""The best-looking file of given pixels under a limit, over every recipe of the accepted formats."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable, Sequence
from concurrent.futures import Executor, ThreadPoolExecutor
from dataclasses import dataclass, replace

from tallpage.core.fit._watching import NOTHING_FITS, FitWatch
from tallpage.core.fit.advice._pieces import Advice
from tallpage.core.fit.encoding._cached_encoder import CachedEncoder, Sample
from tallpage.core.fit.encoding._candidates import Candidate, measured, ready_for
from tallpage.core.fit.encoding._formats import Format
from tallpage.core.fit.encoding._memory import FitMemory
from tallpage.core.fit.encoding._recipes import Recipe
from tallpage.core.fit.judging._fidelity import ACCEPTABLE_FIDELITY
from tallpage.core.fit.prediction._curve import Curve, curve_of, draft_curve_of, patient_curve, rough_curve_of
from tallpage.core.fit.prediction._forecast import Forecast, forecast, softened_forecast
from tallpage.core.fit.prediction._options import Options
from tallpage.core.fit.search._highest_step import search_quality_step
from tallpage.core.fit.search._progress import Teller
from tallpage.core.picture import Raster

_MOST_TRIES = 5
"""Full files of a format at most, whatever is tried with it."""
_TRIES_FOR_COMPARISON = 1
_FIRST_TRIES = 3
_FULL_COLOUR_FROM = 40
"""Quality of a JPEG below which halved colour planes leave more for the rest."""
_LIGHTER_STEPS = 2
"""How many quality steps below the expected one the first file is made, so that it surely fits."""
_CAUTION_ONCE = 1.03
"""Single files are aimed a little below the limit."""
_NEAR_ENOUGH, _NEAR_ENOUGH_WHEN_SLOW, _COMPARABLE = 0.955, 0.94, 0.88
"""Shares of the limit from which another file would look hardly better, or tell hardly more."""
_NEAR_ENOUGH_IN_COLOURS = 0.99
"""The same of palettes: more colours look better at once."""
LEAST_NEAR_ENOUGH = min(_NEAR_ENOUGH, _NEAR_ENOUGH_WHEN_SLOW)
_IN_THE_RUNNING = 4.0
"""Points of expected fidelity behind the best within which a format is searched as carefully."""
_WORTH_COMPARING = 15.0
"""And within which one file is made; of the others the curve tells enough."""
_SOFTENED_BELOW = 35.0
"""Fidelity from which softening never gained so much."""
_SOFTENING_GAINS = 4.0
"""Points that a softened file must be ahead: our fidelity likes softness a little more than people do."""
_PATIENT_UP_TO_PIXELS = 1_500_000
"""The limit for a patient AVIF: a larger one takes longer than all files of the other formats together."""
_DEBLOCKED_UP_TO_PIXELS = 2_000_000
"""The limit for trying out the smoothing: larger pictures would take seconds more."""
_AT_ONCE = 2
_HELD_AT_MOST_BYTES = 160_000_000
"""What one encoder may hold for a second to work beside it; of larger pictures one file is made at a time."""
_HELD_A_PIXEL_BYTES = 20
_HELD_A_PIXEL_BY_JPEG_BYTES = 6
"""The coefficients of three planes, two bytes each, which the careful writing of a JPEG needs all at once."""

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
    watch: FitWatch | None = None,
    should_stop: ShouldStop = lambda: None,
) -> FitResult:
    """The file with the highest fidelity that is never over ``limit_bytes``.

    ``raster`` is read many times: hold it first. A picture with transparency is only flattened
    (over white) when no accepted format keeps it. What was encoded before is looked up in ``memory``;
    ``tries`` of the result counts what was not. ``watch`` is told of a quickly made file
    first, long before the best is found.

    Raises:
        FitError: no accepted format can hold a picture of this size.
    """
    memory = memory or FitMemory()
    pixels, usable = ready_for(raster, formats)
    source = CachedEncoder(pixels, memory)
    sample = source.sample()
    options = Options(sample, pixels.size, usable, limit_bytes, whole=source)
    at_once = _files_at_once(pixels.size.pixels, usable)
    teller = Teller(watch or FitWatch())
    with ThreadPoolExecutor(max_workers=at_once) as pool:
        search = _Search(source, sample, options, limit_bytes, pool, at_once, should_stop, teller)
        if watch is not None and len(usable) > 1 and not options.likely_lossless:
            search.try_quickly()
        search.try_lossless()
        if not search.found:  # nothing can look better than the same pixels
            search.try_lossy()
            search.try_deblocked()
            search.try_softened()
    best: dict[str, Candidate] = {}  # what was tried for comparison may have been tried again
    for candidate in search.found:
        known = best.get(candidate.recipe)
        best[candidate.recipe] = max(known, candidate, key=_worth) if known else candidate
    found = list(best.values())
    chosen = max(found, key=_worth, default=None)
    return FitResult(
        chosen=chosen,
        candidates=tuple(sorted(found, key=lambda row: -row.fidelity)),
        met=chosen is not None and chosen.fidelity >= ACCEPTABLE_FIDELITY,
        tries=source.encodes,
        curves=search.curves,
    )


def _files_at_once(pixels: int, formats: Sequence[Format]) -> int:
    """How many files of a picture are made beside one another, for the memory that its encoders hold."""
    held_bytes = _HELD_A_PIXEL_BY_JPEG_BYTES if set(formats) == {"jpeg"} else _HELD_A_PIXEL_BYTES
    return _AT_ONCE if pixels * held_bytes <= _HELD_AT_MOST_BYTES else 1


def _worth(candidate: Candidate) -> tuple[float, int]:
    """What of two files is chosen: what looks better, else the lighter.

    Where the scale ends at 0, bytes are all that is known of how it looks: then the heavier.
    """
    lighter = -candidate.byte_count if candidate.fidelity > 0 else candidate.byte_count
    return candidate.fidelity, lighter


@dataclass(frozen=True, slots=True)
class _Plan:
    forecast: Forecast
    for_comparison: bool = False
    """Whether one file is enough, and near enough sooner."""


class _Search:
    """One search, with what it has found so far."""

    def __init__(
        self,
        source: CachedEncoder,
        sample: Sample,
        options: Options,
        limit_bytes: int,
        pool: Executor,
        at_once: int,
        should_stop: ShouldStop,
        teller: Teller,
    ) -> None:
        self.found: list[Candidate] = []
        self.curves: tuple[Curve, ...] = ()
        self._sample = sample
        self._source = source
        self._options = options
        self._limit_bytes = limit_bytes
        self._pool = pool
        self._at_once = at_once
        self._should_stop = should_stop
        self._teller = teller
        self._tries: Counter[Format] = Counter()
        self._likeliest: Forecast | None = None

    def try_quickly(self) -> None:
        """A file made in the quickest way there is, to be told of; it competes with none of the others."""
        quick = [row for row in self._options.lossy if row.draft_weights is not None and not row.slow]
        # The quickest come first among the recipes: where they are taken, two kinds of JPEG.
        drafts = [draft_curve_of(self._sample, row) for row in quick[:2]]
        likely = [
            (row, quality_step)
            for row in drafts
            if (quality_step := row.highest_within(self._limit_bytes)) is not None
        ]
        if not likely:
            self._try_lightest(quick)
            return
        draft, quality_step = likely[0] if likely[0][1] >= _FULL_COLOUR_FROM else likely[-1]
        wanted_bytes = float(self._limit_bytes)
        for _ in range(_FIRST_TRIES):
            choice = draft.recipe.choice_at(quality_step)
            data = self._source.encoded(choice, draft=True)
            if len(data) <= self._limit_bytes:
                self._teller.made(measured(self._source, draft.recipe, choice, draft=True))
                return
            wanted_bytes *= self._limit_bytes / len(data) / _CAUTION_ONCE
            lighter = draft.highest_within(wanted_bytes)
            if lighter is None:
                self._try_lightest(quick)
                return
            quality_step = lighter

    def _try_lightest(self, recipes: Sequence[Recipe]) -> None:
        """The careful file of a recipe whose drafts are all too heavy, near its lightest."""
        curves = [rough_curve_of(self._sample, row) for row in recipes[:2]]
        found = _within(curves, self._limit_bytes)
        if not found:
            return
        curve, quality_step = max(found, key=lambda row: row[1])
        choice = curve.recipe.choice_at(max(curve.recipe.quality_steps[0], quality_step - _LIGHTER_STEPS))
        if len(self._source.encoded(choice)) <= self._limit_bytes:
            self._teller.made(measured(self._source, curve.recipe, choice))

    def try_lossless(self) -> None:
        """The same pixels, where a quick look does not rule them out."""
        self._note(self._pool.map(self._same_pixels, self._options.lossless))

    def try_lossy(self) -> None:
        """The likeliest recipe of each format, in as many files as its chances deserve."""
        recipes = self._options.lossy
        self.curves = tuple(curve_of(self._options.sample_for(row), row) for row in recipes)
        expected = [self._pool.submit(self._expected, row) for row in self._slowest_first(recipes)]
        plans = _planned([found for future in expected if (found := future.result())])
        self._teller.expecting(plans[0].forecast.verdict() if plans else NOTHING_FITS)
        self._teller.planned(
            sum(_TRIES_FOR_COMPARISON if row.for_comparison else _MOST_TRIES for row in plans)
        )
        self._make(plans)
        compared = [row for row in plans if row.for_comparison]
        best = max(self.found, key=lambda row: row.fidelity, default=None)
        # What was only tried for comparison may fit all the same, or turn out the best.
        again = [row for row in compared if best is None or best.recipe == row.forecast.recipe.name]
        self._make([_Plan(row.forecast) for row in again])
        self._likeliest = plans[0].forecast if plans else None

    def try_deblocked(self) -> None:
        """The best file again, where it is a WebP of a page, with its smoothing tried out: it is as heavy."""
        best = max(self.found, key=lambda row: row.fidelity, default=None)
        if best is None or best.choice.format != "webp" or self._tries["webp"] >= _MOST_TRIES:
            return
        # Photographs gain half a point by it.
        if (
            self._source.content_class.photographic
            or self._source.raster.size.pixels > _DEBLOCKED_UP_TO_PIXELS
        ):
            return
        self._should_stop()
        self._tries["webp"] += 1
        choice = replace(best.choice, deblocked=True)
        if len(self._source.encoded(choice)) > self._limit_bytes:
            return
        looks = self._source.fidelity(choice)
        if looks > best.fidelity:
            data = self._source.encoded(choice)
            better = replace(best, choice=choice, data=data, byte_count=len(data), fidelity=looks)
            self.found[self.found.index(best)] = better
            self._teller.made(better)

    def try_softened(self) -> None:
        """Where nothing fits that comes near, the likeliest format again from slightly softened pixels."""
        best = max((row.fidelity for row in self.found), default=0.0)
        if best >= _SOFTENED_BELOW or self._likeliest is None:
            return
        found = softened_forecast(self._likeliest, self._sample, self._limit_bytes, whole=self._source)
        # Foretold against foretold: a sample errs alike for both.
        if found is None or found.looks < self._likeliest.looks + _SOFTENING_GAINS:
            return
        candidate = self._best_of(found.curve, at_once=self._at_once)
        if candidate is not None and candidate.fidelity >= best + _SOFTENING_GAINS:
            self.found.append(candidate)

    def _slowest_first(self, recipes: Sequence[Recipe]) -> Sequence[Recipe]:
        """Where two work at once, the slowest recipe, which is the last, beside all of the others."""
        return recipes if self._at_once == 1 else [*recipes[-1:], *recipes[:-1]]

    def _note(self, made: Iterable[Candidate | None]) -> None:
        self.found += [candidate for candidate in made if candidate]

    def _expected(self, recipe: Recipe) -> Forecast | None:
        self._should_stop()
        found = forecast(self._options.sample_for(recipe), recipe, self._limit_bytes, whole=self._source)
        if found is not None and len(self._options.lossy) > 1:
            _ = found.looks  # judged here, beside the others, for they will be compared
        return found

    def _make(self, plans: Sequence[_Plan]) -> None:
        """The files of some plans; where there is one only, two of its files at a time."""
        if len(plans) == 1:
            self._note([self._made_of(plans[0], at_once=self._at_once)])
        else:
            self._note(self._pool.map(self._made_of, plans))

    def _made_of(self, plan: _Plan, at_once: int = 1) -> Candidate | None:
        """The file of a plan."""
        curve = plan.forecast.curve
        if plan.for_comparison:
            compared = replace(curve, weight=curve.weight * _CAUTION_ONCE)
            return self._best_of(compared, most_tries=_TRIES_FOR_COMPARISON, near_enough=_COMPARABLE)
        if curve.recipe.format == "avif" and self._source.raster.size.pixels <= _PATIENT_UP_TO_PIXELS:
            curve = patient_curve(curve, self._sample, plan.forecast.quality_step)
        return self._best_of(curve, at_once=at_once)

    def _same_pixels(self, recipe: Recipe) -> Candidate | None:
        """The lossless file of a recipe, if it fits."""
        self._should_stop()
        choice = recipe.choice_at(0)
        self._tries[recipe.format] += 1
        self._teller.trying(recipe.name)
        if len(self._source.encoded(choice)) > self._limit_bytes:
            return None
        made = measured(self._source, recipe, choice)
        self._teller.made(made)
        return made

    def _best_of(
        self,
        curve: Curve,
        *,
        at_once: int = 1,
        most_tries: int | None = None,
        near_enough: float | None = None,
    ) -> Candidate | None:
        """The best fitting file of one recipe; only on its own may it make several at once.

        Without ``most_tries`` it takes what is left of its format's.
        """
        self._should_stop()
        left = _MOST_TRIES - self._tries[curve.recipe.format]

        def size_at(quality_step: int) -> int:
            self._should_stop()
            self._teller.trying(curve.recipe.name)
            return len(self._source.encoded(curve.recipe.choice_at(quality_step)))

        def sizes_at(quality_steps: Sequence[int]) -> Sequence[int]:
            return list((map if len(quality_steps) == 1 else self._pool.map)(size_at, quality_steps))

        outcome = search_quality_step(
            sizes_at,
            curve.recipe.quality_steps,
            self._limit_bytes,
            estimate=curve.bytes_at,
            most_tries=left if most_tries is None else most_tries,
            at_once=at_once,
            near_enough=near_enough or _near_enough(curve.recipe),
        )
        self._tries[curve.recipe.format] += outcome.tries
        if outcome.quality_step is None:
            return None
        made = measured(self._source, curve.recipe, curve.recipe.choice_at(outcome.quality_step))
        self._teller.made(made)
        return made


def _near_enough(recipe: Recipe) -> float:
    """Share of the limit from which another file of a recipe is not worth its time."""
    if recipe.palette:
        return _NEAR_ENOUGH_IN_COLOURS
    return _NEAR_ENOUGH_WHEN_SLOW if recipe.slow else _NEAR_ENOUGH


def _within(curves: Iterable[Curve], limit_bytes: int) -> list[tuple[Curve, int]]:
    """Those of some curves that have a quality step within a limit, with the highest such quality step."""
    found = [(curve, curve.highest_within(limit_bytes)) for curve in curves]
    return [(curve, quality_step) for curve, quality_step in found if quality_step is not None]


def _planned(forecasts: Iterable[Forecast]) -> list[_Plan]:
    """Which recipe of each format is made in full, and how many files it may take; the best first."""
    best: dict[Format, Forecast] = {}
    for found in forecasts:
        known = best.get(found.recipe.format)
        if known is None or found.looks > known.looks:
            best[found.recipe.format] = found
    if len(best) == 1:
        return [_Plan(found) for found in best.values()]
    ranked = sorted(best.values(), key=lambda row: -row.looks)
    behind = [ranked[0].looks - found.looks for found in ranked]
    return [
        _Plan(found, for_comparison=points > _IN_THE_RUNNING)
        for found, points in zip(ranked, behind, strict=True)
        if points <= _WORTH_COMPARING
    ]
