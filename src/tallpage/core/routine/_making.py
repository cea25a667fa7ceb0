"""The files that a routine makes of a page."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from tallpage.core.cut import Cut
from tallpage.core.fit import FORMATS, FitResult, fit_order
from tallpage.core.geometry import Size
from tallpage.core.render import Leaf, Rendering, Source
from tallpage.core.routine._orders import SlotOrder


@dataclass(frozen=True, slots=True, kw_only=True)
class MadeFile:
    """A file of a slot, or of one of its leaves; nothing was chosen where no file fits the limit."""

    slot: str
    leaf: Leaf
    size: Size
    result: FitResult

    @property
    def extension(self) -> str:
        """Of its name."""
        return FORMATS[self.result.chosen.choice.format].extension if self.result.chosen else ""

    @property
    def part(self) -> str:
        """Which of several it is, like ``2-of-5``; empty where it is the only one."""
        return f"{self.leaf.number}-of-{self.leaf.count}" if self.leaf.count > 1 else ""


def make_files(source: Source, cut: Cut, facts: Mapping[str, str], slot: SlotOrder) -> Iterator[MadeFile]:
    """The file of a slot, or one for each leaf that its rules ask for.

    Raises:
        FitError: the cut cannot be sized or divided as they ask.
        FrameError: nothing of it would be seen.
    """
    rendering = Rendering(source, cut.resolved(facts), slot.rules)
    rendering.require_seen()
    divisible = slot.rules.sizing.divisible
    for leaf in rendering.leaves():
        yield MadeFile(
            slot=slot.name,
            leaf=leaf,
            size=rendering.size_of(leaf),
            # Nobody is there to take advice.
            result=fit_order(rendering.draw(leaf), slot.order, advised=False, divisible=divisible),
        )
