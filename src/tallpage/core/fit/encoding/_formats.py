"""The formats that are written, and what each can hold."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal, get_args

from tallpage.core.errors import FitError

Format = Literal["jpeg", "png", "webp", "avif", "gif"]


@dataclass(frozen=True, slots=True, kw_only=True)
class FormatRules:
    """Extension, media type and limits of one format."""

    name: str
    extension: str
    media_type: str
    greatest_side_px: int
    keeps_transparency: bool


FORMATS: dict[Format, FormatRules] = {
    "jpeg": FormatRules(
        name="JPEG",
        extension="jpg",
        media_type="image/jpeg",
        greatest_side_px=65_500,
        keeps_transparency=False,
    ),
    "png": FormatRules(
        name="PNG",
        extension="png",
        media_type="image/png",
        greatest_side_px=1_000_000,
        keeps_transparency=True,
    ),
    "webp": FormatRules(
        name="WebP",
        extension="webp",
        media_type="image/webp",
        greatest_side_px=16_383,
        keeps_transparency=True,
    ),
    "avif": FormatRules(
        name="AVIF",
        extension="avif",
        media_type="image/avif",
        greatest_side_px=20_000,  # what browsers show for sure; Chromium goes to 32,767
        keeps_transparency=True,
    ),
    "gif": FormatRules(
        name="GIF",
        extension="gif",
        media_type="image/gif",
        greatest_side_px=65_535,
        keeps_transparency=True,
    ),
}


ASKED_FOR_ONLY: frozenset[Format] = frozenset({"gif"})
"""For places that take nothing else: never advised, never better."""


def require_formats(names: Iterable[str]) -> tuple[Format, ...]:
    """Known formats of ``names``, in our order, each once.

    Raises:
        FitError: there is none, or one is not known.
    """
    asked = {name.strip().lower() for name in names if name.strip()}
    asked = {"jpeg" if name == "jpg" else name for name in asked}
    unknown = sorted(asked - set(get_args(Format)))
    if unknown or not asked:
        what = f"“{unknown[0]}” is not a format that is written." if unknown else "No format was given."
        raise FitError(what, hint="Choose from jpeg, png, webp, avif and gif.", code="format_unknown")
    return tuple(known for known in FORMATS if known in asked)
