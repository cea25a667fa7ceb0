"""The facts themselves."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from urllib.parse import urlsplit, urlunsplit

from tallpage.core.errors import FitError

MOST_CREDIT_CHARS = 200


@dataclass(frozen=True, slots=True, kw_only=True)
class FileFacts:
    """What a file may say of itself. What is empty is not said."""

    credit: str = ""
    """Who is named for it, as a place wants it."""
    source: str = ""
    """Address of the page, without the name and password that an address can hold."""
    taken_at: datetime | None = None
    """With its time zone."""

    def __post_init__(self) -> None:
        object.__setattr__(self, "source", _without_password(self.source))


def require_credit(credit: str) -> str:
    """A credit line as it is stored: on one line, without what no file can hold.

    Raises:
        FitError: it is too long.
    """
    line = " ".join("".join(letter if letter.isprintable() else " " for letter in credit).split())
    if len(line) > MOST_CREDIT_CHARS:
        raise FitError(
            f"The credit has {len(line)} letters.",
            hint=f"Write it in at most {MOST_CREDIT_CHARS}.",
            code="credit_too_long",
        )
    return line


def _without_password(address: str) -> str:
    parts = urlsplit(address)
    if "@" not in parts.netloc:
        return address
    return urlunsplit(parts._replace(netloc=parts.netloc.rpartition("@")[2]))
