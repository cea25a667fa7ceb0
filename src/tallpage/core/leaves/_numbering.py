"""A line below a leaf that says which of how many it is, so that nothing of the page is covered."""

from __future__ import annotations

import numpy as np

from tallpage.core.picture import Colour, Raster

NUMBER_LINE_PX = 28
_TEXT_PX = 15
_MARGIN_PX = 10
_DARK, _LIGHT = (51, 51, 51), (238, 238, 238)


def with_number(raster: Raster, number: int, count: int, *, background: Colour) -> Raster:
    """``raster`` with the line “2 of 5” below it, :data:`NUMBER_LINE_PX` high, on a colour."""
    from PIL import Image, ImageDraw, ImageFont

    width_px = raster.size.width_px
    line = Image.new("RGB", (width_px, NUMBER_LINE_PX), background)
    # Weights of Rec. 709: how bright each primary looks.
    brightness = 0.2126 * background[0] + 0.7152 * background[1] + 0.0722 * background[2]
    ImageDraw.Draw(line).text(
        (width_px - _MARGIN_PX, NUMBER_LINE_PX // 2),
        f"{number} of {count}",
        fill=_DARK if brightness > 127 else _LIGHT,
        font=ImageFont.load_default(_TEXT_PX),
        anchor="rm",
    )
    return raster.above(Raster.from_rows(np.asarray(line)))
