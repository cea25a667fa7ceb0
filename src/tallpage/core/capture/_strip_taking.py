"""Taking the pixels: picture by picture, each written as its strips before the next but one is taken."""

from __future__ import annotations

import itertools
from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor
from pathlib import Path
from typing import Any, Literal

from tallpage.core.capture._page_door import PageDoor
from tallpage.core.capture._request import OnProgress, PageRequest, Progress
from tallpage.core.capture._tiles import Tile, plan_inner_steps, plan_steps, plan_tiles
from tallpage.core.capture._walk import GoOn
from tallpage.core.geometry import Box
from tallpage.core.picture import Raster, StripManifest, StripWriter, split_png

_ENCODED_AT_ONCE = 2
Stepping = Literal["", "window", "inner"]
"""What is scrolled along while the strips are taken, on a page that only draws what is near: usually
nothing, else the window, or the page's inner scroller."""


def plan(request: PageRequest, area_px: Box, measured: dict[str, Any], stepping: Stepping) -> list[Tile]:
    """The tiles of an area, as the page must be taken."""
    scale = request.screen.scale
    if stepping == "inner":
        return plan_inner_steps(
            area_px,
            scale,
            scroller_px=Box(**measured["scroller"]),
            content_height_px=measured["walkedHeightPx"],
            page_height_px=measured["heightPx"],
        )
    if stepping == "window":
        return plan_steps(area_px, scale, view_height_px=request.screen.height_px)
    return plan_tiles(area_px, scale)


def take_strips(
    page: PageDoor,
    request: PageRequest,
    tiles: list[Tile],
    folder: Path,
    go_on: GoOn,
    *,
    stepping: Stepping,
    on_step: Callable[[Tile], None],
    on_drawn: Callable[[], None],
    on_progress: OnProgress,
) -> StripManifest:
    """Take the tiles. A page that is scrolled along is told of each step, before its picture.

    ``on_drawn`` may use the page once all its pictures are there, while the last is still written.

    ``on_progress`` is also called from the thread that writes, with what can be looked at by then.

    What comes back tells of all of them, or of those that were there when the person had enough.
    """
    page.prepare_pictures(whole_width=request.page_width == "all")
    operation_ms = request.patience.operation_ms
    if stepping == "window":
        page.run("pin", timeout_ms=operation_ms)
    expected = sum(len(tile.strip_heights_device_px) for tile in tiles)
    writer = StripWriter(folder, width_px=tiles[0].clip_px.width_px * request.screen.scale)
    taken = 0

    def progress() -> Progress:
        return Progress(stage="taking", done=writer.count, expected=expected)

    def store(png: bytes, tile: Tile) -> None:
        _store(writer, png, tile)
        on_progress(progress())

    # One tile is written while the browser draws the next.
    with ThreadPoolExecutor(max_workers=1) as storing:
        stored: Future[None] | None = None
        for tile in tiles:
            if not go_on(progress()) and taken > 0:
                break
            if stepping:
                place = {"top": tile.scroll_px, "alone": tile.alone}
                page.run("step", place, timeout_ms=operation_ms)
                on_step(tile)
            png = page.picture(tile.clip_px, timeout_ms=operation_ms)
            if stored is not None:
                stored.result()
            stored = storing.submit(store, png, tile)
            taken += 1
        on_drawn()
        if stored is not None:
            stored.result()
    return writer.finish()


def _store(writer: StripWriter, png: bytes, tile: Tile) -> None:
    """Write a tile as its strips; one that is a single strip goes to disk as it came."""
    heights = tile.strip_heights_device_px
    strips = [png] if len(heights) == 1 else split_png(png, heights)
    if strips is not None:
        for strip, height_px in zip(strips, heights, strict=True):
            writer.add(strip, height_px=height_px)
        return
    raster = Raster.decode(png).held()
    tops_px = (0, *itertools.accumulate(heights))

    def encoded(number: int) -> bytes:
        box = Box(x_px=0, y_px=tops_px[number], width_px=raster.size.width_px, height_px=heights[number])
        return raster.cropped(box).as_png(compression=1)

    with ThreadPoolExecutor(max_workers=_ENCODED_AT_ONCE) as pool:
        for number, strip in enumerate(pool.map(encoded, range(len(heights)))):
            writer.add(strip, height_px=heights[number])
