"""A source, a cut and a place's rules, brought to pixels leaf by leaf; and the way back to the page."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

from tallpage.core.cut import Cut
from tallpage.core.errors import FrameError
from tallpage.core.geometry import Box, Size, bands
from tallpage.core.leaves import NUMBER_LINE_PX
from tallpage.core.once import once
from tallpage.core.page_map import Block
from tallpage.core.page_words import PageWords
from tallpage.core.picture import Access, Raster
from tallpage.core.render._readable import readable_words
from tallpage.core.render._rules import LEAST_LETTERS_PX, RenderRules
from tallpage.core.render._source import Source
from tallpage.core.render._stages import FrameStage, GroundStage, NumberStage, SizeStage
from tallpage.core.render.frame._leaves import Leaf, leaves_of
from tallpage.core.render.page._prepared import prepared
from tallpage.core.sizing import SizePlan, plan_size

if TYPE_CHECKING:
    from tallpage.core.marks import DrawnMark
    from tallpage.core.render.frame._dressing import DressingStage

_LOOKED_AT_PX = 1_024

# What hides, marks and dresses is loaded where a cut asks for it: it takes as long to load as a small
# picture takes to be drawn.


@dataclass(frozen=True)
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
        return leaves_of(self.cut.frame, self._inner, rows=self._rows, blocks=self._blocks)

    def whole(self) -> Leaf:
        """All of the frame as one."""
        size = self.cut.frame.size
        return Leaf(width_px=size.width_px, top_px=0, height_px=size.height_px)

    def plan(self, leaf: Leaf) -> SizePlan:
        """How a leaf comes to its size, without what is put around it."""
        return plan_size(leaf.size, self._inner.sizing)

    def size_of(self, leaf: Leaf) -> Size:
        """Width and height of a leaf's file."""
        size = self._dressed(leaf, self.plan(leaf))
        return replace(size, height_px=size.height_px + (NUMBER_LINE_PX if self._is_numbered(leaf) else 0))

    def draw(self, leaf: Leaf, *, access: Access = "sequential") -> Raster:
        """The pixels of a leaf's file.

        Raises:
            FitError: it would be higher than the place takes.
            FrameError: the cut does not lie on the source.
            PictureUnreadable: the source is damaged or has gone.
        """
        plan, rules, cut = self.plan(leaf), self.rules, self.cut
        self._inner.require_height(plan)
        shown = replace(plan.shown, y_px=leaf.top_px + plan.shown.y_px)
        raster = SizeStage(plan, rules.background).draw(self._framed(shown, access))
        if cut.tone is not None and not cut.tone.is_plain:
            from tallpage.core.render.frame._toning import ToneStage

            raster = ToneStage(cut.tone, plan.picture).draw(raster)
        seams = self._seams(plan)
        if cut.marks or seams:
            from tallpage.core.render.frame._marking import MarkStage, marks_in_frame

            drawn = [*seams, *marks_in_frame(cut, least_letters_px=self._least_letters_px(plan))]
            stage = MarkStage.of(drawn, plan, top_px=leaf.top_px, pictures=cut.pictures)
            raster = stage.draw(raster)
        dressing = self._dressing_of(leaf, plan)
        # Dressing reads bands in an order of its own; a source may be pulled only once.
        raster = dressing.draw(raster.held()) if dressing else raster
        if self._is_numbered(leaf):
            raster = NumberStage(leaf.number, leaf.count, rules.background).draw(raster)
        return GroundStage(rules.background).draw(raster) if rules.flattened else raster

    def require_seen(self) -> None:
        """Refuse a cut of which nothing is seen. Where it clears colours or has an outline, it is drawn once.

        Raises:
            FrameError: nothing of it would be seen.
        """
        cut = self.cut
        clears = cut.cleared is not None and bool(cut.cleared.colours)
        if not clears and (cut.outline is None or cut.outline.outside is not None):
            return
        height_px = self.whole().height_px
        if any(self._rows(top_px, rows_px).shows for top_px, rows_px in bands(height_px, _LOOKED_AT_PX)):
            return
        if not clears:
            raise FrameError(
                "Nothing of the frame lies inside the outline.",
                hint="Move the frame over it, or draw the outline anew.",
                code="all_outside",
            )
        raise FrameError(
            "The cleared colours are everywhere: nothing would be left of the picture.",
            hint="Lower their tolerance, or clear only what is connected with a px.",
            code="all_cleared",
        )

    def captions(self) -> str:
        """The captions of number badges, a line each; nothing where there are none."""
        if not self.cut.marks:
            return ""
        from tallpage.core.marks import captions_of

        return captions_of(self.cut.marks)

    def smallest_letters_px(self) -> float | None:
        """Size of the smallest letters of marks, in px of the file; None where there are none."""
        if not self.cut.marks:
            return None
        from tallpage.core.render.frame._marking import smallest_letters_on

        on_page_px, plan = smallest_letters_on(self.cut), self.plan(self.whole())
        if on_page_px is None:
            return None
        in_file_px = on_page_px * plan.picture.width_px / plan.shown.width_px
        return max(in_file_px, LEAST_LETTERS_PX) if self.rules.legible_marks else in_file_px

    def missing_letters(self) -> tuple[str, ...]:
        """Letters of marks and caption that none of the fonts has: they are left out."""
        found: dict[str, None] = {}
        if self.cut.marks:
            from tallpage.core.render.frame._marking import marks_in_frame

            found |= dict.fromkeys(letter for drawn in marks_in_frame(self.cut) for letter in drawn.missing)
        whole = self.whole()
        dressing = self._dressing_of(whole, self.plan(whole))
        if dressing is not None and dressing.layout.caption is not None:
            found |= dict.fromkeys(dressing.layout.caption.missing)
        return tuple(found)

    def on_page(self, leaf: Leaf, top_px: int, height_px: int) -> Iterator[tuple[Box, float]]:
        """The stretches of the page that rows of a leaf's file show, each with its share of them.

        Rows that show nothing of the page (what is around it, the number line) have none.
        """
        plan = self.plan(leaf)
        width_px = self._dressed(leaf, plan).width_px
        rows = Box(x_px=0, y_px=top_px, width_px=width_px, height_px=height_px)
        dressing = self._dressing_of(leaf, plan)
        for inside in dressing.back(rows) if dressing else (rows,):
            for shown in SizeStage(plan, self.rules.background).back(inside):
                for part in self.cut.frame.parts(leaf.top_px + shown.y_px, shown.height_px):
                    yield part, part.height_px / shown.height_px

    def readable(self) -> PageWords:
        """The words and links of the page that the picture shows, at their places before the frame.

        There are none where they are not known, as in dropped pictures.
        """
        words = self._page.words()
        return readable_words(words, self.cut, self._page.size) if words else PageWords(runs=())

    def headings(self) -> list[Block]:
        """The headings of the page that have words, at their places before the frame."""
        return [block for block in self._page.blocks() if block.role == "heading" and block.text]

    def to_file(self, leaf: Leaf) -> Callable[[Box], Box | None]:
        """The way from a box of the page, as the cut has it, to where a leaf's file shows it.

        None where it does not: what is folded away, in another leaf, or beside the frame.
        """
        plan = self.plan(leaf)
        dressing = self._dressing_of(leaf, plan)
        frame, size = FrameStage(self.cut.frame), SizeStage(plan, self.rules.background)
        corner = dressing.layout.picture if dressing else Box.whole(plan.canvas)

        def there(box: Box) -> Box | None:
            in_frame = next(iter(frame.there(box)), None)
            shown = in_frame and in_frame.overlap(leaf.box)
            place = shown and next(iter(size.there(shown.seen_from(leaf.box))), None)
            return place and replace(place, x_px=place.x_px + corner.x_px, y_px=place.y_px + corner.y_px)

        return there

    def _seams(self, plan: SizePlan) -> list[DrawnMark]:
        if self.cut.seam is None:
            return []
        from tallpage.core.render.frame._seaming import seams_in_frame

        return seams_in_frame(self.cut, plan)

    def _least_letters_px(self, plan: SizePlan) -> float:
        """How large letters of marks are to be in the frame, so that they can be read in the file."""
        if not self.rules.legible_marks:
            return 0.0
        return LEAST_LETTERS_PX * plan.shown.width_px / plan.picture.width_px

    @property
    def _inner(self) -> RenderRules:
        """The rules for what the dressing goes around."""
        dressing = self.cut.dressing
        if dressing is None:
            return self.rules
        from tallpage.core.render.frame._dressed_rules import rules_inside

        return rules_inside(self.rules, dressing, self.cut.frame.size)

    def _dressing_of(self, leaf: Leaf, plan: SizePlan) -> DressingStage | None:
        dressing = self.cut.dressing
        if dressing is None:
            return None
        from tallpage.core.dressing import lay_out_dressing
        from tallpage.core.render.frame._dressing import DressingStage

        caption = dressing.caption
        captioned = caption is not None and (
            caption.leaves == "all"
            or (caption.leaves == "first" and leaf.number == 1)
            or (caption.leaves == "last" and leaf.number == leaf.count)
        )
        layout = lay_out_dressing(dressing, plan.canvas, captioned=captioned)
        return DressingStage(dressing, layout, self.cut.pictures)

    def _dressed(self, leaf: Leaf, plan: SizePlan) -> Size:
        """Size of a leaf's file, without the number line."""
        dressing = self._dressing_of(leaf, plan)
        return dressing.layout.file if dressing else plan.canvas

    def _blocks(self) -> tuple[Block, ...]:
        """What stands on the page, and the marks on it."""
        blocks = self._page.blocks()
        if not self.cut.marks:
            return blocks
        from tallpage.core.render.frame._marking import marks_as_blocks

        return (*blocks, *marks_as_blocks(self.cut, self._page.size))

    def _is_numbered(self, leaf: Leaf) -> bool:
        return self.rules.numbered and leaf.count > 1

    def _rows(self, top_px: int, height_px: int) -> Raster:
        """Rows of the frame at the page's own size."""
        width_px = self.cut.frame.size.width_px
        return self._framed(Box(x_px=0, y_px=top_px, width_px=width_px, height_px=height_px), "sequential")

    def _framed(self, box: Box, access: Access) -> Raster:
        stage = FrameStage(self.cut.frame)
        rows = stage.rows_back(box)
        return stage.draw([[self._page.region(part, access=access) for part in row] for row in rows])

    @once
    def _page(self) -> Source:
        """The page as the cut has it, before its frame."""
        return prepared(self.source, self.cut)
