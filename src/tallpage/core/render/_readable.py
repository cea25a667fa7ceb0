"""What of a page's words can be read in the picture of a cut: what leaves is what is shown, no more."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import TYPE_CHECKING

from tallpage.core.cut import Cut
from tallpage.core.geometry import Box, Size
from tallpage.core.page_words import PageWords

if TYPE_CHECKING:
    from tallpage.core.marks import Mark

_SHOWN_SHARE = 0.9
"""How much of a word's box has to be in the frame, and beside its folds."""
_COVERED_SHARE = 0.25
"""How much of it may lie under something that nothing is seen through."""
_COVERS_FROM = 0.75
"""Opacity from which on letters are hardly seen through."""


def readable_words(words: PageWords, cut: Cut, page: Size) -> PageWords:
    """The words and links that the picture of a cut shows; their places stay those of the page.

    ``words`` are those of the page as the cut prepares it. Left out is what is folded away, beside the
    frame, outside the outline, blurred by a mark, or under one that covers it.
    """
    covers, seen_through = list(_covers(cut, page)), _windows(cut)

    def shown(boxes: tuple[Box, ...]) -> tuple[Box, ...]:
        return boxes if all(_is_shown(box, cut, covers, seen_through) for box in boxes) else ()

    return words.changed(shown)


def _is_shown(box: Box, cut: Cut, covers: list[Box], seen_through: list[Box] | None) -> bool:
    inside = box.overlap(cut.frame.box)
    if inside is None:
        return False
    across_px = cut.frame.column_of(box.right_px) - cut.frame.column_of(box.x_px)
    down_px = cut.frame.row_of(box.bottom_px) - cut.frame.row_of(box.y_px)
    if across_px * down_px < _SHOWN_SHARE * box.size.pixels:
        return False
    if cut.outline is not None and not cut.outline.holds(box):
        return False
    if seen_through is not None and not any(_share(box, window) >= _SHOWN_SHARE for window in seen_through):
        return False
    return all(_share(box, cover) < _COVERED_SHARE for cover in covers)


def _share(box: Box, other: Box) -> float:
    inside = box.overlap(other)
    return inside.size.pixels / box.size.pixels if inside else 0.0


def _covers(cut: Cut, page: Size) -> Iterator[Box]:
    """Where marks lie that hide what is below."""
    covering = [mark for mark in cut.marks if _COVERS.get(mark.kind, _never)(mark)]
    if not covering:
        return
    from tallpage.core.marks import draw_marks
    from tallpage.core.paths import Extent
    from tallpage.core.render.frame._marking import box_around

    for drawn in draw_marks(covering, Extent(0, 0, page.width_px, page.height_px)):
        extent = drawn.extent()
        if extent is not None:
            yield box_around(extent)


def _windows(cut: Cut) -> list[Box] | None:
    """What is not blurred, where a mark blurs the rest; None where none does."""
    dims = [mark for mark in cut.marks if mark.kind == "dim"]
    if not any(mark.how == "blur" or (mark.strength * mark.opacity >= _COVERS_FROM) for mark in dims):
        return None
    return [
        Box(
            x_px=round(mark.x_px),
            y_px=round(mark.y_px),
            width_px=max(1, round(mark.width_px)),
            height_px=max(1, round(mark.height_px)),
        )
        for mark in dims
    ]


def _opaque(colour: str | None, mark: Mark) -> bool:
    if colour is None:
        return False
    alpha = int(colour[7:9], 16) / 255 if len(colour) == len("#rrggbbaa") else 1.0
    return alpha * mark.opacity >= _COVERS_FROM


def _never(_: Mark) -> bool:
    return False


_COVERS: dict[str, Callable[..., bool]] = {
    "box": lambda mark: _opaque(mark.filling, mark),
    "ellipse": lambda mark: _opaque(mark.filling, mark),
    "text": lambda mark: _opaque(mark.plate, mark),
    "badge": lambda mark: _opaque(mark.filling, mark),
    "sticker": lambda mark: mark.picture is not None and mark.opacity >= _COVERS_FROM,
}
