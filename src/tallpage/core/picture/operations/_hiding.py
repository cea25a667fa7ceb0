"""Pixels that replace what is not to be seen."""

from __future__ import annotations

from collections.abc import Sequence

import pyvips

from tallpage.core.geometry import Box, Size
from tallpage.core.picture.operations._raster import Colour, Raster

_SMOOTHED_PX = 81
"""Along an edge: most of so many px is paper, also where the edge runs through a line of letters."""


def plain(size: Size, colour: Colour, *, like: Raster) -> Raster:
    """One colour, opaque, with the channels of another raster."""
    value = [*colour, 255][: like.image.bands]
    image = (pyvips.Image.black(size.width_px, size.height_px, bands=len(value)) + value).cast("uchar")
    return Raster(image.copy(interpretation="srgb"))


def transparent(size: Size) -> Raster:
    """Nothing at all, with an alpha plane."""
    image = pyvips.Image.black(size.width_px, size.height_px, bands=4)
    return Raster(image.copy(interpretation="srgb"))


def pixelated(raster: Raster, cell_px: int) -> Raster:
    """Squares, each of the mean colour of what it covers; they count from the upper left corner."""
    image = raster.image
    across, down = (-(-length // cell_px) * cell_px for length in (image.width, image.height))
    # A square that reaches beyond the edge is filled up with the colours at the edge.
    filled = image.embed(0, 0, across, down, extend="copy")
    squares = filled.shrink(cell_px, cell_px).zoom(cell_px, cell_px)
    return Raster(squares.crop(0, 0, image.width, image.height).copy(interpretation="srgb"))


def patched(size: Size, edges: Sequence[Raster | None], shown: Box) -> Raster:
    """What may lie between four edges: the part ``shown`` of an area of a size.

    ``edges`` are the colours above, right of, below and left of the area: one px thick, as long as the
    area, and None where the page ends. Each place takes of an edge the more, the nearer it lies (inverse
    distance weighting: Shepard, "A two-dimensional interpolation function", 1968).

    Raises:
        ValueError: there is no edge at all.
    """
    place = pyvips.Image.xyz(shown.width_px, shown.height_px)
    x, y = place[0] + shown.x_px, place[1] + shown.y_px
    distances = (y + 1, x * -1 + size.width_px, y * -1 + size.height_px, x + 1)
    weighted: pyvips.Image | None = None
    weights: pyvips.Image | None = None
    for number, (edge, distance) in enumerate(zip(edges, distances, strict=True)):
        if edge is None:
            continue
        lies_flat = number % 2 == 0
        along = (
            edge.image.crop(shown.x_px, 0, shown.width_px, 1).replicate(1, shown.height_px)
            if lies_flat
            else edge.image.crop(0, shown.y_px, 1, shown.height_px).replicate(shown.width_px, 1)
        )
        weight = distance**-1
        weighted = along * weight if weighted is None else weighted + along * weight
        weights = weight if weights is None else weights + weight
    if weighted is None or weights is None:
        raise ValueError("a patch needs at least one edge")
    return Raster((weighted / weights).rint().cast("uchar").copy(interpretation="srgb"))


def edge_line(strip: Raster, *, flat: bool) -> Raster:
    """A strip of a few px beside an area as a line of one px: the median across it, smoothed along it."""
    image = strip.image
    middle = (
        image.rank(1, image.height, image.height // 2)
        if flat
        else image.rank(image.width, 1, image.width // 2)
    )
    line = (
        middle.crop(0, image.height // 2, image.width, 1)
        if flat
        else middle.crop(image.width // 2, 0, 1, image.height)
    )
    reach = min(_SMOOTHED_PX, line.width if flat else line.height)
    smoothed = line.embed(reach, reach, line.width + 2 * reach, line.height + 2 * reach, extend="copy")
    smoothed = smoothed.rank(reach, 1, reach // 2) if flat else smoothed.rank(1, reach, reach // 2)
    return Raster(smoothed.crop(reach, reach, line.width, line.height))
