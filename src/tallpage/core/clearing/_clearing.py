"""What is cleared of a page, as a value."""

from __future__ import annotations

from typing import Annotated, Self

from pydantic import Field, model_validator

from tallpage.core.fields import HexColour, StrictModel, WholeLength, WholePlace

MOST_COLOURS = 20
MOST_PUT_BACK = 60
MOST_TOLERANCE = 254
USUAL_TOLERANCE = 12


class ClearedColour(StrictModel):
    """A colour that becomes transparent; everywhere, or from one px on."""

    colour: HexColour
    tolerance: Annotated[int, Field(strict=True, ge=0, le=MOST_TOLERANCE)] = USUAL_TOLERANCE
    """How far red, green and blue may each be from it, of 255."""
    x_px: WholePlace | None = None
    y_px: WholePlace | None = None
    """The px from which on it is cleared as far as it is connected; without one, everywhere."""

    @model_validator(mode="after")
    def _whole_place(self) -> Self:
        if (self.x_px is None) != (self.y_px is None):
            raise ValueError("a place has both x_px and y_px")
        return self


class PutBack(StrictModel):
    """A spot that is not cleared: a box, or without a size all that is connected with one px."""

    x_px: WholePlace
    y_px: WholePlace
    width_px: WholeLength | None = None
    height_px: WholeLength | None = None

    @model_validator(mode="after")
    def _whole_size(self) -> Self:
        if (self.width_px is None) != (self.height_px is None):
            raise ValueError("a box has both width_px and height_px")
        return self


class Clearing(StrictModel):
    """Colours that become transparent, and spots that stay. Edges beside them become as soft as they were."""

    colours: Annotated[tuple[ClearedColour, ...], Field(max_length=MOST_COLOURS)] = ()
    put_back: Annotated[tuple[PutBack, ...], Field(max_length=MOST_PUT_BACK)] = ()
    soft_px: Annotated[int, Field(strict=True, ge=0, le=20)] = 8
    """How wide a soft edge may be, in px: a mixture of what is cleared and what stands before it."""
