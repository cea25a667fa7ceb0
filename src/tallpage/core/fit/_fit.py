"""The best-looking file of given pixels under a limit, over every recipe of the accepted formats."""

from __future__ import annotations

import math
import threading
from collections import Counter
from collections.abc import Callable, Iterable, Sequence
from concurrent.futures import Executor, ThreadPoolExecutor
from dataclasses import dataclass, replace

from tallpage.core.fit._advice import Advice
from tallpage.core.fit._curve import Curve, curve_of, draft_curve_of
from tallpage.core.fit._fidelity import ACCEPTABLE_FIDELITY
from tallpage.core.fit._forecast import Forecast, forecast, softened_forecast
from tallpage.core.fit._formats import Format
from tallpage.core.fit._known import KnownPicture, Sample
from tallpage.core.fit._making import Candidate, measured, ready_for
from tallpage.core.fit._memory import FitMemory
from tallpage.core.fit._recipes import JPEG_FULL_COLOUR, LOSSLESS, LOSSY, PALETTE_RECIPES, Choice, Recipe
from tallpage.core.fit._search import search_knob
from tallpage.core.fit._watching import NOTHING_FITS, FitWatch
from tallpage.core.once import once
from tallpage.core.picture import Raster

_MOST_TRIES = 5
"""Full files of a format at most, whatever is tried with it."""
_TRIES_FOR_COMPARISON = 1
_FIRST_TRIES = 3
_CAUTION_ONCE = 1.03
"""Single files are aimed a little below the limit."""
_NEAR_ENOUGH, _NEAR_ENOUGH_WHEN_SLOW, _COMPARABLE = 0.955, 0.94, 0.88
"""Shares of the limit from which another file would look hardly better, or tell hardly more."""
LEAST_NEAR_ENOUGH = min(_NEAR_ENOUGH, _NEAR_ENOUGH_WHEN_SLOW)
_IN_THE_RUNNING = 4.0
"""Points of expected fidelity behind the best within which a format is searched as carefully."""
_WORTH_COMPARING = 15.0
"""And within which one file is made; of the others the curve tells enough."""
_LIGHTEST: dict[Format, float] = {"png": 0.6, "webp": 0.37}
"""As light as these shares of a quickly made PNG a careful lossless file may be."""
_LIGHTER_THAN_LOSSLESS = Choice(format="jpeg", quality=82, subsampled=True)
"""Of photographs, even of smooth shades: what is too heavy so is too heavy losslessly."""
_PALETTE_SAVES = 6.0
"""Palettes that leave a picture acceptable make it so many times lighter than lossless at most."""
_FAR_OVER = 1.5
"""How far over the limit a quickly made lossless file must be for no careful one to be made."""
_SOFTENED_BELOW = 35.0
"""Fidelity from which softening never gained so much."""
_SOFTENING_GAINS = 4.0
"""Points that a softened file must be ahead: our fidelity likes softness a little more than people do."""
_HALVED_BELOW_BITS = 1.25
"""Bits a pixel below which photographs never look better with full colour planes."""
_DEBLOCKED_UP_TO_PIXELS = 2_000_000
"""Larger pictures would take seconds more."""
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
    watch: FitWatch | None = None,
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
    sample = source.sample()
    at_once = 1 if pixels.size.pixels >= _ALONE_FROM_PIXELS else _AT_ONCE
    with ThreadPoolExecutor(max_workers=at_once) as pool:
        search = _Search(source, sample, limit_bytes, usable, pool, at_once, should_stop, watch)
        if watch is not None:
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
        source: KnownPicture,
        sample: Sample,
        limit_bytes: int,
        usable: Sequence[Format],
        pool: Executor,
        at_once: int,
        should_stop: ShouldStop,
        watch: FitWatch | None,
    ) -> None:
        self.found: list[Candidate] = []
        self.curves: tuple[Curve, ...] = ()
        self._sample = sample
        self._source = source
        self._limit_bytes = limit_bytes
        self._usable = usable
        self._pool = pool
        self._at_once = at_once
        self._should_stop = should_stop
        self._tries: Counter[Format] = Counter()
        self._likeliest: Forecast | None = None
        self._watch = watch
        self._telling = threading.Lock()
        self._best_looks = -1.0
        self._expected_looks = ACCEPTABLE_FIDELITY
        self._tries_left = 0

    def try_quickly(self) -> None:
        """A file made in the quickest way there is; it competes with none of the others.

        None is made where lossless files are likely to fit, or where the best comes as soon.
        """
        if len(self._usable) == 1 or self._quick_png <= self._limit_bytes:
            return
        # JPEG comes first among the recipes, and is the quickest.
        recipe = next((row for row in self._recipes if row.draft_weights is not None), None)
        if recipe is None:
            return
        draft = draft_curve_of(self._sample, recipe)
        wanted_bytes = float(self._limit_bytes)
        for _ in range(_FIRST_TRIES):
            knob = draft.highest_within(wanted_bytes)
            if knob is None:
                return
            data = self._source.encoded(recipe.choice_at(knob), draft=True)
            if len(data) <= self._limit_bytes:
                first = measured(self._source, recipe, recipe.choice_at(knob), draft=True)
                if first.fidelity >= ACCEPTABLE_FIDELITY:
                    self._tell_best(first)
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
        self.curves = tuple(curve_of(self._sample, row) for row in self._recipes)
        expected = [self._pool.submit(self._expected, row) for row in self._in_good_order()]
        plans = _planned([found for future in expected if (found := future.result())])
        self._tell_verdict(plans)
        self._tries_left = sum(_TRIES_FOR_COMPARISON if row.for_comparison else _MOST_TRIES for row in plans)
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
        if self._source.nature.photographic or self._source.raster.size.pixels > _DEBLOCKED_UP_TO_PIXELS:
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

    def try_softened(self) -> None:
        """Where nothing fits that comes near, the likeliest format again from slightly softened pixels."""
        best = max((row.fidelity for row in self.found), default=0.0)
        if best >= _SOFTENED_BELOW or self._likeliest is None:
            return
        found = softened_forecast(self._likeliest, self._source, self._sample, self._limit_bytes)
        # Foretold against foretold: a sample errs alike for both.
        if found is None or found.looks < self._likeliest.looks + _SOFTENING_GAINS:
            return
        candidate = self._best_of(_Plan(found), at_once=self._at_once)
        if candidate is not None and candidate.fidelity >= best + _SOFTENING_GAINS:
            self.found.append(candidate)

    @once
    def _quick_png(self) -> float:
        """About how heavy the same pixels would be as PNG; of photographs, only where they may fit so."""
        photographic = self._source.nature.photographic and "jpeg" in self._usable
        if photographic and self._quickly(_LIGHTER_THAN_LOSSLESS) > self._limit_bytes:
            return math.inf
        return self._quickly(Choice(format="png"))

    @property
    def _bits_a_pixel(self) -> float:
        """What the limit leaves for each."""
        return 8 * self._limit_bytes / self._source.raster.size.pixels

    @once
    def _recipes(self) -> list[Recipe]:
        """The lossy recipes worth a look: palettes where the picture is simple or nothing else is taken."""
        found = [row for row in LOSSY if row.format in self._usable]
        if self._source.nature.photographic and self._bits_a_pixel < _HALVED_BELOW_BITS:
            found = [row for row in found if row is not JPEG_FULL_COLOUR]
        without = [row for row in found if row not in PALETTE_RECIPES]
        if not without or len(without) == len(found):
            return found
        return found if self._quick_png <= _PALETTE_SAVES * self._limit_bytes else without

    def _in_good_order(self) -> list[Recipe]:
        """The quickest recipe first, for a verdict; where two work at once, beside the slowest."""
        slowest_last = list(self._recipes)
        return slowest_last if self._at_once == 1 else [*slowest_last[-1:], *slowest_last[:-1]]

    def _tell_best(self, candidate: Candidate) -> None:
        with self._telling:
            if self._watch is not None and candidate.fidelity > self._best_looks:
                self._best_looks = candidate.fidelity
                self._watch.best_so_far(candidate)

    def _tell_expected(self, found: Forecast) -> None:
        """Tell of a forecast that looks acceptable, and better than those before."""
        looks = found.looks
        with self._telling:
            if self._watch is not None and looks > self._expected_looks:
                self._expected_looks = looks
                self._watch.expecting(found.verdict())

    def _tell_verdict(self, plans: Sequence[_Plan]) -> None:
        """Tell that nothing acceptable is expected, once that is known."""
        if self._watch is None:
            return
        if not plans:
            self._watch.expecting(NOTHING_FITS)
        elif plans[0].forecast.looks < ACCEPTABLE_FIDELITY:
            self._watch.expecting(plans[0].forecast.verdict())

    def _tell_trying(self, recipe: Recipe) -> None:
        with self._telling:
            if self._watch is not None:
                self._watch.trying(recipe.name, self._tries_left)
            self._tries_left = max(0, self._tries_left - 1)

    def _note(self, made: Iterable[Candidate | None]) -> None:
        self.found += [candidate for candidate in made if candidate]

    def _quickly(self, choice: Choice) -> float:
        """About how heavy a hastily made file would be."""
        return len(self._sample.picture.encoded(choice, draft=True)) / self._sample.share

    def _expected(self, recipe: Recipe) -> Forecast | None:
        self._should_stop()
        found = forecast(self._source, self._sample, recipe, self._limit_bytes)
        if found is not None and (len(self._recipes) > 1 or self._watch is not None):
            self._tell_expected(found)  # judged here, beside the others, for they will be compared
        return found

    def _make(self, plans: Sequence[_Plan]) -> None:
        """The files of some plans; where there is one only, two of its files at a time."""
        if len(plans) == 1:
            self._note([self._best_of(plans[0], at_once=self._at_once)])
        else:
            self._note(self._pool.map(self._best_of, plans))

    def _same_pixels(self, recipe: Recipe) -> Candidate | None:
        """The lossless file of a recipe, if it fits."""
        self._should_stop()
        choice = recipe.choice_at(0)
        if recipe.format == "webp" and self._quickly(choice) > _FAR_OVER * self._limit_bytes:
            return None
        self._tries[recipe.format] += 1
        self._tell_trying(recipe)
        if len(self._source.encoded(choice)) > self._limit_bytes:
            return None
        made = measured(self._source, recipe, choice)
        self._tell_best(made)
        return made

    def _best_of(self, plan: _Plan, *, at_once: int = 1) -> Candidate | None:
        """The best fitting file of one recipe; only on its own may it make several at once."""
        self._should_stop()
        curve = plan.forecast.curve
        left = _MOST_TRIES - self._tries[curve.recipe.format]
        most_tries = min(left, _TRIES_FOR_COMPARISON) if plan.for_comparison else left
        caution = _CAUTION_ONCE if plan.for_comparison else 1.0
        near_enough = _NEAR_ENOUGH_WHEN_SLOW if curve.recipe.slow else _NEAR_ENOUGH

        def size_at(knob: int) -> int:
            self._should_stop()
            self._tell_trying(curve.recipe)
            return len(self._source.encoded(curve.recipe.choice_at(knob)))

        def sizes_at(knobs: Sequence[int]) -> Sequence[int]:
            return list((map if len(knobs) == 1 else self._pool.map)(size_at, knobs))

        outcome = search_knob(
            sizes_at,
            curve.recipe.knobs,
            self._limit_bytes,
            estimate=lambda knob: curve.bytes_at(knob) * caution,
            most_tries=most_tries,
            at_once=at_once,
            near_enough=_COMPARABLE if plan.for_comparison else near_enough,
        )
        self._tries[curve.recipe.format] += outcome.tries
        if outcome.knob is None:
            return None
        made = measured(self._source, curve.recipe, curve.recipe.choice_at(outcome.knob))
        self._tell_best(made)
        return made


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
