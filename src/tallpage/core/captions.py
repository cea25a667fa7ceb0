"""Captions with fields in braces, which are filled with what is known of a page."""

from __future__ import annotations

import re
from collections.abc import Mapping

CAPTION_FIELDS = ("title", "address", "host", "date", "name")
_FIELD = re.compile(r"\{([^{}]*)\}")


def pattern_problem(text: str) -> str | None:
    """What is wrong with a caption: a field that is not known. None when all of them are."""
    unknown = next((name for name in _FIELD.findall(text) if name not in CAPTION_FIELDS), None)
    if unknown is None:
        return None
    return f"there is no field {{{unknown}}}; known are {{{'} {'.join(CAPTION_FIELDS)}}}."


def filled_pattern(text: str, facts: Mapping[str, str]) -> str:
    """A caption with its fields filled; with nothing where a fact is not known.

    >>> filled_pattern("{title}, {date}", {"title": "Fares", "date": "2026-11-28"})
    'Fares, 2026-11-28'
    """
    return _FIELD.sub(lambda field: facts.get(field[1], ""), text)
