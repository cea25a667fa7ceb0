"""How high the letters of marks are, and marks that are drawn larger so that theirs can be read."""

from __future__ import annotations

from collections.abc import Sequence

from tallpage.core.marks._kinds import Badge, Mark, Text
from tallpage.core.marks.drawing._lettering import LABEL_SHARE, draw_text
from tallpage.core.paths import Extent


def letters_px(mark: Mark) -> float | None:
    """Size of a mark's letters; None where it has none."""
    match mark:
        case Text():
            return mark.size_px if mark.text.strip() else None
        case Badge():
            return mark.size_px * LABEL_SHARE
        case _:
            return None


def smallest_letters_px(marks: Sequence[Mark]) -> float | None:
    """Size of the smallest letters among marks; None where there are none."""
    return min((size_px for mark in marks if (size_px := letters_px(mark)) is not None), default=None)


def kept_legible(mark: Mark, least_px: float, page: Extent) -> Mark:
    """A mark whose letters are at least so large: grown about its middle, with its plate and outline.

    A text that would then stand out of the page is moved inside, as far as it has room.
    """
    size_px = letters_px(mark)
    if size_px is None or size_px >= least_px:
        return mark
    times = least_px / size_px
    if isinstance(mark, Badge):
        return mark.model_copy(
            update={"size_px": mark.size_px * times, "outline_px": mark.outline_px * times}
        )
    assert isinstance(mark, Text)  # noqa: S101  (nothing else has letters)
    grown = mark.model_copy(
        update={
            "size_px": mark.size_px * times,
            "width_px": None if mark.width_px is None else mark.width_px * times,
            "outline_px": mark.outline_px * times,
            "corner_px": mark.corner_px * times,
        }
    )
    before, after = draw_text(mark).held, draw_text(grown).held
    if before is None or after is None:
        return grown
    (x, y), (new_x, new_y) = before.middle, after.middle
    width_px, height_px = after.right_px - after.left_px, after.bottom_px - after.top_px
    left_px = _inside(mark.x_px + x - new_x, width_px, page.left_px, page.right_px)
    top_px = _inside(mark.y_px + y - new_y, height_px, page.top_px, page.bottom_px)
    return grown.model_copy(update={"x_px": left_px, "y_px": top_px})


def _inside(start_px: float, length_px: float, least_px: float, most_px: float) -> float:
    """Where a stretch begins that is moved inside another; at its start where it is longer."""
    return max(least_px, min(start_px, most_px - length_px))
