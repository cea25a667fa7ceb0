"""What may stand in the file of a routine; the JSON Schema comes from here.

A step's ``kind`` says what it does. Steps stand in the order of work; those of one stage may change places.
"""

from __future__ import annotations

from itertools import pairwise
from typing import Annotated, Literal, Self

from pydantic import Base64Bytes, Field, model_validator

from tallpage.core.clearing import Clearing
from tallpage.core.cut import MOST_FOLDS, Corner
from tallpage.core.cut.models import (
    MOST_HIDDEN,
    MOST_PICTURE_BYTES,
    MOST_PICTURES,
    MOST_STYLES,
    FoldDownFile,
    FoldFile,
    HiddenArea,
    How,
    Seam,
)
from tallpage.core.dressing import Dressing
from tallpage.core.fields import HexColour, Name, StrictModel, WholeLength, WholePlace
from tallpage.core.finding import Kind
from tallpage.core.marks import MOST_MARKS, Mark, Style
from tallpage.core.outlining import FreeOutline
from tallpage.core.routine._rules import Anchor, BlockRule, IfMissing
from tallpage.core.sizing import Anchor as KeptPart
from tallpage.core.sizing import Way
from tallpage.core.tone import Tone
from tallpage.core.trimming import SIDES, Side
from tallpage.core.turning import Orientation

VERSION = 1
MOST_STEPS = 60
MOST_OPEN_VALUES = 30
MOST_FILE_BYTES = 32_000_000
MOST_SLOT_NAME_CHARS = 80

_Text = Annotated[str, Field(max_length=2_000)]
_Named = Annotated[str, Field(min_length=1, max_length=120)]
_Px = Annotated[int, Field(strict=True, ge=0, le=100_000)]
_Count = Annotated[int, Field(strict=True, ge=1, le=1_000)]


class OpenValue(StrictModel):
    """A value that is asked for whenever the routine runs. What stands in the step is the usual one."""

    name: Annotated[str, Field(pattern=r"^[a-z][a-z0-9-]{0,39}$")]
    """What the command line knows it by."""
    field: Annotated[str, Field(pattern=r"^[a-z_]+(\.[a-z_]+)*$", max_length=80)]
    """The field of the step, like ``width_px`` or ``dressing.caption.text``."""
    words: _Named
    """What a person is asked."""


class _Step(StrictModel):
    off: bool = False
    """Whether the step is passed over."""
    ask: Annotated[tuple[OpenValue, ...], Field(max_length=MOST_OPEN_VALUES)] = ()


class _RuledStep(_Step):
    if_missing: IfMissing = "skip"


class TakeStep(_Step):
    """How a page is taken. It counts for pages that are taken for the run; captures are there already."""

    kind: Literal["take"]
    screen: Annotated[str, Field(max_length=30)] = "1280x800"
    """CSS width × height, and the scale: ``390x844@3``."""
    touch: bool = False
    extent: Literal["full", "view", "element", "panel", "between"] = "full"
    element: _Text = ""
    to_element: _Text = ""
    max_height_px: WholeLength | None = None
    max_screens: _Count | None = None
    page_width: Literal["screen", "all"] = "screen"
    scheme: Literal["light", "dark"] = "light"
    language: Annotated[str, Field(max_length=40)] = "en-GB"
    steps: Annotated[tuple[_Text, ...], Field(max_length=100)] = ()
    """What is done on the page first, a line each, like ``click "Accept all"``."""
    wait_ms: _Px = 0
    leave_out: Annotated[tuple[_Text, ...], Field(max_length=100)] = ()
    fixed_overlays: Literal["leave_out", "keep"] = "leave_out"


class TurnStep(_Step):
    """How the page lies."""

    kind: Literal["turn"]
    orientation: Orientation = Orientation()
    straighten: bool = False
    """Whether the angle is found by which lines of text and tables become level."""


class HideWordsStep(_RuledStep):
    """What is hidden wherever the page says it. A picture whose words are not known counts as missing."""

    kind: Literal["hide_words"]
    sought: Kind
    words: Annotated[str, Field(max_length=5_000)] = ""
    """Where ``sought`` is ``words``: a word or several that belong together on each line."""
    how: How = "solid"
    colour: HexColour = "#1D2B2A"
    strength_px: Annotated[int, Field(strict=True, ge=2, le=400)] | None = None


class HideBlocksStep(_RuledStep):
    """All blocks that a rule fits are hidden; its number does not count."""

    kind: Literal["hide_blocks"]
    block: BlockRule
    how: How = "solid"
    colour: HexColour = "#1D2B2A"
    strength_px: Annotated[int, Field(strict=True, ge=2, le=400)] | None = None


class HideAreasStep(_RuledStep):
    """Rectangles are hidden, counted from a corner of the page or of a block, to the right and down."""

    kind: Literal["hide_areas"]
    areas: Annotated[tuple[HiddenArea, ...], Field(min_length=1, max_length=MOST_HIDDEN)]
    at: Anchor = Anchor()


class ClearStep(_Step):
    """Colours become transparent."""

    kind: Literal["clear"]
    cleared: Clearing


class FrameBlockStep(_RuledStep):
    """What is shown is a block, with some room around it."""

    kind: Literal["frame_block"]
    block: BlockRule
    room_px: _Px = 0
    as_wide: Literal["block", "page"] = "block"


class FrameStretchStep(_RuledStep):
    """What is shown is the page from one block to another, as wide as it was."""

    kind: Literal["frame_stretch"]
    from_block: BlockRule | None = None
    """None: from the top."""
    to_block: BlockRule | None = None
    """None: to the lower end."""
    with_last: bool = True
    """Whether the last block is shown, or it ends above it."""
    room_px: _Px = 0


class FrameCornerStep(_RuledStep):
    """What is shown is a box of a fixed size, its corner so far inwards from the same corner of what was."""

    kind: Literal["frame_corner"]
    corner: Corner = "top-left"
    x_px: WholePlace = 0
    y_px: WholePlace = 0
    width_px: WholeLength
    height_px: WholeLength
    smaller: bool = True
    """Whether a picture that is smaller is shown as far as it goes; else it counts as missing."""


class FrameScreensStep(_RuledStep):
    """What is shown are the first screens. A picture that was taken on no screen counts as missing."""

    kind: Literal["frame_screens"]
    screens: _Count = 1


class TrimStep(_Step):
    """Plain edges are left out."""

    kind: Literal["trim"]
    sides: Annotated[tuple[Side, ...], Field(min_length=1, max_length=4)] = SIDES


class FoldBlocksStep(_RuledStep):
    """The rows of all blocks that a rule fits are folded away; its number does not count."""

    kind: Literal["fold_blocks"]
    block: BlockRule
    room_px: _Px = 0


class FoldBandsStep(_RuledStep):
    """Bands are folded away, counted from the upper left corner of what is shown."""

    kind: Literal["fold_bands"]
    folds: Annotated[tuple[FoldFile, ...], Field(max_length=MOST_FOLDS)] = ()
    folds_down: Annotated[tuple[FoldDownFile, ...], Field(max_length=MOST_FOLDS)] = ()


class SeamStep(_Step):
    """What folds look like."""

    kind: Literal["seam"]
    seam: Seam


class OutlineStep(_RuledStep):
    """A shape outside which nothing is kept, counted from the upper left corner of what is shown."""

    kind: Literal["outline"]
    outline: FreeOutline


class ToneStep(_Step):
    """How colours are changed; a later step counts before an earlier one."""

    kind: Literal["tone"]
    tone: Tone


class MarksStep(_RuledStep):
    """What points at something, counted from a corner of what is shown or of a block, right and down."""

    kind: Literal["marks"]
    marks: Annotated[
        tuple[Annotated[Mark, Field(discriminator="kind")], ...],
        Field(min_length=1, max_length=MOST_MARKS),
    ]
    at: Anchor = Anchor()


class DressStep(_Step):
    """What goes around the picture. Steps add to each other; of the same part, the later one counts."""

    kind: Literal["dress"]
    dressing: Dressing


class SlotStep(_Step):
    """A file that is made, and what its place asks of it."""

    kind: Literal["slot"]
    name: Annotated[str, Field(max_length=MOST_SLOT_NAME_CHARS)] = ""
    """Empty: its size."""
    way: Way = "width"
    width_px: Annotated[int, Field(strict=True, ge=0, le=100_000)] = 0
    height_px: Annotated[int, Field(strict=True, ge=0, le=100_000)] = 0
    percent: Annotated[int, Field(strict=True, ge=0, le=10_000)] = 100
    keep: KeptPart = "start"
    """Which part stays when something is cut off."""
    enlarge: bool = False
    background: Annotated[str, Field(pattern=r"^#[0-9a-fA-F]{6}$")] = "#ffffff"
    limit_bytes: Annotated[int, Field(strict=True, ge=1)] | None = None
    fidelity: Annotated[int, Field(strict=True, ge=0, le=100)] | None = None
    """As light as possible while it looks so good, 50 to 100."""
    formats: Annotated[tuple[str, ...], Field(min_length=1, max_length=10)] = ("jpeg", "png", "webp")
    greatest_height_px: WholeLength | None = None
    leaves: Annotated[int, Field(strict=True, ge=1, le=1_000)] | None = None
    overlap_px: _Px = 0
    numbered: bool = False
    legible_marks: bool = False


class OutStep(_Step):
    """How the files leave."""

    kind: Literal["out"]
    way: Literal["files", "folder", "pdf", "upload"] = "files"
    """Kept where they are made; into a folder of the server; as one document of each picture; to where
    an outlet's files go."""
    names: Annotated[str, Field(max_length=300)] = ""
    """A pattern as sweeps have them; empty: page, date and size."""
    folder: Annotated[str, Field(max_length=200)] = ""
    outlet: Annotated[str, Field(max_length=80)] = ""
    paper: Annotated[str, Field(max_length=40)] = "tall"
    """Of documents."""


Step = (
    TakeStep
    | TurnStep
    | HideWordsStep
    | HideBlocksStep
    | HideAreasStep
    | ClearStep
    | FrameBlockStep
    | FrameStretchStep
    | FrameCornerStep
    | FrameScreensStep
    | TrimStep
    | FoldBlocksStep
    | FoldBandsStep
    | SeamStep
    | OutlineStep
    | ToneStep
    | MarksStep
    | DressStep
    | SlotStep
    | OutStep
)

STAGES: tuple[frozenset[str], ...] = (
    frozenset({"take"}),
    frozenset({"turn"}),
    frozenset({"hide_words", "hide_blocks", "hide_areas"}),
    frozenset({"clear"}),
    frozenset(
        {
            "frame_block",
            "frame_stretch",
            "frame_corner",
            "frame_screens",
            "trim",
            "fold_blocks",
            "fold_bands",
            "seam",
        }
    ),
    frozenset({"outline"}),
    frozenset({"tone"}),
    frozenset({"marks"}),
    frozenset({"dress"}),
    frozenset({"slot"}),
    frozenset({"out"}),
)
"""Kinds of steps in the order of work. Within a stage, steps may stand in any order."""


def stage_of(kind: str) -> int:
    """Which stage a kind of step belongs to, from 0."""
    return next(at for at, kinds in enumerate(STAGES) if kind in kinds)


class Routine(StrictModel):
    """A chain of steps that is run over any number of captures, as a value and as a file."""

    version: Literal[1] = Field(description=f"The version of this format: {VERSION}.")
    name: _Named
    note: _Text = ""
    """What it is for."""
    steps: Annotated[
        tuple[Annotated[Step, Field(discriminator="kind")], ...], Field(max_length=MOST_STEPS)
    ] = ()
    styles: Annotated[dict[Name, Style], Field(max_length=MOST_STYLES)] = {}
    """Looks that marks name."""
    pictures: Annotated[
        dict[Name, Annotated[Base64Bytes, Field(max_length=MOST_PICTURE_BYTES)]],
        Field(max_length=MOST_PICTURES),
    ] = {}
    """PNG, JPEG or WebP files in base64, by the names that stickers and stamps give."""

    @model_validator(mode="after")
    def _steps_stand_in_order(self) -> Self:
        stages = [stage_of(step.kind) for step in self.steps]
        for at, (before, after) in enumerate(pairwise(stages), start=1):
            if after < before:
                raise ValueError(
                    f"step {at + 1} ({self.steps[at].kind}) comes before step {at} "
                    f"({self.steps[at - 1].kind}) in the order of work"
                )
        for kind in ("take", "turn", "clear", "outline", "out"):
            if sum(step.kind == kind and not step.off for step in self.steps) > 1:
                raise ValueError(f"there is more than one step “{kind}”")
        return self
