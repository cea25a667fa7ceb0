"""The pixels of a page that lies ready, with its blocks and words: all that a take writes but the report."""

from __future__ import annotations

from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any

from tallpage.core.capture._request import OnProgress, PageRequest
from tallpage.core.capture.browser._page_session import PageSession
from tallpage.core.capture.layout._area import Area, area_of
from tallpage.core.capture.layout._preparing import Prepared, measured_again
from tallpage.core.capture.layout._walk import GoOn
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
from tallpage.core.geometry import Box
from tallpage.core.picture import StripManifest

NAMED_AT_MOST = 5
_ENDLESS_PX = 10_000_000


@dataclass(frozen=True, slots=True, kw_only=True)
class Taken:
    """The pixels of a page, and what is to be said of them."""

    area: Area
    manifest: StripManifest
    cut_off: str
    """Why the picture ends before the page does; empty when it does not."""
    wholeness: Wholeness
    moved: bool = False
    doubts_px: tuple[int, ...] = ()


def picture_of(
    page: PageSession,
    request: PageRequest,
    prepared: Prepared,
    folder: Path,
    go_on: GoOn,
    on_progress: OnProgress,
) -> Taken:
    """Write the strips, page map and words of a page that was made ready.

    Raises:
        PageError, StorageError: the page went, or a strip could not be written.
        Stopped: ``go_on`` said so.
    """
    area = _area(request, prepared)
    blocks = Blocks(page, request, shift_x_px=prepared.measured["leftPx"])
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
    return Taken(
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
    numbers = [passage.number for passage in blank[:NAMED_AT_MOST]]
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


class Blocks:
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
