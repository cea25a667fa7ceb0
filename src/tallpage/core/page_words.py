"""The words of a page with their boxes: for hiding what the page says, wherever it says it."""

from __future__ import annotations

import gzip
import json
import zlib
from dataclasses import dataclass
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
class PageWords:
    """All words of a page that can be seen, in the order of its text."""

    runs: tuple[Run, ...]

    def save(self, folder: Path) -> None:
        """Write the words into a capture's folder."""
        rows = [[_row(word) for word in run] for run in self.runs]
        text = json.dumps({"version": _VERSION, "runs": rows}, ensure_ascii=False, separators=(",", ":"))
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
            runs = json.loads(gzip.decompress(path.read_bytes()))["runs"]
            return cls(tuple(tuple(_word(row) for row in run) for run in runs))
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
    numbers = [number for box in word.boxes for number in (box.x_px, box.y_px, box.width_px, box.height_px)]
    return [word.text, int(word.joined), *numbers]


def _word(row: list[Any]) -> Word:
    text, joined, *numbers = row
    boxes = tuple(
        Box(x_px=x_px, y_px=y_px, width_px=width_px, height_px=height_px)
        for x_px, y_px, width_px, height_px in zip(*[iter(numbers)] * 4, strict=True)
    )
    return Word(text=str(text), boxes=boxes, joined=bool(joined))
