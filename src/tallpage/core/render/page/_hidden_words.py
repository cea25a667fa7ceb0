"""What may be said of a page whose cut hides something: a title can say what the picture does not."""

from __future__ import annotations

import re
from collections.abc import Iterator

from tallpage.core.cut import Cut
from tallpage.core.finding import sought_spans
from tallpage.core.page_words import PageWords
from tallpage.core.render._source import Source
from tallpage.core.render.page._prepared import prepared

_WORD = re.compile(r"\w+")
_HIDDEN = "…"


def without_hidden_words(text: str, source: Source, cut: Cut) -> str:
    """A text about a page without what its cut hides.

    Left out are all places that say what is sought, and every word that stands under a hidden area and is
    shown nowhere else on the page.
    """
    words = source.words() if cut.hidden else None
    hidden = _words(words) - _words(prepared(source, cut).words()) if words else set()
    spans = [span for row in cut.sought for span in sought_spans(row.sought, text)]
    spans += [match.span() for match in _WORD.finditer(text) if match[0].casefold() in hidden]
    return "".join(_without(text, spans))


def _words(words: PageWords | None) -> set[str]:
    if words is None:
        return set()
    return {part.casefold() for run in words.runs for word in run for part in _WORD.findall(word.text)}


def _without(text: str, spans: list[tuple[int, int]]) -> Iterator[str]:
    at = 0
    for first, last in sorted(spans):
        if first > at or at == 0:
            yield text[at:first]
            yield _HIDDEN
        at = max(at, last)
    yield text[at:]
