"""A cut of a page, carried over to the same page as it is now."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import asdict, dataclass, replace
from typing import Any, Literal

from tallpage.core.clearing import Clearing
from tallpage.core.cut import Cut, Fold, FoldDown, Frame
from tallpage.core.errors import FrameError
from tallpage.core.following._matching import matched
from tallpage.core.following._outline import Outline
from tallpage.core.following._places import Placed, Places
from tallpage.core.geometry import Box, Size
from tallpage.core.marks import Arrow, Badge, Line, Mark, Text, placed, points_of
from tallpage.core.outlining import FreeOutline
from tallpage.core.page_map import Block
from tallpage.core.page_words import PageWords
from tallpage.core.paths import Extent, Point

Part = Literal["frame", "fold", "fold_down", "outline", "cleared", "hidden", "mark"]
State = Literal["same", "moved", "resized", "lost"]
_SAME_PX = 0.5


@dataclass(frozen=True, slots=True, kw_only=True)
class CarriedPart:
    """What became of a part of a cut; boxes in page px, before and now."""

    part: Part
    id: str
    """Of a mark or a hidden area; the first row or column of a fold; the colour of a cleared place."""
    state: State
    doubt: bool
    """Whether it could also belong elsewhere."""
    before: Box
    now: Box | None
    """None for what was not found."""


@dataclass(frozen=True, slots=True, kw_only=True)
class CarriedCut:
    """A cut on the page as it is now, what became of each of its parts, and the parts without a place."""

    cut: Cut
    parts: tuple[CarriedPart, ...]
    aside: tuple[dict[str, Any], ...]
    """Marks and hidden areas as JSON, in px of the page before, until somebody places or removes them."""

    @property
    def needs_a_look(self) -> bool:
        """Whether a part of it is in doubt or was not found."""
        return any(row.doubt or row.state == "lost" for row in self.parts)


@dataclass(frozen=True, slots=True, kw_only=True)
class Page:
    """What has to be known of a page: its size and its blocks, from outer to inner."""

    size: Size
    blocks: Sequence[Block]
    words: PageWords | None = None
    """Where its words stand, where that is known: what was hidden by words is looked for again."""


def carry_over(cut: Cut, before: Page, now: Page) -> CarriedCut:
    """Place the parts of a cut by the blocks that they point at, frame or hide.

    A part that is not found is kept aside. Where one of the pages has no blocks, everything stays at its px,
    in doubt; what would lie beside the page is kept aside.
    """
    outlines = Outline.of(before.blocks), Outline.of(now.blocks)
    places = Places(*outlines, matched(*outlines))
    carrier = _Carrier(before.size, now.size, places)
    frame = carrier.frame(cut.frame)
    sought = {row.id for row in cut.sought} if now.words else set()
    hidden = [row for area in cut.hidden if area.found_by not in sought and (row := carrier.hidden(area))]
    marks = [row for mark in cut.marks if (row := carrier.mark(mark))]
    outline = cut.outline and carrier.outline(cut.outline)
    cleared = cut.cleared and carrier.cleared(cut.cleared)
    carried = replace(
        cut, frame=frame, outline=outline, cleared=cleared, hidden=tuple(hidden), marks=tuple(marks)
    )
    return CarriedCut(
        cut=carried.hidden_anew(now.words) if now.words else carried,
        parts=tuple(carrier.parts),
        aside=tuple(carrier.aside),
    )


def carry_by_px(cut: Cut, before: Page, now: Page) -> CarriedCut:
    """Keep the parts of a cut at their px of another page; what would lie beside it is kept aside."""
    carried = carry_over(cut, replace(before, blocks=()), replace(now, blocks=()))
    # It was asked for: nothing that stayed is in doubt.
    parts = tuple(
        row if row.now is None or row.state == "resized" else replace(row, doubt=False)
        for row in carried.parts
    )
    return replace(carried, parts=parts)


class _Carrier:
    def __init__(self, before: Size, now: Size, places: Places) -> None:
        self.parts: list[CarriedPart] = []
        self.aside: list[dict[str, Any]] = []
        self._before, self._now, self._places = before, now, places

    def frame(self, frame: Frame) -> Frame:
        """The frame; the whole page stays the whole page, and is what is shown where nothing is found."""
        if frame.box == Box.whole(self._before):
            box: Box | None = Box.whole(self._now)
            sure = True
        else:
            found = self._places.box(_extent(frame.box))
            box = None if found is None else self._to_edges(frame.box, found.place)
            sure = found is not None and found.sure
        if box is None:
            self._note("frame", "", frame.box, None, sure=False)
            box = Box.whole(self._now)
        else:
            self._note("frame", "", frame.box, box, sure=sure)
        folds = [row for fold in frame.folds if (row := self._fold(fold, frame.box))]
        folds_down = [down for band in frame.folds_down if (down := self._fold_down(band, frame.box))]
        try:
            return Frame.of(box, folds, folds_down)
        except FrameError:  # nothing would be left between them
            for fold in frame.folds:
                self._lost("fold", str(fold.top_px), _rows(fold, frame.box))
            for band in frame.folds_down:
                self._lost("fold_down", str(band.left_px), _columns(band, frame.box))
            return Frame.of(box)

    def _fold(self, fold: Fold, box: Box) -> Fold | None:
        rows = _rows(fold, box)
        found = self._places.rows(_extent(rows))
        shown = None if found is None else _box(found.place).overlap(Box.whole(self._now))
        if found is None or shown is None:
            self._lost("fold", str(fold.top_px), rows)
            return None
        self._note("fold", str(fold.top_px), rows, shown, sure=found.sure)
        return Fold(top_px=shown.y_px, height_px=shown.height_px)

    def _fold_down(self, fold: FoldDown, box: Box) -> FoldDown | None:
        columns = _columns(fold, box)
        found = self._places.box(_extent(columns))
        shown = None if found is None else _box(found.place).overlap(Box.whole(self._now))
        if found is None or shown is None:
            self._lost("fold_down", str(fold.left_px), columns)
            return None
        self._note("fold_down", str(fold.left_px), columns, shown, sure=found.sure)
        return FoldDown(left_px=shown.x_px, width_px=shown.width_px)

    def outline(self, outline: FreeOutline) -> FreeOutline | None:
        """A free outline, moved and scaled with the blocks inside; None where these are not found."""
        carried = self._put_along(outline.points)
        before = _box(_extent_of(outline.points))
        if carried is None:
            self._lost("outline", "", before)
            return None
        points = tuple(map(carried.place, outline.points))
        self._note(
            "outline", "", before, _box(_extent_of(points)), sure=carried.sure, resized=carried.resized
        )
        return outline.model_copy(update={"points": points})

    def cleared(self, clearing: Clearing) -> Clearing:
        """Cleared colours and spots that stay, each at its block; what has no place there is left out."""
        colours = []
        for colour in clearing.colours:
            if colour.x_px is None or colour.y_px is None:
                colours.append(colour)
                continue
            if found := self._place_of(colour.colour, colour.x_px, colour.y_px):
                colours.append(colour.model_copy(update={"x_px": found.x_px, "y_px": found.y_px}))
        spots = []
        for spot in clearing.put_back:
            if spot.width_px is None or spot.height_px is None:
                if at_px := self._place_of("spot", spot.x_px, spot.y_px):
                    spots.append(spot.model_copy(update={"x_px": at_px.x_px, "y_px": at_px.y_px}))
                continue
            box = Box(x_px=spot.x_px, y_px=spot.y_px, width_px=spot.width_px, height_px=spot.height_px)
            carried = self._places.box(_extent(box))
            place = None if carried is None else _box(carried.place).overlap(Box.whole(self._now))
            if carried is None or place is None:
                self._lost("cleared", "spot", box)
                continue
            self._note("cleared", "spot", box, place, sure=carried.sure, resized=carried.resized)
            spots.append(spot.model_copy(update=asdict(place)))
        return clearing.model_copy(update={"colours": tuple(colours), "put_back": tuple(spots)})

    def _place_of(self, name: str, x_px: int, y_px: int) -> Box | None:
        """The px at which a px of the page before lies now; None where it has none."""
        before = Box(x_px=x_px, y_px=y_px, width_px=1, height_px=1)
        found = self._places.point((x_px + 0.5, y_px + 0.5))
        now = None
        if found is not None:
            at = replace(before, x_px=math.floor(found.place[0]), y_px=math.floor(found.place[1]))
            now = at.overlap(Box.whole(self._now))
        if found is None or now is None:
            self._lost("cleared", name, before)
            return None
        self._note("cleared", name, before, now, sure=found.sure)
        return now

    def hidden(self, area: Any) -> Any | None:
        """A hidden area; None where it has no place."""
        found = self._places.box(_extent(area.box))
        box = None if found is None else _box(found.place).overlap(Box.whole(self._now))
        if found is None or box is None:
            self._lost("hidden", area.id, area.box)
            self.aside.append({"hidden": area.model_dump(mode="json")})
            return None
        self._note("hidden", area.id, area.box, box, sure=found.sure, resized=found.resized)
        sides = {"x_px": box.x_px, "y_px": box.y_px, "width_px": box.width_px, "height_px": box.height_px}
        return area.model_copy(update=sides)

    def mark(self, mark: Mark) -> Mark | None:
        """A mark; None where it has no place."""
        carried = (
            self._by_points(mark) if isinstance(mark, Arrow | Line | Badge | Text) else self._by_box(mark)
        )
        before = _box_around(mark)
        now = None if carried is None else _box_around(carried.place)
        if carried is None or now is None or now.overlap(Box.whole(self._now)) is None:
            self._lost("mark", mark.id, before)
            self.aside.append({"mark": mark.model_dump(mode="json")})
            return None
        self._note("mark", mark.id, before, now, sure=carried.sure, resized=carried.resized)
        return carried.place

    def _by_points(self, mark: Arrow | Line | Badge | Text) -> Placed[Mark] | None:
        """A mark that goes with what it points at, which both ends of a line or of a double arrow do."""
        points = points_of(mark)
        match mark:
            case Arrow(heads="end"):
                held: tuple[Point, ...] = points[1:]
            case Arrow(heads="start"):
                held = points[:1]
            case Arrow() | Line():
                held = points
            case _:
                held = points[-1:]
        found = [self._places.point(point) for point in held]
        if None in found:
            return None
        sure = all(row.sure for row in found if row)
        resized = any(row.resized for row in found if row)
        if len(held) == len(points):
            moved = {point: row.place for point, row in zip(points, found, strict=True) if row}
            return Placed(placed(mark, lambda point: moved[point]), resized, sure)
        across, down = (now - old for now, old in zip(found[0].place, held[0], strict=True))  # type: ignore[union-attr]
        return Placed(placed(mark, lambda point: (point[0] + across, point[1] + down)), resized, sure)

    def _by_box(self, mark: Mark) -> Placed[Mark] | None:
        carried = self._put_along(points_of(mark))
        if carried is None:
            return None
        return Placed(placed(mark, carried.place), carried.resized, carried.sure)

    def _put_along(self, points: Sequence[Point]) -> Placed[Callable[[Point], Point]] | None:
        """Where points go together with what lies in the rectangle around them; None where it is lost."""
        old = _extent_of(points)
        found = self._places.box(old)
        if found is None:
            return None
        new = found.place
        wide, high = old.right_px - old.left_px, old.bottom_px - old.top_px

        def carry(point: Point) -> Point:
            x = new.left_px + (point[0] - old.left_px) * ((new.right_px - new.left_px) / wide if wide else 1)
            y = new.top_px + (point[1] - old.top_px) * ((new.bottom_px - new.top_px) / high if high else 1)
            return x, y

        return Placed(carry, found.resized, found.sure)

    def _to_edges(self, old: Box, found: Extent) -> Box | None:
        """A box on the page now; an edge that lay on the page's edge lies there again."""
        left = 0 if old.x_px == 0 else round(found.left_px)
        top = 0 if old.y_px == 0 else round(found.top_px)
        right = self._now.width_px if old.right_px == self._before.width_px else round(found.right_px)
        bottom = self._now.height_px if old.bottom_px == self._before.height_px else round(found.bottom_px)
        box = Box(x_px=left, y_px=top, width_px=right - left, height_px=bottom - top)
        return box.overlap(Box.whole(self._now))

    def _note(
        self, part: Part, id_: str, before: Box, now: Box | None, *, sure: bool, resized: bool = False
    ) -> None:
        state: State = "lost" if now is None else "resized" if resized or now.size != before.size else "moved"
        if now == before:
            state = "same"
        self.parts.append(CarriedPart(part=part, id=id_, state=state, doubt=not sure, before=before, now=now))

    def _lost(self, part: Part, id_: str, before: Box) -> None:
        self._note(part, id_, before, None, sure=False)


def _rows(fold: Fold, box: Box) -> Box:
    return replace(box, y_px=fold.top_px, height_px=fold.height_px)


def _columns(fold: FoldDown, box: Box) -> Box:
    return replace(box, x_px=fold.left_px, width_px=fold.width_px)


def _extent(box: Box) -> Extent:
    return Extent(box.x_px, box.y_px, box.right_px, box.bottom_px)


def _extent_of(points: Sequence[Point]) -> Extent:
    across, down = zip(*points, strict=True)
    return Extent(min(across), min(down), max(across), max(down))


def _box(extent: Extent) -> Box:
    left, top = round(extent.left_px), round(extent.top_px)
    right, bottom = max(round(extent.right_px), left + 1), max(round(extent.bottom_px), top + 1)
    return Box(x_px=left, y_px=top, width_px=right - left, height_px=bottom - top)


def _box_around(mark: Mark) -> Box:
    return _box(_extent_of(points_of(mark)))
