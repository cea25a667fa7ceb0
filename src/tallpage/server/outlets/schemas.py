"""Outlets, slots and outputs on the wire."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from ninja import Field, Schema
from pydantic import StringConstraints

from tallpage.core.sizing import Anchor, Way
from tallpage.server.outlets.models import RULES, Rules, Slot

FormatName = Literal["jpeg", "png", "webp", "avif", "gif"]

SwatchName = Literal["original", "0", "1", "2", "3", "4", "5", "6", "7"]

_LAST_SHOWN = 3


class RulesSchema(Schema):
    """What a file has to keep to. 1 kB is 1,000 bytes.

    ``way`` says which of width, height and percent count. Rows that leaves repeat (``overlap_px``) and
    the greatest height are px of the file. With ``least_fidelity`` the file is as light as possible while
    it looks at least so good; without, as good as possible under the limit. One of them is there, or both.
    """

    way: Way = "width"
    width_px: int = 0
    height_px: int = 0
    percent: int = 0
    anchor: Anchor = "start"
    enlarge: bool = False
    background: str = "#ffffff"
    limit_bytes: int | None = None
    least_fidelity: int | None = None
    formats: list[FormatName] = ["jpeg", "png", "webp"]
    greatest_height_px: int | None = Field(default=None, ge=1)
    overlap_px: int = Field(default=0, ge=0)
    numbered: bool = False

    def rules(self) -> dict[str, Any]:
        """The rules alone, by the names they are stored under."""
        return self.model_dump(include=set(RULES))


class SizedOut(RulesSchema):
    """Rules as they are shown, with the size in words."""

    size_words: str

    @staticmethod
    def resolve_size_words(row: Rules) -> str:
        """Like “720 px” or “600 × 400 px, filled”."""
        return str(row.sizing)


Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]
"""What a person calls something: blank space around it does not count."""


class SlotIn(RulesSchema):
    """A slot to make or change."""

    name: Name


class LastOut(Schema):
    """A capture that a slot's file was made from."""

    capture_id: int
    cut_id: int
    name: str
    at: datetime


class SlotOut(SizedOut):
    """A slot, with what was last made for it, the newest first."""

    id: int
    name: str
    last: list[LastOut]

    @staticmethod
    def resolve_last(slot: Slot) -> list[LastOut]:
        """The newest few, each capture once."""
        rows = {output.cut.capture_id: output for output in reversed(list(slot.outputs.all()))}
        newest = sorted(rows.values(), key=lambda output: output.pk, reverse=True)[:_LAST_SHOWN]
        return [
            LastOut(
                capture_id=output.cut.capture_id,
                cut_id=output.cut_id,
                name=output.cut.capture.name,
                at=output.created_at,
            )
            for output in newest
            if output.cut.capture.deleted_at is None
        ]


class OutletIn(Schema):
    """An outlet to make or rename."""

    name: Name


class FactsSchema(Schema):
    """Which facts go along: in the files (JPEG, PNG, WebP and AVIF), and as a JSON beside each."""

    credit: Annotated[str, StringConstraints(max_length=1_000)] = ""
    facts_in_file: bool = False
    facts_beside: bool = False


class OutletOut(FactsSchema):
    """An outlet with its slots."""

    id: int
    name: str
    slots: list[SlotOut]


class OrderIn(Schema):
    """Ids in the order they are to have."""

    ids: list[int]


class OutletFile(FactsSchema):
    """An outlet as it stands in a file: its name, which facts go along, and its slots in order."""

    name: Name
    slots: list[SlotIn] = []


class OutletsFile(Schema):
    """A file of outlets. ``docs/outlets-file.md`` describes it."""

    kind: Literal["outlets"] = "outlets"
    version: Literal[1] = 1
    outlets: list[OutletFile] = Field(max_length=500)


class ImportedOut(Schema):
    """Names of the outlets that came out of a file: new ones, and ones that were changed to match it."""

    added: list[str]
    changed: list[str]
