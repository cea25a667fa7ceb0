"""Original and result, band by band at 1:1, so that a tall output can be compared anywhere."""

from __future__ import annotations

import threading
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Literal

from django.http import Http404

from tallpage.core.errors import StorageError
from tallpage.core.geometry import Box
from tallpage.core.picture import Raster
from tallpage.server.outlets.fitting import require_files
from tallpage.server.outlets.models import Output, choice_from_json
from tallpage.server.outlets.pixels import Piece, open_piece

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
    paths = require_files(output)
    top_px = number * BAND_PX
    height_px = min(BAND_PX, output.made_height_px - top_px)
    if number < 0 or height_px < 1:
        raise Http404
    parts = []
    for part in _parts(output, paths):
        first, end = max(top_px, part.top_px), min(top_px + height_px, part.top_px + part.height_px)
        if end <= first:
            continue
        rows = Box(x_px=0, y_px=first - part.top_px, width_px=output.made_width_px, height_px=end - first)
        parts.append(_rows(output, side, part, rows))
    return Raster.stacked(parts).as_png(compression=1)


def _rows(output: Output, side: Side, part: _Part, rows: Box) -> Raster:
    if side == "original":
        return _original(output, part.piece).cropped(rows)
    result = _decoded(part.path).cropped(rows)
    if side == "result":
        return result
    return _original(output, part.piece).cropped(rows).difference(result, amplified=_AMPLIFIED)


def _decoded(path: Path) -> Raster:
    """What a viewer makes of a file, which never changes: decoded once for all of its bands.

    Where there is no room to hold it, it is decoded for each of them.
    """
    try:
        with _DECODING:
            return _decoded_once(path)
    except StorageError:
        return Raster.decode(path.read_bytes())


@lru_cache(maxsize=2)
def _decoded_once(path: Path) -> Raster:
    return Raster.decode(path.read_bytes()).held()


@dataclass(frozen=True, slots=True)
class _Part:
    """One file of an output: where it begins among the rows of all, and what of the page it shows."""

    path: Path
    piece: Piece
    top_px: int
    height_px: int


def _parts(output: Output, paths: list[Path]) -> list[_Part]:
    frame = output.shown()
    if not output.leaves:
        whole = Piece(frame=frame, top_px=0, height_px=frame.size.height_px)
        return [_Part(paths[0], whole, 0, output.made_height_px)]
    parts, top_px = [], 0
    for number, (path, leaf) in enumerate(zip(paths, output.leaves, strict=True), start=1):
        piece = Piece(
            frame=frame,
            top_px=leaf["row_px"],
            height_px=leaf["rows_px"],
            number=number,
            count=len(paths),
        )
        parts.append(_Part(path, piece, top_px, leaf["height_px"]))
        top_px += leaf["height_px"]
    return parts


def _original(output: Output, piece: Piece) -> Raster:
    """What a file shows, as it was when the file was made: resized but not encoded."""
    order = output.order(choice_from_json(output.choice))
    return open_piece(output, output.cut.capture, order, piece, access="random")
