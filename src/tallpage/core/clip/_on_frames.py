"""What is hidden and drawn on the frames of a clip, each on all of them or on a range. Pure."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Annotated, Self, TypeVar

from pydantic import Field, field_validator, model_validator

from tallpage.core.cut.models import HiddenArea
from tallpage.core.fields import StrictModel
from tallpage.core.marks import Mark

MOST_ON_FRAMES = 200

_Number = Annotated[int, Field(strict=True, ge=0)]


class OnFrames(StrictModel):
    """From which frame to which, both counted from 0 and both included."""

    first: _Number = 0
    last: _Number | None = None
    """None is to the end."""

    @model_validator(mode="after")
    def _first_comes_first(self) -> Self:
        if self.last is not None and self.last < self.first:
            raise ValueError("the last frame comes before the first")
        return self

    def holds(self, number: int) -> bool:
        """Whether a frame is one of them."""
        return self.first <= number and (self.last is None or number <= self.last)


class HiddenOnFrames(OnFrames):
    """A rectangle whose pixels are in no file, in px of the frames."""

    area: HiddenArea


class MarkOnFrames(OnFrames):
    """A mark, in px of the frames."""

    mark: Annotated[Mark, Field(discriminator="kind")]

    @field_validator("mark")
    @classmethod
    def _brings_no_picture(cls, mark: Mark) -> Mark:
        # A clip has no file of its own for the pictures of stickers, and no styles.
        if getattr(mark, "picture", None) is not None or mark.style is not None:
            raise ValueError("a mark on frames has neither a picture of its own nor a style by name")
        return mark


_Row = TypeVar("_Row", bound=OnFrames)


def those_on(rows: Iterable[_Row], number: int) -> tuple[_Row, ...]:
    """What is on a frame."""
    return tuple(row for row in rows if row.holds(number))
