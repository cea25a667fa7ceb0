"""A colour taken out of pixels, and the regions of a mask."""

from __future__ import annotations

import numpy as np
import pyvips
from numpy.typing import NDArray

from tallpage.core.picture.operations._raster import Colour, Raster


def label_regions(mask: NDArray[np.bool_]) -> NDArray[np.int32]:
    """A number for each region of px that are alike and touch by a side; shape (rows, columns)."""
    image = pyvips.Image.new_from_array(mask.astype(np.uint8) * 255)
    labels: NDArray[np.int32] = image.labelregions().numpy()
    return labels.reshape(mask.shape)


def is_near(raster: Raster, colour: Colour, tolerance: int) -> Raster:
    """255 where red, green and blue are each at most so far from a colour, 0 elsewhere; one channel.

    What shows through wholly has no colour.
    """
    near = _apart(raster, colour) <= tolerance
    return Raster(near & (raster.image.extract_band(3) > 0) if raster.has_alpha else near)


def mask_of(rows: NDArray[np.bool_]) -> Raster:
    """255 where a mask holds, 0 elsewhere; one channel."""
    return Raster(pyvips.Image.new_from_array(rows.astype(np.uint8) * 255))


def cleared(raster: Raster, colour: Colour, tolerance: int, *, within: Raster | None, soft_px: int) -> Raster:
    """A raster that shows through where it has a colour and ``within``, a mask, is 255; None is everywhere.

    Up to ``soft_px`` beside it, a px is taken for a mixture of ``colour`` and what stands before it, whose
    colour is the one nearby that is furthest from ``colour``: as much as there is of ``colour`` shows
    through, and is taken out of the px. Laid over ``colour`` again, the picture is as it was.
    """
    rgba = raster.with_alpha().image
    near = is_near(raster, colour, tolerance).image
    mask = near if within is None else near & within.image
    colours, alpha = rgba.extract_band(0, n=3), rgba.extract_band(3)
    if soft_px == 0:
        return _joined(colours, mask.ifthenelse(0, alpha))
    side = 2 * soft_px + 1
    apart = _apart(raster, colour)
    furthest = _greatest(apart, side)
    beside = _greatest(mask, side)
    # A px that is as far as any other nearby stands before all else, and is whole. One of the colour itself
    # that is not cleared is whole too.
    mixed = beside & (near ^ 255)
    share = mixed.ifthenelse(apart / (furthest < 1).ifthenelse(1, furthest), 1)
    share = mask.ifthenelse(0, share)
    divisor = (share <= 0).ifthenelse(1, share)
    unmixed = (colours - list(colour)) / divisor + list(colour)
    return _joined((share < 1).ifthenelse(unmixed, colours), share * alpha)


def _apart(raster: Raster, colour: Colour) -> pyvips.Image:
    """How far the channel that is furthest from a colour is from it, for each px."""
    red, green, blue = (raster.image.extract_band(0, n=3) - list(colour)).abs().bandsplit()
    return red.maxpair(green).maxpair(blue).cast("uchar")


def _greatest(image: pyvips.Image, side_px: int) -> pyvips.Image:
    """For each px the greatest value in a square around it."""
    return image.rank(side_px, 1, side_px - 1).rank(1, side_px, side_px - 1)


def _joined(colours: pyvips.Image, alpha: pyvips.Image) -> Raster:
    image = colours.rint().cast("uchar").bandjoin(alpha.rint().cast("uchar"))
    return Raster(image.copy(interpretation="srgb"))
