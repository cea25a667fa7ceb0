"""Taking one page: open, do the steps, scroll through, settle, picture by picture into strips."""

from __future__ import annotations

import time
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any

from tallpage.core.capture._report import PageReport
from tallpage.core.capture._request import AskStopMode, OnProgress, PageRequest, Progress
from tallpage.core.capture.browser._page_session import PageSession
from tallpage.core.capture.browser._starting import Browser
from tallpage.core.capture.layout._area import Area, area_of
from tallpage.core.capture.layout._preparing import Prepared, measured_again, prepare
from tallpage.core.capture.layout._walk import GoOn
from tallpage.core.capture.opening._arriving import do_steps, met_sign_in, open_signed_in
from tallpage.core.capture.pixels._stepping import StepPlan, scroll_along, turn_along
from tallpage.core.capture.pixels._strips import StripTaker, take_tiles
from tallpage.core.capture.words._mapping import (
    MOST_BLOCKS,
    MOST_CHARS,
    MOST_LINKS,
    MOST_WORDS,
    FoundWords,
    page_map,
    page_words,
    seen_on_the_way,
)
from tallpage.core.capture.words._wholeness import Lacking, Passage, Wholeness, passages, undrawn, wholeness
from tallpage.core.errors import Stopped
from tallpage.core.files import empty_folder
from tallpage.core.geometry import Box
from tallpage.core.picture import StripManifest

_NAMED_AT_MOST = 5
_ENDLESS_PX = 10_000_000


def take_page(
    browser: Browser,
    request: PageRequest,
    folder: Path,
    *,
    on_progress: OnProgress = lambda _: None,
    ask_stop_mode: AskStopMode = lambda: "go_on",
) -> tuple[StripManifest, PageReport]:
    """Take ``request`` and write its strips and page map into ``folder``, which exists and is empty.

    Raises:
        PageError, PageUnreachable, AddressError: the page could not be taken.
        StorageError: a strip could not be written.
        Stopped: ``ask_stop_mode`` said so; what was written is left for the caller.
    """
    started = time.monotonic()
    timeouts = request.timeouts
    go_on = _asking(on_progress, ask_stop_mode)
    with browser.open_page(request) as page:
        go_on(Progress(stage="opening"))
        opened = open_signed_in(browser, page, request)
        still_loading = "" if opened.loaded else _still_loading(page, timeouts.load_ms)
        met_first = bool(request.steps) and met_sign_in(page, request, opened.status)
        steps = do_steps(page, request, go_on)
        prepared = prepare(page, request, steps, go_on)
        # What the steps brought up is not what the address led to.
        met = met_first if request.steps else met_sign_in(page, request, opened.status)
        taken = _picture(page, request, prepared, folder, go_on, on_progress)
        if prepared.moves == "wheel" and not taken.moved:
            # The wheel does nothing here: the page is taken as any other.
            empty_folder(folder)
            again = prepare(page, request, steps, go_on, by_wheel=False)
            prepared = replace(again, left_out=(*prepared.left_out, *again.left_out))
            taken = _picture(page, request, prepared, folder, go_on, on_progress)
        area, manifest = taken.area, taken.manifest
        taken_px = manifest.height_px // request.screen.scale
        warnings = [
            f"The page answered with status {opened.status}." if opened.status >= 400 else "",
            taken.wholeness.as_sentence(),
            _sign_in_warning(page, request) if met else "",
            still_loading,
            *(f"This step could not be done: {line}." for line in prepared.steps.failed),
            f"Cut off after {area.box.y_px + taken_px:,} px: {taken.cut_off}." if taken.cut_off else "",
            *(f"Rows may be missing or repeated near {place_px:,} px." for place_px in taken.doubts_px),
            area.beside,
            *_missing(page, list(prepared.missing_pictures)),
        ]
        waited = (f"pause {request.wait_ms / 1_000:g}",) if request.wait_ms else ()
        report = PageReport(
            address=request.address,
            final_address=page.address,
            title=prepared.measured["title"],
            status=opened.status,
            screen=request.screen,
            page_width_px=area.box.width_px,
            page_height_px=taken_px,
            top_px=area.box.y_px,
            truncated=bool(taken.cut_off),
            warnings=tuple(warning for warning in warnings if warning),
            # Beside a part that was asked for, nothing is missed.
            left_out=prepared.left_out if request.extent in ("full", "view") else (),
            wholeness=taken.wholeness,
            done_before=prepared.steps.done + waited,
            signed_in=request.sign_in is not None and not met,
            seconds=round(time.monotonic() - started, 2),
        )
    return manifest, report


@dataclass(frozen=True, slots=True, kw_only=True)
class _Taken:
    """The pixels of a page, and what is to be said of them."""

    area: Area
    manifest: StripManifest
    cut_off: str
    """Why the picture ends before the page does; empty when it does not."""
    wholeness: Wholeness
    moved: bool = False
    doubts_px: tuple[int, ...] = ()


def _picture(
    page: PageSession,
    request: PageRequest,
    prepared: Prepared,
    folder: Path,
    go_on: GoOn,
    on_progress: OnProgress,
) -> _Taken:
    area = _area(request, prepared)
    blocks = _Blocks(page, request, shift_x_px=prepared.measured["leftPx"])
    doubts_px: tuple[int, ...] = ()
    with StripTaker(page, request, folder, width_px=area.box.width_px, on_progress=on_progress) as taker:
        if prepared.moves == "still":

            def area_now() -> Box:
                nonlocal area
                area = _area(request, measured_again(page, request, prepared))
                return area.box

            box = take_tiles(
                taker, area.box, request.screen.scale, go_on, area_now=area_now, on_drawn=blocks.look
            )
            found = _words(page, request, area)
            stopped = box.height_px < area.box.height_px
        else:
            along = turn_along if prepared.moves == "wheel" else scroll_along
            plan = _step_plan(request, prepared, area)
            stepped = along(page, request, plan, taker, go_on, blocks.look_at)
            box = replace(area.box, height_px=stepped.height_px)
            doubts_px = stepped.doubts_px
            found = _words(page, request, area, seen=stepped.seen)
            full = plan.limit_px == box.height_px
            stopped = not stepped.to_end and not full
            if full and not area.cut_off and request.extent != "between":
                area = replace(area, cut_off="the page kept growing while it was taken")
        manifest = taker.finish()
    # A page that is moved shows its words elsewhere than where they are afterwards.
    blank = undrawn(passages(found), taker.ink) if prepared.moves == "still" else []
    scale = request.screen.scale
    page_map(blocks.found, area_px=box, scale=scale).save(folder)
    page_words(blocks.words, area_px=box, scale=scale).save(folder)
    return _Taken(
        area=area,
        manifest=manifest,
        cut_off="it was stopped there" if stopped else area.cut_off,
        moved=box.height_px > request.screen.height_px,
        doubts_px=doubts_px,
        wholeness=wholeness(found, _undrawn(page, request, blank), page.script_errors),
    )


def _area(request: PageRequest, prepared: Prepared) -> Area:
    measured = prepared.measured
    whole = {**measured, "heightPx": measured["heightPx"] + prepared.rolled_up_px}
    if measured["box"] is not None and request.extent == "panel":
        box = measured["box"]
        whole["box"] = {**box, "height_px": box["height_px"] + prepared.rolled_up_px}
    return area_of(request, whole, prepared.walk)


def _words(
    page: PageSession, request: PageRequest, area: Area, *, seen: frozenset[str] | None = None
) -> list[tuple[str, dict[str, Any]]]:
    """What the page has laid out in words; nothing where only a part of the page was asked for.

    ``seen``: what of a page that is moved was seen on the way.
    """
    if request.extent != "full":
        return []
    area_px = area.box
    if area.cut_off or request.from_px or seen is not None:
        # What lies above and below is left out on purpose, or was seen when it was not there.
        area_px = replace(area_px, y_px=0, height_px=_ENDLESS_PX)
    return page.words(
        area_px,
        seen=sorted(seen or ()),
        cut_off=bool(area.cut_off or request.from_px),
        timeout_ms=request.timeouts.operation_ms,
    )


def _undrawn(page: PageSession, request: PageRequest, blank: list[Passage]) -> Lacking | None:
    if not blank:
        return None
    numbers = [passage.number for passage in blank[:_NAMED_AT_MOST]]
    texts = page.run("words/shown_texts", numbers, timeout_ms=request.timeouts.operation_ms)
    return Lacking(why="blank", words=sum(passage.words for passage in blank), first=" ".join(texts)[:80])


def _step_plan(request: PageRequest, prepared: Prepared, area: Area) -> StepPlan:
    measured = prepared.measured
    screen = request.screen
    inner = measured["scroller"] is not None and prepared.moves == "scroll"
    window = Box(x_px=0, y_px=0, width_px=screen.width_px, height_px=screen.height_px)
    page_height_px = measured["heightPx"]
    if request.extent == "panel":
        page_height_px = measured["box"]["y_px"] + measured["box"]["height_px"]
    view_px = Box(**measured["scroller"]) if inner else window
    height_px = view_px.height_px
    ends_there = bool(area.cut_off) or request.extent == "between"
    growth_px = request.timeouts.growth_screens * screen.height_px
    return StepPlan(
        area_px=area.box,
        view_px=view_px,
        page_height_px=page_height_px,
        inner=inner,
        limit_px=area.box.height_px + (0 if ends_there else growth_px),
        in_view=area.box.width_px <= screen.width_px and height_px <= screen.height_px,
    )


def _asking(on_progress: OnProgress, ask_stop_mode: AskStopMode) -> GoOn:
    def go_on(progress: Progress) -> bool:
        stop_mode = ask_stop_mode()
        if stop_mode == "stop":
            raise Stopped("The capture was stopped.")
        on_progress(progress)
        return stop_mode == "go_on"

    return go_on


def _still_loading(page: PageSession, load_ms: int) -> str:
    names = _named(page.under_way)
    return f"Still loading after {load_ms / 1000:.0f} s" + (f": {names}." if names else ".")


def _sign_in_warning(page: PageSession, request: PageRequest) -> str:
    met = f"A sign-in page was met instead: {page.address}."
    if request.sign_in is None:
        return f"{met} Save a sign-in for it, then take it again."
    return f"{met} The saved sign-in was not accepted, or has run out."


def _missing(page: PageSession, pictures: list[str]) -> list[str]:
    kinds = {"pictures": pictures, **page.missing}
    found = [
        f"{kind.capitalize()} that did not load: {_named(names)}." for kind, names in kinds.items() if names
    ]
    if page.refused_hosts:
        found.append(f"On a private network, not opened: {_named(page.refused_hosts)}.")
    return found


class _Blocks:
    """The page map's blocks, and the words with their boxes, as they come: all at once, or on the way."""

    def __init__(self, page: PageSession, request: PageRequest, *, shift_x_px: int) -> None:
        self.found: list[dict[str, Any]] = []
        self.words = FoundWords()
        self._page = page
        self._timeout_ms = request.timeouts.operation_ms
        self._shift_x_px = shift_x_px if request.page_width == "all" else 0

    def _visible(self) -> list[dict[str, Any]]:
        order = {"mostBlocks": MOST_BLOCKS - len(self.found), "mostChars": MOST_CHARS}
        rows = [
            row
            for frame in self._page.run_everywhere("words/map", order, timeout_ms=self._timeout_ms)
            for row in frame
        ]
        return [{**row, "x_px": row["x_px"] + self._shift_x_px} for row in rows]

    def look(self) -> None:
        """Note every block and every word of the page."""
        self.found = self._visible()
        self.words = FoundWords()
        self.words.add(self._words(None), right_px=self._shift_x_px, down_px=0)

    def look_at(self, clip_px: Box, shift_px: int) -> None:
        """Note the blocks and words that begin on a piece of the page, where they lie in the picture."""
        self.found += seen_on_the_way(self._visible(), clip_px, shift_px)
        found = self._words((clip_px.y_px, clip_px.bottom_px))
        self.words.add(found, right_px=self._shift_x_px, down_px=shift_px)

    def _words(self, between_px: tuple[int, int] | None) -> list[dict[str, Any]]:
        order = {
            "mostWords": MOST_WORDS - self.words.count,
            "mostLinks": MOST_LINKS - len(self.words.links),
            "betweenPx": between_px,
        }
        return self._page.run_everywhere("words/boxes", order, timeout_ms=self._timeout_ms)


def _named(addresses: list[str]) -> str:
    """The first few addresses, and how many more."""
    shown = ", ".join(address[:120] for address in addresses[:_NAMED_AT_MOST])
    more = len(addresses) - _NAMED_AT_MOST
    return f"{shown} and {more} more" if more > 0 else shown
