"""Where a page is scrolled to at each frame. Pure."""

from __future__ import annotations

import itertools
from collections.abc import Sequence

from tallpage.core.capture.clip._request import Scroll

_SCREENS_A_SECOND = 1 / 1.5
_USUALLY_AT_MOST_S = 12.0
_REST_S = 0.5
"""How long the first and the last place are seen."""
_EASED_S = 0.4
"""How long it takes to come to full speed, and to rest again."""


def scroll_positions(
    scroll: Scroll, *, reach_px: int, tops_px: Sequence[int], window_px: int, rate_fps: int
) -> list[int]:
    """The place at the window's top for each frame, in whole CSS px.

    The page can be scrolled ``reach_px`` far; headings and sections begin at ``tops_px``.
    """
    first = min(scroll.from_px, reach_px)
    last = reach_px if scroll.to_px is None else min(scroll.to_px, reach_px)
    speed = scroll.speed_px_s or max(
        window_px * _SCREENS_A_SECOND, abs(last - first) / _USUALLY_AT_MOST_S, 1.0
    )
    stops = [first, *_stops(scroll, first, last, tops_px, window_px), last]
    rest = round(_REST_S * rate_fps)
    pause = round(scroll.pause_s * rate_fps)
    positions = [first] * max(1, rest)
    for number, (start, end) in enumerate(itertools.pairwise(stops)):
        positions += _glide(start, end, speed, rate_fps)
        if number < len(stops) - 2:
            positions += [end] * pause
    return positions + [last] * rest


def _stops(scroll: Scroll, first: int, last: int, tops_px: Sequence[int], window_px: int) -> list[int]:
    """Where it stays on the way: no two places nearer to each other than half a window."""
    if not scroll.pause_s:
        return []
    low, high = min(first, last), max(first, last)
    on_the_way = sorted((top for top in tops_px if low < top < high), reverse=last < first)
    found, before = [], first
    for top in on_the_way:
        if abs(top - before) >= window_px / 2 and abs(last - top) >= window_px / 4:
            found.append(top)
            before = top
    return found


def _glide(start: int, end: int, speed_px_s: float, rate_fps: int) -> list[int]:
    """From one place to another, slower at both ends; the start itself is not said again."""
    way = abs(end - start)
    if way == 0:
        return []
    eased_s = min(_EASED_S, way / speed_px_s)
    # The eased parts are passed at half the speed, so each costs half of its time more.
    seconds = way / speed_px_s + eased_s
    count = max(1, round(seconds * rate_fps))
    return [
        start + round((end - start) * _share(number / count * seconds, seconds, eased_s))
        for number in range(1, count + 1)
    ]


def _share(moment_s: float, seconds: float, eased_s: float) -> float:
    """The share of the way that is done at a moment, with even acceleration at both ends."""
    if eased_s <= 0:
        return moment_s / seconds
    full = seconds - eased_s  # the time that the way takes at full speed
    if moment_s < eased_s:
        return moment_s**2 / (2 * eased_s) / full
    if moment_s > seconds - eased_s:
        return 1 - (seconds - moment_s) ** 2 / (2 * eased_s) / full
    return (moment_s - eased_s / 2) / full
