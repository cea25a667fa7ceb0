"""Captures that continue one another: where each lies is known, and what they say is put together."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from tallpage.core.geometry import Box, Size
from tallpage.core.page_map import Block, PageMap
from tallpage.core.page_words import PageWords
from tallpage.core.stitch.models import Bars, Join, Stretch


def place_below(sizes: Sequence[Size], tops_px: Sequence[int]) -> Join | None:
    """Pictures of which is known where each begins; None when they leave rows out or are not of one width.

    Where two show the same rows, the upper one is shown.
    """
    order = sorted(range(len(sizes)), key=lambda view: tops_px[view])
    least_px = tops_px[order[0]]
    stretches: list[Stretch] = []
    reached_px = 0
    for view in order:
        top_px = tops_px[view] - least_px
        if top_px > reached_px or sizes[view].width_px != sizes[order[0]].width_px:
            return None
        if top_px + sizes[view].height_px <= reached_px:
            continue
        stretches.append(
            Stretch(
                view=view,
                view_top_px=top_px,
                top_px=reached_px,
                bottom_px=top_px + sizes[view].height_px,
                least_px=top_px,
                most_px=reached_px,
            )
        )
        reached_px = top_px + sizes[view].height_px
    return Join(
        width_px=sizes[order[0]].width_px,
        height_px=reached_px,
        order=tuple(order),
        tops_px=tuple(top - least_px for top in tops_px),
        gaps=(),
        stretches=tuple(stretches),
        bars=Bars(),
        floating=(),
        heights_px=tuple(size.height_px for size in sizes),
    )


def joined_map(join: Join, maps: Sequence[PageMap]) -> PageMap:
    """The blocks that a join shows, each where its first row is shown; what goes on below a seam once."""
    blocks: list[Block] = []
    for stretch in join.stretches:
        for block in maps[stretch.view].blocks:
            top_px = block.box.y_px + stretch.view_top_px
            if not stretch.top_px <= top_px < stretch.bottom_px:
                continue
            height_px = min(block.box.height_px, join.height_px - top_px)
            blocks.append(replace(block, box=replace(block.box, y_px=top_px, height_px=height_px)))
    return PageMap(blocks=tuple(blocks))


def joined_words(join: Join, words: Sequence[PageWords | None]) -> PageWords | None:
    """The words and links that a join shows; None when those of one picture are not known."""
    known = [row for row in words if row is not None]
    if len(known) < len(words):
        return None
    shown = [_shown(known[stretch.view], stretch) for stretch in join.stretches]
    return PageWords(
        runs=tuple(run for part in shown for run in part.runs),
        links=tuple(link for part in shown for link in part.links),
        language=next((row.language for row in known if row.language), ""),
    )


def _shown(words: PageWords, stretch: Stretch) -> PageWords:
    def boxes_of(boxes: tuple[Box, ...]) -> tuple[Box, ...]:
        moved = (replace(box, y_px=box.y_px + stretch.view_top_px) for box in boxes)
        return tuple(
            box for box in moved if stretch.top_px <= box.y_px + box.height_px // 2 < stretch.bottom_px
        )

    return words.changed(boxes_of)
