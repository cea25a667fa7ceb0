"""What would make a clip's limit work, with its numbers."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tallpage.core.clip._settings import ClipFormat
from tallpage.core.units import format_bytes

OTHER_FORMATS: tuple[ClipFormat, ...] = ("avif", "mp4")
"""What is tried out where a limit cannot be met: what stays a picture first."""
_LEAST_LENGTH_MS = 100
"""Nobody makes a shorter clip."""


@dataclass(frozen=True, slots=True, kw_only=True)
class ClipAdvice:
    """One thing that would help; ``value`` is bytes for a limit or another format, ms for a length."""

    kind: Literal["format", "limit", "length"]
    value: int
    sentence: str


def advise(acceptable_bytes: int, limit_bytes: int, seconds: float) -> tuple[ClipAdvice, ...]:
    """Advice for a clip that takes so many bytes to look acceptable, and lasts so long."""
    if acceptable_bytes <= limit_bytes:
        return ()
    length_ms = round(seconds * 1_000 * limit_bytes / acceptable_bytes)
    more = ClipAdvice(
        kind="limit",
        value=acceptable_bytes,
        sentence=f"About {format_bytes(acceptable_bytes)} would do for all {seconds:.1f} s.",
    )
    if length_ms < _LEAST_LENGTH_MS:
        return (more,)
    shorter = ClipAdvice(
        kind="length",
        value=length_ms,
        sentence=f"About {length_ms / 1_000:.1f} s of it would do under {format_bytes(limit_bytes)}.",
    )
    return (more, shorter)


def advise_format(format_: ClipFormat, byte_count: int) -> ClipAdvice:
    """Advice to make a file of another format, which then takes about so many bytes."""
    return ClipAdvice(
        kind="format",
        value=byte_count,
        sentence=f"As {format_.upper()} all of it would do, with about {format_bytes(byte_count)}.",
    )
