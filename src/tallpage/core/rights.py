"""Whether a picture may be given away: what is known of its rights."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Literal

from tallpage.core.errors import HandOverError

RightsState = Literal["", "own", "licensed", "asked", "not_cleared"]
MOST_NOTE_CHARS = 500


@dataclass(frozen=True, slots=True, kw_only=True)
class Rights:
    """What is known of them. Of most pages nothing is said: nobody is asked about those."""

    state: RightsState = ""
    until: date | None = None
    """The last day of a licence, itself included."""
    note: str = ""
    """For those who work on it; it stays in the house."""

    def __post_init__(self) -> None:
        if self.state == "licensed" and self.until is None:
            raise HandOverError(
                "A licence needs its last day.", hint="Say until when it holds.", code="licence_day"
            )
        if self.state != "licensed" and self.until is not None:
            raise HandOverError(
                "Only a licence has a last day.", hint="Leave the day empty.", code="licence_day"
            )
        if len(self.note) > MOST_NOTE_CHARS:
            raise HandOverError(
                f"The note has {len(self.note):,} letters.",
                hint=f"Write it in at most {MOST_NOTE_CHARS}.",
                code="note_too_long",
            )

    def cleared_on(self, day: date) -> bool:
        """Whether it may be given away on a day without asking."""
        if self.state == "licensed" and self.until is not None:
            return day <= self.until
        return self.state in ("", "own")

    def in_words(self, day: date) -> str:
        """The state on a day; empty where nothing is said."""
        if self.state == "licensed" and self.until is not None:
            words = "licensed until" if self.cleared_on(day) else "licence ran out on"
            return f"{words} {self.until.isoformat()}"
        return {"own": "own", "asked": "asked, no answer yet", "not_cleared": "not cleared"}.get(
            self.state, ""
        )
