"""A routine out of what was done: the steps of a cut, said so that they can be done on other pages."""

from __future__ import annotations

import base64
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import asdict
from itertools import groupby
from typing import Any

from pydantic import ValidationError

from tallpage.core.cut import Cut
from tallpage.core.geometry import Box, Size
from tallpage.core.marks import Mark, placed, points_of
from tallpage.core.page_map import Block
from tallpage.core.routine._file import routine_of
from tallpage.core.routine._finding_blocks import find_block
from tallpage.core.routine._rules import BlockRule
from tallpage.core.routine.models import MOST_SLOT_NAME_CHARS, Routine

_NEAR_PX = 24
"""How far the edges of a frame may be from those of a block that it was drawn around."""
_MOST_SHARE = 0.6
"""Share of the page above which a block is no place on it any more, but all of it."""
_MOST_SAID = 120
_Plain = dict[str, Any]


def routine_of_cut(
    cut: Cut,
    page: Size,
    blocks: Sequence[Block],
    *,
    name: str,
    take: _Plain | None = None,
    slots: Sequence[_Plain] = (),
    out: _Plain | None = None,
) -> Routine:
    """The routine that does to other pages what a cut does to its own.

    ``page`` is the page's size as the cut turns it, ``blocks`` what stands on it. A frame that was drawn
    around a block becomes a rule by that block; marks and hidden areas count from the block they are on.
    ``take``, ``slots`` and ``out`` are steps in plain types.

    Raises:
        RoutineError: what was done cannot stand in a routine.
    """
    places = _Places(page, blocks)
    steps = [
        *([{"kind": "take", **take}] if take else []),
        *_before_frame(cut, places),
        *_frame(cut, places),
        *_after_frame(cut, places),
        *({"kind": "slot", **slot} for slot in slots),
        *([{"kind": "out", **out}] if out else []),
    ]
    document: _Plain = {"version": 1, "name": name, "steps": steps}
    if styles := {mark.style for mark in cut.marks if mark.style in cut.styles}:
        document["styles"] = {style: cut.styles[style].model_dump(mode="json") for style in styles if style}
    if cut.pictures:
        document["pictures"] = {key: base64.b64encode(data).decode() for key, data in cut.pictures.items()}
    return routine_of(document)


class _Places:
    """The blocks of a page, and the rules by which they can be found again."""

    def __init__(self, page: Size, blocks: Sequence[Block]) -> None:
        self.page = page
        self.blocks = blocks

    def rule_of(self, block: Block) -> _Plain:
        """The rule for a block that says least of this one page."""
        return next(rule for rule in self._rules_for(block) if self._means(rule, block))

    def around(self, box: Box) -> Block | None:
        """The smallest block that holds a box, unless it is about all of the page."""
        most_px = _MOST_SHARE * self.page.pixels
        holding = [
            row for row in self.blocks if row.box.overlap(box) == box and row.box.size.pixels <= most_px
        ]
        return min(holding, key=lambda row: row.box.size.pixels, default=None)

    def like(self, box: Box) -> Block | None:
        """The block whose edges are nearest to those of a box, if they are near."""

        def apart(row: Block) -> int:
            return max(abs(there - here) for there, here in zip(_edges(row.box), _edges(box), strict=True))

        nearest = min(self.blocks, key=apart, default=None)
        return nearest if nearest is not None and apart(nearest) <= _NEAR_PX else None

    def _means(self, rule: _Plain, block: Block) -> bool:
        try:
            known = BlockRule.model_validate(rule)
        except ValidationError:
            return False  # a name of the page that no rule can give: too long, or cut in two
        return find_block(known, self.blocks) is block

    def _rules_for(self, block: Block) -> Iterator[_Plain]:
        role = {"role": block.role}
        yield role
        if block.role == "heading" and block.text:
            yield {**role, "says": block.text[:_MOST_SAID]}
        last = block.path.rpartition(" > ")[2]
        if "#" in last:
            yield {"selector": "#" + last.partition("#")[2].partition(".")[0]}
        if "." in last:
            yield {"selector": last}
        above = [
            row
            for row in self.blocks
            if row.role == "heading" and row.text and row.box.bottom_px <= block.box.y_px
        ]
        for heading in sorted(above, key=lambda row: -row.box.y_px)[:2]:
            yield {**role, "below": heading.text[:_MOST_SAID]}
        alike = sorted(
            (row for row in self.blocks if row.role == block.role),
            key=lambda row: (row.box.y_px, row.box.x_px),
        )
        at = next(at for at, row in enumerate(alike, start=1) if row is block)
        yield {**role, "number": at}


def _before_frame(cut: Cut, places: _Places) -> Iterator[_Plain]:
    if cut.orientation is not None and not cut.orientation.is_upright:
        yield {"kind": "turn", "orientation": cut.orientation.model_dump(mode="json")}
    for row in cut.sought:
        said = row.model_dump(mode="json")
        look: _Plain = {name: value for name, value in said.items() if name not in ("id", "kind")}
        yield {"kind": "hide_words", "sought": said["kind"], **look}
    sought = {row.id for row in cut.sought}
    for area in cut.hidden:
        if area.found_by in sought:
            continue
        block = places.around(area.box)
        inside = area.box.seen_from(block.box) if block else area.box
        said = {name: value for name, value in area.model_dump(mode="json").items() if name != "found_by"}
        yield {"kind": "hide_areas", "areas": [{**said, **asdict(inside)}], **_at(block, places)}
    if cut.cleared is not None:
        yield {"kind": "clear", "cleared": cut.cleared.model_dump(mode="json")}


def _frame(cut: Cut, places: _Places) -> Iterator[_Plain]:
    frame = cut.frame
    box = frame.box
    if box != Box.whole(places.page):
        yield _frame_step(box, places)
    folds = [{"top_px": row.top_px - box.y_px, "height_px": row.height_px} for row in frame.folds]
    down = [{"left_px": row.left_px - box.x_px, "width_px": row.width_px} for row in frame.folds_down]
    if folds or down:
        yield {"kind": "fold_bands", "folds": folds, "folds_down": down}
    if cut.seam is not None:
        yield {"kind": "seam", "seam": cut.seam.model_dump(mode="json")}


def _frame_step(box: Box, places: _Places) -> _Plain:
    block = places.like(box)
    if block is not None:
        room_px = min(
            block.box.x_px - box.x_px,
            block.box.y_px - box.y_px,
            box.right_px - block.box.right_px,
            box.bottom_px - block.box.bottom_px,
        )
        return {"kind": "frame_block", "block": places.rule_of(block), "room_px": max(0, room_px)}
    if box.x_px == 0 and box.width_px == places.page.width_px:
        first = _heading_at(box.y_px, places)
        after = _heading_at(box.bottom_px, places)
        if first is not None and (after is not None or box.bottom_px == places.page.height_px):
            ends = {"to_block": places.rule_of(after), "with_last": False} if after else {}
            return {"kind": "frame_stretch", "from_block": places.rule_of(first), **ends}
    return {"kind": "frame_corner", **asdict(box)}


def _heading_at(y_px: int, places: _Places) -> Block | None:
    """The heading that begins at a row, or a little below or above it."""
    headings = [row for row in places.blocks if row.role == "heading"]
    nearest = min(headings, key=lambda row: abs(row.box.y_px - y_px), default=None)
    return nearest if nearest is not None and abs(nearest.box.y_px - y_px) <= _NEAR_PX else None


def _after_frame(cut: Cut, places: _Places) -> Iterator[_Plain]:
    box = cut.frame.box
    if cut.outline is not None:
        points = [(x - box.x_px, y - box.y_px) for x, y in cut.outline.points]
        yield {"kind": "outline", "outline": {**cut.outline.model_dump(mode="json"), "points": points}}
    if cut.tone is not None and not cut.tone.is_plain:
        yield {"kind": "tone", "tone": cut.tone.model_dump(mode="json")}
    for block, marks in groupby(cut.marks, key=lambda mark: _block_of(mark, places)):
        left_px, top_px = (block.box.x_px, block.box.y_px) if block else (box.x_px, box.y_px)
        moved = [_seen_from(mark, left_px, top_px) for mark in marks]
        said = [{**mark.model_dump(mode="json"), "id": ""} for mark in moved]
        yield {"kind": "marks", "marks": said, "if_missing": "whole", **_at(block, places)}
    if cut.dressing is not None:
        for name, value in cut.dressing.model_dump(mode="json").items():
            if value:
                yield {"kind": "dress", "dressing": {name: value}}


def _seen_from(mark: Mark, left_px: int, top_px: int) -> Mark:
    return placed(mark, lambda point: (point[0] - left_px, point[1] - top_px))


def _block_of(mark: Mark, places: _Places) -> Block | None:
    """The block that a mark is on; of an arrow, the one it points at."""
    points = points_of(mark)[-1:] if mark.kind == "arrow" else points_of(mark)
    left, top = (int(min(point[axis] for point in points)) for axis in (0, 1))
    right, bottom = (int(max(point[axis] for point in points)) + 1 for axis in (0, 1))
    return places.around(Box(x_px=left, y_px=top, width_px=right - left, height_px=bottom - top))


def _at(block: Block | None, places: _Places) -> _Plain:
    return {"at": {"block": places.rule_of(block)}} if block else {}


def _edges(box: Box) -> tuple[int, int, int, int]:
    return box.x_px, box.y_px, box.right_px, box.bottom_px


def slot_of_rules(rules: Mapping[str, Any], name: str) -> _Plain:
    """A slot step out of the rules of a place, by the names that the ledger gives them."""
    said = {key: value for key, value in rules.items() if value is not None}
    said["keep"] = said.pop("anchor", "start")
    if "least_fidelity" in said:
        said["fidelity"] = said.pop("least_fidelity")
    return {"name": name[:MOST_SLOT_NAME_CHARS], **said}
