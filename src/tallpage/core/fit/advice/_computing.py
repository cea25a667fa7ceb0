"""Finding out what would make a limit work. Whatever is advised was tried, or is computed from what was."""

from __future__ import annotations

import math
from collections.abc import Sequence

from tallpage.core.fit._watching import FitWatch
from tallpage.core.fit.advice._pieces import Advice, AdviceKind
from tallpage.core.fit.encoding._candidates import Candidate
from tallpage.core.fit.encoding._formats import ASKED_FOR_ONLY, FORMATS, Format
from tallpage.core.fit.encoding._memory import FitMemory
from tallpage.core.fit.judging._weight import weight_line
from tallpage.core.fit.search._best import LEAST_NEAR_ENOUGH, ShouldStop, fit_raster
from tallpage.core.fit.search._least import least_acceptable
from tallpage.core.picture import Raster
from tallpage.core.units import format_bytes

_LEAST_CHANGE_FIRST: tuple[AdviceKind, ...] = ("format", "leaves", "fold", "width", "limit")
_WIDTH_TRIALS = 8
_LEAST_WIDTH_PX = 16
_CAUTION = 0.97
_MOST_LEAVES = 12
_FOLD_CAUTION = 0.93
"""What is left is heavier than its share of the whole: it has a head and tables of its own."""
_FOLDED_AT_MOST = 0.5
_LEAF_CAUTION = 0.9
"""Leaves end at gaps, not at even heights, so the heaviest comes out a little heavier than computed."""


def advise(
    raster: Raster,
    limit_bytes: int,
    formats: Sequence[Format],
    memory: FitMemory,
    *,
    divisible: bool = True,
    watch: FitWatch,
    should_stop: ShouldStop = lambda: None,
) -> tuple[Advice, ...]:
    """What would meet the limit, the least change first: another format, leaves, a fold, a smaller
    width; and the limit that these pixels need. What is soon known is told soon.

    What is not ``divisible`` gains nothing by leaves or folds.
    """
    found: list[Advice] = []

    def tell(advice: Advice | None) -> None:
        if advice is not None:
            found.append(advice)
            watch.advising(advice)

    watch.trying("how much would be needed", 0)
    least = least_acceptable(raster, formats, memory, should_stop=should_stop)
    if least is not None:
        tell(_limit_that_fits(raster, least))
        if divisible:
            tell(_leaves_that_fit(raster, limit_bytes, least))
            tell(_fold_that_fits(raster, limit_bytes, least))
        watch.trying("a smaller width", 0)
        tell(_width_that_fits(raster, limit_bytes, least, memory, should_stop))
    watch.trying("other formats", 0)
    tell(_format_that_fits(raster, limit_bytes, formats, memory, should_stop))
    return tuple(sorted(found, key=lambda row: _LEAST_CHANGE_FIRST.index(row.kind)))


def _limit_that_fits(raster: Raster, least: Candidate) -> Advice:
    # A search under this limit may end a little below it, and must still find that file.
    needed_bytes = math.ceil(least.byte_count / LEAST_NEAR_ENOUGH)
    return Advice(
        kind="limit",
        value=needed_bytes,
        sentence=f"At {raster.size.width_px:,} px wide, {_name(least)} needs "
        f"{format_bytes(needed_bytes)} to look acceptable.",
    )


def _format_that_fits(
    raster: Raster, limit_bytes: int, formats: Sequence[Format], memory: FitMemory, should_stop: ShouldStop
) -> Advice | None:
    """A format that was not accepted, whose file would look acceptable under the limit."""
    side_px = max(raster.size.width_px, raster.size.height_px)
    others = [
        name
        for name, rules in FORMATS.items()
        if name not in formats and name not in ASKED_FOR_ONLY and side_px <= rules.greatest_side_px
    ]
    if not others:
        return None
    result = fit_raster(
        raster, limit_bytes=limit_bytes, formats=others, memory=memory, should_stop=should_stop
    )
    if not result.met or result.chosen is None:
        return None
    made = result.chosen
    return Advice(
        kind="format",
        value=made.byte_count,
        format=made.choice.format,
        sentence=f"As {_name(made)} it fits: {format_bytes(made.byte_count)}, fidelity {made.fidelity:.0f}.",
    )


def _leaves_that_fit(raster: Raster, limit_bytes: int, least: Candidate) -> Advice | None:
    """Into how many leaves to divide, so that the heaviest meets the limit."""
    line = [band.byte_count for band in weight_line(raster, least.choice, least.byte_count)]
    for count in range(2, min(_MOST_LEAVES, len(line)) + 1):
        edges = [round(place * len(line) / count) for place in range(count + 1)]
        heaviest = max(sum(line[edges[leaf] : edges[leaf + 1]]) for leaf in range(count))
        if heaviest <= _LEAF_CAUTION * limit_bytes:
            return Advice(
                kind="leaves",
                value=count,
                sentence=f"Divided into {count} leaves it fits: the heaviest needs about "
                f"{format_bytes(heaviest)}.",
            )
    return None


def _fold_that_fits(raster: Raster, limit_bytes: int, least: Candidate) -> Advice | None:
    """The shortest stretch whose folding away saves enough; None when most of the picture would go."""
    bands = weight_line(raster, least.choice, least.byte_count)
    spare = least.byte_count - _FOLD_CAUTION * limit_bytes
    for count in range(1, int(len(bands) * _FOLDED_AT_MOST) + 1):
        runs = [bands[first : first + count] for first in range(len(bands) - count + 1)]
        costliest = max(runs, key=lambda run: sum(band.byte_count for band in run))
        saved = sum(band.byte_count for band in costliest)
        if saved < spare:
            continue
        top_px = costliest[0].top_px
        height_px = sum(band.height_px for band in costliest)
        return Advice(
            kind="fold",
            value=saved,
            rows_px=(top_px, height_px),
            sentence=f"With its costliest {height_px:,} px folded away it fits: "
            f"they take {format_bytes(saved)}.",
        )
    return None


def _width_that_fits(
    raster: Raster, limit_bytes: int, least: Candidate, memory: FitMemory, should_stop: ShouldStop
) -> Advice | None:
    """A large width whose real file meets the limit; bytes shrink about with the area."""
    width_px = raster.size.width_px
    needed = least.byte_count
    for _ in range(_WIDTH_TRIALS):
        width_px = int(width_px * min(0.95, _CAUTION * math.sqrt(limit_bytes / needed)))
        if width_px < _LEAST_WIDTH_PX:
            return None
        should_stop()
        smaller = raster.resized(raster.size.at_width(width_px)).held()
        made = least_acceptable(smaller, [least.choice.format], memory, should_stop=should_stop)
        if made is None:  # not found just here: a little smaller it may be
            needed = limit_bytes
            continue
        if made.byte_count <= limit_bytes:
            result = fit_raster(
                smaller, limit_bytes=limit_bytes, formats=[least.choice.format], memory=memory
            )
            best = result.chosen or made
            return Advice(
                kind="width",
                value=width_px,
                sentence=f"At {width_px:,} px wide it fits: {format_bytes(best.byte_count)} as "
                f"{_name(best)}, fidelity {best.fidelity:.0f}.",
            )
        needed = made.byte_count
    return None


def _name(made: Candidate) -> str:
    return FORMATS[made.choice.format].name
