"""How coarse squares and blur have to be, so that what lies beneath cannot be read."""

from __future__ import annotations

import math

from tallpage.core.cut.models import HiddenArea
from tallpage.core.geometry import Box
from tallpage.core.render._source import Source

_TIMES_LETTERS = 1.5
"""Squares are larger than a line of text is high: each holds several letters, none of them whole."""
_LEAST_PX, _GREATEST_PX = 16, 400
_GREATEST_GUESS_PX = 64
"""Of an area whose letters are not known: large areas of pictures rarely hold letters as high as they are."""
_MAY_HOLD_LETTERS = ("image", "figure", "frame")
"""Roles of blocks whose letters are not among the words of the page."""


def strength_px(area: HiddenArea, source: Source) -> int:
    """Size of the squares, or twice the blur's standard deviation: as the area says, or as it asks for."""
    return asked_strength_px(area.box, source) if area.strength_px is None else area.strength_px


def asked_strength_px(box: Box, source: Source) -> int:
    """What the letters in a box ask for; a smaller strength can be guessed.

    Letters are as high as the boxes of their words. Where none are known, they may be as high as the box.
    """
    heights_px = _letters_px(box, source)
    asked_px = math.ceil(_TIMES_LETTERS * max(heights_px)) if heights_px else 0
    if not heights_px or _holds_pictures(box, source):
        asked_px = max(asked_px, min(box.width_px, box.height_px, _GREATEST_GUESS_PX))
    return min(max(_LEAST_PX, asked_px), _GREATEST_PX)


def _letters_px(box: Box, source: Source) -> list[int]:
    words = source.words()
    if words is None:
        return []
    return [line.height_px for run in words.runs for word in run for line in word.boxes if line.overlap(box)]


def _holds_pictures(box: Box, source: Source) -> bool:
    return any(block.role in _MAY_HOLD_LETTERS and block.box.overlap(box) for block in source.blocks())
