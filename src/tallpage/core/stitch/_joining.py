"""From views to one tall picture: where each lies, what of it is shown, what is missing. Pure."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from tallpage.core.geometry import Box
from tallpage.core.stitch._cells import Grey
from tallpage.core.stitch._floating import find_floating, moves_with_page, standing_sides
from tallpage.core.stitch._placing import contradictions, find_gaps, place_views
from tallpage.core.stitch._restless import find_restless
from tallpage.core.stitch._seams import find_stretches
from tallpage.core.stitch._still import Still, counted_px, find_bars, find_still
from tallpage.core.stitch._views import View
from tallpage.core.stitch.models import Bars, Gap, Join


def find_join(greys: Sequence[Grey], *, in_order: bool) -> Join:
    """How views of one tall thing are joined.

    Only what is beyond doubt is joined. Whatever shares too little, or shares what stands there more than
    once, is a gap: a picture that looks right and is not would be worse.

    Args:
        greys: luminance of each view, shape (height, width), all of one width.
        in_order: whether each was taken after the one before it, as while scrolling; else any may lie
            anywhere.

    Raises:
        ValueError: there is no view, or they are not of one width.
    """
    if not greys or len({grey.shape[1] for grey in greys}) > 1:
        raise ValueError("Views of one width are joined, and at least one.")
    still = find_still(greys) if len({grey.shape for grey in greys}) == 1 and len(greys) > 1 else None
    bars = find_bars(still) if still is not None else Bars()
    views = [View(grey, counted_px(still, bars, (grey.shape[0], grey.shape[1]))) for grey in greys]
    layout, doubts = place_views(views, in_order=in_order)
    gaps = find_gaps(layout, doubts, in_order=in_order)
    restless: tuple[Box, ...] = ()
    if gaps and still is not None:
        restless = find_restless(views, in_order=in_order)
        if restless:
            views = [view.without(restless) for view in views]
            layout, doubts = place_views(views, in_order=in_order)
            gaps = find_gaps(layout, doubts, in_order=in_order)
    if not gaps:
        excluded = (pair for pair, doubt in doubts.items() if doubt == "contradicts")
        found = (*excluded, *contradictions(views, layout))
        gaps = [Gap(below=upper, above=lower, doubt="contradicts") for upper, lower in found]
    tops_px = layout.tops_px()
    order = tuple(view for run in layout.runs() for view in run)
    heights_px = tuple(int(grey.shape[0]) for grey in greys)
    join = Join(
        width_px=int(greys[0].shape[1]),
        height_px=max(top + height for top, height in zip(tops_px, heights_px, strict=True)),
        order=order,
        tops_px=tops_px,
        gaps=tuple(gaps),
        stretches=(),
        bars=bars,
        floating=(),
        heights_px=heights_px,
    )
    return join if gaps else _shown(join, greys, still, restless)


def _shown(join: Join, greys: Sequence[Grey], still: Still | None, restless: tuple[Box, ...]) -> Join:
    stretches = find_stretches(greys, join.order, join.tops_px, join.bars)
    if still is None:
        return replace(join, stretches=stretches)
    moving = moves_with_page(greys, join.order, join.tops_px, still)
    bars = standing_sides(join.bars, still, moving)
    floating = (*find_floating(still, moving, bars), *restless)
    return replace(join, stretches=stretches, bars=bars, floating=floating)
