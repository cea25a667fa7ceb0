"""Files of one picture, among which a browser chooses."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

_SHAPE_SLACK = 0.01
"""How far, as a share, the proportions of two files of one picture may be apart: heights are rounded."""
_DENSITIES_SLACK = 0.98
"""A file is one for screens of twice the density from this share of twice the width on."""
_EVERYWHERE = ("image/jpeg", "image/png", "image/gif", "image/webp", "image/avif")
"""From what every browser shows to what only newer ones do."""


@dataclass(frozen=True, slots=True, kw_only=True)
class SnippetImage:
    """A file by its address, with its size in px."""

    src: str
    width_px: int
    height_px: int
    media_type: str


def same_shape(images: Sequence[SnippetImage]) -> list[SnippetImage]:
    """Those of the first one's proportions; of several with one width and format, the first.

    Others show something else: a browser must not choose among them.
    """
    first = images[0]
    found: dict[tuple[int, str], SnippetImage] = {}
    for image in images:
        asked_px = image.width_px * first.height_px / first.width_px
        if abs(image.height_px - asked_px) <= max(1.0, asked_px * _SHAPE_SLACK):
            found.setdefault((image.width_px, image.media_type), image)
    return list(found.values())


def shown_width_px(images: Sequence[SnippetImage]) -> int:
    """How wide they are meant to be shown, in CSS px.

    That is the widest of which there is also a file of twice its width, or else the widest.
    """
    widths = sorted({image.width_px for image in images}, reverse=True)
    doubled = (width for width in widths if any(other >= 2 * width * _DENSITIES_SLACK for other in widths))
    return next(doubled, widths[0])


def by_format(images: Sequence[SnippetImage]) -> list[list[SnippetImage]]:
    """Files of each format from narrow to wide; the one that every browser shows last."""
    formats = sorted({image.media_type for image in images}, key=_EVERYWHERE.index, reverse=True)
    return [
        sorted((image for image in images if image.media_type == name), key=lambda image: image.width_px)
        for name in formats
    ]
