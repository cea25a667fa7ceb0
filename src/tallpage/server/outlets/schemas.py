"""Outlets, slots and outputs on the wire."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal, Self

from ninja import Field, Schema
from pydantic import StringConstraints, model_validator

from tallpage.core.fit import Choice, fidelity_in_words
from tallpage.core.sizing import Anchor, Way
from tallpage.server.jobs.schemas import JobOut
from tallpage.server.outlets import ledger
from tallpage.server.outlets.models import RULES, Output, Rules, Slot
from tallpage.server.outlets.saving import saved_name
from tallpage.server.shelf.schemas import BoxSchema, FoldSchema
from tallpage.server.shelf.sorting import MOST_AT_ONCE

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


class ChoiceSchema(Schema):
    """A way to encode: quality for lossy formats, colours for a palette, neither for lossless."""

    format: FormatName
    quality: int | None = Field(default=None, ge=2, le=98)
    colours: Literal[2, 4, 16, 32, 64, 128, 256] | None = None
    subsampled: bool = False
    softened: bool = False
    sharpened: bool = False
    deblocked: bool = False
    patient: bool = False

    @model_validator(mode="after")
    def _makes_sense(self) -> Self:
        if self.format in ("jpeg", "avif") and self.quality is None:
            raise ValueError(f"{self.format} needs a quality")
        if self.format in ("png", "gif") and self.quality is not None:
            raise ValueError(f"{self.format} has colours, not quality")
        if self.format == "gif" and self.colours is None:
            raise ValueError("gif needs colours")
        if self.format == "gif" and self.colours in (32, 64, 128):
            raise ValueError("gif has 2, 4, 16 or 256 colours")
        if self.format not in ("png", "gif") and self.colours is not None:
            raise ValueError("only PNG and GIF have a palette")
        if self.softened and self.quality is None:
            raise ValueError("only what has a quality is softened")
        if self.softened and self.sharpened:
            raise ValueError("a file is softened or sharpened, not both")
        if self.deblocked and (self.format != "webp" or self.quality is None):
            raise ValueError("only lossy WebP is deblocked")
        if self.patient and self.format != "avif":
            raise ValueError("only AVIF is given more time")
        if self.format != "jpeg" and self.subsampled:
            raise ValueError("only JPEG halves its colour")
        return self

    def as_choice(self) -> Choice:
        """The choice as the core knows it."""
        return Choice(**self.dict())


class CandidateOut(Schema):
    """A file that was tried."""

    recipe: str
    choice: ChoiceSchema
    bytes: int
    fidelity: float


class TradeoffPoint(Schema):
    """A file that was expected, from a sample of the cut; not one that was made."""

    choice: ChoiceSchema
    bytes: int
    fidelity: float


class TradeoffOut(Schema):
    """Bytes against fidelity, for one way to encode."""

    recipe: str
    points: list[TradeoffPoint]


class AdviceOut(Schema):
    """What would help."""

    kind: Literal["width", "limit", "format", "leaves", "fold"]
    value: int
    sentence: str
    format: FormatName | None = None
    folds: list[FoldSchema] = []


class PlaceOut(BoxSchema):
    """A place in a file, in its pixels."""


class WeightOut(Schema):
    """A stretch of the page, and its bytes in the file."""

    top_px: int
    height_px: int
    bytes: int


class LeafOut(Schema):
    """One of the files that a cut too tall for its slot is divided into. ``top_px`` and
    ``page_height_px`` say which stretch of the page it shows."""

    top_px: int
    page_height_px: int
    height_px: int
    format: FormatName
    bytes: int
    fidelity: float
    met: bool


class OutputOut(SizedOut):
    """A row of the ledger. ``file_key`` changes with every new file and is empty before the first."""

    id: int
    cut_id: int
    slot_id: int | None
    label: str
    by_hand: bool
    format: FormatName | Literal[""]
    made_choice: ChoiceSchema | None
    made_width_px: int
    made_height_px: int
    kept_small: bool
    bytes: int
    fidelity: float | None
    looks: str
    met: bool
    stale: bool
    slot_changed: bool
    tries: int
    candidates: list[CandidateOut]
    advice: list[AdviceOut]
    tradeoffs: list[TradeoffOut]
    why: str
    weights: list[WeightOut]
    worst: list[PlaceOut]
    legible_marks: bool
    letters_px: float | None
    """Size of the smallest letters of marks, in px of the file."""
    swatch_key: str
    leaf_count: int | None
    breaks: list[int]
    leaves: list[LeafOut]
    file_key: str
    file_path: str
    """Where the file is in the data folder; of several, the first."""
    file_name: str
    """What it is called when it is saved; empty before there is a file."""
    job: JobOut

    @staticmethod
    def resolve_file_path(output: Output) -> str:
        """The first file's; empty before there is one."""
        return str(next(iter(output.paths), ""))

    @staticmethod
    def resolve_file_name(output: Output) -> str:
        """The file's, or that of the archive of its leaves."""
        return saved_name(output)

    @staticmethod
    def resolve_by_hand(output: Output) -> bool:
        """Whether somebody overruled the search."""
        return output.choice is not None

    @staticmethod
    def resolve_kept_small(output: Output) -> bool:
        """Whether the place wanted more pixels than the cut has."""
        return ledger.kept_small(output)

    @staticmethod
    def resolve_format(output: Output) -> str:
        """The first file's."""
        files = output.files.all()
        return files[0].format if files else ""

    @staticmethod
    def resolve_made_choice(output: Output) -> dict[str, Any] | None:
        """How the file is encoded that looks worst."""
        weakest = ledger.weakest(output)
        return weakest.choice if weakest else None

    @staticmethod
    def resolve_made_width_px(output: Output) -> int:
        """Width of each file."""
        return ledger.made_size(output)[0]

    @staticmethod
    def resolve_made_height_px(output: Output) -> int:
        """Height of all files together."""
        return ledger.made_size(output)[1]

    @staticmethod
    def resolve_bytes(output: Output) -> int:
        """The heaviest file's."""
        return max((file.bytes for file in output.files.all()), default=0)

    @staticmethod
    def resolve_fidelity(output: Output) -> float | None:
        """The worst file's."""
        weakest = ledger.weakest(output)
        return weakest.fidelity if weakest else None

    @staticmethod
    def resolve_file_key(output: Output) -> str:
        """The first file's."""
        files = output.files.all()
        return files[0].key if files else ""

    @staticmethod
    def resolve_leaves(output: Output) -> list[dict[str, Any]]:
        """Each file, where there are several."""
        return ledger.leaves(output)

    @staticmethod
    def resolve_looks(output: Output) -> str:
        """The fidelity in words."""
        weakest = ledger.weakest(output)
        return fidelity_in_words(weakest.fidelity) if weakest else ""


class OutputIn(Schema):
    """A row to add: for a slot, or with rules of its own."""

    slot_id: int | None = None
    rules: RulesSchema | None = None

    @model_validator(mode="after")
    def _one_or_the_other(self) -> Self:
        if (self.slot_id is None) == (self.rules is None):
            raise ValueError("give a slot, or rules of your own")
        return self


class ForManyIn(Schema):
    """Captures of which the files of an outlet are made."""

    captures: Annotated[list[int], Field(max_length=MOST_AT_ONCE)]


class LeftOutOut(Schema):
    """A capture of which a file is not made, and why."""

    name: str
    sentence: str


class ForManyOut(Schema):
    """How many files are made, and how many are there already."""

    ordered: int
    there: int
    left_out: list[LeftOutOut]


class FitIn(Schema):
    """How to make the file anew; no choice means search."""

    choice: ChoiceSchema | None = None
    follow_slot: bool = False
    """Whether to take over the slot's rules as they are now."""


class LegibleIn(Schema):
    """Whether marks are drawn larger where their letters could not be read."""

    legible: bool


class DivideIn(Schema):
    """How to divide: into so many leaves, or at breaks (px from the frame's top), or as it has to be."""

    leaf_count: int | None = None
    breaks: list[int] = []
