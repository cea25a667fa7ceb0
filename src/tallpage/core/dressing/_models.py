"""What is put around a picture, and over all of it. Lengths are px of the file, whose width includes them."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from tallpage.core.captions import filled_pattern, pattern_problem
from tallpage.core.fields import Degrees, HexColour, LetterSize, Name, Share, StrictModel
from tallpage.core.text import Align, Weight

Room = Annotated[int, Field(strict=True, ge=0, le=2_000)]
Side = Literal["top", "right", "bottom", "left"]
StampPlace = Literal[
    "top-left",
    "top",
    "top-right",
    "left",
    "middle",
    "right",
    "bottom-left",
    "bottom",
    "bottom-right",
    "tiled",
]


class Caption(StrictModel):
    """A text above or below the picture.

    ``{title} {address} {host} {date} {name}`` in it are filled when the file is made.
    """

    text: Annotated[str, Field(min_length=1, max_length=2_000)]
    side: Literal["above", "below"] = "below"
    leaves: Literal["all", "first", "last"] = "all"
    """Where a picture is divided: which of its leaves have it."""
    size_px: LetterSize = 14.0
    weight: Weight = 400
    align: Align = "left"
    colour: HexColour = "#1D2B2A"

    def problem(self) -> str | None:
        """What is wrong with the text: a field that is not known. None when all of them are."""
        return pattern_problem(self.text)

    def filled(self, facts: Mapping[str, str]) -> Self:
        """The caption with its fields filled; with nothing where a fact is not known."""
        return self.model_copy(update={"text": filled_pattern(self.text, facts)})


class Border(StrictModel):
    """A line around the picture."""

    width_px: Annotated[int, Field(strict=True, ge=1, le=200)] = 1
    colour: HexColour = "#D5CBB5"


class Shadow(StrictModel):
    """A soft shadow below the picture."""

    blur_px: Annotated[int, Field(strict=True, ge=1, le=100)] = 12
    """How far it reaches."""
    down_px: Annotated[int, Field(strict=True, ge=0, le=100)] = 4
    colour: HexColour = "#1D2B2A80"


class TornEdge(StrictModel):
    """Sides that look torn off. The same seed gives the same edge."""

    sides: Annotated[tuple[Side, ...], Field(min_length=1, max_length=4)] = ("bottom",)
    depth_px: Annotated[int, Field(strict=True, ge=2, le=100)] = 10
    seed: Annotated[int, Field(strict=True, ge=0, le=1_000_000)] = 1


class AroundRoom(StrictModel):
    """Room around everything else."""

    top_px: Room = 0
    right_px: Room = 0
    bottom_px: Room = 0
    left_px: Room = 0


class Stamp(StrictModel):
    """A text or a picture of the cut's own, once or tiled over all of the picture."""

    text: Annotated[str, Field(min_length=1, max_length=200)] | None = None
    picture: Name | None = None
    place: StampPlace = "bottom-right"
    size_px: LetterSize = 16.0
    """Of the letters; of a picture, its width."""
    weight: Weight = 600
    colour: HexColour = "#1D2B2A"
    opacity: Share = 0.5
    angle_deg: Degrees = 0.0
    margin_px: Room = 12
    """From the edges; of a tiled stamp, between one and the next."""

    @model_validator(mode="after")
    def _shows_one_thing(self) -> Self:
        if (self.text is None) == (self.picture is None):
            raise ValueError("a stamp has either a text or a picture")
        return self


class Dressing(StrictModel):
    """All that is around a picture. What is not named is not there."""

    caption: Caption | None = None
    border: Border | None = None
    corner_px: Annotated[int, Field(strict=True, ge=0, le=500)] = 0
    """Radius of the picture's corners; a side that is torn has none."""
    shadow: Shadow | None = None
    torn: TornEdge | None = None
    room: AroundRoom | None = None
    background: HexColour | None = None
    """Behind room, shadow and caption; None leaves them transparent, or on the place's ground."""
    stamp: Stamp | None = None
