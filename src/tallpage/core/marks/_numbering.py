"""The numbers of badges, which follow from their order."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

from tallpage.core.marks._kinds import Badge, Mark


@dataclass(frozen=True, slots=True, kw_only=True)
class NumberedBadge:
    """A badge, where it stands among the marks, and what is written in it."""

    position: int
    sequence: int
    label: str
    caption: str


def numbered_badges(marks: Sequence[Mark]) -> list[NumberedBadge]:
    """The badges with their labels: each sequence counts from 1 (or A) in the order of the marks."""
    counted: Counter[int] = Counter()
    found = []
    for position, mark in enumerate(marks):
        if isinstance(mark, Badge):
            counted[mark.sequence] += 1
            number = counted[mark.sequence]
            found.append(
                NumberedBadge(
                    position=position,
                    sequence=mark.sequence,
                    label=_letters(number) if mark.letters else str(number),
                    caption=mark.caption,
                )
            )
    return found


def captions_of(marks: Sequence[Mark]) -> str:
    """The captions as lines of plain text, in the order of the marks; badges without one are left out."""
    return "".join(f"{row.label}. {row.caption}\n" for row in numbered_badges(marks) if row.caption)


def _letters(number: int) -> str:
    """1 is A, 26 is Z, 27 is AA."""
    text = ""
    while number:
        number, rest = divmod(number - 1, 26)
        text = chr(ord("A") + rest) + text
    return text
