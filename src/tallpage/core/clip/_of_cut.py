"""What a clip takes of a cut: its box, what it hides, its marks, on every frame."""

from __future__ import annotations

from typing import Any

from tallpage.core.clip._document import ClipDocument
from tallpage.core.clip._on_frames import HiddenOnFrames, MarkOnFrames
from tallpage.core.cut import Cut
from tallpage.core.errors import ClipError

_NOT_ON_CLIPS = ("orientation", "sought", "cleared", "seam", "outline", "tone", "dressing")


def document_of_cut(cut: Cut, **plays: Any) -> ClipDocument:
    """How a clip is seen through a cut; ``plays`` is what else its document says.

    Raises:
        ClipError: the cut has parts that clips do not have.
        CutError: a mark names a style that the cut does not hold.
    """
    parts = [name for name in _NOT_ON_CLIPS if getattr(cut, name)]
    if cut.frame.folds or cut.frame.folds_down:
        parts.insert(0, "folds")
    if cut.picture_names():
        parts.append("pictures of its own")
    if parts:
        raise ClipError(
            f"The cut has {', '.join(parts)}, which clips do not have.",
            hint="Give a cut with a box, hidden areas and marks alone.",
            code="clip_cut",
        )
    marks = (mark.model_copy(update={"style": None}) for mark in cut.resolved({}).marks)
    return ClipDocument(
        box=cut.frame.box,
        hidden=tuple(HiddenOnFrames(area=area) for area in cut.hidden),
        marks=tuple(MarkOnFrames(mark=mark) for mark in marks),
        **plays,
    )
