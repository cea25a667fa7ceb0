"""The text of a snippet."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from html import escape

from tallpage.core.snippet._images import SnippetImage, by_format, shown_width_px

_MARKED = re.compile(r"([\\`*_{}\[\]<>#|!])")
_IN_ADDRESSES = {" ": "%20", '"': "%22", "<": "%3C", ">": "%3E", ",": "%2C", "(": "%28", ")": "%29"}


@dataclass(frozen=True, slots=True, kw_only=True)
class SnippetWords:
    """What is said of a picture, and how wide it is shown."""

    alt: str = ""
    """For who does not see it; empty for a picture that says nothing of its own."""
    caption: str = ""
    credit: str = ""
    shown_px: int | None = None
    """In CSS px; None for what the files are meant for."""


def html(parts: Sequence[Sequence[SnippetImage]], words: SnippetWords) -> str:
    """One picture, or one below the other: of each part the files among which a browser chooses.

    Width and height are said, so that nothing jumps when the picture comes; it is asked for once it is
    nearly seen. With a caption or a credit it is a figure.
    """
    pictures = [
        _picture(images, _alt_of(words.alt, number, len(parts)), words.shown_px)
        for number, images in enumerate(parts)
    ]
    said = " ".join(
        text
        for text in (
            escape(words.caption, quote=False),
            f"<small>{escape(words.credit, quote=False)}</small>" if words.credit else "",
        )
        if text
    )
    if not said:
        return "\n".join(pictures) + "\n"
    inside = "\n".join(pictures) + f"\n<figcaption>{said}</figcaption>"
    return f"<figure>\n{_indented(inside)}\n</figure>\n"


def markdown(parts: Sequence[Sequence[SnippetImage]], words: SnippetWords) -> str:
    """The same for Markdown, which knows one file for each picture: the widest of the commonest format."""
    lines = []
    for number, images in enumerate(parts):
        image = by_format(images)[-1][-1]
        lines.append(f"![{_unmarked(_alt_of(words.alt, number, len(parts)))}]({_address(image.src)})")
    said = [f"*{_unmarked(text)}*" for text in (words.caption, words.credit) if text]
    return "\n\n".join([*lines, *([" ".join(said)] if said else [])]) + "\n"


def _picture(images: Sequence[SnippetImage], alt: str, asked_px: int | None) -> str:
    shown_px = asked_px or shown_width_px(images)
    *newer, common = by_format(images)
    img = _img(common, alt, shown_px)
    if not newer:
        return img
    sources = [
        f'<source type="{files[0].media_type}" srcset="{_srcset(files)}"{_sizes(files, shown_px)}>'
        for files in newer
    ]
    return f"<picture>\n{_indented(chr(10).join([*sources, img]))}\n</picture>"


def _img(files: Sequence[SnippetImage], alt: str, shown_px: int) -> str:
    # Browsers that know no srcset get the file that is nearest to what is shown.
    usual = min(files, key=lambda image: abs(image.width_px - shown_px))
    height_px = max(1, round(shown_px * usual.height_px / usual.width_px))
    choice = f' srcset="{_srcset(files)}"{_sizes(files, shown_px)}' if len(files) > 1 else ""
    return (
        f'<img src="{_address(usual.src)}"{choice} width="{shown_px}" height="{height_px}" '
        f'alt="{escape(alt)}" loading="lazy" decoding="async" style="max-width: 100%; height: auto">'
    )


def _srcset(files: Sequence[SnippetImage]) -> str:
    if len(files) == 1:
        return _address(files[0].src)
    return ", ".join(f"{_address(image.src)} {image.width_px}w" for image in files)


def _sizes(files: Sequence[SnippetImage], shown_px: int) -> str:
    return f' sizes="(max-width: {shown_px}px) 100vw, {shown_px}px"' if len(files) > 1 else ""


def _alt_of(alt: str, number: int, count: int) -> str:
    return f"{alt} ({number + 1} of {count})" if alt and count > 1 else alt


def _address(src: str) -> str:
    """An address whose spaces and marks neither end it nor begin another."""
    return escape("".join(_IN_ADDRESSES.get(letter, letter) for letter in src))


def _unmarked(text: str) -> str:
    return _MARKED.sub(r"\\\1", " ".join(text.split()))


def _indented(lines: str) -> str:
    return "\n".join(f"  {line}" for line in lines.split("\n"))
