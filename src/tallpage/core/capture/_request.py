"""What is asked of a capture, and how it tells of its progress."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Literal

from tallpage.core.capture._screen import Screen
from tallpage.core.capture._timeouts import Timeouts
from tallpage.core.capture.opening._sign_in import SignIn
from tallpage.core.capture.opening._steps import MOST_STEPS, Step
from tallpage.core.errors import PageError

MOST_WAIT_MS = 60_000
_MOST_LEFT_OUT, _MOST_CHARS = 100, 2_000
MOST_HEIGHT_PX = 10_000_000
_LANGUAGE = re.compile(r"[A-Za-z]{2,3}(-[A-Za-z0-9]{2,8})*")

Extent = Literal["full", "view", "element", "panel", "between"]
"""The whole page, its first screen, one element as it is seen, one scrolling panel in its whole
length, or from one element to another."""
PageWidth = Literal["screen", "all"]
Scheme = Literal["light", "dark"]
FixedOverlays = Literal["leave_out", "keep"]
Stage = Literal["opening", "steps", "scrolling", "settling", "taking"]
StopMode = Literal["go_on", "stop", "keep"]
"""What the person wants of a capture under way: ``keep`` is to stop, with what there is."""


@dataclass(frozen=True, slots=True, kw_only=True)
class PageRequest:
    """One page to take. ``address`` is normalised already; targets are CSS or "words"."""

    address: str
    screen: Screen
    extent: Extent = "full"
    element: str = ""
    """Target of the element or panel to take, or of the first of a stretch."""
    to_element: str = ""
    """Target of the last element of a stretch."""
    from_px: int = 0
    """CSS px from the page's top at which a full page begins: where an earlier capture was cut off."""
    max_height_px: int | None = None
    """CSS px after which a full page is cut off."""
    max_screens: int | None = None
    """The same, in heights of the screen."""
    page_width: PageWidth = "screen"
    """Whether what is wider than the screen is cut off at its edge, as it is seen, or taken as well."""
    scheme: Scheme = "light"
    """Which colours the page is asked to show itself in."""
    language: str = "en-GB"
    """The language the page is asked for in."""
    steps: tuple[Step, ...] = ()
    """What is done on the page before the picture."""
    wait_ms: int = 0
    """An extra wait before the picture, for a page that shows something late without loading it."""
    leave_out: tuple[str, ...] = ()
    """CSS selectors of what is hidden before the picture."""
    fixed_overlays: FixedOverlays = "leave_out"
    """What becomes of notices and bubbles that hang in the window: hidden, or once at the lower end."""
    sign_in: SignIn | None = field(default=None, repr=False)
    timeouts: Timeouts = field(default_factory=Timeouts)

    def __post_init__(self) -> None:
        if not 0 <= self.wait_ms <= MOST_WAIT_MS:
            raise PageError(
                f"A wait of {self.wait_ms / 1_000:g} s is not possible.",
                hint=f"Give 0 to {MOST_WAIT_MS // 1_000} s.",
                code="wait_impossible",
            )
        for name, height in (("px", self.max_height_px), ("screens", self.max_screens)):
            if height is not None and not 1 <= height <= MOST_HEIGHT_PX:
                raise PageError(
                    f"A page cannot be cut off after {str(height)[:20]} {name}.",
                    hint=f"Give 1 to {MOST_HEIGHT_PX:,} {name}, or nothing.",
                    code="height_impossible",
                )
        if not 0 <= self.from_px <= MOST_HEIGHT_PX:
            raise PageError(
                f"A picture cannot begin at {str(self.from_px)[:20]} px.",
                code="height_impossible",
                hint=f"Give 0 to {MOST_HEIGHT_PX:,} px.",
            )
        if self.extent in ("element", "panel", "between") and not self.element.strip():
            raise _no_target("which element" if self.extent != "panel" else "which panel")
        if self.extent == "between" and not self.to_element.strip():
            raise _no_target("up to which element")
        if not _LANGUAGE.fullmatch(self.language):
            raise PageError(
                f"“{self.language}” is not a language.",
                hint="Write it like en-GB, de or pt-BR.",
                code="language_malformed",
            )
        named = (*self.leave_out, self.element, self.to_element)
        if len(self.leave_out) > _MOST_LEFT_OUT or any(len(text) > _MOST_CHARS for text in named):
            raise PageError(
                f"Over {_MOST_LEFT_OUT} selectors, or one of over {_MOST_CHARS:,} characters, are too much.",
                hint="Give fewer or shorter ones.",
                code="element_malformed",
            )
        if len(self.steps) > MOST_STEPS:
            raise PageError(
                f"{len(self.steps)} steps are too many.",
                hint=f"Give at most {MOST_STEPS}.",
                code="step_malformed",
            )

    @property
    def cut_off_px(self) -> int | None:
        """CSS px from the page's top at which a full page is cut off, if that was asked for."""
        limits = [self.max_height_px] if self.max_height_px is not None else []
        if self.max_screens is not None:
            limits.append(self.max_screens * self.screen.height_px)
        return self.from_px + min(limits) if limits else None


def _no_target(what: str) -> PageError:
    return PageError(
        f"It is not said {what} to take.",
        hint="Give a CSS selector like #main, or words it shows in quotation marks.",
        code="element_missing",
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class Progress:
    """Where a capture is: the stage, and counts where something is counted."""

    stage: Stage
    done: int = 0
    expected: int = 0


OnProgress = Callable[[Progress], None]
AskStopMode = Callable[[], StopMode]
