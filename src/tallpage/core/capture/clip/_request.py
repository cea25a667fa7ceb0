"""What is asked of a clip of a page, and what is said of it."""

from __future__ import annotations

from dataclasses import dataclass

from tallpage.core.capture._request import PageRequest
from tallpage.core.clip import MOST_SECONDS, require_rate, too_long
from tallpage.core.errors import ClipError

USUAL_RATE_FPS = 15
_LEAST_SPEED_PX_S, _MOST_SPEED_PX_S = 20, 20_000
_MOST_PAUSE_S = 10.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Scroll:
    """Scrolling through a page, in CSS px."""

    from_px: int = 0
    to_px: int | None = None
    """None is as far as it goes; less than where it begins is upwards."""
    speed_px_s: int | None = None
    """None is a screen in one and a half seconds, faster on a page so long that it would take too long."""
    pause_s: float = 0.0
    """How long it stays where a heading or section comes to the top of the window."""

    def __post_init__(self) -> None:
        if self.from_px < 0 or (self.to_px is not None and self.to_px < 0):
            raise ClipError("A page is not scrolled to above its top.", hint="Give 0 px or more.")
        if self.speed_px_s is not None and not _LEAST_SPEED_PX_S <= self.speed_px_s <= _MOST_SPEED_PX_S:
            raise ClipError(
                f"Scrolling at {str(self.speed_px_s)[:20]} px a second is not possible.",
                hint=f"Give {_LEAST_SPEED_PX_S} to {_MOST_SPEED_PX_S:,}.",
            )
        if not 0 <= self.pause_s <= _MOST_PAUSE_S:
            raise ClipError(
                f"A pause of {self.pause_s:g} s is not possible.", hint=f"Give 0 to {_MOST_PAUSE_S:g} s."
            )


@dataclass(frozen=True, slots=True, kw_only=True)
class ClipRequest:
    """One clip of a page: its scrolling, its steps as they are played, or what moves by itself."""

    page: PageRequest
    scroll: Scroll | None = None
    plays_steps: bool = False
    """Whether the page's steps are seen; else they are done before."""
    seconds: float = 0.0
    """How long the page is watched, after its steps."""
    element: str = ""
    """Target of what is seen; nothing is the window."""
    rate_fps: int = USUAL_RATE_FPS

    def __post_init__(self) -> None:
        require_rate(self.rate_fps)
        if not 0 <= self.seconds <= MOST_SECONDS:
            raise too_long()
        if self.scroll is not None and (self.plays_steps or self.seconds or self.element):
            raise ClipError(
                "A clip scrolls through a page, or shows its steps and movement.",
                hint="Ask for one of both.",
                code="clip_two_kinds",
            )
        if self.scroll is None and not self.plays_steps and not self.seconds:
            raise ClipError(
                "It is not said what the clip shows.",
                hint="Scroll, play steps, or give some seconds.",
                code="clip_no_kind",
            )


@dataclass(frozen=True, slots=True, kw_only=True)
class ClipReport:
    """How a clip was taken."""

    address: str
    final_address: str
    title: str
    status: int
    left_out: tuple[str, ...]
    warnings: tuple[str, ...]
    done: tuple[str, ...]
    """Steps that were done, as lines."""
    seconds: float
    """How long taking it took."""
