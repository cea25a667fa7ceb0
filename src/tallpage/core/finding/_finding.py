"""Every place of a page that says what is sought, with the boxes that cover it."""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from tallpage.core.finding._patterns import Kind, spans
from tallpage.core.geometry import Box
from tallpage.core.page_words import PageWords, Run

_UNSEEN = dict.fromkeys(map(ord, "\u00ad\u200b\u200c\u200d\u2060\ufeff"))
"""Signs that take no room and part no word."""
_ROOM_PX = 2
"""Letters stand out of their boxes a little."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Sought:
    """What is looked for: of ``words`` each line is a word, a name or several words that belong together."""

    kind: Kind
    words: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class FoundPlace:
    """A place that says what is sought: the text, and one box for each line that it stands on."""

    text: str
    boxes: tuple[Box, ...]


def find_places(words: PageWords, sought: Sought) -> list[FoundPlace]:
    """All places, in the order of the page's text; of those that overlap, the ones that are in a longer one
    are left out."""
    found = []
    for run in words.runs:
        text, starts = _as_text(run)
        at = spans(sought.kind, text, sought.words.splitlines())
        for first, last in _apart(at):
            # From the word that the first character stands in to the one that the last does.
            touched = run[max(0, bisect_right(starts, first) - 1) : bisect_left(starts, last)]
            boxes = _in_lines(box for word in touched for box in word.boxes)
            found.append(FoundPlace(text=text[first:last], boxes=tuple(boxes)))
    return found


def sought_spans(sought: Sought, text: str) -> list[tuple[int, int]]:
    """Where a line of text says what is sought: first character, and the first one after it."""
    return list(_apart(spans(sought.kind, text, sought.words.splitlines())))


def _as_text(run: Run) -> tuple[str, list[int]]:
    """What a run says, and where each of its words begins in it."""
    text, starts = "", []
    for word in run:
        if text and not word.joined:
            text += " "
        starts.append(len(text))
        text += _seen(word.text)
    return text, starts


def _seen(text: str) -> str:
    return text.translate(_UNSEEN)


def _apart(at: Iterable[tuple[int, int]]) -> Iterator[tuple[int, int]]:
    """Spans in order, without those that lie in another one."""
    furthest = 0
    for first, last in sorted(set(at), key=lambda span: (span[0], -span[1])):
        if last > furthest:
            furthest = last
            yield first, last


def _in_lines(boxes: Iterable[Box]) -> Iterator[Box]:
    """One box for all that stand on a line, with a little room."""
    lines: list[Box] = []
    for box in boxes:
        if lines and _same_line(lines[-1], box):
            last = lines.pop()
            left, top = min(last.x_px, box.x_px), min(last.y_px, box.y_px)
            right, bottom = max(last.right_px, box.right_px), max(last.bottom_px, box.bottom_px)
            box = Box(x_px=left, y_px=top, width_px=right - left, height_px=bottom - top)
        lines.append(box)
    for box in lines:
        grown = box.grown(_ROOM_PX)
        x_px, y_px = max(0, grown.x_px), max(0, grown.y_px)
        yield Box(x_px=x_px, y_px=y_px, width_px=grown.right_px - x_px, height_px=grown.bottom_px - y_px)


def _same_line(first: Box, second: Box) -> bool:
    shared_px = min(first.bottom_px, second.bottom_px) - max(first.y_px, second.y_px)
    return shared_px * 2 > min(first.height_px, second.height_px)
