"""What would make a limit work: computed, with its numbers."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tallpage.core.fit._formats import Format

AdviceKind = Literal["width", "limit", "format", "leaves"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Advice:
    """One thing that would help; ``value`` is px for a width, bytes for a limit or a format, else a
    number of leaves."""

    kind: AdviceKind
    value: int
    sentence: str
    format: Format | None = None
    """The format that would do, for the kind of that name."""
