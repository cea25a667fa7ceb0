"""What a place said of a file, in our words."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

Outcome = Literal[
    "accepted",
    "too_wide",
    "too_heavy",
    "wrong_format",
    "name_taken",
    "signed_out",
    "refused",
    "slow",
    "broken_off",
    "busy",
]

_MAY_HELP_AGAIN = ("slow", "broken_off", "busy")
_SENTENCES: dict[Outcome, tuple[str, str]] = {
    "accepted": ("The place has taken it.", ""),
    "too_wide": ("The place says that it is too wide.", "Fit it to a smaller width, and upload it again."),
    "too_heavy": (
        "The place says that it has too many bytes.",
        "Fit it under a lower limit, and upload it again.",
    ),
    "wrong_format": ("The place does not take this format.", "Fit it in a format that it takes."),
    "name_taken": (
        "The place has another file of this name.",
        "Give it another name, or take the other one away there.",
    ),
    "signed_out": (
        "The place does not let Tall Page in.",
        "Enter its token anew, under Outlets. It may have run out.",
    ),
    "refused": ("The place did not take it.", "Look there for why."),
    "slow": ("The place did not answer in time.", "Try again later."),
    "broken_off": (
        "The place could not be reached, or the connection broke off.",
        "Check its address, and that it is there; then try again.",
    ),
    "busy": ("The place is busy.", "Try again later."),
}
_BY_STATUS: dict[int, Outcome] = {
    401: "signed_out",
    403: "signed_out",
    407: "signed_out",
    408: "slow",
    409: "name_taken",
    413: "too_heavy",
    415: "wrong_format",
    429: "busy",
    507: "too_heavy",
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Answer:
    """What became of a file."""

    outcome: Outcome
    address: str = ""
    """Where it is published, if the place says so."""
    said: str = ""
    """The place's own words."""
    was_there: bool = False
    """Whether the place had it already."""

    @property
    def sentence(self) -> str:
        """What happened, with what the place said of it."""
        sentence = _SENTENCES[self.outcome][0]
        return f"{sentence} It said: {self.said}" if self.said and self.outcome != "accepted" else sentence

    @property
    def hint(self) -> str:
        """What a person can do."""
        return _SENTENCES[self.outcome][1]

    @property
    def may_help_again(self) -> bool:
        """Whether the same may succeed a little later."""
        return self.outcome in _MAY_HELP_AGAIN


def outcome_of(status: int, reason: str = "") -> Outcome:
    """What a status says, and a reason that a place may give besides: one of our outcomes by its name.

    Source: RFC 9110, 15 status codes.
    """
    if reason in _SENTENCES and reason != "accepted":
        return reason
    if status in _BY_STATUS:
        return _BY_STATUS[status]
    return "busy" if status >= 500 else "refused"
