"""The page map of what was taken, out of what the page said of its blocks."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import Any

from tallpage.core.geometry import Box
from tallpage.core.page_map import Block, PageMap
from tallpage.core.page_words import Link, PageWords, Word

MOST_BLOCKS = 6_000
MOST_CHARS = 4_000
MOST_WORDS = 100_000
MOST_LINKS = 6_000


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
        kept = {name: row[name] for name in ("role", "level", "text", "link", "alt", "path")}
        blocks.append(Block(**kept, box=box))
    return PageMap(blocks=tuple(blocks))


@dataclass
class FoundWords:
    """What the page script ``boxes`` found so far, in CSS px of the page."""

    runs: list[list[list[Any]]] = field(default_factory=list)
    links: list[list[Any]] = field(default_factory=list)
    language: str = ""

    def add(self, frames: Iterable[dict[str, Any]], *, right_px: int, down_px: int) -> None:
        """Add what the frames of a page said, further right and further down than it was met.

        The language is that of the first frame, which is the page's own.
        """
        for frame in frames:
            self.language = self.language or frame["language"]
            for run in frame["runs"]:
                self.runs.append([[*row[:2], *_moved(row[2:], right_px, down_px)] for row in run])
            self.links += [[row[0], *_moved(row[1:], right_px, down_px)] for row in frame["links"]]

    @property
    def count(self) -> int:
        """How many words there are."""
        return sum(map(len, self.runs))


def page_words(found: FoundWords, *, area_px: Box, scale: int) -> PageWords:
    """The words and links of what was taken, clipped to ``area_px`` and scaled."""

    def boxes_of(numbers: list[float]) -> tuple[Box, ...]:
        sides = zip(*[iter(numbers)] * 4, strict=True)
        boxes = [_in_picture(*row, area_px=area_px, scale=scale) for row in sides]
        return tuple(box for box in boxes if box is not None)

    runs = (
        tuple(
            Word(text=text, boxes=boxes, joined=bool(joined))
            for text, joined, *numbers in run
            if (boxes := boxes_of(numbers))
        )
        for run in found.runs
    )
    links = (Link(address, boxes) for address, *numbers in found.links if (boxes := boxes_of(numbers)))
    return PageWords(runs=tuple(run for run in runs if run), links=tuple(links), language=found.language)


def _moved(numbers: list[float], right_px: int, down_px: int) -> list[float]:
    return [number + (right_px, down_px, 0, 0)[at % 4] for at, number in enumerate(numbers)]


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
