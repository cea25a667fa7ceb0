"""What comes before the frame of a cut: the page turned, without what is hidden, cleared, or outside."""

from __future__ import annotations

from typing import TYPE_CHECKING

from tallpage.core.cut import Cut
from tallpage.core.geometry import Box
from tallpage.core.render._source import Source

if TYPE_CHECKING:
    from tallpage.core.turning import Orientation

# Each of them is loaded where a cut asks for it.


def prepared(source: Source, cut: Cut) -> Source:
    """A source as a cut turns, hides, clears and outlines it; all places of the cut count on this one."""
    source = turned(source, cut.orientation)
    if cut.hidden:
        from tallpage.core.render.page._hiding import HidingSource

        source = HidingSource(source, cut.hidden)
    if cut.cleared is not None and cut.cleared.colours:
        from tallpage.core.render.page._clearing import ClearedSource

        source = ClearedSource(source, cut.cleared)
    if cut.outline is not None:
        from tallpage.core.render.page._outlining import OutlinedSource

        source = OutlinedSource(source, cut.outline)
    return source


def turned(source: Source, orientation: Orientation | None) -> Source:
    """A source in an orientation; itself where there is none."""
    if orientation is None or orientation.is_upright:
        return source
    from tallpage.core.render.page._turning import TurnedSource

    return TurnedSource(source, orientation)


def straightened(source: Source, orientation: Orientation) -> Orientation:
    """An orientation with the angle by which lines of text and tables become level.

    Corners that the angle leaves empty have the colour of the page's edge.
    """
    from tallpage.core.turning import edge_colour, find_angle

    upright = turned(source, orientation.model_copy(update={"angle_deg": 0.0}))
    raster = upright.region(Box.whole(upright.size)).held()
    colour = "#{:02x}{:02x}{:02x}".format(*edge_colour(raster))
    return orientation.model_copy(update={"angle_deg": find_angle(raster), "colour": colour})
