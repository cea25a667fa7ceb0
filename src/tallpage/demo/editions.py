"""What the editor changed in the pages of the demo site from one edition to the next."""

from __future__ import annotations

import json
from functools import cache
from importlib import resources

_MOVED = {"home": ("The Auklet is back", "New ramp at Ailsay")}
"""Cards that change places, by what they are headed."""


def as_of(page: str, html: str, edition: int) -> str:
    """The HTML of a page in an edition; the first is as it was written.

    Raises:
        ValueError: an edit does not fit the page exactly once.
    """
    if edition == 1:
        return html
    for said, says in _edits().get(page, ()):
        if html.count(said) != 1:
            raise ValueError(f"{page}: this stands there {html.count(said)} times: {said}")
        html = html.replace(said, says)
    if page in _MOVED:
        first, second = (_card(html, heading) for heading in _MOVED[page])
        html = html.replace(first, "\0").replace(second, first).replace("\0", second)
    return html


@cache
def _edits() -> dict[str, list[tuple[str, str]]]:
    """For each page, what it said and what it says instead."""
    data = resources.files("tallpage.demo").joinpath("second-edition.json").read_text("utf-8")
    edits: dict[str, list[tuple[str, str]]] = json.loads(data)
    return edits


def _card(html: str, heading: str) -> str:
    at = html.index(f"<h3>{heading}</h3>")
    end = "</article>"
    return html[html.rindex("<article", 0, at) : html.index(end, at) + len(end)]
