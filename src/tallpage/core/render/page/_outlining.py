"""A page of which only what lies inside a free outline is kept."""

from __future__ import annotations

from dataclasses import dataclass

from tallpage.core.fields import rgb_of
from tallpage.core.geometry import Box, Size
from tallpage.core.marks import DrawnMark, Plane, Shape, svg_of
from tallpage.core.outlining import FreeOutline
from tallpage.core.page_map import Block
from tallpage.core.page_words import PageWords
from tallpage.core.picture import Access, Raster, draw_vectors, masked
from tallpage.core.render._source import Source


@dataclass(frozen=True, slots=True)
class OutlinedSource:
    """A source that shows through, or has one colour, outside an outline."""

    source: Source
    outline: FreeOutline

    @property
    def size(self) -> Size:
        """Width and height in page px."""
        return self.source.size

    def region(self, box: Box, *, access: Access = "sequential") -> Raster:
        """The pixels of a box; its edge is as smooth as that of a mark.

        Raises:
            FrameError: the box does not lie on the page.
        """
        shape = Shape(path=self.outline.path(), fill="#FFFFFF")
        svg = svg_of([DrawnMark(id="outline", parts=(shape,))], shown=box, plane=Plane(), pictures={})
        inside = masked(self.source.region(box, access=access), draw_vectors(svg))
        outside = self.outline.outside
        return inside if outside is None else inside.flattened(rgb_of(outside))

    def blocks(self) -> tuple[Block, ...]:
        """The source's blocks."""
        return self.source.blocks()

    def words(self) -> PageWords | None:
        """The source's words."""
        return self.source.words()
