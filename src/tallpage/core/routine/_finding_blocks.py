"""Finding the block that a rule means."""

from __future__ import annotations

from collections.abc import Sequence

from tallpage.core.geometry import Box
from tallpage.core.page_map import Block
from tallpage.core.routine._rules import BlockRule
from tallpage.core.routine._selectors import matching


def fitting_blocks(rule: BlockRule, blocks: Sequence[Block], within: Box | None = None) -> list[Block]:
    """All blocks that a rule fits, from the top of the page down, whatever its number.

    ``within`` leaves out those that lie beside it. Where a rule gives words alone, the innermost blocks
    count: the section and the page around a sentence hold it too.
    """
    found = [
        block
        for block in _candidates(rule, blocks)
        if within is None or block.box.overlap(within) is not None
    ]
    if rule.selector is not None:
        fits = matching(rule.selector, (block.path for block in found))
        found = [block for block in found if block.path in fits]
    elif rule.role is None:
        found = _innermost(found)
    return sorted(found, key=lambda block: (block.box.y_px, block.box.x_px))


def find_block(rule: BlockRule, blocks: Sequence[Block], within: Box | None = None) -> Block | None:
    """The block that a rule means; None where there is none."""
    found = fitting_blocks(rule, blocks, within)
    at = rule.number - 1 if rule.number > 0 else rule.number
    return found[at] if -len(found) <= at < len(found) else None


def _candidates(rule: BlockRule, blocks: Sequence[Block]) -> list[Block]:
    span = _rows_below(rule.below, blocks) if rule.below is not None else None
    if rule.below is not None and span is None:
        return []
    said = _plain(rule.says) if rule.says is not None else ""
    return [
        block
        for block in blocks
        if (rule.role is None or block.role == rule.role)
        and said in _plain(f"{block.text} {block.alt}")
        and (span is None or span[0] <= block.box.y_px < span[1])
    ]


def _rows_below(words: str, blocks: Sequence[Block]) -> tuple[int, float] | None:
    """The rows from below a heading to the next of its level; None where there is no such heading."""
    said = _plain(words)
    headings = sorted(
        (block for block in blocks if block.role == "heading"), key=lambda block: block.box.y_px
    )
    above = next((block for block in headings if said in _plain(block.text)), None)
    if above is None:
        return None
    level = above.level or 1
    ends = [
        block.box.y_px
        for block in headings
        if block.box.y_px >= above.box.bottom_px and (block.level or 1) <= level
    ]
    return above.box.bottom_px, min(ends, default=float("inf"))


def _innermost(blocks: Sequence[Block]) -> list[Block]:
    """Blocks that hold none of the others. Of two that lie in the same place, the first stays."""
    return [
        block
        for at, block in enumerate(blocks)
        if not any(
            _holds(block.box, other.box) and (block.box != other.box or place < at)
            for place, other in enumerate(blocks)
            if place != at
        )
    ]


def _holds(outer: Box, inner: Box) -> bool:
    return outer.overlap(inner) == inner


def _plain(text: str) -> str:
    return " ".join(text.casefold().split())
