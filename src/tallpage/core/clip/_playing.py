"""Which frame is seen when, and for how long. Pure."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import accumulate

from tallpage.core.clip._document import ClipDocument
from tallpage.core.clip._frames import Frame, Frames
from tallpage.core.errors import ClipError


@dataclass(frozen=True, slots=True, kw_only=True)
class Shown:
    """A frame, counted from 0, from when it is seen and for how long."""

    frame: int
    start_ms: int
    duration_ms: int

    @property
    def middle_ms(self) -> float:
        """The moment at which it is looked at."""
        return self.start_ms + self.duration_ms / 2


def played(frames: Frames, document: ClipDocument) -> tuple[Shown, ...]:
    """What is seen from the first moment to the last, once through.

    What shows the same as the moment before only lasts longer.

    Raises:
        ClipError: every frame is dropped.
    """
    kept = [number for number in range(len(frames.frames)) if number not in document.dropped]
    if not kept:
        raise ClipError(
            "Every frame of the clip is dropped.", hint="Restore at least one.", code="clip_empty"
        )
    step_ms = 1_000 / frames.rate_fps / document.speed
    groups = [kept[first : first + document.keep_every] for first in range(0, len(kept), document.keep_every)]
    there = [(group[0], len(group) * step_ms) for group in groups]
    there[0] = (there[0][0], there[0][1] + document.hold_start_ms)
    there[-1] = (there[-1][0], there[-1][1] + document.hold_end_ms)
    back = there[-2:0:-1] if document.there_and_back else []
    return _in_whole_ms(_merged([*there, *back], frames, document))


def thinned(shown: Sequence[Shown], keep_every: int) -> tuple[Shown, ...]:
    """Only every so many-th of what is seen, each until the next one comes."""
    groups = [shown[first : first + keep_every] for first in range(0, len(shown), keep_every)]
    return tuple(
        Shown(
            frame=group[0].frame,
            start_ms=group[0].start_ms,
            duration_ms=sum(row.duration_ms for row in group),
        )
        for group in groups
    )


def length_ms(shown: Sequence[Shown]) -> int:
    """How long it lasts, once through."""
    return sum(row.duration_ms for row in shown)


def _merged(rows: list[tuple[int, float]], frames: Frames, document: ClipDocument) -> list[tuple[int, float]]:
    merged: list[tuple[int, float]] = []
    for number, duration_ms in rows:
        if merged and _look(frames.frames[merged[-1][0]], document) == _look(frames.frames[number], document):
            merged[-1] = (merged[-1][0], merged[-1][1] + duration_ms)
        else:
            merged.append((number, duration_ms))
    return merged


def _look(frame: Frame, document: ClipDocument) -> object:
    """What decides how a frame looks."""
    return (frame.file, frame.pointer_px, frame.pressed) if document.pointer else frame.file


def _in_whole_ms(rows: list[tuple[int, float]]) -> tuple[Shown, ...]:
    """Rounded where each begins, not each by itself: so the sum is right to the millisecond."""
    ends = [round(end_ms) for end_ms in accumulate(duration_ms for _, duration_ms in rows)]
    starts = [0, *ends[:-1]]
    return tuple(
        Shown(frame=number, start_ms=start_ms, duration_ms=max(1, end_ms - start_ms))
        for (number, _), start_ms, end_ms in zip(rows, starts, ends, strict=True)
    )
