"""How a routine names places on pages that it has not seen."""

from __future__ import annotations

from typing import Annotated, Literal, Self

from pydantic import Field, field_validator, model_validator

from tallpage.core.cut import Corner
from tallpage.core.fields import StrictModel
from tallpage.core.routine._selectors import selector_problem

Role = Literal[
    "heading",
    "paragraph",
    "text",
    "list",
    "item",
    "table",
    "row",
    "image",
    "figure",
    "section",
    "navigation",
    "header",
    "footer",
    "form",
    "button",
    "quote",
    "code",
    "video",
    "frame",
]
"""What a block is, as page maps name it."""
IfMissing = Literal["skip", "whole", "stop"]
"""What happens where a rule finds nothing: the picture is left out with a warning, the step is passed over
so that all that was there stays, or the whole run ends."""

_Words = Annotated[str, Field(min_length=1, max_length=300)]


class BlockRule(StrictModel):
    """A block of a page. It is one that fits everything that is given; at least one thing is."""

    role: Role | None = None
    says: _Words | None = None
    """Words that it holds, in its text or the description of its picture; upper and lower case are equal."""
    below: _Words | None = None
    """Words of a heading: the block stands below it, and above the next of its level or a higher one."""
    selector: _Words | None = None
    """CSS: names of elements, ids and classes, and what they lie in."""
    number: Annotated[int, Field(strict=True, ge=-10_000, le=10_000)] = 1
    """Which one, where several fit, from the top; -1 is the last."""

    @model_validator(mode="after")
    def _says_something(self) -> Self:
        if not (self.role or self.says or self.below or self.selector):
            raise ValueError("a block is given by its role, its words, a heading above it, or a selector")
        if self.number == 0:
            raise ValueError("blocks are counted from 1, or from the last as -1")
        return self

    @field_validator("selector")
    @classmethod
    def _selector_is_known(cls, selector: str | None) -> str | None:
        if selector is not None and (problem := selector_problem(selector)):
            raise ValueError(problem)
        return selector

    def __str__(self) -> str:
        said = [
            self.role or "",
            f"“{self.says}”" if self.says else "",
            f"below “{self.below}”" if self.below else "",
            self.selector or "",
        ]
        which = "" if self.number == 1 else f" (number {self.number})"
        return " ".join(word for word in said if word) + which


class Anchor(StrictModel):
    """Where places are counted from: a corner of a block, or without one, of all that is there."""

    block: BlockRule | None = None
    corner: Corner = "top-left"
