"""Scrolling through a page, so that everything that loads late has loaded."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from tallpage.core.capture._request import PageRequest, Progress
from tallpage.core.capture.browser._page_session import PageSession

_SCREENS_PER_WALK = 8
_LOOK_EVERY_MS = 400
"""How often it is looked whether a page grew that waits for answers."""
_AFTER_ANSWER_MS = 80
"""From the end of an answer until the page has laid out what came."""

GoOn = Callable[[Progress], bool]
"""Tells of progress, and hears whether to go on; False is to keep what there is."""
Ended = Literal["end", "asked", "grew", "person"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Walk:
    """How far down a page was scrolled, and why no further."""

    height_px: int
    ended: Ended


def walk_through(
    page: PageSession, request: PageRequest, go_on: GoOn, *, height_px: int, watching: bool
) -> Walk:
    """Scroll what scrolls, which is so high so far, from its top until it ends or is to be cut off.

    A page that is not ``watching`` its own scrolling need not be scrolled.
    """
    timeouts = request.timeouts
    if request.extent == "view" or not watching:
        page.wait_quiet(timeout_ms=timeouts.quiet_ms)
        return Walk(height_px=height_px, ended="end")
    may_reach_px = max(height_px, request.from_px) + timeouts.growth_screens * request.screen.height_px
    y_px = 0
    while True:
        order = {"fromPx": y_px, "screens": _SCREENS_PER_WALK, "lingerMs": timeouts.linger_ms}
        step = page.run("layout/walk", order, timeout_ms=timeouts.operation_ms)
        y_px, height_px = step["yPx"], step["heightPx"]
        if not go_on(Progress(stage="scrolling", done=min(y_px, height_px), expected=height_px)):
            return Walk(height_px=y_px, ended="end" if step["atEnd"] else "person")
        if request.cut_off_px is not None and y_px >= request.cut_off_px:
            return Walk(height_px=height_px, ended="asked")
        if y_px >= may_reach_px:
            return Walk(height_px=y_px, ended="grew")
        if step["atEnd"] and not _grew(page, request, height_px):
            return Walk(height_px=height_px, ended="end")


def _grew(page: PageSession, request: PageRequest, height_px: int) -> bool:
    """Whether the page became higher before the answers it waits for had come, or by them."""
    left_ms = request.timeouts.quiet_ms
    # A page may never be quiet, and grow all the same.
    while left_ms > 0 and not page.wait_quiet(timeout_ms=min(left_ms, _LOOK_EVERY_MS)):
        if _height_px(page, request) > height_px:
            return True
        left_ms -= _LOOK_EVERY_MS
    page.pause(_AFTER_ANSWER_MS)
    return _height_px(page, request) > height_px


def _height_px(page: PageSession, request: PageRequest) -> int:
    height_px: int = page.run("layout/measure", {}, timeout_ms=request.timeouts.operation_ms)[
        "walkedHeightPx"
    ]
    return height_px
