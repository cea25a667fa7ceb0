"""The page map of what was taken, out of what the page said of its blocks."""

from __future__ import annotations

import math
from typing import Any

from tallpage.core.geometry import Box
from tallpage.core.page_map import Block, PageMap
from tallpage.core.page_words import PageWords, Word

MOST_BLOCKS = 6_000
MOST_CHARS = 4_000
MOST_WORDS = 100_000


def seen_on_the_way(found: list[dict[str, Any]], clip_px: Box, shift_px: int) -> list[dict[str, Any]]:
    """The blocks that lie in a tile of a page that is scrolled while it is taken, at their places in the
    picture."""
    return [
        {**row, "y_px": row["y_px"] + shift_px}
        for row in found
        if clip_px.y_px <= row["y_px"] < clip_px.bottom_px
    ]


def page_map(found: list[dict[str, Any]], *, area_px: Box, scale: int) -> PageMap:
    """The map of what was taken: ``found`` in CSS px of the page, clipped to ``area_px``, scaled."""
    blocks = []
    for row in found:
        sides = (row["x_px"], row["y_px"], row["width_px"], row["height_px"])
        box = _in_picture(*sides, area_px=area_px, scale=scale)
        if box is None:
            continue
        kept = {name: row[name] for name in ("role", "level", "text", "link", "alt")}
        blocks.append(Block(**kept, box=box))
    return PageMap(blocks=tuple(blocks))


def page_words(found: list[list[Any]], *, area_px: Box, scale: int) -> PageWords:
    """The words of what was taken: ``found`` as the page script ``boxes`` gives them, clipped and scaled."""
    runs = []
    for run in found:
        words = []
        for text, joined, *numbers in run:
            sides = zip(*[iter(numbers)] * 4, strict=True)
            boxes = [_in_picture(*row, area_px=area_px, scale=scale) for row in sides]
            there = tuple(box for box in boxes if box is not None)
            if there:
                words.append(Word(text=text, boxes=there, joined=bool(joined)))
        if words:
            runs.append(tuple(words))
    return PageWords(runs=tuple(runs))


def words_moved(found: list[list[Any]], *, right_px: int, down_px: int) -> list[list[Any]]:
    """Runs of words further right and further down than they were met."""
    return [
        [
            [
                text,
                joined,
                *(
                    number + (right_px if at % 4 == 0 else down_px if at % 4 == 1 else 0)
                    for at, number in enumerate(numbers)
                ),
            ]
            for text, joined, *numbers in run
        ]
        for run in found
    ]


def _in_picture(
    x_px: float, y_px: float, width_px: float, height_px: float, *, area_px: Box, scale: int
) -> Box | None:
    """A box of the page, in CSS px, as whole px of the picture; None beside it."""
    left, top = max(math.floor(x_px), area_px.x_px), max(math.floor(y_px), area_px.y_px)
    right = min(math.ceil(x_px + width_px), area_px.right_px)
    bottom = min(math.ceil(y_px + height_px), area_px.bottom_px)
    if right <= left or bottom <= top:
        return None
    return Box(
        x_px=(left - area_px.x_px) * scale,
        y_px=(top - area_px.y_px) * scale,
        width_px=(right - left) * scale,
        height_px=(bottom - top) * scale,
    )
