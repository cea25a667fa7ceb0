"""The tone of the page, brought to a file's pixels."""

from __future__ import annotations

from dataclasses import dataclass

from tallpage.core.geometry import Box
from tallpage.core.picture import Raster, brightened, greyed, inverted, put_in, thresholded
from tallpage.core.tone import Tone


@dataclass(frozen=True, slots=True)
class ToneStage:
    """A file -> the file with its tone; nothing moves.

    It comes after the size is known, so that black and white are the only two colours of a file that is
    to have no others.
    """

    tone: Tone
    picture: Box
    """What of the file shows the page; what is around it keeps its colour."""

    def draw(self, raster: Raster) -> Raster:
        """With the tone."""
        if self.picture == Box.whole(raster.size):
            return toned(raster, self.tone)
        return put_in(raster, toned(raster.cropped(self.picture), self.tone), self.picture)


def toned(raster: Raster, tone: Tone) -> Raster:
    """A raster in a tone."""
    if tone.brightness != 1 or tone.contrast != 1:
        raster = brightened(raster, brightness=tone.brightness, contrast=tone.contrast)
    if tone.threshold is not None:
        raster = thresholded(raster, tone.threshold)
    elif tone.grey:
        raster = greyed(raster)
    return inverted(raster) if tone.invert else raster
