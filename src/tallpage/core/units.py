"""Byte counts and colours as people write and read them. 1 kB = 1,000 bytes; 1 KiB = 1,024."""

from __future__ import annotations

import re

from tallpage.core.errors import FitError

_UNITS = {"": 1, "b": 1, "kb": 1_000, "mb": 1_000_000, "kib": 1_024, "mib": 1_048_576}
_COLOUR = re.compile(r"#?([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})", re.IGNORECASE)
_AMOUNT = re.compile(r"\s*(\d+(?:\.\d+)?)\s*([a-z]*)\s*", re.IGNORECASE)


def parse_byte_count(text: str) -> int:
    """Whole bytes of ``90kB``, ``1.5 MB``, ``64KiB`` or ``90000``; fractions are dropped.

    Dropping keeps a limit a limit: the result never exceeds what was written.

    Raises:
        FitError: when the text is not an amount, the unit is unknown, or the amount is below 1 byte.
    """
    match = _AMOUNT.fullmatch(text)
    unit = _UNITS.get(match[2].lower()) if match else None
    if match is None or unit is None:
        raise FitError(
            f"“{text}” is not a size in bytes.",
            hint="Write it like 90kB, 64KiB or 90000.",
            code="limit_malformed",
        )
    count = int(float(match[1]) * unit)
    if count < 1:
        raise FitError("A limit is at least 1 byte.", hint="Write it like 90kB.", code="limit_malformed")
    return count


def format_bytes(count: int) -> str:
    """``850 B``, ``86.4 kB``, ``1.25 MB``."""
    if count < 1_000:
        return f"{count} B"
    if count < 999_950:
        return f"{count / 1_000:.1f} kB"
    return f"{count / 1_000_000:.2f} MB"


def parse_colour(text: str) -> tuple[int, int, int]:
    """Red, green, blue (0–255) of ``#1f5a6b``.

    Raises:
        FitError: it is not written so.
    """
    match = _COLOUR.fullmatch(text.strip())
    if match is None:
        raise FitError(f"“{text}” is not a colour.", hint="Write it like #ffffff.", code="colour_malformed")
    red, green, blue = (int(part, 16) for part in match.groups())
    return red, green, blue
