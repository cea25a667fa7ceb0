"""What a clip takes of a cut: its box, what it hides, its marks, on every frame."""

from __future__ import annotations

from dataclasses import replace

from tallpage.core.clip._document import ClipDocument
from tallpage.core.clip._on_frames import HiddenOnFrames, MarkOnFrames
from tallpage.core.cut import Cut
from tallpage.core.errors import ClipError

_NOT_ON_CLIPS = {
    "orientation": "turning",
    "sought": "words that are hidden wherever they are",
    "cleared": "cleared colours",
    "seam": "a seam",
    "outline": "an outline",
    "tone": "tone",
    "dressing": "dressing",
}


def seen_through(cut: Cut, document: ClipDocument) -> ClipDocument:
    """A document with the box, hidden areas and marks of a cut.

    Raises:
        ClipError: the cut has parts that clips do not have.
        CutError: a mark names a style that the cut does not hold.
    """
    parts = [words for name, words in _NOT_ON_CLIPS.items() if getattr(cut, name)]
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
    return replace(
        document,
        box=cut.frame.box,
        hidden=tuple(HiddenOnFrames(area=area) for area in cut.hidden),
        marks=tuple(MarkOnFrames(mark=mark) for mark in marks),
    )
