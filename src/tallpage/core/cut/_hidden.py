"""Areas of a page whose pixels are not shown."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Annotated, Literal

from pydantic import Field

from tallpage.core.fields import HexColour, StrictModel, WholeLength, WholePlace
from tallpage.core.finding import FoundPlace, Kind, Sought
from tallpage.core.geometry import Box

MOST_HIDDEN = 2_000
MOST_SOUGHT = 50

How = Literal["solid", "pixelate", "blur", "patch"]
_Id = Annotated[str, Field(pattern=r"^[A-Za-z0-9_-]{0,40}$")]
_Strength = Annotated[int, Field(strict=True, ge=2, le=400)]


class HiddenArea(StrictModel):
    """A rectangle of the page, in px of the page, whose pixels are in no file.

    ``solid`` puts a colour over it and ``patch`` what surrounds it; ``pixelate`` and ``blur`` leave a
    trace of what was there, too coarse to be read.
    """

    id: _Id = ""
    how: How = "solid"
    x_px: WholePlace
    y_px: WholePlace
    width_px: WholeLength
    height_px: WholeLength
    colour: HexColour = "#1D2B2A"
    """Of a solid area; nothing shows through it."""
    strength_px: _Strength | None = None
    """Size of the squares, or twice the blur's standard deviation; None is what the letters below ask for."""
    found_by: _Id = ""
    """What was sought, by its id, where the area was found by words."""

    @property
    def box(self) -> Box:
        """The rectangle."""
        return Box(x_px=self.x_px, y_px=self.y_px, width_px=self.width_px, height_px=self.height_px)


class SoughtWords(StrictModel):
    """What is hidden wherever the page says it. It is looked for again when the page is taken again.

    On a picture, whose words are not known, it hides nothing: the areas that were found do.
    """

    id: Annotated[str, Field(pattern=r"^[A-Za-z0-9_-]{1,40}$")]
    kind: Kind
    words: Annotated[str, Field(max_length=5_000)] = ""
    """Of the kind ``words``: a word, a name or several words that belong together on each line."""
    how: How = "solid"
    colour: HexColour = "#1D2B2A"
    strength_px: _Strength | None = None

    @property
    def sought(self) -> Sought:
        """What is looked for."""
        return Sought(kind=self.kind, words=self.words)

    def areas(self, places: Iterable[FoundPlace]) -> list[HiddenArea]:
        """A hidden area for each line of each place."""
        boxes = [box for place in places for box in place.boxes]
        look: dict[str, object] = {"how": self.how, "colour": self.colour, "strength_px": self.strength_px}
        return [
            HiddenArea.model_validate(
                {
                    "id": f"{self.id[:32]}-{number}",
                    "x_px": box.x_px,
                    "y_px": box.y_px,
                    "width_px": box.width_px,
                    "height_px": box.height_px,
                    "found_by": self.id,
                    **{name: value for name, value in look.items() if name in self.model_fields_set},
                }
            )
            for number, box in enumerate(boxes, start=1)
        ]


def one_around(areas: Sequence[HiddenArea]) -> HiddenArea:
    """One area over all of several, at least one; it hides as the first of them does."""
    left_px, top_px = min(row.x_px for row in areas), min(row.y_px for row in areas)
    right_px, bottom_px = max(row.box.right_px for row in areas), max(row.box.bottom_px for row in areas)
    sides = {"x_px": left_px, "y_px": top_px, "width_px": right_px - left_px, "height_px": bottom_px - top_px}
    return areas[0].model_copy(update=sides)
