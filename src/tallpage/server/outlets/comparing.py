"""Original and result, band by band at 1:1, so that a tall output can be compared anywhere."""

from __future__ import annotations

import threading
from dataclasses import replace
from functools import lru_cache
from pathlib import Path
from typing import Literal

from django.http import Http404

from tallpage.core.errors import StorageError
from tallpage.core.geometry import Box
from tallpage.core.picture import Raster, decode, encode_png
from tallpage.server.outlets.fitting import require_files
from tallpage.server.outlets.models import Output, OutputFile

BAND_PX = 1_024
Side = Literal["original", "result", "difference"]
_DECODING = threading.Lock()
_AMPLIFIED = 6
"""A difference of one level would not be seen."""


def band(output: Output, side: Side, number: int) -> bytes:
    """PNG of rows ``number × 1,024`` and on: of the resized cut, of what a viewer makes of the file, or
    of how far these are apart (black where they are not).

    Raises:
        FitError: there is no file yet.
        Http404: there is no such band.
    """
    require_files(output)
    files, top_px = list(output.files.all()), number * BAND_PX
    height_px = min(BAND_PX, sum(file.height_px for file in files) - top_px)
    if number < 0 or height_px < 1:
        raise Http404
    parts, above_px = [], 0
    for file in files:
        first = max(top_px, above_px)
        end = min(top_px + height_px, above_px + file.height_px)
        if end > first:
            rows = Box(x_px=0, y_px=first - above_px, width_px=file.width_px, height_px=end - first)
            parts.append(_rows(output, side, file, rows, count=len(files)))
        above_px += file.height_px
    return encode_png(Raster.stacked(parts), compression=1)


def _rows(output: Output, side: Side, file: OutputFile, rows: Box, *, count: int) -> Raster:
    if side == "original":
        return _original(output, file, count).cropped(rows)
    result = _decoded(file.path).cropped(rows)
    if side == "result":
        return result
    return _original(output, file, count).cropped(rows).difference(result, amplified=_AMPLIFIED)


def _decoded(path: Path) -> Raster:
    """What a viewer makes of a file, which never changes: decoded once for all of its bands.

    Where there is no room to hold it, it is decoded for each of them.
    """
    try:
        with _DECODING:
            return _decoded_once(path)
    except StorageError:
        return decode(path.read_bytes())


@lru_cache(maxsize=2)
def _decoded_once(path: Path) -> Raster:
    return decode(path.read_bytes()).held()


def _original(output: Output, file: OutputFile, count: int) -> Raster:
    """What a file shows, as it was when the file was made: resized but not encoded."""
    rendering = output.shown()
    leaf = replace(
        rendering.whole(), top_px=file.row_px, height_px=file.rows_px, number=file.number, count=count
    )
    return rendering.draw(leaf, access="random")
