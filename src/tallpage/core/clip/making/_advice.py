"""What would make a clip's limit work, with its numbers."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tallpage.core.units import format_bytes


@dataclass(frozen=True, slots=True, kw_only=True)
class ClipAdvice:
    """One thing that would help; ``value`` is bytes for a limit, ms for a length."""

    kind: Literal["limit", "length"]
    value: int
    sentence: str


def advise(acceptable_bytes: int, limit_bytes: int, seconds: float) -> tuple[ClipAdvice, ...]:
    """Advice for a clip that takes so many bytes to look acceptable, and lasts so long."""
    if acceptable_bytes <= limit_bytes:
        return ()
    length_ms = round(seconds * 1_000 * limit_bytes / acceptable_bytes)
    return (
        ClipAdvice(
            kind="limit",
            value=acceptable_bytes,
            sentence=f"About {format_bytes(acceptable_bytes)} would do for all {seconds:.1f} s.",
        ),
        ClipAdvice(
            kind="length",
            value=length_ms,
            sentence=f"About {length_ms / 1_000:.1f} s of it would do under {format_bytes(limit_bytes)}.",
        ),
    )
