"""Frames and their folds. Pure arithmetic over two kinds of places: the page's, and the frame's own,
which count only what is shown."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import asdict, dataclass, replace
from typing import Any, Self

from tallpage.core.errors import FrameError
from tallpage.core.geometry import Box, Size

MOST_FOLDS = 200
"""Across the page, and as many down it."""

_Span = tuple[int, int]
"""First px of a stretch, and the first one after it."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Fold:
    """A band across the page that is folded away; the two sides meet. In page px."""

    top_px: int
    height_px: int

    @property
    def bottom_px(self) -> int:
        """First row below the band."""
        return self.top_px + self.height_px


@dataclass(frozen=True, slots=True, kw_only=True)
class FoldDown:
    """A band down the page that is folded away. In page px."""

    left_px: int
    width_px: int

    @property
    def right_px(self) -> int:
        """First column right of the band."""
        return self.left_px + self.width_px


@dataclass(frozen=True, slots=True)
class Frame:
    """A box on a page, minus folds; these are in order, apart from each other, and inside the box."""

    box: Box
    folds: tuple[Fold, ...] = ()
    folds_down: tuple[FoldDown, ...] = ()

    @classmethod
    def of(cls, box: Box, folds: Iterable[Fold] = (), folds_down: Iterable[FoldDown] = ()) -> Self:
        """A frame with folds as they come: joined where they touch, cut off at the box's edges.

        Raises:
            FrameError: nothing would be left, or there are absurdly many.
        """
        rows = _joined([(row.top_px, row.bottom_px) for row in folds], (box.y_px, box.bottom_px))
        columns = _joined([(row.left_px, row.right_px) for row in folds_down], (box.x_px, box.right_px))
        return cls(
            box,
            tuple(Fold(top_px=first, height_px=end - first) for first, end in rows),
            tuple(FoldDown(left_px=first, width_px=end - first) for first, end in columns),
        )

    @classmethod
    def from_json(cls, data: Mapping[str, Any]) -> Self:
        """A frame as :meth:`as_json` gave it."""
        folds = [Fold(**fold) for fold in data.get("folds", ())]
        folds_down = [FoldDown(**fold) for fold in data.get("folds_down", ())]
        box = Box(**{name: data[name] for name in ("x_px", "y_px", "width_px", "height_px")})
        return cls.of(box, folds, folds_down)

    def as_json(self) -> dict[str, Any]:
        """The box's four numbers, and the folds where there are any."""
        folds = {"folds": [asdict(fold) for fold in self.folds]} if self.folds else {}
        down = {"folds_down": [asdict(fold) for fold in self.folds_down]} if self.folds_down else {}
        return {**asdict(self.box), **folds, **down}

    @property
    def size(self) -> Size:
        """The columns and rows that are shown."""
        return Size(
            width_px=self.box.width_px - sum(fold.width_px for fold in self.folds_down),
            height_px=self.box.height_px - sum(fold.height_px for fold in self.folds),
        )

    def parts(self, top_px: int, height_px: int) -> tuple[Box, ...]:
        """Where rows of the frame, counted from its first, lie on the page, as wide as the box.

        They come from top to bottom.
        """
        spans = _there(self._rows(), top_px, height_px)
        return tuple(replace(self.box, y_px=first, height_px=end - first) for first, end in spans)

    def columns(self, left_px: int, width_px: int) -> tuple[Box, ...]:
        """Where columns of the frame lie on the page, as high as the box, from left to right."""
        spans = _there(self._columns(), left_px, width_px)
        return tuple(replace(self.box, x_px=first, width_px=end - first) for first, end in spans)

    def row_of(self, page_px: int) -> int:
        """How many rows are shown above a row of the page."""
        return _shown_before(self._rows(), page_px)

    def column_of(self, page_px: int) -> int:
        """How many columns are shown left of a column of the page."""
        return _shown_before(self._columns(), page_px)

    def place_of(self, point: tuple[float, float]) -> tuple[float, float]:
        """Where a point of the page lies in the frame; one that is folded away lies on the fold.

        Points beside the box keep their distance from it.
        """
        x, y = point
        above_px = sum(min(max(y - fold.top_px, 0), fold.height_px) for fold in self.folds)
        before_px = sum(min(max(x - fold.left_px, 0), fold.width_px) for fold in self.folds_down)
        return x - self.box.x_px - before_px, y - self.box.y_px - above_px

    def shows(self, point: tuple[float, float]) -> bool:
        """Whether a point of the page is not folded away. Points beside the box count as shown."""
        x, y = point
        return not (
            any(fold.top_px <= y < fold.bottom_px for fold in self.folds)
            or any(fold.left_px <= x < fold.right_px for fold in self.folds_down)
        )

    def seams(self) -> tuple[tuple[int, ...], tuple[int, ...]]:
        """Rows and columns of the frame before which something was folded away; none at its edges."""
        size = self.size
        rows = {self.row_of(fold.top_px) for fold in self.folds} - {0, size.height_px}
        columns = {self.column_of(fold.left_px) for fold in self.folds_down} - {0, size.width_px}
        return tuple(sorted(rows)), tuple(sorted(columns))

    def _rows(self) -> list[_Span]:
        folded = [(fold.top_px, fold.bottom_px) for fold in self.folds]
        return _between(folded, (self.box.y_px, self.box.bottom_px))

    def _columns(self) -> list[_Span]:
        folded = [(fold.left_px, fold.right_px) for fold in self.folds_down]
        return _between(folded, (self.box.x_px, self.box.right_px))


def _joined(folded: Sequence[_Span], whole: _Span) -> list[_Span]:
    """Stretches in order, inside a whole one, joined where they touch."""
    inside: list[_Span] = []
    for fold in sorted(folded):
        first = max(fold[0], whole[0], inside[-1][1] if inside else whole[0])
        end = min(fold[1], whole[1])
        if end <= first:
            continue
        if inside and first <= inside[-1][1]:
            before = inside.pop()
            first, end = before[0], max(before[1], end)
        inside.append((first, end))
    if len(inside) > MOST_FOLDS:
        raise FrameError(f"{len(inside)} folds are more than the {MOST_FOLDS} that are kept.")
    if sum(end - first for first, end in inside) >= whole[1] - whole[0]:
        raise FrameError("Nothing of the frame would be left between its folds.")
    return inside


def _between(folded: Sequence[_Span], whole: _Span) -> list[_Span]:
    """What lies between folds."""
    firsts = [whole[0], *(end for _, end in folded)]
    ends = [*(first for first, _ in folded), whole[1]]
    return [(first, end) for first, end in zip(firsts, ends, strict=True) if end > first]


def _there(shown: Sequence[_Span], first_px: int, length_px: int) -> list[_Span]:
    """Where a stretch of what is shown lies on the page."""
    found, counted, last_px = [], 0, first_px + length_px
    for first, end in shown:
        start, stop = max(first_px, counted), min(last_px, counted + end - first)
        if stop > start:
            found.append((first + start - counted, first + stop - counted))
        counted += end - first
    return found


def _shown_before(shown: Sequence[_Span], page_px: int) -> int:
    return sum(min(page_px, end) - first for first, end in shown if first < page_px)
