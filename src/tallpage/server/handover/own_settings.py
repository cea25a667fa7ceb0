"""Settings of what leaves: how files are called, and how long documents stay."""

from __future__ import annotations

from typing import Annotated

from pydantic import AfterValidator, StringConstraints, TypeAdapter

from tallpage.core.file_names import Pattern
from tallpage.server.preferences.catalogue import register_setting
from tallpage.server.preferences.kinds import line, number
from tallpage.server.preferences.values import value_of

_MOST_PATTERN_CHARS = 300
DOCUMENTS_KEPT_DAYS = 7


def register() -> None:
    """Have them known."""
    register_setting(
        line(
            "files.pattern",
            "Files",
            "Names of files",
            "Files that are handed over are called by this pattern unless another is written there; "
            "left empty, by page, host, date and size.",
            usual=lambda: "",
            most_chars=_MOST_PATTERN_CHARS,
            check=TypeAdapter(
                Annotated[
                    str,
                    StringConstraints(strip_whitespace=True, max_length=_MOST_PATTERN_CHARS),
                    AfterValidator(_pattern),
                ]
            ),
            variable="TALLPAGE_NAMES",
        )
    )
    register_setting(
        number(
            "keep.documents_days",
            "Keeping",
            "Documents that were handed over",
            "A PDF that was made to be handed over can be fetched for so long; later it is made anew.",
            usual=lambda: DOCUMENTS_KEPT_DAYS,
            least=1,
            most=365,
            unit="days",
            variable="TALLPAGE_KEEP_DOCUMENTS_DAYS",
        )
    )


def pattern_or_own(said: str, person: str) -> str:
    """A pattern that was written, else the person's own; empty where neither is, and names are as usual."""
    return said if said.strip() else str(value_of("files.pattern", person))


def _pattern(text: str) -> str:
    if text:
        Pattern(text)
    return text
