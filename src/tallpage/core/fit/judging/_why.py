"""Why a file was chosen, in one sentence."""

from __future__ import annotations

from tallpage.core.fit._job import FitOrder
from tallpage.core.fit.encoding._formats import FORMATS, Format
from tallpage.core.fit.judging._content import Content
from tallpage.core.fit.search._best import FitResult
from tallpage.core.units import format_bytes

_ALIKE = 1.0


def why(result: FitResult, content: Content, order: FitOrder) -> str:
    """What decided for the chosen file; empty when there is none."""
    chosen = result.chosen
    if chosen is None:
        return ""
    what = f"This cut is {content.in_words()}"
    if order.fidelity is not None and result.met:
        return f"{what}: {_lightest_words(result, order.fidelity)}"
    limit_bytes = order.limit_bytes
    if limit_bytes is None:
        return f"{what}. {chosen.recipe} comes nearest to what is asked for."
    if chosen.fidelity >= 100:
        return f"{what}: {chosen.recipe} keeps every pixel and still stays under {format_bytes(limit_bytes)}."
    others = _others(result, limit_bytes)
    if not others:
        if len({curve.recipe.format for curve in result.curves}) == 1:
            return f"{what}. {_format(chosen.choice.format)} is the one format that is accepted."
        limit = format_bytes(limit_bytes)
        return f"{what}. Of the accepted formats only {_format(chosen.choice.format)} gets under {limit}."
    name, looks = max(others.items(), key=lambda row: row[1])
    ahead = chosen.fidelity - looks
    if ahead < _ALIKE:
        return f"{what}: {chosen.recipe} and {name} look alike at these bytes."
    return f"{what}: {chosen.recipe} looks {ahead:.0f} better at these bytes than the next, {name}."


def _lightest_words(result: FitResult, fidelity: float) -> str:
    """What the next lightest file that looks so good would need."""
    assert result.chosen is not None  # noqa: S101  (only asked where there is a file)
    chosen = result.chosen
    enough = f"for fidelity {fidelity:g}"
    others = [row for row in result.candidates if row.fidelity >= fidelity and row.recipe != chosen.recipe]
    if not others:
        return f"{chosen.recipe} is the lightest that was found {enough}."
    following = min(others, key=lambda row: row.byte_count)
    more = format_bytes(following.byte_count - chosen.byte_count)
    return f"{chosen.recipe} is the lightest {enough}; {following.recipe} needs {more} more."


def _others(result: FitResult, limit_bytes: int) -> dict[str, float]:
    """The best fidelity of each other format under the limit: made, or else expected."""
    if result.chosen is None:
        return {}
    looks: dict[str, float] = {}
    for curve in result.curves:
        expected = curve.best_within(limit_bytes)
        if expected is not None:
            name = _format(curve.recipe.format)
            looks[name] = max(looks.get(name, 0.0), expected)
    for candidate in result.candidates:
        looks[_format(candidate.choice.format)] = candidate.fidelity
    looks.pop(_format(result.chosen.choice.format), None)
    return looks


def _format(name: Format) -> str:
    return FORMATS[name].name
