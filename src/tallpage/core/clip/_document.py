"""What is made of a clip's frames: which are shown, how fast, which part of the picture. Pure."""

from __future__ import annotations

from dataclasses import dataclass

from tallpage.core.clip._on_frames import MOST_ON_FRAMES, HiddenOnFrames, MarkOnFrames
from tallpage.core.errors import ClipError
from tallpage.core.geometry import Box, Size

LEAST_SPEED, MOST_SPEED = 0.1, 10.0
MOST_HOLD_MS = 10_000
MOST_REPEATS = 100
_MOST_KEEP_EVERY = 30


@dataclass(frozen=True, slots=True, kw_only=True)
class ClipDocument:
    """How a clip plays. What is dropped is only left out, and can be restored."""

    dropped: frozenset[int] = frozenset()
    """Frames that are left out with their time, counted from 0."""
    keep_every: int = 1
    """2 keeps every second frame, for twice as long."""
    speed: float = 1.0
    there_and_back: bool = False
    hold_start_ms: int = 0
    hold_end_ms: int = 0
    """For how much longer the first and the last frame are seen."""
    repeats: int = 0
    """How often it plays; 0 is for ever."""
    box: Box | None = None
    """The part of the frames that is shown, in px of their pictures; None is all."""
    pointer: bool = True
    """Whether the pointer is drawn, with a ring where it presses."""
    hidden: tuple[HiddenOnFrames, ...] = ()
    marks: tuple[MarkOnFrames, ...] = ()
    """From the lowest to the highest; they lie over the pointer."""

    def __post_init__(self) -> None:
        if not LEAST_SPEED <= self.speed <= MOST_SPEED:
            raise _impossible(f"A speed of {self.speed:g}", f"{LEAST_SPEED:g} to {MOST_SPEED:g}")
        if not 1 <= self.keep_every <= _MOST_KEEP_EVERY:
            raise _impossible(f"Keeping every {self.keep_every}th frame", f"1 to {_MOST_KEEP_EVERY}")
        if not 0 <= self.repeats <= MOST_REPEATS:
            raise _impossible(f"Playing {self.repeats} times", f"1 to {MOST_REPEATS}, or 0 for ever")
        for hold_ms in (self.hold_start_ms, self.hold_end_ms):
            if not 0 <= hold_ms <= MOST_HOLD_MS:
                raise _impossible(f"Holding for {hold_ms / 1_000:g} s", f"0 to {MOST_HOLD_MS // 1_000} s")
        for what, rows in (("hidden areas", self.hidden), ("marks", self.marks)):
            if len(rows) > MOST_ON_FRAMES:
                raise _impossible(f"A clip with {len(rows):,} {what}", f"at most {MOST_ON_FRAMES}")

    def box_on(self, size: Size) -> Box:
        """The part of pictures of a size that is shown.

        Raises:
            ClipError: it does not lie on them.
        """
        box = self.box or Box.whole(size)
        if not box.lies_on(size):
            raise ClipError(
                f"The part of {box.width_px} × {box.height_px} px at {box.x_px}, {box.y_px} does not lie on "
                f"frames of {size.width_px} × {size.height_px} px.",
                hint="Give a part that lies on them.",
                code="clip_box",
            )
        return box


def _impossible(what: str, hint: str) -> ClipError:
    return ClipError(f"{what} is not possible.", hint=f"Give {hint}.", code="clip_impossible")
