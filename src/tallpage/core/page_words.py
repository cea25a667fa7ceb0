"""The words of a page with their boxes, and its links: for hiding what it says, and for text in a PDF."""

from __future__ import annotations

import gzip
import json
import zlib
from collections.abc import Callable
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any

from tallpage.core.errors import PictureUnreadable
from tallpage.core.files import write_whole
from tallpage.core.geometry import Box

WORDS_NAME = "words.json.gz"
_VERSION = 1


@dataclass(frozen=True, slots=True)
class Word:
    """A word, and where it is in page px: in several boxes where it is broken over lines."""

    text: str
    boxes: tuple[Box, ...]
    joined: bool = False
    """Whether no space stands between it and the word before."""


Run = tuple[Word, ...]
"""Words that follow each other in one block."""


@dataclass(frozen=True, slots=True)
class Link:
    """Where a link of the page leads, and where it can be pressed, in page px."""

    address: str
    boxes: tuple[Box, ...]


@dataclass(frozen=True, slots=True)
class PageWords:
    """All words of a page that can be seen, in the order of its text; its links; its language, if it says so.

    Captures taken before links were noted have none.
    """

    runs: tuple[Run, ...]
    links: tuple[Link, ...] = ()
    language: str = ""
    """As the page gives it, like ``en-GB``."""

    def changed(self, boxes_of: Callable[[tuple[Box, ...]], tuple[Box, ...]]) -> PageWords:
        """With other boxes: ``boxes_of`` gives those of a word or link; what has none is left out."""
        runs = (
            tuple(replace(word, boxes=boxes) for word in run if (boxes := boxes_of(word.boxes)))
            for run in self.runs
        )
        links = (replace(link, boxes=boxes) for link in self.links if (boxes := boxes_of(link.boxes)))
        return replace(self, runs=tuple(run for run in runs if run), links=tuple(links))

    def save(self, folder: Path) -> None:
        """Write the words into a capture's folder."""
        rows = [[_row(word) for word in run] for run in self.runs]
        links = [[link.address, *_numbers(link.boxes)] for link in self.links]
        whole = {"version": _VERSION, "runs": rows, "links": links, "language": self.language}
        text = json.dumps(whole, ensure_ascii=False, separators=(",", ":"))
        write_whole(folder / WORDS_NAME, gzip.compress(text.encode(), mtime=0))

    @classmethod
    def load(cls, folder: Path) -> PageWords | None:
        """Read a capture's words; None where they are not known: a dropped picture, or an old capture.

        Raises:
            PictureUnreadable: they are there and damaged.
        """
        path = folder / WORDS_NAME
        if not path.exists():
            return None
        try:
            whole = json.loads(gzip.decompress(path.read_bytes()))
            return cls(
                runs=tuple(tuple(_word(row) for row in run) for run in whole["runs"]),
                links=tuple(Link(str(address), _boxes(rest)) for address, *rest in whole.get("links", [])),
                language=str(whole.get("language", "")),
            )
        except (OSError, EOFError, zlib.error, ValueError, KeyError, TypeError, RecursionError) as error:
            raise PictureUnreadable(
                "The words of this capture are damaged: where they stand is not known.",
                hint="The picture itself is whole. Take the page again for its words.",
                code="words_damaged",
            ) from error

    @classmethod
    def load_if_readable(cls, folder: Path) -> PageWords | None:
        """The words as :meth:`load` gives them. Damaged ones count as unknown, for callers that need none."""
        try:
            return cls.load(folder)
        except PictureUnreadable:
            return None


def _row(word: Word) -> list[Any]:
    return [word.text, int(word.joined), *_numbers(word.boxes)]


def _word(row: list[Any]) -> Word:
    text, joined, *numbers = row
    return Word(text=str(text), boxes=_boxes(numbers), joined=bool(joined))


def _numbers(boxes: tuple[Box, ...]) -> list[int]:
    return [number for box in boxes for number in (box.x_px, box.y_px, box.width_px, box.height_px)]


def _boxes(numbers: list[Any]) -> tuple[Box, ...]:
    return tuple(
        Box(x_px=x_px, y_px=y_px, width_px=width_px, height_px=height_px)
        for x_px, y_px, width_px, height_px in zip(*[iter(numbers)] * 4, strict=True)
    )
