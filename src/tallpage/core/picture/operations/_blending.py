"""Pixels laid over others."""

from __future__ import annotations

import pyvips

from tallpage.core.geometry import Box
from tallpage.core.picture.operations._raster import Raster


def laid_over(below: Raster, upper: Raster, place: Box) -> Raster:
    """``below`` with ``upper``, which has transparency and the size of ``place``, laid over it there.

    Pixels outside ``place`` are not touched.
    """
    under = below.cropped(place).image
    mixed = under.composite2(upper.image, "over")
    # The result always has transparency; where there was none, there is none.
    return put_in(below, _in_bytes(mixed.extract_band(0, n=below.image.bands)), place)


def multiplied_by(below: Raster, upper: Raster, place: Box) -> Raster:
    """``below``, darkened at ``place`` by ``upper``, which has transparency and that size, as by ink."""
    # Ink on white paper, as far as it covers: the product with that leaves bare paper as it was.
    ink = upper.image.flatten(background=[255, 255, 255])
    under = below.cropped(place).image
    colours = under.extract_band(0, n=3) * ink / 255
    mixed = colours.bandjoin(under.extract_band(3)) if below.has_alpha else colours
    return put_in(below, _in_bytes(mixed), place)


def _in_bytes(image: pyvips.Image) -> Raster:
    return Raster(image.rint().cast("uchar").copy(interpretation="srgb"))


def blurred_where(below: Raster, mask: Raster, *, sigma_px: float) -> Raster:
    """``below``, blurred where ``mask``, of the same size, is opaque."""
    opaque = mask.image.extract_band(mask.image.bands - 1)
    return Raster(opaque.ifthenelse(blurred(below, sigma_px=sigma_px).image, below.image, blend=True))


def masked(raster: Raster, mask: Raster) -> Raster:
    """``raster`` where ``mask``, of the same size, is opaque; transparent where that is."""
    opaque = mask.image.extract_band(mask.image.bands - 1)
    image = raster.image
    if raster.has_alpha:
        opaque = (opaque * image.extract_band(3) / 255).rint().cast("uchar")
    return Raster(image.extract_band(0, n=3).bandjoin(opaque).copy(interpretation="srgb"))


def blurred(raster: Raster, *, sigma_px: float) -> Raster:
    """Blurred by a Gaussian of a standard deviation in px."""
    # Premultiplied, or the colour behind what shows through would bleed into what does not.
    image = raster.image.premultiply() if raster.has_alpha else raster.image
    soft = image.gaussblur(sigma_px, min_ampl=0.02)
    soft = soft.unpremultiply() if raster.has_alpha else soft
    return Raster(soft.cast("uchar").copy(interpretation="srgb"))


def put_in(below: Raster, piece: Raster, place: Box) -> Raster:
    """``below`` with a piece instead of what was at ``place``; both have as many channels."""
    if place == Box.whole(below.size):
        return piece
    return Raster(below.image.insert(piece.image, place.x_px, place.y_px))
