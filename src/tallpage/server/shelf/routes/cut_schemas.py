"""Cuts on the wire. Sizes are page pixels unless the name says otherwise."""

from __future__ import annotations

from typing import Any, Literal

from ninja import Field, Schema
from pydantic import ConfigDict, model_serializer

from tallpage.core.cut import Cut, Fold, FoldDown, Frame, require_parts_agree
from tallpage.core.cut.models import PartsFile
from tallpage.core.fields import FURTHEST_PX
from tallpage.core.following import Part, State
from tallpage.core.geometry import Box
from tallpage.core.trimming import SIDES, Side
from tallpage.server.shelf.cuts.pictures import stored_pictures

MOST_LISTED = 1_000
"""Far more than is taken; what is longer is refused before it is looked at."""


class BoxSchema(Schema):
    """A box in whole pixels."""

    x_px: int
    y_px: int
    width_px: int
    height_px: int


class FoldSchema(Schema):
    """A band across the page that is folded away."""

    model_config = ConfigDict(extra="forbid")

    top_px: int
    height_px: int = Field(ge=1)


class FoldDownSchema(Schema):
    """A band down the page that is folded away."""

    model_config = ConfigDict(extra="forbid")

    left_px: int
    width_px: int = Field(ge=1)


class FrameSchema(BoxSchema):
    """What of the page a cut shows: a box, minus its folds."""

    model_config = ConfigDict(extra="forbid")

    folds: list[FoldSchema] = []
    folds_down: list[FoldDownSchema] = []

    @model_serializer(mode="wrap")
    def _as_stored(self, serialise):  # type: ignore[no-untyped-def]
        """Folds down the page are named where there are some, as in the document that is kept."""
        said = serialise(self)
        return said if self.folds_down else {name: said[name] for name in said if name != "folds_down"}

    def as_frame(self) -> Frame:
        """The frame as the core knows it.

        Raises:
            FrameError: nothing would be left between the folds.
        """
        box = Box(x_px=self.x_px, y_px=self.y_px, width_px=self.width_px, height_px=self.height_px)
        folds_down = [FoldDown(**fold.dict()) for fold in self.folds_down]
        return Frame.of(box, [Fold(**fold.dict()) for fold in self.folds], folds_down)


class CutDocument(PartsFile):
    """What a cut shows, as in docs/cut-file.md. What is not known is refused, never dropped."""

    version: Literal[1] = 1
    frame: FrameSchema

    def as_cut(self) -> Cut:
        """The cut as the core knows it.

        Raises:
            CutError: a part of it names what is not there.
            FrameError: nothing would be left between the folds.
        """
        require_parts_agree(self, stored_pictures())
        return Cut(frame=self.frame.as_frame(), **self.parts())


class LookedAt(Schema):
    """A part of a cut: its kind, and its id."""

    part: Part
    id: str = Field(max_length=40)


class ReviewRowOut(LookedAt):
    """What became of a part of a cut that was carried over. ``kept`` is the part itself, where it has no
    place now, in px of the page before."""

    state: State
    doubt: bool
    before: BoxSchema
    now: BoxSchema | None
    kept: dict[str, Any] | None


class ReviewIn(Schema):
    """Parts that a person has looked at."""

    settled: list[LookedAt] = Field(max_length=MOST_LISTED)


class CutOrderIn(Schema):
    """The cuts of a capture, in an order."""

    cut_ids: list[int] = Field(max_length=MOST_LISTED)


class TrimIn(Schema):
    """A box of a page, and which of its plain edges are left out."""

    box: BoxSchema
    sides: list[Side] = list(SIDES)
    preparation: str = ""
    """How the page is turned and cleared, as JSON."""


class PieceIn(Schema):
    """A piece of a page in the query of an address."""

    x_px: int = Field(ge=0, le=FURTHEST_PX)
    y_px: int = Field(ge=0, le=FURTHEST_PX)
    width_px: int = Field(ge=1, le=2_000)
    height_px: int = Field(ge=1, le=2_000)


class CutOut(Schema):
    """A cut; ``version`` must come back with a change, and rises with each."""

    id: int
    capture_id: int
    name: str
    document: CutDocument
    version: int
    changed_by: str = ""
    """Who wrote this version; empty where nobody signs in."""
    carried_from: int | None = None
    """The cut of the page before that this one was, before it was carried over."""
    review: list[ReviewRowOut] = []
    """What became of each part then; those that need a look first."""

    @staticmethod
    def resolve_carried_from(cut: Any) -> int | None:
        """The other cut's id."""
        if isinstance(cut.document, CutDocument):  # it is put into a larger answer
            return cut.carried_from  # type: ignore[no-any-return]
        return cut.carried_from_id  # type: ignore[no-any-return]

    @staticmethod
    def resolve_document(cut: Any) -> Any:
        """The document with all of its lists, also the empty ones."""
        if isinstance(cut.document, CutDocument):  # it is put into a larger answer
            return cut.document
        return {"hidden": [], "sought": [], "marks": [], "styles": {}, **cut.document}


class CutChangeIn(Schema):
    """A change of a cut."""

    version: int
    document: CutDocument | None = None
    name: str | None = Field(default=None, max_length=80)
