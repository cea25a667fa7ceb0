"""Getting a page ready for its picture: found what scrolls, walked through, laid out, at rest."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any, Literal

from tallpage.core.capture._request import PageRequest, Progress
from tallpage.core.capture.browser._page_session import PageSession
from tallpage.core.capture.layout._walk import GoOn, Walk, walk_through
from tallpage.core.capture.opening._arriving import StepsDone
from tallpage.core.capture.opening._steps import held_hover
from tallpage.core.errors import PageError

_ROWS_GONE = 3
"""How many places must have lost their words after the walk to tell a page that draws only what is near."""

Moves = Literal["still", "scroll", "wheel"]
"""How the page is moved while it is taken: mostly not at all."""

_AT_TOP_MS = 200
"""From scrolling back to the top until what a page draws once the scrolling rests has been asked for."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Prepared:
    """A page at rest, laid out for its picture."""

    walk: Walk
    moves: Moves
    measured: dict[str, Any]
    steps: StepsDone
    left_out: tuple[str, ...]
    missing_pictures: tuple[str, ...]

    @property
    def rolled_up_px(self) -> int:
        """How much longer the page would be if what scrolls in it had its whole length."""
        scroller = self.measured["scroller"]
        if self.moves != "scroll" or scroller is None:
            return 0
        return max(0, int(self.measured["walkedHeightPx"]) - int(scroller["height_px"]))


def prepare(
    page: PageSession,
    request: PageRequest,
    steps: StepsDone,
    go_on: GoOn,
    *,
    by_wheel: bool = True,
    as_it_is: bool = False,
) -> Prepared:
    """Walk through the page and lay it out.

    With ``by_wheel``, a page that hears the wheel and has nothing to scroll is left as it stands. With
    ``as_it_is`` what hangs in the window is left there, and the pointer where it is.
    """
    timeout_ms = request.timeouts.operation_ms
    chosen = _choose(page, request, by_wheel=by_wheel)
    if not chosen.scrolls and request.extent == "full":
        # What draws itself late may have had nothing to scroll yet.
        page.run("layout/settle", _settling(request), timeout_ms=timeout_ms)
        chosen = _choose(page, request, by_wheel=by_wheel)
    wheel = by_wheel and request.extent == "full" and chosen.wheel
    walk = walk_through(page, request, go_on, height_px=chosen.height_px, watching=chosen.watching)
    go_on(Progress(stage="settling"))
    page.pause(request.wait_ms)
    moves: Moves = "wheel" if wheel else _moves(page, request, walked=chosen.watching)
    page.run_everywhere("layout/unroll", {"rolled": moves != "still"}, timeout_ms=timeout_ms)
    if chosen.watching:
        # Back at its top, a page that waits for the scrolling to rest draws what stands there.
        page.pause(_AT_TOP_MS)
    if not as_it_is:
        steps = _hold_pointer(page, request, steps)
    page.run_everywhere("layout/freeze", {"transitions": moves == "wheel"}, timeout_ms=timeout_ms)
    left_out = () if as_it_is else _leave_out(page, request)
    if moves == "scroll" and not _has_scroller(page, request):
        page.run("layout/pin", timeout_ms=timeout_ms)
    missing = page.run("layout/settle", _settling(request), timeout_ms=timeout_ms)
    return Prepared(
        walk=walk,
        moves=moves,
        measured=_measured(page, request),
        steps=steps,
        left_out=left_out,
        missing_pictures=tuple(missing),
    )


def prepare_window(page: PageSession, request: PageRequest, go_on: GoOn) -> tuple[str, ...]:
    """Walk through the page and bring it to rest, to be scrolled as a person would; what was hidden is told.

    It is not laid out for one tall picture: what sticks to the window goes on sticking there.
    """
    timeout_ms = request.timeouts.operation_ms
    chosen = _choose(page, request, by_wheel=False)
    walk_through(page, request, go_on, height_px=chosen.height_px, watching=chosen.watching)
    go_on(Progress(stage="settling"))
    page.pause(request.wait_ms)
    page.run_everywhere("layout/freeze", {"transitions": False}, timeout_ms=timeout_ms)
    left_out = _leave_out(page, request)
    page.run("layout/settle", _settling(request), timeout_ms=timeout_ms)
    return left_out


def measured_again(page: PageSession, request: PageRequest, prepared: Prepared) -> Prepared:
    """The same with the page's measures as they are now."""
    return replace(prepared, measured=_measured(page, request))


@dataclass(frozen=True, slots=True, kw_only=True)
class _Chosen:
    height_px: int
    scrolls: bool
    watching: bool
    wheel: bool


def _choose(page: PageSession, request: PageRequest, *, by_wheel: bool) -> _Chosen:
    """Find what scrolls, through the frames that fill the window."""
    timeouts = request.timeouts
    panel = page.find(request.element, timeout_ms=timeouts.step_ms) if request.extent == "panel" else None

    def choose() -> tuple[bool, dict[str, Any]]:
        watching: bool = page.run("layout/begin", timeout_ms=timeouts.operation_ms)
        order = {"panel": panel, "byWheel": by_wheel}
        return watching, page.run("layout/choose", order, timeout_ms=timeouts.operation_ms)

    watching, found = choose()
    if not found["scrolls"] and not found["wheel"] and request.extent == "full":
        while not found["scrolls"] and page.enter_filling_frame(timeout_ms=timeouts.operation_ms):
            page.wait_loaded(timeout_ms=timeouts.load_ms)
            watching, found = choose()
        if not found["scrolls"]:
            page.leave_frame(timeout_ms=timeouts.operation_ms)
    return _Chosen(
        height_px=found["heightPx"],
        scrolls=found["scrolls"],
        watching=watching or found["watching"],
        wheel=found["wheel"],
    )


def _has_scroller(page: PageSession, request: PageRequest) -> bool:
    measured = page.run("layout/measure", {}, timeout_ms=request.timeouts.operation_ms)
    return measured["scroller"] is not None


def _moves(page: PageSession, request: PageRequest, *, walked: bool) -> Moves:
    """Whether the page only draws what is near, and has to be scrolled while it is taken."""
    if request.extent not in ("full", "between", "panel"):
        return "still"
    if page.frame_px is not None:
        return "scroll"  # a frame that grew would change what its page measures by its window
    if not walked:
        return "still"  # nothing in it watches how far it is scrolled
    measured = page.run("layout/measure", {}, timeout_ms=request.timeouts.operation_ms)
    if request.extent == "panel" and measured["scroller"] is None:
        return "still"
    return "scroll" if measured["rowsTakenOut"] >= _ROWS_GONE else "still"


def _settling(request: PageRequest) -> dict[str, int]:
    return {"waitMs": request.timeouts.quiet_ms, "restMs": request.timeouts.rest_ms}


def _measured(page: PageSession, request: PageRequest) -> dict[str, Any]:
    """The page's measures; where its content is in a frame, with what scrolls there."""
    timeout_ms = request.timeouts.operation_ms
    elements = _elements(page, request)
    if page.frame_px is None:
        measured: dict[str, Any] = page.run("layout/measure", elements, timeout_ms=timeout_ms)
        return measured
    outer, *_, inner = page.run_everywhere("layout/measure", {}, timeout_ms=timeout_ms)
    frame = page.frame_px
    scroller = inner["scroller"]
    if scroller is None:
        box = {name: getattr(frame, name) for name in ("x_px", "y_px", "width_px", "height_px")}
    else:
        box = {**scroller, "x_px": scroller["x_px"] + frame.x_px, "y_px": scroller["y_px"] + frame.y_px}
    return {**outer, "scroller": box, "walkedHeightPx": inner["walkedHeightPx"]}


def _elements(page: PageSession, request: PageRequest) -> dict[str, object]:
    """The elements that bound what is taken, if any do."""
    named = {"element": request.element, "toElement": request.to_element}
    if request.extent not in ("element", "panel", "between"):
        named = {}
    elif request.extent != "between":
        named.pop("toElement")
    return {name: page.find(target, timeout_ms=request.timeouts.step_ms) for name, target in named.items()}


def _hold_pointer(page: PageSession, request: PageRequest, steps: StepsDone) -> StepsDone:
    """Put the pointer back where the steps left it: the scrolling in between has moved the page."""
    held = held_hover(request.steps)
    if held is None or str(held) in steps.failed:
        return steps
    try:
        page.hold(held.target, timeout_ms=request.timeouts.step_ms)
    except PageError as error:
        if error.code not in ("element_missing", "step_failed"):
            raise
        return replace(steps, failed=(*steps.failed, str(held)))
    return steps


def _leave_out(page: PageSession, request: PageRequest) -> tuple[str, ...]:
    order = {
        "selectors": request.leave_out,
        "keepsFixed": request.fixed_overlays == "keep",
        **_elements(page, request),
    }
    rows = page.run_everywhere("layout/leave_out", order, timeout_ms=request.timeouts.operation_ms)
    malformed = [selector for row in rows for selector in row["malformed"]]
    if malformed:
        raise PageError(
            f"“{malformed[0]}” is not a CSS selector.",
            hint="Write what to leave out like .advert or #chat.",
            code="element_malformed",
        )
    return tuple(words for row in rows for words in row["leftOut"])
