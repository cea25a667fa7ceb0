"""Taking a clip: the page is opened as for a picture, and then seen frame by frame."""

from __future__ import annotations

import time
from collections.abc import Callable
from pathlib import Path

from tallpage.core.capture._request import OnProgress, Progress
from tallpage.core.capture.browser._page_session import PageSession
from tallpage.core.capture.browser._starting import Browser
from tallpage.core.capture.clip._moving import take_movement
from tallpage.core.capture.clip._request import ClipReport, ClipRequest
from tallpage.core.capture.clip._scrolling import scroll_positions
from tallpage.core.capture.layout._preparing import prepare_window
from tallpage.core.capture.opening._arriving import StepsDone, do_steps, open_signed_in
from tallpage.core.clip import MOST_SECONDS, Frames, FramesWriter, too_long
from tallpage.core.errors import Stopped
from tallpage.core.geometry import Box


def take_clip(
    browser: Browser,
    request: ClipRequest,
    folder: Path,
    *,
    on_progress: OnProgress = lambda _: None,
    is_stopped: Callable[[], bool] = lambda: False,
) -> tuple[Frames, ClipReport]:
    """Take frames into ``folder``, which exists and is empty.

    Raises:
        ClipError: it would last too long.
        PageError, PageUnreachable, AddressError: the page could not be taken.
        StorageError: a frame could not be written.
        Stopped: ``is_stopped`` said so; what was written is left for the caller.
    """
    started = time.monotonic()

    def go_on(progress: Progress) -> bool:
        if is_stopped():
            raise Stopped("The clip was stopped.")
        on_progress(progress)
        return True

    moving = request.scroll is None
    with browser.open_page(request.page, moving=moving) as page:
        go_on(Progress(stage="opening"))
        opened = open_signed_in(browser, page, request.page)
        steps = StepsDone() if request.plays_steps else do_steps(page, request.page, go_on)
        left_out: tuple[str, ...] = ()
        writer = FramesWriter(folder, rate_fps=request.rate_fps)
        page.set_screen()
        if moving:
            steps = take_movement(page, request, steps, writer, go_on)
        else:
            left_out = prepare_window(page, request.page, go_on)
            _take_scrolling(page, request, writer, go_on)
        title = page.run("live/window", timeout_ms=request.page.timeouts.operation_ms)["title"]
        page.note_where()
        frames = writer.finish()
        report = ClipReport(
            address=request.page.address,
            final_address=page.address,
            title=title,
            status=opened.status,
            left_out=left_out,
            warnings=(
                *((f"The page answered with status {opened.status}.",) if opened.status >= 400 else ()),
                *(f"This step could not be done: {line}." for line in steps.failed),
            ),
            done=steps.done,
            seconds=round(time.monotonic() - started, 2),
        )
    return frames, report


def _take_scrolling(
    page: PageSession, request: ClipRequest, writer: FramesWriter, go_on: Callable[[Progress], bool]
) -> None:
    timeout_ms, screen = request.page.timeouts.operation_ms, request.page.screen
    if request.scroll is None:
        raise ValueError("the clip does not scroll")
    page.run("clip/scroll", {"top": 0}, timeout_ms=timeout_ms)
    found = page.run("clip/reach", timeout_ms=timeout_ms)
    positions = scroll_positions(
        request.scroll,
        reach_px=int(found["reachPx"]),
        tops_px=found["topsPx"],
        window_px=screen.height_px,
        rate_fps=request.rate_fps,
    )
    if len(positions) > MOST_SECONDS * request.rate_fps:
        raise too_long()
    before: int | None = None
    picture = b""
    for number, top in enumerate(positions):
        go_on(Progress(stage="taking", done=number, expected=len(positions)))
        if top != before:
            at = page.run("clip/scroll", {"top": top}, timeout_ms=timeout_ms)
            window = Box(x_px=at["xPx"], y_px=at["yPx"], width_px=screen.width_px, height_px=screen.height_px)
            picture = page.picture(window, timeout_ms=timeout_ms, in_view=True)
            before = top
        writer.add(picture)
