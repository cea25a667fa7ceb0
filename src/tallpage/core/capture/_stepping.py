"""Taking a page that only draws what is near: screen by screen, joined by what two screens both show.

Such a page moves its rows while it learns how high they are, so how far it was scrolled does not
tell where a row belongs. Each screen overlaps the one before, and the words in the overlap say how
far the rows have really moved (:mod:`_joining`). A page that is moved by the wheel instead of
scrolled is taken by the same means.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

from tallpage.core.capture._joining import Displacement, Look, displacement
from tallpage.core.capture._page_session import PageSession
from tallpage.core.capture._request import PageRequest
from tallpage.core.capture._strip_taking import StripTaker
from tallpage.core.capture._tiles import Tile, tiles_in_view
from tallpage.core.capture._walk import GoOn
from tallpage.core.geometry import Box

_STEP_SHARE = 0.7
"""Of the view, so much is scrolled at a time; the rest is seen twice, and joins."""
_EDGE_SHARE = 0.1
"""Of the view, so much at its lower edge is taken with the next screen: bars hang there."""
_JOINING_TRIES = 4
_PICTURE_TRIES = 4
_SURE = 0.5
_MOST_WHEEL_SCREENS = 200
_WHEEL_SHARE = 0.4
"""Of the view, so much at a time: what moves by and by then still shows what it showed."""
_BACK_VIEWS = 100
"""So many views up is the top."""
_WHEEL_TURNS = 2
"""So often the wheel is turned without any effect before the page counts as ended."""

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
    look = steps.rest(start_px)
    start_px -= look.top_px
    while True:
        end_px = look.view_px if look.at_end else round(look.view_px * (1 - _EDGE_SHARE))
        look, goes_on = steps.take(look, start_px, end_px)
        if not goes_on or look.at_end:
            break
        before = look
        look, joined_px = _next(steps, before, end_px)
        if joined_px is None:
            steps.doubts_px.append(steps.taken_px)
            joined_px = max(0, end_px - (look.top_px - before.top_px))
        start_px = joined_px
        if start_px >= look.view_px:
            break  # it does not move any more
    if goes_on:
        steps.take_below()
    return steps.done(to_end=goes_on)


def _next(steps: _Steps, before: Look, end_px: int) -> tuple[Look, int | None]:
    """Scroll on; where in the new view the picture goes on, or None when that cannot be told.

    Where too little is seen twice to tell, it is scrolled less far.
    """
    most_px = max(1, round(before.view_px * _STEP_SHARE))
    step_px = min(most_px, steps.last_step_px * 3 // 2) if steps.last_step_px else most_px
    look, shared = before, False
    for _ in range(_JOINING_TRIES):
        look = steps.rest(before.top_px + step_px)
        scrolled_px = look.top_px - before.top_px
        moved = displacement(before, look, expected_px=scrolled_px)
        if moved is not None and moved.agreed >= _SURE and moved.px <= end_px:
            steps.last_step_px = step_px
            return look, end_px - moved.px
        shared = shared or before.shares_with(look, scrolled_px)
        step_px = max(1, step_px // 2)
    # Nothing that could be compared is no reason for doubt: an empty stretch moves as it is scrolled.
    return look, None if shared else max(0, end_px - (look.top_px - before.top_px))


def turn_along(
    page: PageSession, request: PageRequest, plan: StepPlan, taker: StripTaker, go_on: GoOn, on_step: OnStep
) -> Stepped:
    """Turn the wheel, as a person would, until nothing new comes or the first screen comes again."""
    steps = _Steps(page, request, plan, taker, go_on, on_step, moving=True)
    first = steps.rest(None)
    picture = steps.picture_of_view()
    look = steps.turned(first)
    if _by_wheel(first, look) is None:
        steps.keep_view(picture)
        to_end = look.pieces == first.pieces or _flip(steps, first, look)
    else:
        # What moves by and by, in a part of the window perhaps, is taken from its top again.
        moved_box = page.run("adopt_moved", timeout_ms=request.timeouts.operation_ms)
        page.turn_wheel(plan.view_px, -_BACK_VIEWS * plan.view_px.height_px)
        if moved_box is not None:
            steps.plan = replace(plan, inner=True, view_px=Box(**moved_box))
        to_end = _glide(steps, steps.rest(None))
        if to_end:
            steps.take_below()
    return steps.done(to_end=to_end)


def _flip(steps: _Steps, first: Look, look: Look) -> bool:
    """Take screens that replace one another, from the second on; whether the last one came."""
    before = first
    for _ in range(_MOST_WHEEL_SCREENS):
        if look.pieces in (before.pieces, first.pieces):
            return True
        look, goes_on = steps.take(steps.without_stuck(look), 0, look.view_px)
        if not goes_on:
            break
        before, look = look, steps.turned(look)
    return False


def _glide(steps: _Steps, look: Look) -> bool:
    """Take what moves by and by; whether its end was reached."""
    start_px = 0
    for _ in range(_MOST_WHEEL_SCREENS):
        end_px = round(look.view_px * (1 - _EDGE_SHARE))
        look, goes_on = steps.take(look, start_px, end_px)
        if not goes_on:
            break
        before, look = look, steps.turned(look)
        if look.pieces == before.pieces:
            return steps.take(look, end_px, look.view_px)[1]
        moved = _by_wheel(before, look)
        if moved is None:
            steps.doubts_px.append(steps.taken_px)
        look = steps.without_stuck(look)
        start_px = end_px - moved.px if moved is not None else 0
    return False


def _by_wheel(before: Look, after: Look) -> Displacement | None:
    """How far the wheel moved what both looks show; None when another screen took its place."""
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

    def rest(self, top_px: int | None) -> Look:
        """What is seen once the page has come to rest there; with None, where it stands."""
        found = self._look(top_px)
        if self._page.under_way and self._page.wait_quiet(timeout_ms=self._request.timeouts.step_rest_ms):
            found = self._look(None)  # what was asked for on the way may bring rows
        return found

    def _look(self, top_px: int | None, *, glance: bool = False) -> Look:
        timeouts = self._request.timeouts
        order = {
            "top": top_px,
            "restMs": timeouts.rest_ms,
            "mostMs": timeouts.step_rest_ms,
            "moving": self._moving,
            "glance": glance,
        }
        look = Look.of(self._page.run("rest", order, timeout_ms=timeouts.operation_ms))
        self._seen.update(piece.words for piece in look.pieces)
        return look

    def done(self, *, to_end: bool) -> Stepped:
        """What came of it."""
        return Stepped(
            height_px=self.taken_px,
            to_end=to_end,
            doubts_px=tuple(self.doubts_px),
            seen=frozenset(self._seen),
        )

    def turned(self, before: Look) -> Look:
        """What is seen once the wheel was turned; the same as before when nothing comes of it."""
        look = before
        for _ in range(_WHEEL_TURNS):
            self._page.turn_wheel(self.plan.view_px, round(self.plan.view_px.height_px * _WHEEL_SHARE))
            look = self.rest(None)
            if look.pieces != before.pieces:
                break
        return look

    def without_stuck(self, look: Look) -> Look:
        """The same without what stood where it stood before: that is in the picture already."""
        if self._page.run("hide_stuck", timeout_ms=self._request.timeouts.operation_ms):
            return self.rest(None)
        return look

    def picture_of_view(self) -> list[bytes]:
        """What the window shows, to be kept or not."""
        return [
            self._taker.picture(tile, in_view=self.plan.in_view) for tile in self._tiles(self.plan.view_px)
        ]

    def keep_view(self, pictures: list[bytes]) -> None:
        """Keep what the window showed."""
        self._keep(self.plan.view_px, pictures)

    def take(self, look: Look, start_px: int, end_px: int) -> tuple[Look, bool]:
        """Take a stretch of the view; what it showed when it was taken, and whether to go on."""
        plan = self.plan
        if self.taken_px and not self._go_on(self._taker.progress):
            return look, False
        above_px = 0
        if self.taken_px == 0:
            above_px = max(0, plan.view_px.y_px + start_px - plan.area_px.y_px) if plan.inner else 0
            left_px = max(0, plan.area_px.height_px - look.view_px)
            self._taker.expected = 1 + round(left_px / (look.view_px * _STEP_SHARE))
        height_px = end_px - start_px + above_px
        height_px = min(height_px, plan.limit_px - self.taken_px)
        if height_px > 0:
            look = self._take_at_rest(look, start_px - above_px, height_px)
        if self.taken_px == height_px and plan.inner:
            self._page.hide_around(hide=True)
        return look, self.taken_px < plan.limit_px

    def take_below(self) -> None:
        """Take what lies below the thing that scrolls, once, at the end."""
        plan = self.plan
        height_px = plan.page_height_px - plan.view_px.bottom_px
        if plan.inner and height_px > 0:
            self._page.hide_around(hide=False)
            clip_px = self._clip(plan.view_px.bottom_px, height_px)
            self._keep(clip_px, [self._taker.picture(tile) for tile in self._tiles(clip_px)])

    def _take_at_rest(self, look: Look, start_px: int, height_px: int) -> Look:
        """Take a stretch of the view, again when the page moved meanwhile; what it showed."""
        for left in range(_PICTURE_TRIES, 0, -1):
            window_top_px = self.plan.view_px.y_px if self.plan.inner else look.top_px
            clip_px = self._clip(window_top_px + start_px, height_px)
            pictures = [self._taker.picture(tile, in_view=self.plan.in_view) for tile in self._tiles(clip_px)]
            if self._restless or self._look(None, glance=True).pieces == look.pieces:
                break
            before, look = look, self.rest(None)
            moved = displacement(before, look, expected_px=0)
            start_px -= moved.px if moved is not None else 0
            self._restless = left == 2  # what never rests is taken as it comes
        self._keep(clip_px, pictures)
        return look

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
