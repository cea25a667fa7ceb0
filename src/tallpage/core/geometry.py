"""Sizes and boxes in whole page pixels. Pure arithmetic; nothing here knows of pictures."""

from __future__ import annotations

from dataclasses import dataclass, replace

from tallpage.core.errors import FrameError


@dataclass(frozen=True, slots=True, kw_only=True)
class Size:
    """Width × height in pixels, both at least 1."""

    width_px: int
    height_px: int

    def __post_init__(self) -> None:
        if self.width_px < 1 or self.height_px < 1:
            raise ValueError(f"a size is at least 1 × 1 px, not {self.width_px} × {self.height_px}")

    @property
    def pixels(self) -> int:
        """Number of pixels."""
        return self.width_px * self.height_px

    def at_width(self, width_px: int) -> Size:
        """The size of the same shape at another width; the height is rounded, never below 1."""
        height_px = max(1, round_half_up(self.height_px * width_px, self.width_px))
        return Size(width_px=width_px, height_px=height_px)


@dataclass(frozen=True, slots=True, kw_only=True)
class Box:
    """A rectangle on a page: left, top, width, height in page pixels."""

    x_px: int
    y_px: int
    width_px: int
    height_px: int

    @classmethod
    def whole(cls, size: Size) -> Box:
        """The box that covers all of ``size``."""
        return cls(x_px=0, y_px=0, width_px=size.width_px, height_px=size.height_px)

    @property
    def right_px(self) -> int:
        """First column right of the box."""
        return self.x_px + self.width_px

    @property
    def bottom_px(self) -> int:
        """First row below the box."""
        return self.y_px + self.height_px

    @property
    def size(self) -> Size:
        """Its size without its place."""
        return Size(width_px=self.width_px, height_px=self.height_px)

    def lies_on(self, page: Size) -> bool:
        """Whether the box is at least 1 × 1 px and wholly on the page."""
        return (
            self.width_px >= 1
            and self.height_px >= 1
            and self.x_px >= 0
            and self.y_px >= 0
            and self.right_px <= page.width_px
            and self.bottom_px <= page.height_px
        )

    def overlap(self, other: Box) -> Box | None:
        """The part that lies in another box too; None where there is none."""
        left_px, top_px = max(self.x_px, other.x_px), max(self.y_px, other.y_px)
        width_px = min(self.right_px, other.right_px) - left_px
        height_px = min(self.bottom_px, other.bottom_px) - top_px
        if width_px < 1 or height_px < 1:
            return None
        return Box(x_px=left_px, y_px=top_px, width_px=width_px, height_px=height_px)

    def seen_from(self, other: Box) -> Box:
        """The same box, counted from another's upper left corner."""
        return replace(self, x_px=self.x_px - other.x_px, y_px=self.y_px - other.y_px)

    def grown(self, by_px: int) -> Box:
        """With some room on each side."""
        return Box(
            x_px=self.x_px - by_px,
            y_px=self.y_px - by_px,
            width_px=self.width_px + 2 * by_px,
            height_px=self.height_px + 2 * by_px,
        )

    def require_on(self, page: Size) -> Box:
        """The box itself, or :class:`FrameError` when it does not lie on the page."""
        if self.lies_on(page):
            return self
        raise FrameError(
            f"The frame {self.width_px} × {self.height_px} px at {self.x_px}, {self.y_px} "
            f"does not lie on the picture of {page.width_px} × {page.height_px} px."
        )


def round_half_up(numerator: int, denominator: int) -> int:
    """``numerator / denominator`` to the nearest whole number, halves upwards, without floats.

    Floats would disagree with the interface's arithmetic on very tall pages.
    """
    return (2 * numerator + denominator) // (2 * denominator)


def bands(length_px: int, band_px: int) -> list[tuple[int, int]]:
    """``(top, height)`` of consecutive bands that cover ``length_px``, each at most ``band_px`` high."""
    if length_px < 0 or band_px < 1:
        raise ValueError(f"cannot divide {length_px} px into bands of {band_px} px")
    return [(top, min(band_px, length_px - top)) for top in range(0, length_px, band_px)]
