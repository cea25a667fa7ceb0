"""Where a point or a rectangle of a page lies now, by the blocks that it lies on or around."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Generic, TypeVar

from tallpage.core.following._lines import Match
from tallpage.core.following._outline import Outline
from tallpage.core.geometry import Box
from tallpage.core.paths import Extent, Point

_NEAR_PX = 80
"""A block so near is what a mark points at, rather than something large that holds both."""
_SAME_PX = 1.0
_SLACK_PX = 2
_IS_THE_BLOCK = 0.6
"""Share of their common area from which on a rectangle and a block are about the same thing."""
_LIES_WITHIN = 0.6
"""Share of a leaf's area that must lie in a rectangle that is around it."""
_KEPT_TOGETHER = 0.8
"""Share of the leaves in a rectangle that must be in it afterwards."""


Place = TypeVar("Place")


@dataclass(frozen=True, slots=True)
class Placed(Generic[Place]):
    """Where a point or a rectangle lies now."""

    place: Place
    resized: bool
    """Whether the block by which it was found, or the rectangle itself, has another size."""
    sure: bool


@dataclass(frozen=True, slots=True)
class Places:
    """Two outlines of a page, and which block of the one is which of the other."""

    before: Outline
    now: Outline
    matches: dict[int, Match]

    @property
    def _are_unknown(self) -> bool:
        """Whether one of the pages has no blocks: a picture, or a capture whose map is damaged."""
        return not (self.before.blocks and self.now.blocks)

    def point(self, point: Point) -> Placed[Point] | None:
        """Where a point lies now; None where the block that it points at is gone, or there is none."""
        if self._are_unknown:
            return Placed(point, resized=False, sure=False)
        number = self._pointed_at(point)
        if number is None or (match := self.matches.get(number)) is None:
            return None
        old, new = self.before.blocks[number].box, self.now.blocks[match.now].box
        x = _kept(point[0], (old.x_px, old.right_px), (new.x_px, new.right_px))
        y = _kept(point[1], (old.y_px, old.bottom_px), (new.y_px, new.bottom_px))
        return Placed((x, y), resized=not _same_size(old, new), sure=match.sure)

    def box(self, box: Extent) -> Placed[Extent] | None:
        """Where a rectangle lies now: as the block that it frames, as the blocks within it, or as its middle
        on the block that it is a part of."""
        if self._are_unknown:
            return Placed(box, resized=False, sure=False)
        return self._as_block(box) or self._around_blocks(box) or self._on_block(box)

    def rows(self, box: Extent) -> Placed[Extent] | None:
        """Where rows of a frame lie now: by the leaves within them, else by those above and below."""
        if self._are_unknown:
            return Placed(box, resized=False, sure=False)
        return self._around_blocks(box) or self._between_blocks(box)

    def _as_block(self, box: Extent) -> Placed[Extent] | None:
        likely = [(_in_common(box, block.box), -number) for number, block in enumerate(self.before.blocks)]
        share, negative = max(likely, default=(0.0, 0))
        match = self.matches.get(-negative)
        if share < _IS_THE_BLOCK or match is None:
            return None
        old, new = self.before.blocks[-negative].box, self.now.blocks[match.now].box
        return Placed(_around(box, old, new), not _same_size(old, new), match.sure)

    def _around_blocks(self, box: Extent) -> Placed[Extent] | None:
        within = [
            number
            for number in self.before.leaves
            if _share_within(self.before.blocks[number].box, box) >= _LIES_WITHIN
        ]
        known = [number for number in within if number in self.matches]
        if not known:
            return None
        old = {number: self.before.blocks[number].box for number in known}
        new = {number: self.now.blocks[self.matches[number].now].box for number in known}
        extremes = (
            min(known, key=lambda at: old[at].x_px),
            min(known, key=lambda at: old[at].y_px),
            max(known, key=lambda at: old[at].right_px),
            max(known, key=lambda at: old[at].bottom_px),
        )
        left, top, right, bottom = extremes
        extent = Extent(
            new[left].x_px + box.left_px - old[left].x_px,
            new[top].y_px + box.top_px - old[top].y_px,
            new[right].right_px + box.right_px - old[right].right_px,
            new[bottom].bottom_px + box.bottom_px - old[bottom].bottom_px,
        )
        if extent.right_px <= extent.left_px or extent.bottom_px <= extent.top_px:
            return None
        still = sum(_share_within(new[number], extent) >= _LIES_WITHIN for number in known)
        together = still >= _KEPT_TOGETHER * len(within)
        sure = together and all(self.matches[number].sure for number in extremes)
        return Placed(extent, _other_size(box, extent), sure)

    def _between_blocks(self, box: Extent) -> Placed[Extent] | None:
        boxes = {number: self.before.blocks[number].box for number in self.before.leaves}
        over = [at for at, row in boxes.items() if row.right_px > box.left_px and row.x_px < box.right_px]
        above = max(
            (at for at in over if boxes[at].bottom_px <= box.top_px + _SLACK_PX),
            key=lambda at: boxes[at].bottom_px,
            default=None,
        )
        below = min(
            (at for at in over if boxes[at].y_px >= box.bottom_px - _SLACK_PX),
            key=lambda at: boxes[at].y_px,
            default=None,
        )
        if above not in self.matches or below not in self.matches or above is None or below is None:
            return None
        upper, lower = self.matches[above], self.matches[below]
        top_px = self.now.blocks[upper.now].box.bottom_px + box.top_px - boxes[above].bottom_px
        bottom_px = self.now.blocks[lower.now].box.y_px + box.bottom_px - boxes[below].y_px
        if bottom_px <= top_px:
            return None
        extent = Extent(box.left_px, top_px, box.right_px, bottom_px)
        return Placed(extent, _other_size(box, extent), upper.sure and lower.sure)

    def _on_block(self, box: Extent) -> Placed[Extent] | None:
        number = self._pointed_at(box.middle)
        placed = self.point(box.middle)
        if placed is None or number is None:
            return None
        # A part of a text that was reworded, or broken into other lines, may be anywhere in it now.
        reworded = self.before.keys[number] != self.now.keys[self.matches[number].now]
        across, down = placed.place[0] - box.middle[0], placed.place[1] - box.middle[1]
        extent = Extent(box.left_px + across, box.top_px + down, box.right_px + across, box.bottom_px + down)
        return Placed(extent, placed.resized, placed.sure and not reworded and not placed.resized)

    def _pointed_at(self, point: Point) -> int | None:
        """The leaf below a point or near it, else the smallest block around it."""
        leaves = [(_distance(self.before.blocks[number].box, point), number) for number in self.before.leaves]
        nearest = min(leaves, default=(float("inf"), 0))
        if nearest[0] <= _NEAR_PX:
            # Of several that lie below it, the smallest: a picture under its caption.
            tied = [number for distance, number in leaves if distance == nearest[0]]
            return min(tied, key=lambda at: self.before.blocks[at].box.size.pixels)
        around = [
            number for number, block in enumerate(self.before.blocks) if _distance(block.box, point) == 0
        ]
        return min(around, key=lambda at: self.before.blocks[at].box.size.pixels, default=None)


def _kept(place: float, old: tuple[int, int], new: tuple[int, int]) -> float:
    """A place at the same distance from the nearer of two edges."""
    near_start = place - old[0] <= old[1] - place
    kept = new[0] + place - old[0] if near_start else new[1] + place - old[1]
    inside = old[0] <= place <= old[1]
    return min(max(kept, new[0]), new[1]) if inside else kept


def _around(box: Extent, old: Box, new: Box) -> Extent:
    """A rectangle whose edges keep their distances from those of a block."""
    return Extent(
        new.x_px + box.left_px - old.x_px,
        new.y_px + box.top_px - old.y_px,
        new.right_px + box.right_px - old.right_px,
        new.bottom_px + box.bottom_px - old.bottom_px,
    )


def _same_size(old: Box, new: Box) -> bool:
    across, down = abs(old.width_px - new.width_px), abs(old.height_px - new.height_px)
    return across <= _SAME_PX and down <= _SAME_PX


def _other_size(old: Extent, new: Extent) -> bool:
    across = (new.right_px - new.left_px) - (old.right_px - old.left_px)
    down = (new.bottom_px - new.top_px) - (old.bottom_px - old.top_px)
    return abs(across) > _SAME_PX or abs(down) > _SAME_PX


def _overlap(box: Extent, block: Box) -> float:
    across = min(box.right_px, block.right_px) - max(box.left_px, block.x_px)
    down = min(box.bottom_px, block.bottom_px) - max(box.top_px, block.y_px)
    return max(across, 0.0) * max(down, 0.0)


def _share_within(block: Box, box: Extent) -> float:
    return _overlap(box, block) / block.size.pixels


def _in_common(box: Extent, block: Box) -> float:
    """Area in common as a share of the area of both together."""
    both = _overlap(box, block)
    area = (box.right_px - box.left_px) * (box.bottom_px - box.top_px)
    return both / (area + block.size.pixels - both)


def _distance(box: Box, point: Point) -> float:
    across = max(box.x_px - point[0], point[0] - box.right_px, 0.0)
    down = max(box.y_px - point[1], point[1] - box.bottom_px, 0.0)
    return float((across**2 + down**2) ** 0.5)
