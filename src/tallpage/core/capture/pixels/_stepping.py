"""Taking a page that only draws what is near: screen by screen, joined by what two screens both show.

Such a page moves its rows while it learns how high they are, so how far it was scrolled does not
tell where a row belongs. Each screen overlaps the one before, and the words in the overlap say how
far the rows have really moved (:mod:`_joining`). A page that is moved by the wheel instead of
scrolled is taken by the same means.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

from tallpage.core.capture._request import PageRequest
from tallpage.core.capture.browser._page_session import PageSession
from tallpage.core.capture.layout._walk import GoOn
from tallpage.core.capture.pixels._joining import Displacement, WindowView, displacement
from tallpage.core.capture.pixels._strips import StripTaker
from tallpage.core.capture.pixels._tiles import Tile, tiles_in_view
from tallpage.core.geometry import Box

_STEP_SHARE = 0.7
"""Share of the window that is scrolled at a time. The rest is seen twice, and joins the two pictures."""
_EDGE_SHARE = 0.1
"""Share of the window at its lower edge that is taken with the next screen: bars hang there."""
_JOINING_TRIES = 4
_PICTURE_TRIES = 4
_SURE = 0.5
_MOST_WHEEL_SCREENS = 200
_WHEEL_SHARE = 0.4
"""Share of the window for pages that move by and by: two pictures then still share what they show."""
_BACK_VIEWS = 100
"""How many windows to scroll up to be at the top."""
_WHEEL_TURNS = 2
"""How often the wheel is turned without any effect before the page counts as ended."""

OnStep = Callable[[Box, int], None]
"""Told which part of the page as it stands (CSS px) is taken, and how much further down it lies in
the picture."""


@dataclass(frozen=True, slots=True, kw_only=True)
class StepPlan:
    """What of a page is scrolled while it is taken, and what is around it. CSS px."""

    area_px: Box
    """Where the picture begins and how wide it is; its height is what the page is thought to have."""
    view_px: Box
    """Where in the window the scrolled content is seen."""
    page_height_px: int
    """Height of the page as it stands, with what lies below the view."""
    inner: bool
    """Whether something in the page scrolls, not the window."""
    limit_px: int
    """The greatest height of the picture."""
    in_view: bool
    """Whether all that is scrolled is seen in the window: it can be taken without laying out more."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Stepped:
    """What came of it."""

    height_px: int
    to_end: bool
    doubts_px: tuple[int, ...] = ()
    """CSS px in the picture at which two screens could not be joined by their words."""
    seen: frozenset[str] = frozenset()
    """The first words of each passage that was seen on the way."""


def scroll_along(
    page: PageSession, request: PageRequest, plan: StepPlan, taker: StripTaker, go_on: GoOn, on_step: OnStep
) -> Stepped:
    """Scroll until the end, until the greatest height, or until the person has enough."""
    steps = _Steps(page, request, plan, taker, go_on, on_step)
    start_px = max(0, plan.area_px.y_px - (plan.view_px.y_px if plan.inner else 0))
    view = steps.rest(start_px)
    start_px -= view.top_px
    while True:
        end_px = view.view_px if view.at_end else round(view.view_px * (1 - _EDGE_SHARE))
        view, goes_on = steps.take(view, start_px, end_px)
        if not goes_on or view.at_end:
            break
        before = view
        view, joined_px = _next(steps, before, end_px)
        if joined_px is None:
            steps.doubts_px.append(steps.taken_px)
            joined_px = max(0, end_px - (view.top_px - before.top_px))
        start_px = joined_px
        if start_px >= view.view_px:
            break  # it does not move any more
    if goes_on:
        steps.take_below()
    return steps.done(to_end=goes_on)


def _next(steps: _Steps, before: WindowView, end_px: int) -> tuple[WindowView, int | None]:
    """Scroll on; where in the new view the picture goes on, or None when that cannot be told.

    Where too little is seen twice to tell, it is scrolled less far.
    """
    most_px = max(1, round(before.view_px * _STEP_SHARE))
    step_px = min(most_px, steps.last_step_px * 3 // 2) if steps.last_step_px else most_px
    view, shared = before, False
    for _ in range(_JOINING_TRIES):
        view = steps.rest(before.top_px + step_px)
        scrolled_px = view.top_px - before.top_px
        moved = displacement(before, view, expected_px=scrolled_px)
        if moved is not None and moved.agreed >= _SURE and moved.px <= end_px:
            steps.last_step_px = step_px
            return view, end_px - moved.px
        shared = shared or before.shares_with(view, scrolled_px)
        step_px = max(1, step_px // 2)
    # Nothing that could be compared is no reason for doubt: an empty stretch moves as it is scrolled.
    return view, None if shared else max(0, end_px - (view.top_px - before.top_px))


def turn_along(
    page: PageSession, request: PageRequest, plan: StepPlan, taker: StripTaker, go_on: GoOn, on_step: OnStep
) -> Stepped:
    """Turn the wheel, as a person would, until nothing new comes or the first screen comes again."""
    steps = _Steps(page, request, plan, taker, go_on, on_step, moving=True)
    first = steps.rest(None)
    picture = steps.picture_of_view()
    view = steps.turned(first)
    if _by_wheel(first, view) is None:
        steps.keep_view(picture)
        to_end = view.pieces == first.pieces or _flip(steps, first, view)
    else:
        # What moves by and by, in a part of the window perhaps, is taken from its top again.
        moved_box = page.run("pixels/adopt_moved", timeout_ms=request.timeouts.operation_ms)
        page.turn_wheel(plan.view_px, -_BACK_VIEWS * plan.view_px.height_px)
        if moved_box is not None:
            steps.plan = replace(plan, inner=True, view_px=Box(**moved_box))
        to_end = _glide(steps, steps.rest(None))
        if to_end:
            steps.take_below()
    return steps.done(to_end=to_end)


def _flip(steps: _Steps, first: WindowView, view: WindowView) -> bool:
    """Take screens that replace one another, from the second on; whether the last one came."""
    before = first
    for _ in range(_MOST_WHEEL_SCREENS):
        if view.pieces in (before.pieces, first.pieces):
            return True
        view, goes_on = steps.take(steps.without_stuck(view), 0, view.view_px)
        if not goes_on:
            break
        before, view = view, steps.turned(view)
    return False


def _glide(steps: _Steps, view: WindowView) -> bool:
    """Take what moves by and by; whether its end was reached."""
    start_px = 0
    for _ in range(_MOST_WHEEL_SCREENS):
        end_px = round(view.view_px * (1 - _EDGE_SHARE))
        view, goes_on = steps.take(view, start_px, end_px)
        if not goes_on:
            break
        before, view = view, steps.turned(view)
        if view.pieces == before.pieces:
            return steps.take(view, end_px, view.view_px)[1]
        moved = _by_wheel(before, view)
        if moved is None:
            steps.doubts_px.append(steps.taken_px)
        view = steps.without_stuck(view)
        start_px = end_px - moved.px if moved is not None else 0
    return False


def _by_wheel(before: WindowView, after: WindowView) -> Displacement | None:
    """How far the wheel moved what both views show; None when another screen took its place."""
    moved = displacement(before, after, expected_px=None)
    return moved if moved is not None and moved.agreed >= _SURE and 0 < moved.px < after.view_px else None


class _Steps:
    """The page as it is moved, and what of it is in the picture so far."""

    def __init__(
        self,
        page: PageSession,
        request: PageRequest,
        plan: StepPlan,
        taker: StripTaker,
        go_on: GoOn,
        on_step: OnStep,
        *,
        moving: bool = False,
    ) -> None:
        self._page, self._request, self.plan = page, request, plan
        self._taker, self._go_on, self._on_step = taker, go_on, on_step
        self._moving = moving
        self._restless = False
        self.taken_px = 0
        self.doubts_px: list[int] = []
        self._seen: set[str] = set()
        self.last_step_px = 0
        """How far was scrolled last: as far as could be joined."""

    def rest(self, top_px: int | None) -> WindowView:
        """What is seen once the page has come to rest there; with None, where it stands."""
        found = self._view(top_px)
        if self._page.under_way and self._page.wait_quiet(timeout_ms=self._request.timeouts.step_rest_ms):
            found = self._view(None)  # what was asked for on the way may bring rows
        return found

    def _view(self, top_px: int | None, *, glance: bool = False) -> WindowView:
        timeouts = self._request.timeouts
        order = {
            "top": top_px,
            "restMs": timeouts.rest_ms,
            "mostMs": timeouts.step_rest_ms,
            "moving": self._moving,
            "glance": glance,
        }
        view = WindowView.of(self._page.run("pixels/rest", order, timeout_ms=timeouts.operation_ms))
        self._seen.update(piece.words for piece in view.pieces)
        return view

    def done(self, *, to_end: bool) -> Stepped:
        """What came of it."""
        return Stepped(
            height_px=self.taken_px,
            to_end=to_end,
            doubts_px=tuple(self.doubts_px),
            seen=frozenset(self._seen),
        )

    def turned(self, before: WindowView) -> WindowView:
        """What is seen once the wheel was turned; the same as before when nothing comes of it."""
        view = before
        for _ in range(_WHEEL_TURNS):
            self._page.turn_wheel(self.plan.view_px, round(self.plan.view_px.height_px * _WHEEL_SHARE))
            view = self.rest(None)
            if view.pieces != before.pieces:
                break
        return view

    def without_stuck(self, view: WindowView) -> WindowView:
        """The same without what stood where it stood before: that is in the picture already."""
        if self._page.run("pixels/hide_stuck", timeout_ms=self._request.timeouts.operation_ms):
            return self.rest(None)
        return view

    def picture_of_view(self) -> list[bytes]:
        """What the window shows, to be kept or not."""
        return [
            self._taker.picture(tile, in_view=self.plan.in_view) for tile in self._tiles(self.plan.view_px)
        ]

    def keep_view(self, pictures: list[bytes]) -> None:
        """Keep what the window showed."""
        self._keep(self.plan.view_px, pictures)

    def take(self, view: WindowView, start_px: int, end_px: int) -> tuple[WindowView, bool]:
        """Take a stretch of the view; what it showed when it was taken, and whether to go on."""
        plan = self.plan
        if self.taken_px and not self._go_on(self._taker.progress):
            return view, False
        above_px = 0
        if self.taken_px == 0:
            above_px = max(0, plan.view_px.y_px + start_px - plan.area_px.y_px) if plan.inner else 0
            left_px = max(0, plan.area_px.height_px - view.view_px)
            self._taker.expected = 1 + round(left_px / (view.view_px * _STEP_SHARE))
        height_px = end_px - start_px + above_px
        height_px = min(height_px, plan.limit_px - self.taken_px)
        if height_px > 0:
            view = self._take_at_rest(view, start_px - above_px, height_px)
        if self.taken_px == height_px and plan.inner:
            self._page.hide_around(hide=True)
        return view, self.taken_px < plan.limit_px

    def take_below(self) -> None:
        """Take what lies below the thing that scrolls, once, at the end."""
        plan = self.plan
        height_px = plan.page_height_px - plan.view_px.bottom_px
        if plan.inner and height_px > 0:
            self._page.hide_around(hide=False)
            clip_px = self._clip(plan.view_px.bottom_px, height_px)
            self._keep(clip_px, [self._taker.picture(tile) for tile in self._tiles(clip_px)])

    def _take_at_rest(self, view: WindowView, start_px: int, height_px: int) -> WindowView:
        """Take a stretch of the view, again when the page moved meanwhile; what it showed."""
        for left in range(_PICTURE_TRIES, 0, -1):
            window_top_px = self.plan.view_px.y_px if self.plan.inner else view.top_px
            clip_px = self._clip(window_top_px + start_px, height_px)
            pictures = [self._taker.picture(tile, in_view=self.plan.in_view) for tile in self._tiles(clip_px)]
            if self._restless or self._view(None, glance=True).pieces == view.pieces:
                break
            before, view = view, self.rest(None)
            moved = displacement(before, view, expected_px=0)
            start_px -= moved.px if moved is not None else 0
            self._restless = left == 2  # what never rests is taken as it comes
        self._keep(clip_px, pictures)
        return view

    def _clip(self, top_px: int, height_px: int) -> Box:
        area = self.plan.area_px
        return Box(x_px=area.x_px, y_px=top_px, width_px=area.width_px, height_px=height_px)

    def _tiles(self, clip_px: Box) -> list[Tile]:
        return tiles_in_view(clip_px, self._request.screen.scale)

    def _keep(self, clip_px: Box, pictures: list[bytes]) -> None:
        self._on_step(clip_px, self.taken_px - clip_px.y_px + self.plan.area_px.y_px)
        for tile, picture in zip(self._tiles(clip_px), pictures, strict=True):
            self._taker.store(picture, tile)
        self.taken_px += clip_px.height_px
