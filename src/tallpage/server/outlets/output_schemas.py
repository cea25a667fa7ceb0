"""Outputs and their files on the wire."""

from __future__ import annotations

from typing import Annotated, Any, Literal, Self

from ninja import Field, Schema
from pydantic import model_validator

from tallpage.core.fit import Choice, fidelity_in_words
from tallpage.server.jobs.schemas import JobOut
from tallpage.server.outlets import ledger
from tallpage.server.outlets.models import Output
from tallpage.server.outlets.saving import saved_name
from tallpage.server.outlets.schemas import FormatName, RulesSchema, SizedOut
from tallpage.server.shelf.routes.cut_schemas import BoxSchema, FoldSchema
from tallpage.server.shelf.sorting.folders import MOST_AT_ONCE


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
