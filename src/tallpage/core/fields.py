"""What a part of a cut's document is made of: strict, frozen models and the numbers in them.

They are at once the values that the core works with, the schema of a file and that of the API: so
each field is written down once.
"""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, model_serializer

FURTHEST_PX = 1_000_000

Place = Annotated[float, Field(strict=True, ge=-FURTHEST_PX, le=FURTHEST_PX, allow_inf_nan=False)]
"""A place in px, which may lie beyond the page."""
Length = Annotated[float, Field(strict=True, gt=0, le=FURTHEST_PX, allow_inf_nan=False)]
Stroke = Annotated[float, Field(strict=True, ge=0, le=500, allow_inf_nan=False)]
Thickness = Annotated[float, Field(strict=True, gt=0, le=500, allow_inf_nan=False)]
LetterSize = Annotated[float, Field(strict=True, ge=4, le=1_000, allow_inf_nan=False)]
Degrees = Annotated[float, Field(strict=True, ge=-360, le=360, allow_inf_nan=False)]
Share = Annotated[float, Field(strict=True, ge=0, le=1, allow_inf_nan=False)]
HexColour = Annotated[str, Field(pattern=r"^#[0-9a-fA-F]{6}([0-9a-fA-F]{2})?$")]
"""``#rrggbb``, or ``#rrggbbaa`` where something shows through."""
Name = Annotated[str, Field(min_length=1, max_length=60)]
WholePlace = Annotated[int, Field(strict=True, ge=0, le=FURTHEST_PX)]
"""A row or column of the page."""
WholeLength = Annotated[int, Field(strict=True, ge=1, le=FURTHEST_PX)]


def rgb_of(colour: str) -> tuple[int, int, int]:
    """Red, green and blue, 0–255, of a :data:`HexColour`; how far it shows through is left out."""
    red, green, blue = (int(colour[at : at + 2], 16) for at in (1, 3, 5))
    return red, green, blue


class StrictModel(BaseModel):
    """A frozen value. A field that is not known is refused."""

    model_config = ConfigDict(extra="forbid", frozen=True)

    @model_serializer(mode="wrap")
    def _as_given(self, serialise):  # type: ignore[no-untyped-def]
        """What was given and nothing else: what was not follows the usual value, or a style.

        Without types, or the schema would be that of any object.
        """
        return {name: value for name, value in serialise(self).items() if name in self.model_fields_set}
