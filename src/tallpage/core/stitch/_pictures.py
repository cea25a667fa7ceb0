"""Views as pictures: read to be compared, and the whole written as strips."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path

import numpy as np

from tallpage.core.errors import JoinError, PictureTooLarge
from tallpage.core.geometry import bands
from tallpage.core.picture import (
    MAX_STRIP_HEIGHT_PX,
    WHITE,
    Raster,
    StripManifest,
    StripWriter,
    encode_png,
)
from tallpage.core.stitch._cells import Grey
from tallpage.core.stitch._drawing import JoinDrawer, Rows
from tallpage.core.stitch._joining import find_join
from tallpage.core.stitch.models import Join

MOST_VIEWS = 200
_MOST_PIXELS = 150_000_000
"""Of all views. Comparing needs about five bytes for each."""
_LUMINANCE = np.array([77, 150, 29], dtype=np.uint16)
"""Of red, green and blue, in 256ths. Source: ITU-R BT.601, 2.5.1."""
_AT_ONCE_PX = 512


def join_pictures(pictures: Sequence[Raster], *, in_order: bool) -> Join:
    """How pictures of one tall thing are joined; see :func:`find_join`.

    Raises:
        JoinError: there are too few or too many, or they are not of one width.
        PictureTooLarge: together they have more pixels than are compared.
    """
    if not 2 <= len(pictures) <= MOST_VIEWS:
        raise JoinError(
            f"{len(pictures)} cannot be joined: at least 2 pictures are, and at most {MOST_VIEWS}.",
            code="join_count",
        )
    widths = [picture.size.width_px for picture in pictures]
    odd = next((number for number, width in enumerate(widths) if width != widths[0]), None)
    if odd is not None:
        raise JoinError(
            f"Picture {odd + 1} is {widths[odd]:,} px wide and picture 1 {widths[0]:,} px.",
            hint="Take them on the same screen, or bring them to one width first.",
            code="join_widths",
        )
    if sum(picture.size.pixels for picture in pictures) > _MOST_PIXELS:
        raise PictureTooLarge(
            f"Together the pictures have more than {_MOST_PIXELS // 1_000_000} million pixels.",
            hint="Join fewer of them.",
        )
    return find_join([_grey(picture) for picture in pictures], in_order=in_order)


def join_rows(join: Join, pictures: Sequence[Raster], top_px: int, height_px: int) -> Rows:
    """Rows of what a whole join shows, shape (rows, width, 3)."""
    return _drawer(join, pictures).rows(top_px, height_px)


def write_join(join: Join, pictures: Sequence[Raster], folder: Path) -> StripManifest:
    """Write what a whole join shows as strips into ``folder``, which exists and is empty."""
    drawer = _drawer(join, pictures)
    writer = StripWriter(folder, width_px=join.width_px)
    for top_px, height_px in bands(join.height_px, MAX_STRIP_HEIGHT_PX):
        rows: list[Rows] = [
            drawer.rows(top_px + offset, count) for offset, count in bands(height_px, _AT_ONCE_PX)
        ]
        writer.add(encode_png(Raster.from_rows(np.concatenate(rows))), height_px=height_px)
    return writer.finish()


def _drawer(join: Join, pictures: Sequence[Raster]) -> JoinDrawer:
    opaque = [_opaque(picture) for picture in pictures]
    return JoinDrawer(join, lambda view, top_px, count: opaque[view].rows(top_px, count))


def _opaque(picture: Raster) -> Raster:
    return picture.flattened(WHITE).without_alpha()


def _grey(picture: Raster) -> Grey:
    opaque = _opaque(picture)
    parts = [
        ((opaque.rows(top_px, count) * _LUMINANCE).sum(axis=2, dtype=np.uint16) >> 8).astype(np.uint8)
        for top_px, count in bands(opaque.size.height_px, _AT_ONCE_PX)
    ]
    return np.concatenate(parts)
