"""What would make a limit work: computed, with its numbers."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tallpage.core.fit.encoding._formats import Format

AdviceKind = Literal["width", "limit", "format", "leaves", "fold"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Advice:
    """One thing that would help; ``value`` is px for a width, bytes for a limit or a format, a number
    of leaves, or the bytes that a fold saves."""

    kind: AdviceKind
    value: int
    sentence: str
    format: Format | None = None
    """The format that would do, for the kind of that name."""
    rows_px: tuple[int, int] | None = None
    """First row and number of rows to fold away, in px of the file."""
