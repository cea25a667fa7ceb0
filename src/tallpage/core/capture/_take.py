"""Taking one page: open, do the steps, scroll through, settle, picture by picture into strips."""

from __future__ import annotations

import time
from pathlib import Path
from typing import Any

from tallpage.core.capture._area import area_of
from tallpage.core.capture._browser import Browser
from tallpage.core.capture._opening import StepsDone, do_steps, met_sign_in, open_signed_in
from tallpage.core.capture._page_door import PageDoor
from tallpage.core.capture._page_map import MOST_BLOCKS, MOST_CHARS, page_map, seen_on_the_way
from tallpage.core.capture._report import PageReport
from tallpage.core.capture._request import AskWish, OnProgress, PageRequest, Progress
from tallpage.core.capture._steps import held_hover
from tallpage.core.capture._strip_taking import Stepping, plan, take_strips
from tallpage.core.capture._tiles import Tile
from tallpage.core.capture._walk import GoOn, walk_through
from tallpage.core.errors import PageError, Stopped
from tallpage.core.picture import StripManifest

_NAMED_AT_MOST = 5
_ROWS_TAKEN_OUT = 3
"""So many removals while scrolling tell a list that draws only what is near from a mere change."""


def take_page(
    browser: Browser,
    request: PageRequest,
    folder: Path,
    *,
    on_progress: OnProgress = lambda _: None,
    ask_wish: AskWish = lambda: "go_on",
) -> tuple[StripManifest, PageReport]:
    """Take ``request`` and write its strips and page map into ``folder``, which exists and is empty.

    Raises:
        PageError, PageUnreachable, AddressError: the page could not be taken.
        StorageError: a strip could not be written.
        Stopped: ``ask_wish`` said so; what was written is left for the caller.
    """
    started = time.monotonic()
    patience = request.patience
    go_on = _asking(on_progress, ask_wish)
    with browser.open_page(request) as page:
        go_on(Progress(stage="opening"))
        opened = open_signed_in(browser, page, request)
        still_loading = "" if opened.loaded else _still_loading(page, patience.load_ms)
        met_first = bool(request.steps) and met_sign_in(page, request, opened.status)
        steps = do_steps(page, request, go_on)
        walk = walk_through(page, request, go_on)
        go_on(Progress(stage="settling"))
        page.pause(request.wait_ms)
        stepping = _stepping(page, request)
        page.run("unroll", {"rolled": stepping == "inner"}, timeout_ms=patience.operation_ms)
        steps = _hold_pointer(page, request, steps)
        page.run("freeze", timeout_ms=patience.operation_ms)
        left_out = _leave_out(page, request)
        order = {"waitMs": patience.quiet_ms, "restMs": patience.rest_ms}
        missing = page.run("settle", order, timeout_ms=patience.operation_ms)
        # What the steps brought up is not what the address led to.
        met = met_first if request.steps else met_sign_in(page, request, opened.status)
        measured = page.run("measure", _elements(page, request), timeout_ms=patience.operation_ms)
        rolled_up_px = 0
        if stepping == "inner":
            rolled_up_px = measured["walkedHeightPx"] - measured["scroller"]["height_px"]
        whole = {**measured, "heightPx": measured["heightPx"] + rolled_up_px}
        area = area_of(request, whole, walk)
        blocks = _Blocks(page, request, shift_x_px=measured["leftPx"])
        tiles = plan(request, area.box, measured, stepping)
        manifest = take_strips(
            page,
            request,
            tiles,
            folder,
            go_on,
            stepping=stepping,
            on_step=blocks.look_at,
            on_drawn=lambda: None if stepping else blocks.look(),
            on_progress=on_progress,
        )
        page_map(blocks.found, area_px=area.box, scale=request.screen.scale).save(folder)
        taken_px = manifest.height_px // request.screen.scale
        broken_off = taken_px < area.box.height_px
        cut_off = "it was stopped there" if broken_off else area.cut_off
        warnings = [
            f"The page answered with status {opened.status}." if opened.status >= 400 else "",
            _sign_in_warning(page, request) if met else "",
            still_loading,
            *(f"This step could not be done: {line}." for line in steps.failed),
            f"Cut off after {area.box.y_px + taken_px:,} px: {cut_off}." if cut_off else "",
            area.beside,
            *_missing(page, missing),
        ]
        waited = (f"pause {request.wait_ms / 1_000:g}",) if request.wait_ms else ()
        report = PageReport(
            address=request.address,
            final_address=page.address,
            title=measured["title"],
            status=opened.status,
            screen=request.screen,
            page_width_px=area.box.width_px,
            page_height_px=taken_px,
            top_px=area.box.y_px,
            truncated=bool(cut_off),
            warnings=tuple(warning for warning in warnings if warning),
            left_out=left_out,
            done_before=steps.done + waited,
            signed_in=request.sign_in is not None and not met,
            seconds=round(time.monotonic() - started, 2),
        )
    return manifest, report


def _asking(on_progress: OnProgress, ask_wish: AskWish) -> GoOn:
    def go_on(progress: Progress) -> bool:
        wish = ask_wish()
        if wish == "stop":
            raise Stopped("The capture was stopped.")
        on_progress(progress)
        return wish == "go_on"

    return go_on


def _still_loading(page: PageDoor, load_ms: int) -> str:
    names = _named(page.under_way)
    return f"Still loading after {load_ms / 1000:.0f} s" + (f": {names}." if names else ".")


def _sign_in_warning(page: PageDoor, request: PageRequest) -> str:
    met = f"A sign-in page was met instead: {page.address}."
    if request.sign_in is None:
        return f"{met} Save a sign-in for it, then take it again."
    return f"{met} The saved sign-in was not accepted, or has run out."


def _missing(page: PageDoor, pictures: list[str]) -> list[str]:
    kinds = {"pictures": pictures, **page.missing}
    found = [
        f"{kind.capitalize()} that did not load: {_named(names)}." for kind, names in kinds.items() if names
    ]
    if page.refused_hosts:
        found.append(f"On a private network, not opened: {_named(page.refused_hosts)}.")
    return found


def _hold_pointer(page: PageDoor, request: PageRequest, steps: StepsDone) -> StepsDone:
    """Put the pointer back where the steps left it: the scrolling in between has moved the page."""
    held = held_hover(request.steps)
    if held is None or str(held) in steps.failed:
        return steps
    try:
        page.hold(held.target, timeout_ms=request.patience.step_ms)
    except PageError as error:
        if error.code not in ("element_missing", "step_failed"):
            raise
        return StepsDone(done=steps.done, failed=(*steps.failed, str(held)))
    return steps


def _leave_out(page: PageDoor, request: PageRequest) -> tuple[str, ...]:
    order = {"selectors": request.leave_out, "keepHanging": request.hanging == "keep"}
    found = page.run("leave_out", order, timeout_ms=request.patience.operation_ms)
    if found["malformed"]:
        raise PageError(
            f"“{found['malformed'][0]}” is not a CSS selector.",
            hint="Write what to leave out like .advert or #chat.",
            code="element_malformed",
        )
    return tuple(found["leftOut"])


def _elements(page: PageDoor, request: PageRequest) -> dict[str, object]:
    """The elements that bound what is taken, if any do."""
    named = {"element": request.element, "toElement": request.to_element}
    if request.extent not in ("element", "panel", "between"):
        named = {}
    elif request.extent != "between":
        named.pop("toElement")
    return {name: page.find(target, timeout_ms=request.patience.step_ms) for name, target in named.items()}


def _stepping(page: PageDoor, request: PageRequest) -> Stepping:
    """Whether the page only draws what is near, and has to be scrolled while it is taken."""
    measured = page.run("measure", {}, timeout_ms=request.patience.operation_ms)
    if measured["rowsTakenOut"] < _ROWS_TAKEN_OUT or request.extent not in ("full", "between"):
        return ""
    return "inner" if measured["scroller"] else "window"


class _Blocks:
    """The page map's blocks, as they come: all at once, or on the way."""

    def __init__(self, page: PageDoor, request: PageRequest, *, shift_x_px: int) -> None:
        self.found: list[dict[str, Any]] = []
        self._page = page
        self._timeout_ms = request.patience.operation_ms
        self._shift_x_px = shift_x_px if request.page_width == "all" else 0

    def _visible(self) -> list[dict[str, Any]]:
        order = {"mostBlocks": MOST_BLOCKS - len(self.found), "mostChars": MOST_CHARS}
        rows = self._page.run("map", order, timeout_ms=self._timeout_ms)
        return [{**row, "x_px": row["x_px"] + self._shift_x_px} for row in rows]

    def look(self) -> None:
        """Note every block of the page."""
        self.found = self._visible()

    def look_at(self, tile: Tile) -> None:
        """Note the blocks that begin on a tile."""
        self.found += seen_on_the_way(self._visible(), tile.clip_px, tile.shift_px)


def _named(addresses: list[str]) -> str:
    """The first few addresses, and how many more."""
    shown = ", ".join(address[:120] for address in addresses[:_NAMED_AT_MOST])
    more = len(addresses) - _NAMED_AT_MOST
    return f"{shown} and {more} more" if more > 0 else shown
