"""Whether what is handed over is cleared, and who said that it leaves all the same."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any

from django.utils import timezone

from tallpage.core.errors import HandOverError
from tallpage.server.shelf.models import Capture

NOT_CLEARED = "not_cleared"
_NAMED = 3


def not_cleared(captures: Iterable[Capture]) -> list[Capture]:
    """Those of some captures of which somebody is asked first."""
    today = timezone.localdate()
    return [row for row in captures if not row.rights.cleared_on(today)]


def sentence_of(found: list[Capture]) -> str:
    """What is not cleared, the first few by name; empty where there is nothing."""
    if not found:
        return ""
    today = timezone.localdate()
    named = ", ".join(f"“{row.name}” ({row.rights.in_words(today)})" for row in found[:_NAMED])
    more = f" and {len(found) - _NAMED} more" if len(found) > _NAMED else ""
    return f"The rights are not cleared: {named}{more}."


def options_with_rights(
    captures: Iterable[Capture], options: Mapping[str, Any], *, uncleared: bool
) -> dict[str, Any]:
    """The options of an order, noting whether something leaves although it is not cleared.

    Raises:
        HandOverError: something is not, and nobody said that it leaves all the same.
    """
    found = not_cleared(captures)
    if found and not uncleared:
        raise HandOverError(
            sentence_of(found),
            hint="Hand it over all the same, or note first what is known of them.",
            code=NOT_CLEARED,
        )
    return {**options, "uncleared": bool(found)}
