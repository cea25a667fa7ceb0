"""What comes before the frame of a cut: the page turned, without what is hidden, with colours cleared."""

from __future__ import annotations

from tallpage.core.cut import Cut
from tallpage.core.render._source import Source

# Each of them is loaded where a cut asks for it.


def prepared(source: Source, cut: Cut) -> Source:
    """A source as a cut turns, hides and clears it; all places of the cut count on this one."""
    if cut.orientation is not None and not cut.orientation.is_upright:
        from tallpage.core.render._turning import TurnedSource

        source = TurnedSource(source, cut.orientation)
    if cut.hidden:
        from tallpage.core.render._hiding import HidingSource

        source = HidingSource(source, cut.hidden)
    if cut.cleared is not None and cut.cleared.colours:
        from tallpage.core.render._clearing import ClearedSource

        source = ClearedSource(source, cut.cleared)
    return source
