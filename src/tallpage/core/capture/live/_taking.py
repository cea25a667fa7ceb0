"""Taking a live page as it stands: what was opened in it stays open, and it can be used afterwards."""

from __future__ import annotations

import time
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any, Literal

from tallpage.core.capture._picture import Blocks, Taken, picture_of
from tallpage.core.capture._report import PageReport
from tallpage.core.capture._request import OnProgress, PageRequest, Progress
from tallpage.core.capture._take import missing_from
from tallpage.core.capture.browser._page_session import PageSession
from tallpage.core.capture.layout._area import Area
from tallpage.core.capture.layout._preparing import prepare
from tallpage.core.capture.live._recording import Recording
from tallpage.core.capture.opening._arriving import StepsDone
from tallpage.core.capture.pixels._strips import StripTaker
from tallpage.core.capture.pixels._tiles import tiles_in_view
from tallpage.core.capture.words._mapping import page_map, page_words
from tallpage.core.capture.words._wholeness import Wholeness
from tallpage.core.errors import PageError
from tallpage.core.geometry import Box
from tallpage.core.picture import StripManifest

LiveExtent = Literal["full", "view", "element", "panel"]


@dataclass(frozen=True, slots=True, kw_only=True)
class TakeOrder:
    """What of the page is to be taken; ``target`` for an element or a panel."""

    number: int
    extent: LiveExtent
    target: str = ""


@dataclass(frozen=True, slots=True)
class Pointer:
    """Where the pointer is in the window, CSS px."""

    x_px: float
    y_px: float


def take_live(
    page: PageSession,
    request: PageRequest,
    order: TakeOrder,
    folder: Path,
    *,
    pointer: Pointer | None,
    recording: Recording,
    on_progress: OnProgress,
) -> tuple[StripManifest, PageReport]:
    """Take the page into ``folder``, which exists and is empty. It is left as it was.

    Raises:
        PageError: there is nothing to take, or the page went.
        StorageError: a strip could not be written.
    """
    started = time.monotonic()
    page.note_where()
    wanted = replace(
        request,
        address=page.address,
        extent=order.extent,
        element=order.target,
        fixed_overlays="keep",
        leave_out=(),
        steps=(),
        sign_in=None,
    )
    seen = _seen(page, wanted)
    if order.extent == "view" or (order.extent == "element" and seen is not None):
        taken, title, warnings = _as_seen(page, wanted, folder, seen, on_progress)
    else:
        taken, title, warnings = _unrolled(page, wanted, folder, pointer, on_progress)
    report = PageReport(
        address=recording.address or page.address,
        final_address=page.address,
        title=title,
        status=200,
        screen=request.screen,
        page_width_px=taken.area.box.width_px,
        page_height_px=taken.manifest.height_px // request.screen.scale,
        top_px=taken.area.box.y_px,
        truncated=bool(taken.cut_off),
        warnings=tuple(warnings),
        left_out=(),
        wholeness=taken.wholeness,
        done_before=tuple(str(step) for step in recording.steps),
        signed_in=False,
        seconds=round(time.monotonic() - started, 2),
    )
    return taken.manifest, report


def _seen(page: PageSession, request: PageRequest) -> Box | None:
    """What of the page is seen of what is wanted, in px of the page; None where more of it is hidden."""
    where = page.run("live/window", timeout_ms=request.timeouts.operation_ms)
    window = Box(x_px=where["xPx"], y_px=where["yPx"], width_px=where["widthPx"], height_px=where["heightPx"])
    if request.extent != "element":
        return window
    element = page.find(request.element, timeout_ms=request.timeouts.step_ms)
    measured = page.run("layout/measure", {"element": element}, timeout_ms=request.timeouts.operation_ms)
    box = Box(**measured["box"])
    if box.width_px < 1 or box.height_px < 1:
        raise PageError("There is nothing to be seen of that element.", code="element_missing")
    return box if window.overlap(box) == box else None


def _as_seen(
    page: PageSession, request: PageRequest, folder: Path, box: Box | None, on_progress: OnProgress
) -> tuple[Taken, str, list[str]]:
    """Take a part of the window as it is drawn there, with nothing changed for it."""
    if box is None:
        raise PageError("There is nothing to be seen there.", code="element_missing")
    scale = request.screen.scale
    blocks = Blocks(page, request, shift_x_px=0)
    with StripTaker(page, request, folder, width_px=box.width_px, on_progress=on_progress) as taker:
        tiles = tiles_in_view(box, scale)
        taker.expected = len(tiles)
        for tile in tiles:
            taker.store(taker.picture(tile, in_view=True), tile)
        blocks.look()
        manifest = taker.finish()
    page_map(blocks.found, area_px=box, scale=scale).save(folder)
    page_words(blocks.words, area_px=box, scale=scale).save(folder)
    title = page.run("layout/measure", {}, timeout_ms=request.timeouts.operation_ms)["title"]
    taken = Taken(area=Area(box=box), manifest=manifest, cut_off="", wholeness=Wholeness(words=0))
    return taken, title, []


def _unrolled(
    page: PageSession,
    request: PageRequest,
    folder: Path,
    pointer: Pointer | None,
    on_progress: OnProgress,
) -> tuple[Taken, str, list[str]]:
    """Take more than is seen: the page is laid out for it as for any picture, and laid back."""

    def go_on(progress: Progress) -> bool:
        on_progress(progress)
        return True

    with _held(page, request, pointer), _laid_back(page, request):
        prepared = prepare(page, request, StepsDone(), go_on, by_wheel=False, as_it_is=True)
        taken = picture_of(page, request, prepared, folder, go_on, on_progress)
    cut_off = f"Cut off after {taken.manifest.height_px // request.screen.scale:,} px: {taken.cut_off}."
    warnings = [
        taken.wholeness.as_sentence(),
        cut_off if taken.cut_off else "",
        taken.area.beside,
        *missing_from(page, list(prepared.missing_pictures)),
    ]
    return taken, prepared.measured["title"], [warning for warning in warnings if warning]


@contextmanager
def _laid_back(page: PageSession, request: PageRequest) -> Iterator[None]:
    """What is done to the page inside is undone afterwards."""
    timeout_ms = request.timeouts.operation_ms
    page.run("live/begin_taking", timeout_ms=timeout_ms)
    try:
        yield
    finally:
        page.run_everywhere("live/end_taking", timeout_ms=timeout_ms)
        if page.frame_px is not None:
            page.leave_frame(timeout_ms=timeout_ms)


@contextmanager
def _held(page: PageSession, request: PageRequest, pointer: Pointer | None) -> Iterator[None]:
    """The page is shown with the pointer where it is, however it is scrolled inside."""
    if pointer is None:
        yield
        return
    timeout_ms = request.timeouts.operation_ms
    place: dict[str, Any] = {"x": pointer.x_px, "y": pointer.y_px}
    mark = page.run("live/hold_pointer", place, timeout_ms=timeout_ms)
    page.show_as_pointed_at(mark, shown=True)
    page.point_nowhere(timeout_ms=timeout_ms)
    try:
        yield
    finally:
        page.show_as_pointed_at(mark, shown=False)
        page.point_at(pointer.x_px, pointer.y_px, timeout_ms=timeout_ms)
        page.run("live/let_go", timeout_ms=timeout_ms)
