"""A source, a cut and a place's rules, brought to pixels leaf by leaf; and the way back to the page."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

from tallpage.core.cut import Cut
from tallpage.core.geometry import Box, Size
from tallpage.core.leaves import NUMBER_LINE_PX
from tallpage.core.picture import Access, Raster
from tallpage.core.render._leaves import Leaf, leaves_of
from tallpage.core.render._rules import RenderRules
from tallpage.core.render._source import Source
from tallpage.core.render._stages import FrameStage, GroundStage, NumberStage, SizeStage
from tallpage.core.sizing import SizePlan, plan_size


@dataclass(frozen=True, slots=True)
class Rendering:
    """What is drawn of a source. Nothing is, until it is asked for; then only what is pulled."""

    source: Source
    cut: Cut
    rules: RenderRules

    def leaves(self) -> list[Leaf]:
        """What each file shows. Where gaps have to be found, the page is read once.

        Raises:
            FitError: the frame cannot be divided as the rules ask.
        """
        return leaves_of(self.cut.frame, self.rules, rows=self._rows, blocks=self.source.blocks)

    def whole(self) -> Leaf:
        """All of the frame as one."""
        size = self.cut.frame.size
        return Leaf(width_px=size.width_px, top_px=0, height_px=size.height_px)

    def plan(self, leaf: Leaf) -> SizePlan:
        """How a leaf comes to its size."""
        return plan_size(leaf.size, self.rules.sizing)

    def size_of(self, leaf: Leaf) -> Size:
        """Width and height of a leaf's file."""
        canvas = self.plan(leaf).canvas
        return replace(
            canvas, height_px=canvas.height_px + (NUMBER_LINE_PX if self._is_numbered(leaf) else 0)
        )

    def draw(self, leaf: Leaf, *, access: Access = "sequential") -> Raster:
        """The pixels of a leaf's file.

        Raises:
            FitError: it would be higher than the place takes.
            FrameError: the cut does not lie on the source.
            PictureUnreadable: the source is damaged or has gone.
        """
        plan, rules = self.plan(leaf), self.rules
        rules.require_height(plan)
        shown = replace(plan.shown, y_px=leaf.top_px + plan.shown.y_px)
        raster = SizeStage(plan, rules.background).draw(self._framed(shown, access))
        if self._is_numbered(leaf):
            raster = NumberStage(leaf.number, leaf.count, rules.background).draw(raster)
        return GroundStage(rules.background).draw(raster) if rules.flattened else raster

    def on_page(self, leaf: Leaf, top_px: int, height_px: int) -> Iterator[tuple[Box, float]]:
        """The stretches of the page that rows of a leaf's file show, each with its share of them.

        Rows that show nothing of the page (room around, the number line) have none.
        """
        plan = self.plan(leaf)
        rows = Box(x_px=0, y_px=top_px, width_px=plan.canvas.width_px, height_px=height_px)
        for shown in SizeStage(plan, self.rules.background).back(rows):
            across = Box(
                x_px=0, y_px=leaf.top_px + shown.y_px, width_px=leaf.width_px, height_px=shown.height_px
            )
            for part in FrameStage(self.cut.frame).back(across):
                yield part, part.height_px / shown.height_px

    def _is_numbered(self, leaf: Leaf) -> bool:
        return self.rules.numbered and leaf.count > 1

    def _rows(self, top_px: int, height_px: int) -> Raster:
        """Rows of the frame at the page's own size."""
        width_px = self.cut.frame.size.width_px
        return self._framed(Box(x_px=0, y_px=top_px, width_px=width_px, height_px=height_px), "sequential")

    def _framed(self, box: Box, access: Access) -> Raster:
        stage = FrameStage(self.cut.frame)
        return stage.draw([self.source.region(part, access=access) for part in stage.back(box)])
