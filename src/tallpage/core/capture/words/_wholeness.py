"""Whether the words of a page are in its picture: the last line of defence. Pure.

A page can hide its length in more ways than anybody can foresee. What it cannot hide is that it has
laid out words: those that have a place, and are not where the picture shows them, are counted.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray

from tallpage.core.geometry import Box
from tallpage.core.picture import INK_CELL_PX

Why = Literal["panel", "frame", "locked", "layer", "see_through", "outside", "beside", "blank", "scripts"]
"""What keeps words from the picture: a panel or a frame that scrolls by itself, a box that cuts them
off, a layer that was left out, being see-through, the picture's edges, a part that is scrolled
sideways, nothing being drawn there, or scripts that failed before there was anything."""

_LEAST_SHARE = 0.04
_LEAST_WORDS = 25
"""Fewer words, or a smaller share of them, do not make a page not whole."""
_FIRST_CHARS = 80
_MOST_ROWS = 6


@dataclass(frozen=True, slots=True, kw_only=True)
class Lacking:
    """Words that are on the page and not in its picture, for one reason."""

    why: Why
    words: int
    first: str
    """The first of them."""
    target: str = ""
    """CSS selector of what keeps them, or address of the frame that does."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Passage:
    """Words that should be in the picture, with their place in CSS px from the page's top left corner."""

    x_px: int
    y_px: int
    width_px: int
    height_px: int
    words: int
    number: int
    """Which of all the passages that the page told of."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Wholeness:
    """How many words a page has laid out, and which of them its picture lacks."""

    words: int
    """All that have a place, in the picture or not."""
    lacking: tuple[Lacking, ...] = ()
    """The most words first."""

    @property
    def is_whole(self) -> bool:
        """Whether the picture holds the page, but for a small share."""
        missing = sum(row.words for row in self.lacking)
        if any(row.why == "scripts" for row in self.lacking):
            return False
        return missing < _LEAST_WORDS or missing < _LEAST_SHARE * self.words

    def as_sentence(self) -> str:
        """What is missing, for a person; empty when nothing is."""
        if self.is_whole:
            return ""
        row = self.lacking[0]
        if row.why == "scripts":
            return f"Not whole: the page is blank, because its scripts failed ({row.first})."
        missing = sum(row.words for row in self.lacking)
        share = f"{missing:,} of {self.words:,} words are not in the picture"
        return f"Not whole: {share}. {_SAID[row.why]}: “{row.first}”."


_SAID: dict[Why, str] = {
    "panel": "A panel scrolls by itself",
    "frame": "A frame scrolls by itself",
    "locked": "A box cuts them off",
    "layer": "A layer was left out",
    "see_through": "They are laid out but not visible",
    "outside": "They lie below the picture",
    "beside": "A part of the page is scrolled sideways",
    "blank": "Nothing was drawn where they belong",
}


def wholeness(
    found: Iterable[tuple[str, dict[str, Any]]], blank: Lacking | None, script_errors: list[str]
) -> Wholeness:
    """The verdict on what the page script ``words`` found in each frame.

    ``blank``: the words whose place in the picture shows nothing.
    """
    rows: list[Lacking] = []
    words = pictures = 0
    for address, value in found:
        words += value["words"]
        pictures += value["pictures"]
        for row in value["lacking"]:
            lacking = Lacking(**row)
            if lacking.why == "layer" and lacking.words < _LEAST_WORDS:
                continue  # a button, a notice: told by name, as what was left out
            rows.append(replace(lacking, target=address) if address and lacking.why == "frame" else lacking)
    if blank is not None:
        rows.append(blank)
    # A layer that was left out is no part of what the page script counts.
    words += sum(row.words for row in rows if row.why == "layer")
    if words == 0 and pictures == 0 and script_errors:
        rows.append(Lacking(why="scripts", words=0, first=script_errors[0][:_FIRST_CHARS]))
    rows.sort(key=lambda row: -row.words)
    return Wholeness(words=words, lacking=tuple(rows[:_MOST_ROWS]))


@dataclass(frozen=True, slots=True, kw_only=True)
class Ink:
    """Where a piece of a picture shows anything."""

    piece_px: Box
    """Where on the page the piece lies, in CSS px."""
    scale: int
    cells: NDArray[np.bool_]
    """Rows × columns of cells of :data:`INK_CELL_PX` device px a side."""

    def is_blank_at(self, passage: Passage) -> bool:
        """Whether the place of a passage shows nothing; a passage without a cell of its own does not."""

        def cells_from(px: int) -> int:
            return max(0, -(-px * self.scale // INK_CELL_PX))

        def cells_to(px: int) -> int:
            return max(0, px * self.scale // INK_CELL_PX)

        left_px, top_px = passage.x_px - self.piece_px.x_px, passage.y_px - self.piece_px.y_px
        rows = slice(cells_from(top_px), cells_to(top_px + passage.height_px))
        columns = slice(cells_from(left_px), cells_to(left_px + passage.width_px))
        within = self.cells[rows, columns]
        return within.size > 0 and not bool(within.any())


def undrawn(passages: Iterable[Passage], ink: Iterable[Ink]) -> list[Passage]:
    """The passages in whose place a picture shows nothing; each is looked for on the piece it ends on."""
    rows = sorted(passages, key=lambda passage: passage.y_px + passage.height_px)
    blank: list[Passage] = []
    for piece in ink:
        top_px, bottom_px = piece.piece_px.y_px, piece.piece_px.bottom_px
        ends = [passage for passage in rows if top_px < passage.y_px + passage.height_px <= bottom_px]
        blank += [passage for passage in ends if piece.is_blank_at(passage)]
    return blank


def passages(found: Iterable[tuple[str, dict[str, Any]]]) -> list[Passage]:
    """The passages of the page itself that its picture should show."""
    return [
        Passage(x_px=x_px, y_px=y_px, width_px=width_px, height_px=height_px, words=words, number=number)
        for address, value in found
        if not address
        for number, (x_px, y_px, width_px, height_px, words) in enumerate(value["shown"])
    ]
