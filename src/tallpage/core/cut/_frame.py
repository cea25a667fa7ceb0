"""Frames and their folds. Pure arithmetic over two kinds of rows: the page's, and the frame's own,
which count only what is shown."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import asdict, dataclass, replace
from typing import Any, Self

from tallpage.core.errors import FrameError
from tallpage.core.geometry import Box, Size

MOST_FOLDS = 200


@dataclass(frozen=True, slots=True, kw_only=True)
class Fold:
    """A band across the page that is folded away; the two sides meet. In page px."""

    top_px: int
    height_px: int

    @property
    def bottom_px(self) -> int:
        """First row below the band."""
        return self.top_px + self.height_px


@dataclass(frozen=True, slots=True)
class Frame:
    """A box on a page, minus folds; these are in order, apart from each other, and inside the box."""

    box: Box
    folds: tuple[Fold, ...] = ()

    @classmethod
    def of(cls, box: Box, folds: Iterable[Fold] = ()) -> Self:
        """A frame with folds as they come: joined where they touch, cut off at the box's edges.

        Raises:
            FrameError: nothing would be left, or there are absurdly many.
        """
        inside: list[Fold] = []
        for fold in sorted(folds, key=lambda row: row.top_px):
            top_px = max(fold.top_px, box.y_px, inside[-1].top_px if inside else box.y_px)
            bottom_px = min(fold.bottom_px, box.bottom_px)
            if bottom_px <= top_px:
                continue
            if inside and top_px <= inside[-1].bottom_px:
                first = inside.pop()
                top_px, bottom_px = first.top_px, max(first.bottom_px, bottom_px)
            inside.append(Fold(top_px=top_px, height_px=bottom_px - top_px))
        if len(inside) > MOST_FOLDS:
            raise FrameError(f"{len(inside)} folds are more than the {MOST_FOLDS} that are kept.")
        if sum(fold.height_px for fold in inside) >= box.height_px:
            raise FrameError("Nothing of the frame would be left between its folds.")
        return cls(box, tuple(inside))

    @classmethod
    def from_json(cls, data: Mapping[str, Any]) -> Self:
        """A frame as :meth:`as_json` gave it."""
        folds = [Fold(**fold) for fold in data.get("folds", ())]
        return cls.of(Box(**{name: data[name] for name in ("x_px", "y_px", "width_px", "height_px")}), folds)

    def as_json(self) -> dict[str, Any]:
        """The box's four numbers, and the folds where there are any."""
        folds = {"folds": [asdict(fold) for fold in self.folds]} if self.folds else {}
        return {**asdict(self.box), **folds}

    @property
    def size(self) -> Size:
        """Width, and the rows that are shown."""
        hidden_px = sum(fold.height_px for fold in self.folds)
        return Size(width_px=self.box.width_px, height_px=self.box.height_px - hidden_px)

    def parts(self, top_px: int, height_px: int) -> tuple[Box, ...]:
        """Where rows of the frame, counted from its first, lie on the page: from top to bottom."""
        found, row_px, last_px = [], 0, top_px + height_px
        for shown in self._shown():
            first = max(top_px, row_px)
            last = min(last_px, row_px + shown.height_px)
            if last > first:
                found.append(replace(shown, y_px=shown.y_px + first - row_px, height_px=last - first))
            row_px += shown.height_px
        return tuple(found)

    def row_of(self, page_px: int) -> int:
        """How many rows are shown above a row of the page."""
        above = [
            min(page_px, shown.bottom_px) - shown.y_px for shown in self._shown() if shown.y_px < page_px
        ]
        return sum(above)

    def place_of(self, point: tuple[float, float]) -> tuple[float, float]:
        """Where a point of the page lies in the frame; one that is folded away lies on the fold.

        Points beside the box keep their distance from it.
        """
        x, y = point
        folded_px = sum(min(max(y - fold.top_px, 0), fold.height_px) for fold in self.folds)
        return x - self.box.x_px, y - self.box.y_px - folded_px

    def shows_row(self, page_px: float) -> bool:
        """Whether a row of the page is not folded away. Rows beside the box count as shown."""
        return not any(fold.top_px <= page_px < fold.bottom_px for fold in self.folds)

    def _shown(self) -> list[Box]:
        """What lies between the folds."""
        tops = [self.box.y_px, *(fold.bottom_px for fold in self.folds)]
        bottoms = [*(fold.top_px for fold in self.folds), self.box.bottom_px]
        return [
            replace(self.box, y_px=top_px, height_px=bottom_px - top_px)
            for top_px, bottom_px in zip(tops, bottoms, strict=True)
            if bottom_px > top_px
        ]
