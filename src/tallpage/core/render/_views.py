"""Captures as they are looked at: thumbnails, the spine, strips from further away, one joined PNG."""

from __future__ import annotations

import math
import tempfile
from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING

from tallpage.core.cut import Cut, Fold, Frame
from tallpage.core.files import storage_errors
from tallpage.core.geometry import Box, Size
from tallpage.core.picture import Access, Raster, StripManifest, encode_png, encode_webp, open_file, write_png
from tallpage.core.render._drawing import Rendering
from tallpage.core.render._rules import RenderRules
from tallpage.core.render._source import CaptureSource, Source
from tallpage.core.sizing import Sizing

if TYPE_CHECKING:
    from tallpage.core.cut.models import HiddenArea

TILE_PX = 1_024
"""Side of a square of a turned page that is looked at."""
_DRESSED_VIEW_PX = 2_400
"""Rows of a file that are shown of it while it is dressed."""
_HIDDEN_VIEW_PX = 4_000
"""Greatest side of a hidden area that is only looked at."""


def whole_page(folder: Path, manifest: StripManifest, *, access: Access = "sequential") -> Raster:
    """All of a capture; ``sequential`` may be pulled once, from top to bottom."""
    return CaptureSource(folder, manifest).region(Box.whole(manifest.size), access=access)


def thumbnail(folder: Path, manifest: StripManifest, *, width_px: int, greatest_height_px: int) -> bytes:
    """WebP of the page at ``width_px`` in true proportion, cut below ``greatest_height_px``."""
    page = manifest.size
    shown_px = min(page.height_px, max(1, greatest_height_px * page.width_px // width_px))
    frame = Box(x_px=0, y_px=0, width_px=page.width_px, height_px=shown_px)
    shown = CaptureSource(folder, manifest).region(frame)
    return encode_webp(shown.resized(frame.size.at_width(width_px)), quality=82)


def squeezed(folder: Path, manifest: StripManifest, *, width_px: int, greatest_height_px: int) -> bytes:
    """WebP of the whole page for the spine: true proportion, or squeezed to the greatest height."""
    natural = manifest.size.at_width(width_px)
    size = Size(width_px=width_px, height_px=min(natural.height_px, greatest_height_px))
    return encode_webp(whole_page(folder, manifest).resized(size), quality=80)


def prepared_spine(source: Source, *, width_px: int, greatest_height_px: int) -> bytes:
    """WebP of a whole page that a cut turns or clears, for the spine."""
    natural = source.size.at_width(width_px)
    size = Size(width_px=width_px, height_px=min(natural.height_px, greatest_height_px))
    return encode_webp(source.region(Box.whole(source.size)).held().resized(size), quality=80)


def prepared_tile(source: Source, column: int, row: int, *, shrink: int) -> bytes | None:
    """A square of a page that a cut turns or clears, at ``1/shrink`` of its size; None beside the page.

    PNG at the page's own size, WebP at others.
    """
    side_px = TILE_PX * shrink
    tile = Box(x_px=column * side_px, y_px=row * side_px, width_px=side_px, height_px=side_px)
    box = tile.overlap(Box.whole(source.size))
    if box is None:
        return None
    raster = source.region(box).held()
    if shrink == 1:
        return encode_png(raster, compression=1)
    size = Size(width_px=-(-box.width_px // shrink), height_px=-(-box.height_px // shrink))
    return encode_webp(raster.resized(size), quality=90)


def strip_view(folder: Path, manifest: StripManifest, number: int, *, shrink: int) -> bytes:
    """WebP of one strip at ``1/shrink`` of its size, for looking from further away."""
    strip = manifest.strips[number]
    raster = open_file(folder / strip.file, access="sequential")
    size = Size(width_px=max(1, manifest.width_px // shrink), height_px=max(1, -(-strip.height_px // shrink)))
    return encode_webp(raster.resized(size), quality=90)


def hidden_view(source: Source, area: HiddenArea) -> bytes | None:
    """WebP of a hidden area as files show it, for looking at it; None where it does not lie on the page."""
    from tallpage.core.render.page._hiding import HidingSource

    box = area.box.overlap(Box.whole(source.size))
    if box is None:
        return None
    shrink = math.ceil(max(1.0, box.height_px / _HIDDEN_VIEW_PX, box.width_px / _HIDDEN_VIEW_PX))
    size = Size(width_px=max(1, box.width_px // shrink), height_px=max(1, box.height_px // shrink))
    return encode_webp(HidingSource(source, (area,)).region(box).resized(size), quality=90)


def piece_view(source: Source, cut: Cut, box: Box) -> bytes:
    """WebP of a piece of a page at 1:1 with what a cut hides and marks, folded away or not.

    Raises:
        FrameError: it does not lie on the page.
    """
    shown = replace(cut, frame=Frame.of(box), dressing=None)
    rendering = Rendering(source, shown, RenderRules(sizing=Sizing(width_px=box.width_px)))
    return encode_webp(rendering.draw(rendering.whole()), quality=88)


def dressed_view(source: Source, cut: Cut, *, width_px: int) -> bytes:
    """WebP of a cut as a file of a width shows it. Of a tall one, the middle is folded away.

    Raises:
        FitError: what is around the picture leaves no room for it.
    """
    return encode_webp(_dressed(source, cut, width_px), quality=88)


def step_view(source: Source, cut: Cut, *, file_width_px: int, width_px: int) -> bytes:
    """The same, small: as a file of ``file_width_px`` shows it, at ``width_px`` or less.

    Raises:
        FitError: what is around the picture leaves no room for it.
    """
    raster = _dressed(source, cut, file_width_px)
    return encode_webp(raster.resized(raster.size.at_width(min(width_px, raster.size.width_px))), quality=82)


def _dressed(source: Source, cut: Cut, width_px: int) -> Raster:
    frame = cut.frame
    shown_px = max(1, _DRESSED_VIEW_PX * frame.size.width_px // width_px)
    if frame.size.height_px > shown_px:
        half_px = shown_px // 2
        upper, lower = frame.parts(0, half_px), frame.parts(frame.size.height_px - half_px, half_px)
        fold = Fold(top_px=upper[-1].bottom_px, height_px=lower[0].y_px - upper[-1].bottom_px)
        cut = replace(cut, frame=Frame.of(frame.box, [*frame.folds, fold], frame.folds_down))
    rendering = Rendering(source, cut, RenderRules(sizing=Sizing(width_px=width_px)))
    return rendering.draw(rendering.whole())


def save_joined_png(folder: Path, manifest: StripManifest, path: Path) -> int:
    """Write a capture as one PNG file, whole or not at all; returns its bytes."""
    return _saved(whole_page(folder, manifest), path)


def save_png(rendering: Rendering, path: Path) -> int:
    """Write all of a cut as one PNG file, whole or not at all; returns its bytes."""
    return _saved(rendering.draw(rendering.whole()), path)


def _saved(raster: Raster, path: Path) -> int:
    # A name of ours: libvips would read options out of square brackets in the caller's.
    with (
        storage_errors(path.parent),
        tempfile.TemporaryDirectory(prefix=".part-", dir=path.parent) as scratch,
    ):
        part = Path(scratch) / "joined.png"
        write_png(raster, part)
        part.replace(path)
    return path.stat().st_size
