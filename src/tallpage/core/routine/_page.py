"""What a routine is run on, and what becomes of it."""

from __future__ import annotations

from dataclasses import dataclass, field

from tallpage.core.capture import Screen
from tallpage.core.cut import Cut
from tallpage.core.errors import RoutineError, TallPageError
from tallpage.core.render import Source


@dataclass(frozen=True, slots=True, kw_only=True)
class Page:
    """A capture or a picture, and the screen that it was taken on where there was one."""

    source: Source
    screen: Screen | None = None


@dataclass(frozen=True, slots=True)
class StepWarning:
    """What a person should know of a step on a page."""

    step: int
    """Its number, from 1."""
    sentence: str

    def __str__(self) -> str:
        return f"Step {self.step}: {self.sentence}"


@dataclass(frozen=True, slots=True, kw_only=True)
class Applied:
    """The cut that a routine makes of a page, and what a person should know of it."""

    cut: Cut
    warnings: tuple[StepWarning, ...] = ()
    after_step: tuple[Cut, ...] = field(default=(), repr=False)
    """The cut after each step; of one that is off, or does nothing to the picture, as before it."""
    failure: TallPageError | None = None
    """What kept the step after these from being done."""


class PictureSkipped(RoutineError):
    """A step found nothing on a picture, which is left out for that; the run goes on."""

    code = "routine_skipped"
    default_hint = "Look at the picture, and change the step or leave the picture out."


class RunEnded(RoutineError):
    """A step found nothing on a picture, and is to end the run then."""

    code = "routine_ended"
    default_hint = "Change the step, or leave the picture out, and run it again."
