"""Lines of text, laid out: several scripts, and what runs from right to left, too."""

from __future__ import annotations

import unicodedata
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import groupby
from typing import Literal

from bidi import get_display

from tallpage.core.paths import Path, Step
from tallpage.core.text._fonts import Direction, Font, Weight, fonts_of

Align = Literal["left", "centre", "right"]

LINE_HEIGHT_EM = 1.3
_RIGHT_TO_LEFT = ("R", "AL")
_NEVER_SEEN = ("C", "M")
"""First letters of the categories that are nothing by themselves: control characters, marks on letters."""
_SITS_ON_A_LETTER = ("Mn", "Me")
"""Categories of marks that are drawn on the letter before them."""


@dataclass(frozen=True, slots=True, kw_only=True)
class LaidText:
    """Text as outlines; its upper left corner is at 0, 0."""

    path: Path
    width_px: float
    height_px: float
    missing: tuple[str, ...]
    """Characters that no font has. They are left out."""


@dataclass(frozen=True, slots=True)
class _Run:
    """Characters of a line that are drawn by one font in one direction, in the order of the eye."""

    font: Font
    direction: Direction
    text: str


def lay_out(
    text: str, *, size_px: float, weight: Weight = 400, align: Align = "left", width_px: float | None = None
) -> LaidText:
    """Lay text out in lines; with ``width_px``, words that do not fit go to the next line.

    ``size_px`` is that of the font (1 em); lines are 1.3 em apart. Without ``width_px`` the text is as
    wide as its longest line.
    """
    fonts = fonts_of(weight)
    readable, missing = _readable(text, fonts)
    most_em = None if width_px is None else width_px / size_px
    lines = [shaped for line in readable.split("\n") for shaped in _wrapped(line, fonts, most_em)]
    widest_em = max(end_em for _, end_em in lines)
    whole_em = widest_em if most_em is None else most_em
    first = fonts[0]
    to_base_em = (LINE_HEIGHT_EM - first.ascent_em - first.descent_em) / 2 + first.ascent_em
    share = {"left": 0.0, "centre": 0.5, "right": 1.0}[align]
    path = Path.of(
        step
        for number, (outlines, end_em) in enumerate(lines)
        for step in outlines.moved(share * (whole_em - end_em), to_base_em + number * LINE_HEIGHT_EM).steps
    )
    return LaidText(
        path=path.scaled(size_px),
        width_px=whole_em * size_px,
        height_px=len(lines) * LINE_HEIGHT_EM * size_px,
        missing=missing,
    )


def _readable(text: str, fonts: tuple[Font, ...]) -> tuple[str, tuple[str, ...]]:
    """Text without what no font can draw; and what that is, each character once."""
    kept: list[str] = []
    missing: dict[str, None] = {}
    for character in text.replace("\r\n", "\n").replace("\r", "\n").replace("\t", "    "):
        if character == "\n" or any(font.has(character) for font in fonts):
            kept.append(character)
        elif unicodedata.category(character)[0] not in _NEVER_SEEN:
            missing[character] = None
    return "".join(kept), tuple(missing)


def _wrapped(line: str, fonts: tuple[Font, ...], most_em: float | None) -> Iterator[tuple[Path, float]]:
    """A line's outlines and length in em; several where it does not fit."""
    if most_em is None:
        yield _shaped(line, fonts)
        return
    taken = ""
    for word in _words(line):
        if not taken or _shaped((taken + word).rstrip(), fonts)[1] <= most_em:
            taken += word
        else:
            yield _shaped(taken.rstrip(), fonts)
            taken = word.lstrip()
        while len(taken) > 1 and _shaped(taken.rstrip(), fonts)[1] > most_em:
            fits = _fitting(taken, fonts, most_em)
            yield _shaped(taken[:fits], fonts)
            taken = taken[fits:]
    yield _shaped(taken.rstrip(), fonts)


def _words(line: str) -> Iterator[str]:
    """Words, each with the blanks before it."""
    word = ""
    for character in line:
        if character == " " and word.strip():
            yield word
            word = ""
        word += character
    yield word


def _fitting(word: str, fonts: tuple[Font, ...], most_em: float) -> int:
    """How many letters of a word fit; at least one."""
    low, high = 1, len(word)
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if _shaped(word[:middle], fonts)[1] <= most_em else (low, middle)
    return low


def _shaped(line: str, fonts: tuple[Font, ...]) -> tuple[Path, float]:
    steps: list[Step] = []
    x_em = 0.0
    for run in _runs(line, fonts):
        path, length_em = run.font.shaped(run.text, run.direction)
        steps += path.moved(x_em, 0).steps
        x_em += length_em
    return Path.of(steps), x_em


def _runs(line: str, fonts: tuple[Font, ...]) -> Iterator[_Run]:
    """A line in the order in which the eye meets its runs."""
    seen = _classified(get_display(line) if _has_right_to_left(line) else line, fonts)
    for (font, direction), group in groupby(seen, key=lambda row: row[1:]):
        text = "".join(character for character, *_ in group)
        # Letters from right to left are shaped in the order in which they are read.
        yield _Run(font, direction, text if direction == "ltr" else text[::-1])


def _classified(line: str, fonts: tuple[Font, ...]) -> list[tuple[str, Font, Direction]]:
    """Each character with its font and direction; what sits on a letter goes with that letter."""
    found: list[tuple[str, Font, Direction]] = []
    for at, character in enumerate(line):
        sits = unicodedata.category(character) in _SITS_ON_A_LETTER
        # Where a line runs from right to left, what sits on a letter is met before it.
        around = line[max(0, at - 1) : at + 2] if sits else character
        font = found[-1][1] if sits and found and found[-1][1].has(character) else None
        found.append(
            (
                character,
                font or next(row for row in fonts if row.has(character)),
                "rtl" if _has_right_to_left(around) else "ltr",
            )
        )
    return found


def _has_right_to_left(text: str) -> bool:
    return any(unicodedata.bidirectional(character) in _RIGHT_TO_LEFT for character in text)
