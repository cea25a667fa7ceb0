"""CSS selectors over what a page map says of each block: its element and those that it lies in.

A page map knows names of elements, ids and classes, and no siblings: selectors that ask for more are refused.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from functools import cache

import soupsieve
from bs4 import BeautifulSoup, Tag

_ESCAPED = re.compile(r"\\(?:([0-9a-fA-F]{1,6})\s?|(.))")
"""A character as CSS writes it where it would stand for something else: ``\\:``, or ``\\3a `` by number."""
_PART = re.compile(rf"(?P<sign>[#.]?)(?P<name>(?:{_ESCAPED.pattern}|[^\\#.])+)")
_UNKNOWN = re.compile(r"[:+~\[]")


def selector_problem(selector: str) -> str | None:
    """What is wrong with a selector; None when it can be used."""
    if _UNKNOWN.search(_ESCAPED.sub("", selector)):
        return (
            f"“{selector}”: only names, ids and classes of elements can be told apart, and what they lie in"
        )
    try:
        soupsieve.compile(selector)
    except soupsieve.SelectorSyntaxError:
        return f"“{selector}” is no CSS selector"
    return None


def matching(selector: str, paths: Iterable[str]) -> frozenset[str]:
    """Those of the paths of elements whose last element fits a selector.

    A path is ``body > main#content > table.fares.wide``, from the outermost element inwards.
    """
    compiled = soupsieve.compile(selector)
    return frozenset(path for path in set(paths) if path and compiled.match(_element(path)))


@cache
def _document() -> BeautifulSoup:
    return BeautifulSoup("", "html.parser")


def _element(path: str) -> Tag:
    """The innermost element of a path, in those that it lies in."""
    holder: Tag = _document()
    for step in path.split(" > "):
        found = [(match["sign"], _unescaped(match["name"])) for match in _PART.finditer(step)]
        name = next((text for sign, text in found if not sign), "div")
        element = _document().new_tag(name)
        for sign, text in found:
            if sign == "#":
                element["id"] = text
        element["class"] = " ".join(text for sign, text in found if sign == ".")
        if holder is not _document():
            holder.append(element)
        holder = element
    return holder


def _unescaped(name: str) -> str:
    return _ESCAPED.sub(lambda match: chr(int(match[1], 16)) if match[1] else match[2], name)
