"""A list of pages: each once, with what was wrong with the rest."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass
from urllib.parse import urlsplit

from tallpage.core.capture import normalise_address
from tallpage.core.errors import AddressError
from tallpage.core.naming import host_of

MOST_PAGES = 20_000
_MOST_BAD_LINES = 500
_SHOWN_CHARS = 120
_HOST_NAME = re.compile(r"^(?:localhost\b|[^/?#]*\.[^/?#\d])|^(?:\d+\.){3}\d", re.IGNORECASE)


@dataclass(frozen=True, slots=True, kw_only=True)
class Found:
    """Something that may be an address, where it stood, and what was said of it there."""

    text: str
    line: int
    title: str = ""
    modified: str = ""
    """ISO date of its last change, where a sitemap tells."""


@dataclass(frozen=True, slots=True, kw_only=True)
class ListedPage:
    """A page to take. ``address`` is normalised; ``title`` is what the list called it, or empty."""

    address: str
    line: int
    title: str = ""
    modified: str = ""

    @property
    def host(self) -> str:
        """Host, with a port where there is one."""
        return host_of(self.address)

    @property
    def section(self) -> str:
        """First part of the path, like ``/news``; ``/`` for what lies at the top."""
        return section_of(self.address)


@dataclass(frozen=True, slots=True, kw_only=True)
class BadLine:
    """A line that is no address, and why."""

    line: int
    text: str
    sentence: str
    code: str


@dataclass(frozen=True, slots=True, kw_only=True)
class PageList:
    """What a list came to. ``bad`` holds the first 500 of ``bad_count``; ``left_over`` were too many."""

    pages: tuple[ListedPage, ...]
    bad: tuple[BadLine, ...] = ()
    bad_count: int = 0
    duplicates: int = 0
    left_over: int = 0

    def sections(self) -> dict[str, int]:
        """Pages of each host and section, like ``skerrin.example/news``, the fullest first."""
        counted = Counter(page.host + page.section for page in self.pages)
        return dict(sorted(counted.items(), key=lambda row: (-row[1], row[0])))


def section_of(address: str) -> str:
    """First part of an address's path when more follows, else ``/``.

    >>> section_of("https://skerrin.example/news/2026/storm")
    '/news'
    >>> section_of("https://skerrin.example/news")
    '/'
    """
    parts = urlsplit(address).path.split("/")
    return f"/{parts[1]}" if len(parts) > 2 and parts[1] else "/"


def list_of(found: Iterable[Found], *, most_pages: int = MOST_PAGES) -> PageList:
    """The pages of what was found: normalised, each once, in order."""
    pages: dict[str, ListedPage] = {}
    bad: list[BadLine] = []
    bad_count = duplicates = left_over = 0
    for row in found:
        try:
            address = _address_of(row.text)
        except AddressError as error:
            bad_count += 1
            if len(bad) < _MOST_BAD_LINES:
                bad.append(
                    BadLine(
                        line=row.line,
                        text=row.text.strip()[:_SHOWN_CHARS],
                        sentence=error.sentence,
                        code=error.code,
                    )
                )
            continue
        key = _same_page(address)
        if key in pages:
            duplicates += 1
        elif len(pages) >= most_pages:
            left_over += 1
        else:
            pages[key] = ListedPage(
                address=key, line=row.line, title=row.title.strip(), modified=row.modified
            )
    return PageList(
        pages=tuple(pages.values()),
        bad=tuple(bad),
        bad_count=bad_count,
        duplicates=duplicates,
        left_over=left_over,
    )


def _address_of(text: str) -> str:
    """As where one address is typed, but in a list a lone word is a remark rather than a host."""
    address = normalise_address(text)
    if "://" not in text and not _HOST_NAME.search(text.strip()):
        raise AddressError(f"“{text.strip()[:_SHOWN_CHARS]}” is not an address.")
    return address


def _same_page(address: str) -> str:
    """An address without what makes no other page of it: the place on the page, case of the host.

    A fragment with a path in it (``#/news``) is how some pages tell their views apart, and stays.
    """
    parts = urlsplit(address)
    fragment = parts.fragment if "/" in parts.fragment else ""
    return parts._replace(netloc=parts.netloc.lower(), fragment=fragment).geturl()
