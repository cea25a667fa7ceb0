"""Pixels mirrored, turned by quarters to the px, and by any angle between them."""

from __future__ import annotations

import pyvips

from tallpage.core.geometry import Box
from tallpage.core.picture._libvips import translated
from tallpage.core.picture.operations._raster import Raster

Matrix = tuple[float, float, float, float]
"""``a, b, c, d`` of x' = a·x + b·y and y' = c·x + d·y."""

SMOOTHING_REACH_PX = 3
"""How far beyond a place the colours are taken from that an angle gives it."""


def mirrored(raster: Raster) -> Raster:
    """With left and right exchanged."""
    return Raster(raster.image.fliphor())


def quarter_turned(raster: Raster, turn_deg: int) -> Raster:
    """Turned clockwise by 90, 180 or 270 degrees; by 0 it is the raster itself."""
    return Raster(raster.image.rot(f"d{turn_deg}")) if turn_deg else raster


def mapped_onto(
    raster: Raster,
    matrix: Matrix,
    moved_px: tuple[float, float],
    box: Box,
    ground: tuple[int, int, int, int],
) -> Raster:
    """What lies in ``box`` once each place of ``raster`` is moved by a matrix and then by so many px.

    Places count from corners, so the middle of the first px is at 0.5, 0.5. What the raster does not reach
    has the colour ``ground`` (red, green, blue, alpha); there is an alpha plane where that shows through.
    Between px, colours are interpolated by bicubic curves.
    """
    raster = raster.with_alpha() if ground[3] < 255 else raster
    a, b, c, d = matrix
    # libvips counts places from the middle of the first px.
    across = 0.5 * (a + b) + moved_px[0] - 0.5
    down = 0.5 * (c + d) + moved_px[1] - 0.5
    with translated("The picture"):
        image = raster.image.affine(
            [a, b, c, d],
            interpolate=pyvips.Interpolate.new("bicubic"),
            oarea=[box.x_px, box.y_px, box.width_px, box.height_px],
            odx=across,
            ody=down,
            background=list(ground[: raster.image.bands]),
            extend="background",
        )
        return Raster(image.copy(interpretation="srgb"))
