"""What may stand in the file of a cut; the JSON Schema comes from here."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Base64Bytes, Field

from tallpage.core.clearing import Clearing
from tallpage.core.cut._document import VERSION
from tallpage.core.cut._frame import MOST_FOLDS
from tallpage.core.cut._hidden import MOST_HIDDEN, MOST_SOUGHT, HiddenArea, How, SoughtWords
from tallpage.core.cut._seam import Seam
from tallpage.core.dressing import Dressing
from tallpage.core.fields import Name, StrictModel, WholeLength, WholePlace
from tallpage.core.marks import MOST_MARKS, Mark, Style
from tallpage.core.outlining import FreeOutline
from tallpage.core.tone import Tone
from tallpage.core.turning import Orientation

__all__ = [
    "MOST_HIDDEN",
    "MOST_PICTURES",
    "MOST_PICTURE_BYTES",
    "MOST_STYLES",
    "CutFile",
    "FoldDownFile",
    "FoldFile",
    "FrameFile",
    "HiddenArea",
    "How",
    "PartsFile",
    "Seam",
    "SoughtWords",
]

MOST_STYLES = 100
MOST_PICTURES = 50
MOST_PICTURE_BYTES = 4_000_000


class FoldFile(StrictModel):
    """A band across the page that is folded away: its first row, and how many, in page px."""

    top_px: WholePlace
    height_px: WholeLength


class FoldDownFile(StrictModel):
    """A band down the page that is folded away: its first column, and how many, in page px."""

    left_px: WholePlace
    width_px: WholeLength


class FrameFile(StrictModel):
    """A box on the page, in page px, minus its folds."""

    x_px: WholePlace
    y_px: WholePlace
    width_px: WholeLength
    height_px: WholeLength
    folds: Annotated[tuple[FoldFile, ...], Field(max_length=MOST_FOLDS)] = ()
    folds_down: Annotated[tuple[FoldDownFile, ...], Field(max_length=MOST_FOLDS)] = ()


class PartsFile(StrictModel):
    """The parts of a cut besides its frame."""

    orientation: Orientation | None = None
    hidden: Annotated[tuple[HiddenArea, ...], Field(max_length=MOST_HIDDEN)] = ()
    sought: Annotated[tuple[SoughtWords, ...], Field(max_length=MOST_SOUGHT)] = ()
    cleared: Clearing | None = None
    seam: Seam | None = None
    outline: FreeOutline | None = None
    tone: Tone | None = None
    marks: Annotated[
        tuple[Annotated[Mark, Field(discriminator="kind")], ...], Field(max_length=MOST_MARKS)
    ] = ()
    dressing: Dressing | None = None
    styles: Annotated[dict[Name, Style], Field(max_length=MOST_STYLES)] = {}

    def parts(self) -> dict[str, Any]:
        """The parts by their names, which a cut gives them too."""
        return {name: getattr(self, name) for name in PartsFile.model_fields}


class CutFile(PartsFile):
    """What of a page is shown, and how."""

    version: Literal[1] = Field(description=f"The version of this format: {VERSION}.")
    frame: FrameFile
    pictures: Annotated[
        dict[Name, Annotated[Base64Bytes, Field(max_length=MOST_PICTURE_BYTES)]],
        Field(max_length=MOST_PICTURES),
    ] = {}
    """PNG, JPEG or WebP files in base64, by the names that stickers and stamps give."""
