"""The tone of a picture, as a value."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from tallpage.core.fields import StrictModel

_Times = Annotated[float, Field(ge=0.1, le=4, allow_inf_nan=False)]


class Tone(StrictModel):
    """What is done to every px of the page, in this order; marks and dressing keep their colours."""

    brightness: _Times = 1.0
    """Each channel times this."""
    contrast: _Times = 1.0
    """How far each channel is from the middle, times this."""
    grey: bool = False
    """Red, green and blue become the luminance of all three (ITU-R BT.709)."""
    threshold: Annotated[int, Field(strict=True, ge=1, le=255)] | None = None
    """White where the luminance is at least this, black elsewhere."""
    invert: bool = False
    """White becomes black, each colour its opposite."""

    @property
    def is_plain(self) -> bool:
        """Whether it changes nothing."""
        return self == Tone()
