"""Text, with its plate and pointer, and number badges."""

from __future__ import annotations

from functools import lru_cache

from tallpage.core.marks._drawn import DrawnMark, Shape
from tallpage.core.marks._kinds import Badge, Text
from tallpage.core.paths import Extent, Path, Point
from tallpage.core.text import Align, LaidText, Weight, lay_out

_ROOM_ACROSS, _ROOM_DOWN = 0.45, 0.15
"""Between text and the edge of its plate, in sizes of the letters."""
_POINTER_BASE = 0.9
"""How broad a pointer is where it leaves its plate, in sizes of the letters."""
LABEL_SHARE = 0.56
"""Size of a badge's label, as a share of its diameter; smaller where it would not fit."""
_WIDEST_LABEL = 0.74


def draw_text(mark: Text) -> DrawnMark:
    """Text; its plate reaches a little beyond it."""
    laid = _laid(mark.text, mark.size_px, mark.weight, mark.align, mark.width_px)
    across, down = mark.size_px * _ROOM_ACROSS, mark.size_px * _ROOM_DOWN
    box = Extent(
        mark.x_px, mark.y_px, mark.x_px + laid.width_px + 2 * across, mark.y_px + laid.height_px + 2 * down
    )
    letters = laid.path.moved(mark.x_px + across, mark.y_px + down).turned(mark.angle_deg, box.middle)
    below = _plate(mark, box) if mark.plate is not None else _halo(mark, letters, box)
    return DrawnMark(
        id=mark.id,
        parts=(*below, Shape(path=letters, fill=mark.colour)),
        opacity=mark.opacity,
        held=box,
        missing=laid.missing,
    )


def draw_badge(mark: Badge, label: str) -> DrawnMark:
    """A circle with its number."""
    half_px = mark.size_px / 2
    circle = Path.ellipse(
        Extent(mark.x_px - half_px, mark.y_px - half_px, mark.x_px + half_px, mark.y_px + half_px)
    )
    size_px = mark.size_px * LABEL_SHARE
    laid = _laid(label, size_px, 700, "left", None)
    letters = laid.path.extent()
    shrunk = min(1.0, mark.size_px * _WIDEST_LABEL / (letters.right_px - letters.left_px))
    x, y = letters.middle
    # In the middle by what is seen of the letters: figures have no descenders.
    placed = laid.path.moved(-x, -y).scaled(shrunk).moved(mark.x_px, mark.y_px)
    ring = (
        [Shape(path=circle, stroke=mark.outline_colour, stroke_px=mark.outline_px * 2)]
        if mark.outline_px > 0
        else []
    )
    return DrawnMark(
        id=mark.id,
        parts=(*ring, Shape(path=circle, fill=mark.filling), Shape(path=placed, fill=mark.colour)),
        opacity=mark.opacity,
    )


@lru_cache(maxsize=512)
def _laid(text: str, size_px: float, weight: Weight, align: Align, width_px: float | None) -> LaidText:
    return lay_out(text, size_px=size_px, weight=weight, align=align, width_px=width_px)


def _spot_of(mark: Text) -> Point | None:
    if mark.spot_x_px is None or mark.spot_y_px is None:
        return None
    return mark.spot_x_px, mark.spot_y_px


def _plate(mark: Text, box: Extent) -> list[Shape]:
    """The plate, with the pointer that grows out of it; the outline goes around both."""
    plate = Path.rectangle(box, mark.corner_px).turned(mark.angle_deg, box.middle)
    spot = _spot_of(mark)
    path = plate if spot is None else plate + _pointer(box, spot, mark.size_px * _POINTER_BASE)
    outline = (
        [Shape(path=path, stroke=mark.outline_colour, stroke_px=mark.outline_px * 2)]
        if mark.outline_px > 0
        else []
    )
    return [*outline, Shape(path=path, fill=mark.plate)]


def _halo(mark: Text, letters: Path, box: Extent) -> list[Shape]:
    """Around letters without a plate; the pointer is a line."""
    spot = _spot_of(mark)
    pointer = (
        []
        if spot is None
        else [Shape(path=Path.polyline([box.middle, spot]), stroke=mark.colour, stroke_px=mark.size_px / 12)]
    )
    if mark.outline_px <= 0:
        return pointer
    return [*pointer, Shape(path=letters, stroke=mark.outline_colour, stroke_px=mark.outline_px * 2)]


def _pointer(box: Extent, spot: Point, base_px: float) -> Path:
    """A wedge from the middle of a plate to a spot. It turns as the plate's own outline does.

    Two outlines that turn the same way are one area when they are filled; otherwise where they overlap
    would be a hole.
    """
    x, y = box.middle
    length = ((spot[0] - x) ** 2 + (spot[1] - y) ** 2) ** 0.5 or 1.0
    half_px = min(base_px, box.right_px - box.left_px, box.bottom_px - box.top_px) / 2
    across = -(spot[1] - y) / length * half_px, (spot[0] - x) / length * half_px
    return Path.polyline([(x - across[0], y - across[1]), spot, (x + across[0], y + across[1])], closed=True)
