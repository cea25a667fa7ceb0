"""What may stand in the file of a cut; the JSON Schema comes from here."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from tallpage.core.cut._document import VERSION
from tallpage.core.cut._frame import MOST_FOLDS

_GREATEST_PX = 1_000_000
Place = Annotated[int, Field(ge=0, le=_GREATEST_PX)]
Length = Annotated[int, Field(ge=1, le=_GREATEST_PX)]


class _Strict(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)


class FoldFile(_Strict):
    """A band across the page that is folded away: its first row, and how many, in page px."""

    top_px: Place
    height_px: Length


class FrameFile(_Strict):
    """A box on the page, in page px, minus its folds."""

    x_px: Place
    y_px: Place
    width_px: Length
    height_px: Length
    folds: Annotated[tuple[FoldFile, ...], Field(max_length=MOST_FOLDS)] = ()


class CutFile(_Strict):
    """What of a page is shown."""

    version: Literal[1] = Field(description=f"The version of this format: {VERSION}.")
    frame: FrameFile
