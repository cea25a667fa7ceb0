"""What is done on a page before its picture is taken. Pure."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Literal, get_args

from tallpage.core.errors import PageError

StepKind = Literal["hover", "click", "type", "press", "scroll", "wait_for", "pause"]
MOST_STEPS = 20
_MOST_CHARS = 2_000
_MOST_PAUSE_S = 60.0
_POINTED_AT: frozenset[StepKind] = frozenset({"hover", "click", "type", "scroll", "wait_for"})
_CHANGES_WHAT_IS_POINTED_AT: frozenset[StepKind] = frozenset({"click", "type", "press", "scroll"})
_TYPED = re.compile(r"(?P<target>.+?) =(?: (?P<text>.*))?", re.DOTALL)
"""Nothing after the sign empties a field."""
_KEY = re.compile(r"(?:(?:Control|Shift|Alt|Meta)\+)*(?:[A-Z][A-Za-z0-9]+|\S)")


@dataclass(frozen=True, slots=True, kw_only=True)
class Step:
    """One thing a person would do. ``target`` is a CSS selector, or words in quotation marks."""

    kind: StepKind
    target: str = ""
    text: str = ""
    """What is typed, which key is pressed, or for how many seconds it pauses."""

    def __post_init__(self) -> None:
        if self.kind in _POINTED_AT and not self.target.strip():
            raise _malformed(f"It is not said what to {_VERBS[self.kind]}.")
        if len(self.target) > _MOST_CHARS or len(self.text) > _MOST_CHARS:
            raise _malformed(f"A step holds more than {_MOST_CHARS:,} characters.")
        if self.kind == "press" and not _KEY.fullmatch(self.text):
            raise _malformed(f"“{self.text}” is not a key.")
        if self.kind == "pause":
            self.pause_ms  # noqa: B018  (checks the number)

    @property
    def pause_ms(self) -> int:
        """How long a pause lasts."""
        try:
            seconds = float(self.text)
        except ValueError:
            seconds = -1.0
        if not 0 <= seconds <= _MOST_PAUSE_S:
            raise _malformed(f"A pause of “{self.text}” seconds is not possible: 0 to {_MOST_PAUSE_S:.0f}.")
        return round(seconds * 1_000)

    @classmethod
    def parse(cls, line: str) -> Step:
        """A step from a line like ``click "Accept all"`` or ``type #search = ferries``.

        Raises:
            PageError: it is none.
        """
        for kind, verb in _VERBS.items():
            match = re.fullmatch(rf"{verb}\s+(?P<rest>\S.*)", line.strip(), re.DOTALL)
            if match is None:
                continue
            rest = match["rest"]
            if kind == "type":
                typed = _TYPED.fullmatch(rest)
                if typed is None:
                    raise _malformed(f"“{line}” does not say what to type.")
                return cls(kind=kind, target=typed["target"].strip(), text=typed["text"] or "")
            if kind in ("press", "pause"):
                return cls(kind=kind, text=rest)
            return cls(kind=kind, target=rest)
        raise _malformed(f"“{line[:80]}” is not a step.")

    def __str__(self) -> str:
        if self.kind == "type":
            return f"type {self.target} = {self.text}"
        return f"{_VERBS[self.kind]} {self.text if self.kind in ('press', 'pause') else self.target}"


_VERBS: dict[StepKind, str] = {
    kind: "wait for" if kind == "wait_for" else kind for kind in get_args(StepKind)
}


def _malformed(sentence: str) -> PageError:
    return PageError(
        sentence,
        hint='Steps read like: click "Accept all" · hover #menu · type #search = ferries · press Enter · '
        'scroll #prices · wait for "Total" · pause 1.5.',
        code="step_malformed",
    )


def held_hover(steps: tuple[Step, ...]) -> Step | None:
    """The step that leaves the pointer on something for the picture, if one does."""
    for step in reversed(steps):
        if step.kind == "hover":
            return step
        if step.kind in _CHANGES_WHAT_IS_POINTED_AT:
            return None
    return None
