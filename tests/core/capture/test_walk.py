"""How far down a page is scrolled, with a page that only counts."""

from typing import Any

import pytest

from tallpage.core.capture import PRESETS, PageRequest, Timeouts
from tallpage.core.capture.layout._walk import Walk, walk_through

SCREEN_PX = PRESETS["desk"].height_px


class _CountingPage:
    """Scrolls as far as it is asked to, and is always one screen higher than that, up to its end."""

    def __init__(self, end_px: int) -> None:
        self._end_px = end_px
        self._height_px = 2 * SCREEN_PX

    def run(self, script: str, order: dict[str, int], **_: int) -> dict[str, Any]:
        if script == "layout/measure":
            return {"walkedHeightPx": self._height_px}
        y_px = min(self._end_px, order["fromPx"] + order["screens"] * SCREEN_PX)
        self._height_px = min(self._end_px, y_px + SCREEN_PX)
        return {"yPx": y_px, "heightPx": self._height_px, "atEnd": y_px == self._end_px}

    def wait_quiet(self, **_: int) -> bool:
        return True

    def pause(self, wait_ms: int) -> None:
        pass


def _walked(end_px: int, *, goes_on: bool = True, **asked: Any) -> Walk:
    request = PageRequest(address="http://skerrin.example/", screen=PRESETS["desk"], **asked)
    page: Any = _CountingPage(end_px)
    return walk_through(page, request, lambda _: goes_on, height_px=2 * SCREEN_PX, watching=True)


@pytest.mark.parametrize(("screens", "reached"), [(6, 8), (7, 16), (14, 16)])
def test_a_page_that_grows_is_followed_for_so_many_screens(screens: int, reached: int) -> None:
    walk = _walked(1_000 * SCREEN_PX, timeouts=Timeouts(growth_screens=screens))
    assert walk == Walk(height_px=reached * SCREEN_PX, ended="grew")


def test_a_page_that_ends_is_walked_to_its_end() -> None:
    assert _walked(11 * SCREEN_PX) == Walk(height_px=11 * SCREEN_PX, ended="end")


def test_a_page_is_walked_as_far_as_it_is_wanted() -> None:
    assert _walked(1_000 * SCREEN_PX, max_height_px=9 * SCREEN_PX).ended == "asked"


def test_whoever_stops_it_gets_what_was_walked() -> None:
    walk = _walked(1_000 * SCREEN_PX, goes_on=False)
    assert walk == Walk(height_px=8 * SCREEN_PX, ended="person")
