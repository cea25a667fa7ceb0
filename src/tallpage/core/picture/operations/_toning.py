"""Colours changed, px by px. What shows through stays as transparent as it is."""

from __future__ import annotations

import numpy as np
import pyvips

from tallpage.core.picture.operations._raster import Raster

_LUMINANCE = (0.2126, 0.7152, 0.0722)
"""Shares of red, green and blue (ITU-R BT.709), on the values as they are: as browsers' filters do it."""


def brightened(raster: Raster, *, brightness: float, contrast: float) -> Raster:
    """Each channel times ``brightness``, then its distance from the middle times ``contrast``."""
    levels = np.clip(np.arange(256) * brightness, 0, 255).round()
    levels = np.clip((levels - 127.5) * contrast + 127.5, 0, 255).round()
    return _mapped(raster, levels.astype(np.uint8))


def greyed(raster: Raster) -> Raster:
    """The luminance of each px, in all three channels."""
    return _with_alpha_of(raster, _grey(raster).bandjoin([_grey(raster)] * 2))


def thresholded(raster: Raster, threshold: int) -> Raster:
    """White where the luminance is at least ``threshold``, black elsewhere."""
    white = (_grey(raster) >= threshold).ifthenelse(255, 0).cast("uchar")
    return _with_alpha_of(raster, white.bandjoin([white] * 2))


def inverted(raster: Raster) -> Raster:
    """Each channel the other way around."""
    return _mapped(raster, np.arange(255, -1, -1, dtype=np.uint8))


def _grey(raster: Raster) -> pyvips.Image:
    colours = raster.without_alpha().image
    weights = pyvips.Image.new_from_array([list(_LUMINANCE)])
    return colours.recomb(weights).rint().cast("uchar")


def _mapped(raster: Raster, levels: np.typing.NDArray[np.uint8]) -> Raster:
    table = pyvips.Image.new_from_array(levels.reshape(1, 256))
    return _with_alpha_of(raster, raster.without_alpha().image.maplut(table.cast("uchar")))


def _with_alpha_of(raster: Raster, colours: pyvips.Image) -> Raster:
    image = colours.bandjoin(raster.image.extract_band(3)) if raster.has_alpha else colours
    return Raster(image.copy(interpretation="srgb"))
