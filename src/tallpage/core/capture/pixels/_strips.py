"""Taking the pixels: picture by picture, each written as its strips while the next is drawn."""

from __future__ import annotations

import itertools
from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor
from dataclasses import replace
from pathlib import Path
from types import TracebackType
from typing import Self

from tallpage.core.capture._request import OnProgress, PageRequest, Progress
from tallpage.core.capture.browser._page_session import PageSession
from tallpage.core.capture.layout._walk import GoOn
from tallpage.core.capture.pixels._tiles import Tile, plan_tiles
from tallpage.core.capture.words._wholeness import Ink
from tallpage.core.geometry import Box
from tallpage.core.picture import FilteredPng, StripManifest, StripWriter, decode, encode_png

_ENCODED_AT_ONCE = 2


class StripTaker:
    """Takes pieces of a page and appends them to the strips of a folder.

    ``on_progress`` is also called from the thread that writes, with what can be looked at by then.
    """

    def __init__(
        self, page: PageSession, request: PageRequest, folder: Path, *, width_px: int, on_progress: OnProgress
    ) -> None:
        self._page, self._operation_ms = page, request.timeouts.operation_ms
        self._writer = StripWriter(folder, width_px=width_px * request.screen.scale)
        self._on_progress = on_progress
        self._storing = ThreadPoolExecutor(max_workers=1)
        self._stored: Future[None] | None = None
        self._scale = request.screen.scale
        self.ink: list[Ink] = []
        """Where each piece shows anything, as far as that is known."""
        self.expected = 0
        """How many strips there will be, as far as is known."""
        page.prepare_pictures(whole_width=request.page_width == "all")

    def __enter__(self) -> Self:
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        self._storing.shutdown()

    @property
    def progress(self) -> Progress:
        """What is written of what is expected."""
        return Progress(stage="taking", done=self._writer.count, expected=self.expected)

    def picture(self, tile: Tile, *, in_view: bool = False) -> bytes:
        """A piece of the page, as PNG."""
        return self._page.picture(tile.clip_px, timeout_ms=self._operation_ms, in_view=in_view)

    def store(self, png: bytes, tile: Tile) -> None:
        """Append a piece, in a thread of its own, once the piece before is written."""
        self.wait()
        self._stored = self._storing.submit(self._store, png, tile)

    def wait(self) -> None:
        """Wait until what was given is written.

        Raises:
            StorageError, PictureUnreadable: it could not be.
        """
        if self._stored is not None:
            self._stored.result()

    def finish(self) -> StripManifest:
        """Write the manifest."""
        self.wait()
        return self._writer.finish()

    def _store(self, png: bytes, tile: Tile) -> None:
        filtered = FilteredPng.read(png)
        _store(self._writer, png, tile, filtered)
        if filtered is not None:
            self.ink.append(Ink(piece_px=tile.clip_px, scale=self._scale, cells=filtered.ink()))
        self._on_progress(self.progress)


def take_tiles(
    taker: StripTaker,
    area_px: Box,
    scale: int,
    go_on: GoOn,
    *,
    area_now: Callable[[], Box],
    on_drawn: Callable[[], None],
) -> Box:
    """Take an area of a page that stands still; the part of it that was taken, in CSS px.

    The browser may lay a page out anew for its first picture (fonts are chosen again, for one): when
    ``area_now`` tells of another height then, so much is taken. ``on_drawn`` may use the page once
    all its pictures are there, while the last is still written.
    """
    go_on(taker.progress)
    tiles = plan_tiles(area_px, scale)
    first = taker.picture(tiles[0])
    now_px = area_now()
    if now_px.height_px != area_px.height_px:
        area_px = replace(area_px, height_px=now_px.height_px)
        tiles = plan_tiles(area_px, scale)
        first = taker.picture(tiles[0])
    taker.expected = sum(len(tile.strip_heights_device_px) for tile in tiles)
    taken_px = 0
    for number, tile in enumerate(tiles):
        if number > 0 and not go_on(taker.progress):
            break
        taker.store(taker.picture(tile) if number > 0 else first, tile)
        taken_px += tile.clip_px.height_px
    on_drawn()
    return replace(area_px, height_px=taken_px)


def _store(writer: StripWriter, png: bytes, tile: Tile, filtered: FilteredPng | None) -> None:
    """Write a tile as its strips; one that is a single strip goes to disk as it came."""
    heights = tile.strip_heights_device_px
    strips = [png] if len(heights) == 1 else filtered.split(heights) if filtered is not None else None
    if strips is not None:
        for strip, height_px in zip(strips, heights, strict=True):
            writer.add(strip, height_px=height_px)
        return
    raster = decode(png).held()
    tops_px = (0, *itertools.accumulate(heights))

    def encoded(number: int) -> bytes:
        box = Box(x_px=0, y_px=tops_px[number], width_px=raster.size.width_px, height_px=heights[number])
        return encode_png(raster.cropped(box), compression=1)

    with ThreadPoolExecutor(max_workers=_ENCODED_AT_ONCE) as pool:
        for number, strip in enumerate(pool.map(encoded, range(len(heights)))):
            writer.add(strip, height_px=heights[number])
