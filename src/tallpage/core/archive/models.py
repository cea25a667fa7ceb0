"""What ``archive.json`` says, as it is read from outside."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Any, Literal

from pydantic import AwareDatetime, BaseModel, ConfigDict, Field, StringConstraints

from tallpage.core.archive._names import MOST_CAPTURES
from tallpage.core.naming import MAX_NAME_CHARS
from tallpage.core.rights import MOST_NOTE_CHARS, RightsState

_Name = Annotated[str, StringConstraints(min_length=1, max_length=MAX_NAME_CHARS)]
_Short = Annotated[str, StringConstraints(max_length=255)]
_Text = Annotated[str, StringConstraints(max_length=20_000)]
_Px = Annotated[int, Field(ge=1, le=4_000_000)]


class _Strict(BaseModel):
    """Nothing is dropped: what is not known is refused."""

    model_config = ConfigDict(extra="forbid", from_attributes=True)


class CutEntry(_Strict):
    """A cut besides its file (docs/cut-file.md)."""

    name: Annotated[str, StringConstraints(min_length=1, max_length=80)]
    review: list[Any] = []
    """What became of each part when it was carried over."""
    needs_a_look: bool = False
    carried_from: tuple[int, int] | None = None
    """The capture and the cut in this archive that it was carried over from, both counted from 1."""


class CaptureEntry(_Strict):
    """A capture besides its strips and what its page said."""

    source: Literal["page", "picture"]
    name: _Name
    named_by_hand: bool = False
    address: _Text = ""
    final_address: _Text = ""
    title: _Text = ""
    host: _Short = ""
    screen_width_px: _Px | None = None
    screen_height_px: _Px | None = None
    scale: Annotated[int, Field(ge=1, le=8)] = 1
    touch: bool = False
    status: Annotated[int, Field(ge=0, le=999)] | None = None
    truncated: bool = False
    whole: bool = True
    warnings: list[_Text] = []
    report: dict[str, Any] = {}
    settings: dict[str, Any] = {}
    """How it was asked to be taken."""
    one_of_many: bool = False
    rights_state: RightsState = ""
    licensed_until: date | None = None
    rights_note: Annotated[str, StringConstraints(max_length=MOST_NOTE_CHARS)] = ""
    created_at: AwareDatetime
    taken_at: AwareDatetime | None = None
    folder: list[Annotated[str, StringConstraints(min_length=1, max_length=80)]] = Field([], max_length=12)
    """The folders of the shelf that it lies in, the outermost first."""
    labels: list[Annotated[str, StringConstraints(min_length=1, max_length=40)]] = Field([], max_length=200)
    renews: int | None = None
    """The capture in this archive that is the same page as it was before, counted from 1."""
    cuts: list[CutEntry] = Field([], max_length=999)


class ArchiveFile(_Strict):
    """All that is in an archive; the captures are numbered from 1."""

    tall_page_archive: int
    id: Annotated[str, StringConstraints(pattern="^[0-9a-f]{32}$")]
    """Its own, so that one that was brought in halfway is gone on with."""
    made_at: AwareDatetime
    captures: list[CaptureEntry] = Field(min_length=1, max_length=MOST_CAPTURES)
