"""The seams of a frame's folds as they are drawn on a file."""

from __future__ import annotations

from collections.abc import Iterator

from tallpage.core.cut import Cut
from tallpage.core.dressing import torn_depths
from tallpage.core.marks import DrawnMark, Shape
from tallpage.core.paths import Extent, Path, Point
from tallpage.core.sizing import SizePlan

_LINE = "#7C8A86"
_GROUND = "#FFFFFF"
_GAP_PX = 2.0
"""From a torn edge to the other one at least, in px of the file; half of it on each side of the seam."""
_DEEP_PX = 6.0
"""How much deeper an edge is torn in places."""
_TOOTH_PX = 5.0
_PIECE_PX = 1_000.0
"""A long seam is drawn in pieces: a band of the file meets few of them."""


def seams_in_frame(cut: Cut, plan: SizePlan) -> list[DrawnMark]:
    """The seams of a cut, in px of its frame; lines and teeth have their size in px of the planned file."""
    seam = cut.seam
    if seam is None:
        return []
    scale = plan.shown.width_px / plan.picture.width_px
    size = cut.frame.size
    rows, columns = cut.frame.seams()
    found = []
    for at_px, length_px, lies in (
        *((row, size.width_px, True) for row in rows),
        *((column, size.height_px, False) for column in columns),
    ):
        # On whole px of the file, a line is as dark as it is meant.
        in_file = round(at_px / scale)
        for number, (first, end) in enumerate(_pieces(length_px / scale)):
            parts = (
                _hairline(in_file, first, end, seam.colour or _LINE)
                if seam.look == "hairline"
                else _torn(f"{at_px} {number}", in_file, first, end, seam.colour or _GROUND)
            )
            placed = tuple(_put(part, lies, scale) for part in parts)
            found.append(DrawnMark(id=f"seam {at_px} {number}", parts=placed))
    return found


def _pieces(length: float) -> Iterator[tuple[float, float]]:
    first = 0.0
    while first < length:
        yield first, min(length, first + _PIECE_PX)
        first += _PIECE_PX


def _hairline(at: float, first: float, end: float, colour: str) -> tuple[Shape, ...]:
    return (Shape(path=Path.rectangle(Extent(first, at - 1, end, at)), fill=colour),)


def _torn(seed: str, at: float, first: float, end: float, colour: str) -> tuple[Shape, ...]:
    """The ground between two torn edges, and a thin line along each."""
    upper = _edge(f"{seed} upper", at, first, end, towards=-1)
    lower = _edge(f"{seed} lower", at, first, end, towards=1)
    ground = Shape(path=Path.polyline([*upper, *reversed(lower)], closed=True), fill=colour)
    lines = [Shape(path=Path.polyline(edge), stroke=_LINE, stroke_px=1.0) for edge in (upper, lower)]
    return (ground, *lines)


def _edge(seed: str, at: float, first: float, end: float, *, towards: int) -> list[Point]:
    count = max(2, round((end - first) / _TOOTH_PX))
    # The ends have one depth, so that a piece goes on where the one before it ended.
    depths = [0.5, *torn_depths(seed, count - 1), 0.5]
    step = (end - first) / count
    return [
        (first + number * step, at + towards * (_GAP_PX / 2 + _DEEP_PX * depth))
        for number, depth in enumerate(depths)
    ]


def _put(shape: Shape, lies: bool, scale: float) -> Shape:
    """From px of a file, along the seam and across it, to px of the frame."""
    matrix = (scale, 0.0, 0.0, scale, 0.0, 0.0) if lies else (0.0, scale, scale, 0.0, 0.0, 0.0)
    return Shape(
        path=shape.path.transformed(matrix),
        fill=shape.fill,
        stroke=shape.stroke,
        stroke_px=shape.stroke_px * scale,
    )
