"""The kinds of marks, as they stand in a cut. Places and lengths are px of the page; marks may lie beyond.

A field that is not given keeps its usual value, or that of the mark's style.
"""

from __future__ import annotations

from typing import Annotated, Literal, Self

from pydantic import Field, WithJsonSchema, field_validator, model_validator

from tallpage.core.fields import (
    Degrees,
    HexColour,
    Length,
    LetterSize,
    Name,
    Place,
    Share,
    StrictModel,
    Stroke,
    Thickness,
)
from tallpage.core.marks._signs import signs
from tallpage.core.text import Align, Weight

MOST_MARKS = 2_000
MOST_POINTS = 5_000
MOST_CHARACTERS = 5_000

_Pair = Annotated[
    tuple[Place, Place],
    # Said as a list of two: a tuple's schema is one that the interface's types do not follow.
    WithJsonSchema({"type": "array", "items": {"type": "number"}, "minItems": 2, "maxItems": 2}),
]
Points = Annotated[tuple[_Pair, ...], Field(min_length=1, max_length=MOST_POINTS)]
"""Each is [x, y]."""
Dashes = Literal["none", "dashes", "dots"]
Heads = Literal["end", "start", "both"]

PLUM, PAPER, INK, STRAW = "#6B3A5B", "#FFFDF8", "#1D2B2A", "#F5C451"


class _Mark(StrictModel):
    id: Annotated[str, Field(pattern=r"^[A-Za-z0-9_-]{0,40}$")] = ""
    """What the Bench knows it by; may be left out in a file."""
    style: Name | None = None
    """Name of a style; what the mark itself gives goes before it."""
    opacity: Share = 1.0
    locked: bool = False
    """Whether the Bench leaves it where it is."""


class _Boxed(_Mark):
    """A mark with a rectangle of its own, which can be turned about its middle."""

    x_px: Place
    y_px: Place
    width_px: Length
    height_px: Length
    angle_deg: Degrees = 0.0


class Arrow(_Mark):
    """An arrow from one point to another: a filled shape with an outline of its own."""

    kind: Literal["arrow"]
    from_x_px: Place
    from_y_px: Place
    to_x_px: Place
    to_y_px: Place
    bend_px: Place = 0.0
    """How far its middle lies off the straight line, to the right of somebody who walks along it."""
    heads: Heads = "end"
    thickness_px: Thickness = 8.0
    filling: HexColour | None = PLUM
    outline_colour: HexColour = PAPER
    outline_px: Stroke = 2.0


class Line(_Mark):
    """A line between two points."""

    kind: Literal["line"]
    from_x_px: Place
    from_y_px: Place
    to_x_px: Place
    to_y_px: Place
    bend_px: Place = 0.0
    thickness_px: Thickness = 4.0
    colour: HexColour = PLUM
    dashes: Dashes = "none"


class BoxMark(_Boxed):
    """A rectangle, outlined, filled, or both."""

    kind: Literal["box"]
    corner_px: Stroke = 0.0
    filling: HexColour | None = None
    outline_colour: HexColour = PLUM
    outline_px: Stroke = 4.0
    dashes: Dashes = "none"


class Ellipse(_Boxed):
    """An ellipse, outlined, filled, or both."""

    kind: Literal["ellipse"]
    filling: HexColour | None = None
    outline_colour: HexColour = PLUM
    outline_px: Stroke = 4.0
    dashes: Dashes = "none"


class Pen(_Mark):
    """A line drawn by hand, smoothed."""

    kind: Literal["pen"]
    points: Points
    thickness_px: Thickness = 4.0
    colour: HexColour = PLUM


class Highlighter(_Mark):
    """A broad line that darkens like ink on paper: what is black below stays black."""

    kind: Literal["highlighter"]
    points: Points
    thickness_px: Thickness = 24.0
    colour: HexColour = STRAW


class Text(_Mark):
    """Lines of text, on a plate where it has a colour, with a pointer where it has a spot."""

    kind: Literal["text"]
    x_px: Place
    y_px: Place
    text: Annotated[str, Field(max_length=MOST_CHARACTERS)]
    width_px: Length | None = None
    """Words that do not fit go to the next line; without it, lines end where the text says so."""
    size_px: LetterSize = 24.0
    weight: Weight = 600
    align: Align = "left"
    colour: HexColour = INK
    plate: HexColour | None = PAPER
    outline_colour: HexColour = PLUM
    outline_px: Stroke = 0.0
    """The outline of the plate; of the letters, where there is no plate."""
    corner_px: Stroke = 4.0
    angle_deg: Degrees = 0.0
    spot_x_px: Place | None = None
    spot_y_px: Place | None = None
    """Where the pointer ends; both or neither."""

    @model_validator(mode="after")
    def _spot_is_whole(self) -> Self:
        if (self.spot_x_px is None) != (self.spot_y_px is None):
            raise ValueError("spot_x_px and spot_y_px are given together or not at all")
        return self


class Dim(_Boxed):
    """What is to be seen; all the rest is dimmed. Several leave each their part."""

    kind: Literal["dim"]
    shape: Literal["box", "ellipse"] = "box"
    corner_px: Stroke = 0.0
    how: Literal["darken", "blur"] = "darken"
    strength: Share = 0.5
    """How dark; or how far blurred, where 1 is a blur of 20 px."""
    colour: HexColour = INK


class Badge(_Mark):
    """A number in a circle. Which one follows from the badges of its sequence that come before."""

    kind: Literal["badge"]
    x_px: Place
    y_px: Place
    sequence: Annotated[int, Field(strict=True, ge=1, le=MOST_MARKS)] = 1
    letters: bool = False
    """A, B, C instead of 1, 2, 3."""
    size_px: LetterSize = 40.0
    """The circle's diameter."""
    filling: HexColour = PLUM
    colour: HexColour = PAPER
    outline_colour: HexColour = PAPER
    outline_px: Stroke = 2.0
    caption: Annotated[str, Field(max_length=500)] = ""
    """Goes with the picture as a numbered list; it is not drawn."""


class Sticker(_Boxed):
    """A sign of the set that ships, or a picture of the cut's own."""

    kind: Literal["sticker"]
    sign: Name | None = None
    colour: HexColour = PLUM
    """Of a sign."""
    picture: Name | None = None
    """One of the cut's pictures, by its name."""

    @model_validator(mode="after")
    def _shows_one_thing(self) -> Self:
        if (self.sign is None) == (self.picture is None):
            raise ValueError("a sticker has either a sign or a picture")
        return self

    @field_validator("sign")
    @classmethod
    def _sign_is_known(cls, sign: str | None) -> str | None:
        if sign is not None and sign not in signs():
            raise ValueError(f"there is no sign “{sign}”")
        return sign


Mark = Arrow | Line | BoxMark | Ellipse | Pen | Highlighter | Text | Dim | Badge | Sticker


class Style(StrictModel):
    """A look with a name. Each kind of mark takes of it what it has."""

    opacity: Share | None = None
    thickness_px: Thickness | None = None
    filling: HexColour | None = None
    colour: HexColour | None = None
    outline_colour: HexColour | None = None
    outline_px: Stroke | None = None
    dashes: Dashes | None = None
    heads: Heads | None = None
    corner_px: Stroke | None = None
    size_px: LetterSize | None = None
    weight: Weight | None = None
    align: Align | None = None
    plate: HexColour | None = None
