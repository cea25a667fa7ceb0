"""What of a page's words and links a file shows, in passages, with their places on it."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from tallpage.core.geometry import Box
from tallpage.core.page_map import Block
from tallpage.core.page_words import Link, PageWords, Run

_DEEPEST_HEADING = 6


@dataclass(frozen=True, slots=True, kw_only=True)
class Passage:
    """Words that follow each other, with the tag that says what they are: ``H1`` to ``H6``, or ``P``."""

    tag: str
    words: tuple[tuple[str, Box], ...]
    """Each with its place in px of the file; one that goes on on another line stands where it begins."""

    @property
    def text(self) -> str:
        """The words, with spaces between them."""
        return " ".join(text for text, _ in self.words)


@dataclass(frozen=True, slots=True)
class TaggedWords:
    """The words and links of a page that a picture shows, each run with its tag."""

    runs: tuple[tuple[str, Run], ...]
    links: tuple[Link, ...]
    language: str

    @classmethod
    def of(cls, words: PageWords, headings: list[Block]) -> TaggedWords:
        """Words with the tags that the headings of the page give them."""
        runs = tuple((_tag(run[0].boxes[0], headings), run) for run in words.runs)
        return cls(runs, words.links, words.language)

    def between(self, top_px: int, bottom_px: int) -> TaggedWords:
        """What touches some rows of the page, so that not all of it is asked for where it lies."""

        def touches(boxes: tuple[Box, ...]) -> bool:
            return boxes[0].bottom_px > top_px and boxes[0].y_px < bottom_px

        runs = (
            (tag, some) for tag, run in self.runs if (some := tuple(row for row in run if touches(row.boxes)))
        )
        links = (link for link in self.links if any(touches((box,)) for box in link.boxes))
        return TaggedWords(tuple(runs), tuple(links), self.language)


def passages(words: TaggedWords, to_file: Callable[[Box], Box | None]) -> Iterator[Passage]:
    """The passages that a file shows, in the order of the page's text."""
    for tag, run in words.runs:
        placed = [(_readable(word.text), there) for word in run if (there := to_file(word.boxes[0]))]
        shown = tuple((text, box) for text, box in placed if text)
        if shown:
            yield Passage(tag=tag, words=shown)


def links(words: TaggedWords, to_file: Callable[[Box], Box | None]) -> Iterator[tuple[str, tuple[Box, ...]]]:
    """Where links lead, with the boxes of the file that can be pressed."""
    for link in words.links:
        boxes = tuple(there for box in link.boxes if (there := to_file(box)))
        if boxes:
            yield link.address, boxes


def _tag(box: Box, headings: list[Block]) -> str:
    over = [row for row in headings if row.box.overlap(box) == box]
    inner = min(over, key=lambda row: row.box.size.pixels, default=None)
    return f"H{min(inner.level or _DEEPEST_HEADING, _DEEPEST_HEADING)}" if inner else "P"


def _readable(text: str) -> str:
    """A word without halves of letters and signs that control something."""
    whole = text.encode("utf-16", "surrogatepass").decode("utf-16", "ignore")
    return "".join(letter for letter in whole if letter.isprintable())
