"""Taking a live page as it stands: what was opened in it stays open, and it can be used afterwards."""

from __future__ import annotations

import time
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Literal

from tallpage.core.capture._picture import Blocks, Taken, picture_of
from tallpage.core.capture._report import PageReport
from tallpage.core.capture._request import OnProgress, PageRequest, Progress
from tallpage.core.capture._take import what_lacks
from tallpage.core.capture.browser._page_session import PageSession
from tallpage.core.capture.layout._area import Area
from tallpage.core.capture.layout._preparing import prepare
from tallpage.core.capture.live._input import Pointer
from tallpage.core.capture.live._recording import Recording
from tallpage.core.capture.opening._arriving import StepsDone
from tallpage.core.capture.pixels._strips import StripTaker
from tallpage.core.capture.pixels._tiles import tiles_in_view
from tallpage.core.capture.words._mapping import page_map, page_words
from tallpage.core.capture.words._wholeness import Wholeness
from tallpage.core.geometry import Box
from tallpage.core.picture import StripManifest

LiveExtent = Literal["full", "view", "element", "panel"]


@dataclass(frozen=True, slots=True, kw_only=True)
class TakeOrder:
    """What of the page is to be taken; ``target`` for an element or a panel."""

    extent: LiveExtent
    target: str = ""


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
    window = page.run("live/window", timeout_ms=request.timeouts.operation_ms)
    seen_px = _seen(page, wanted, Box(**window["box"]))
    if seen_px is not None:
        taken = _as_seen(page, wanted, folder, seen_px, on_progress)
        warnings: tuple[str, ...] = ()
    else:
        taken, warnings = _unrolled(page, wanted, folder, pointer, on_progress)
    report = PageReport(
        address=recording.address or page.address,
        final_address=page.address,
        title=window["title"],
        status=200,
        screen=request.screen,
        page_width_px=taken.area.box.width_px,
        page_height_px=taken.manifest.height_px // request.screen.scale,
        top_px=taken.area.box.y_px,
        truncated=bool(taken.cut_off),
        warnings=warnings,
        left_out=(),
        wholeness=taken.wholeness,
        done_before=tuple(str(step) for step in recording.steps),
        signed_in=False,
        seconds=round(time.monotonic() - started, 2),
    )
    return taken.manifest, report


def _seen(page: PageSession, request: PageRequest, window_px: Box) -> Box | None:
    """Where on the page lies what is wanted; None where not all of it is in the window."""
    if request.extent == "view":
        return window_px
    if request.extent != "element":
        return None
    element = page.find(request.element, timeout_ms=request.timeouts.step_ms)
    measured = page.run("layout/measure", {"element": element}, timeout_ms=request.timeouts.operation_ms)
    box_px = Box(**measured["box"])
    return box_px if window_px.overlap(box_px) == box_px else None


def _as_seen(
    page: PageSession, request: PageRequest, folder: Path, box_px: Box, on_progress: OnProgress
) -> Taken:
    """Take a part of the window as it is drawn there, with nothing changed for it."""
    scale = request.screen.scale
    blocks = Blocks(page, request, shift_x_px=0)
    with StripTaker(page, request, folder, width_px=box_px.width_px, on_progress=on_progress) as taker:
        tiles = tiles_in_view(box_px, scale)
        taker.expected = len(tiles)
        for tile in tiles:
            taker.store(taker.picture(tile, in_view=True), tile)
        blocks.look()
        manifest = taker.finish()
    page_map(blocks.found, area_px=box_px, scale=scale).save(folder)
    page_words(blocks.words, area_px=box_px, scale=scale).save(folder)
    return Taken(area=Area(box=box_px), manifest=manifest, cut_off="", wholeness=Wholeness(words=0))


def _unrolled(
    page: PageSession,
    request: PageRequest,
    folder: Path,
    pointer: Pointer | None,
    on_progress: OnProgress,
) -> tuple[Taken, tuple[str, ...]]:
    """Take more than is seen: the page is laid out for it as for any picture, and laid back."""

    def go_on(progress: Progress) -> bool:
        on_progress(progress)
        return True

    with _held(page, request, pointer), _laid_back(page, request):
        prepared = prepare(page, request, StepsDone(), go_on, by_wheel=False, as_it_is=True)
        taken = picture_of(page, request, prepared, folder, go_on, on_progress)
    said = (taken.wholeness.as_sentence(), *what_lacks(page, request, prepared, taken))
    return taken, tuple(sentence for sentence in said if sentence)


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
    place = {"x": pointer.x_px, "y": pointer.y_px}
    mark = page.run("browser/hold", {"place": place}, timeout_ms=timeout_ms)
    page.show_as_pointed_at(mark, shown=True)
    page.point_nowhere(timeout_ms=timeout_ms)
    try:
        yield
    finally:
        page.show_as_pointed_at(mark, shown=False)
        page.point_at(pointer.x_px, pointer.y_px, timeout_ms=timeout_ms)
        page.run("live/let_go", timeout_ms=timeout_ms)
