"""A page map as a tree, with what can be said of each block without its place."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Self

from tallpage.core.geometry import Box
from tallpage.core.page_map import Block

_SLACK_PX = 2
"""By so much a block may stand out of the one that holds it: borders and rounded edges."""

Key = tuple[str, int | None, str, str]
"""Role, level, words and link: two blocks with the same key say the same."""
Line = tuple[int, ...]
"""Leaves beside each other, such as the cells of a table's row, by number."""


@dataclass(frozen=True, slots=True)
class Outline:
    """The blocks of a page, by number, and which of them holds which."""

    blocks: Sequence[Block]
    keys: tuple[Key, ...]
    holder: tuple[int | None, ...]
    leaves: tuple[int, ...]
    """Those that hold no other, in the order of the page's text."""
    lines: tuple[Line, ...]
    """All leaves, in the same order."""

    @classmethod
    def of(cls, blocks: Sequence[Block]) -> Self:
        """The outline of blocks that stand from outer to inner, as a page map gives them."""
        holder: list[int | None] = []
        around: list[int] = []
        for number, block in enumerate(blocks):
            while around and not _holds(blocks[around[-1]].box, block.box):
                around.pop()
            holder.append(around[-1] if around else None)
            around.append(number)
        holding = set(holder)
        leaves = tuple(number for number in range(len(blocks)) if number not in holding)
        lines: list[list[int]] = []
        for leaf in leaves:
            last = lines[-1][-1] if lines else None
            beside = last is not None and _stands_beside(blocks[last].box, blocks[leaf].box)
            if beside and last is not None and holder[last] == holder[leaf]:
                lines[-1].append(leaf)
            else:
                lines.append([leaf])
        return cls(
            blocks=blocks,
            keys=tuple(key_of(block) for block in blocks),
            holder=tuple(holder),
            leaves=leaves,
            lines=tuple(tuple(line) for line in lines),
        )

    def holders_of(self, number: int) -> list[int]:
        """What holds a block, the innermost first."""
        found = []
        at = self.holder[number]
        while at is not None:
            found.append(at)
            at = self.holder[at]
        return found

    def leaves_within(self) -> dict[int, list[int]]:
        """The leaves in each block that holds any, from outer to inner."""
        within: dict[int, list[int]] = {}
        for leaf in self.leaves:
            for holder in self.holders_of(leaf):
                within.setdefault(holder, []).append(leaf)
        return dict(sorted(within.items()))


def key_of(block: Block) -> Key:
    """What a block says. White space and capitals are left out of account."""
    said = block.text or block.alt
    return block.role, block.level, " ".join(said.casefold().split()), block.link


def _holds(outer: Box, inner: Box) -> bool:
    return (
        inner.x_px >= outer.x_px - _SLACK_PX
        and inner.y_px >= outer.y_px - _SLACK_PX
        and inner.right_px <= outer.right_px + _SLACK_PX
        and inner.bottom_px <= outer.bottom_px + _SLACK_PX
    )


def _stands_beside(first: Box, second: Box) -> bool:
    """Whether the second follows to the right of the first, at about the same height."""
    shared_px = min(first.bottom_px, second.bottom_px) - max(first.y_px, second.y_px)
    lower_px = min(first.height_px, second.height_px)
    return second.x_px >= first.right_px - _SLACK_PX and shared_px * 2 > lower_px
