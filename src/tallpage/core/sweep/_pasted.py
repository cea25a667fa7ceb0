"""Addresses out of anything pasted: lines, commas, a spreadsheet's column, HTML or Markdown with links."""

from __future__ import annotations

import re
from collections.abc import Iterator

from bs4 import BeautifulSoup
from markdown_it import MarkdownIt
from markdown_it.token import Token

from tallpage.core.sweep._pages import Found

_HTML_LINK = re.compile(r"<a\s[^>]*\bhref\s*=", re.IGNORECASE)
_MARKDOWN_LINK = re.compile(r"\]\(\s*<?[^)\s]+|^\s*\[[^\]]+\]:\s", re.MULTILINE)
# A comma or semicolon may stand inside an address: it only divides where blank space or another
# address follows.
_DIVIDERS = re.compile(r"[\t\n ]+|[,;](?=\s|$|https?://|www\.)", re.IGNORECASE)
_WRAPPING = "<>\"'“”‘’()[]{},;|"
_ADDRESS = re.compile(
    r"(?:https?://\S+|localhost(?::\d+)?(?:[/?#]\S*)?"
    r"|(?:[\w-]+\.)+(?:[^\W\d_]{2,}|xn--[\w-]+|\d+)(?::\d+)?(?:[/?#]\S*)?)",
    re.IGNORECASE,
)
_NUMBER = re.compile(r"[\d.]+")
_IPV4 = re.compile(r"\d+\.\d+\.\d+\.\d+(?::\d+)?(?:[/?#].*)?")
_OTHER_SCHEME = re.compile(r"[a-z][a-z0-9+.-]*:\S+", re.IGNORECASE)
_NOT_PAGES = ("mailto:", "tel:", "javascript:", "data:", "#")


def read_pasted(text: str) -> list[Found]:
    """Everything in ``text`` that is an address or stands where one should."""
    if _HTML_LINK.search(text):
        return list(_in_html(text))
    if _MARKDOWN_LINK.search(text):
        return list(_in_markdown(text))
    return list(_in_lines(text))


def _in_lines(text: str) -> Iterator[Found]:
    for number, line in enumerate(text.splitlines(), start=1):
        stripped = line.strip().lstrip("-*•").strip()
        if not stripped or stripped.startswith("#"):
            continue
        words = [word for word in (part.strip(_WRAPPING) for part in _DIVIDERS.split(stripped)) if word]
        addresses = [word for word in words if looks_like_address(word)]
        if not addresses:
            yield Found(text=stripped, line=number)
            continue
        title = " ".join(word for word in words if word not in addresses) if len(addresses) == 1 else ""
        for address in addresses:
            yield Found(text=address, line=number, title=title)


def looks_like_address(word: str) -> bool:
    """Whether a word is meant as the address of a page, with or without its scheme.

    >>> [word for word in ("skerrin.example/a", "localhost:8000", "12.50", "we@skerrin.example")
    ...  if looks_like_address(word)]
    ['skerrin.example/a', 'localhost:8000']
    """
    if not _ADDRESS.fullmatch(word):
        return bool(_OTHER_SCHEME.fullmatch(word)) and "://" in word
    return not _NUMBER.fullmatch(word) or bool(_IPV4.fullmatch(word))


def _in_html(text: str) -> Iterator[Found]:
    for link in BeautifulSoup(text, "html.parser").find_all("a", href=True):
        href = str(link["href"]).strip()
        if not href.lower().startswith(_NOT_PAGES):
            title = " ".join(link.get_text(" ").split())
            yield Found(text=href, line=link.sourceline or 0, title=title)


def _in_markdown(text: str) -> Iterator[Found]:
    """Links, and in blocks without any whatever stands on the lines."""
    for block in MarkdownIt().parse(text):
        if block.type != "inline" or block.map is None:
            continue
        first_line = block.map[0] + 1
        links = list(_links_of(block, first_line))
        if links:
            yield from links
        else:
            for row in _in_lines(block.content):
                if looks_like_address(row.text):
                    yield Found(text=row.text, line=first_line + row.line - 1, title=row.title)


def _links_of(block: Token, line: int) -> Iterator[Found]:
    href, words = "", ""
    for token in block.children or []:
        if token.type == "link_open":
            href, words = str(token.attrGet("href") or ""), ""
        elif token.type == "link_close":
            if href and not href.lower().startswith(_NOT_PAGES):
                yield Found(text=href, line=line, title=words if words != href else "")
        elif token.type == "softbreak":
            line += 1
        else:
            words += token.content
