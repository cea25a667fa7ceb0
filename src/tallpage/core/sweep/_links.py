"""Pages that a page links to in its main part."""

from __future__ import annotations

from collections.abc import Iterator
from urllib.parse import urljoin, urlsplit

from bs4 import BeautifulSoup, Tag
from bs4.element import NavigableString, PageElement

from tallpage.core.errors import ListError
from tallpage.core.sweep._fetching import Fetched
from tallpage.core.sweep._pages import Found

_MAIN = ("main", "[role=main]", "article", "body")
_AROUND = "nav, header, footer, aside, [role=navigation], [role=banner], [role=contentinfo]"
_NOT_PAGES = (".pdf", ".zip", ".jpg", ".jpeg", ".png", ".gif", ".webp", ".avif", ".svg", ".mp4", ".mp3")


def links_of_page(answer: Fetched) -> list[Found]:
    """The links in the main part of a page, in order, of http and https pages.

    Raises:
        ListError: it is not a page.
    """
    if answer.status != 200 or "html" not in answer.media_type:
        raise ListError(
            f"{answer.address} is not a page whose links can be read (answer {answer.status}, "
            f"{answer.media_type or 'of no kind'}).",
            hint="Check the address.",
            code="list_not_a_page",
        )
    soup = BeautifulSoup(answer.data, "html.parser")
    base = soup.find("base", href=True)
    start = urljoin(answer.address, str(base["href"])) if isinstance(base, Tag) else answer.address
    part = next((found for name in _MAIN if (found := soup.select_one(name))), soup)
    if part.name == "body":
        for around in part.select(_AROUND):
            around.decompose()
    return list(_links(part, start))


def _links(part: Tag, start: str) -> Iterator[Found]:
    """Links in order. Words belong to the innermost link around them, so that a page of unclosed links is
    read in one pass."""
    found: list[tuple[Tag, list[str]]] = []
    within: list[list[str]] = []  # the words of the links that are open, from outer to inner
    walk: list[Iterator[PageElement]] = [iter(part.children)]
    opened = [False]
    while walk:
        node = next(walk[-1], None)
        if node is None:
            walk.pop()
            if opened.pop():
                within.pop()
        elif isinstance(node, Tag):
            is_link = node.name == "a" and node.has_attr("href")
            if is_link:
                within.append([])
                found.append((node, within[-1]))
            walk.append(iter(node.children))
            opened.append(is_link)
        elif within and isinstance(node, NavigableString):
            within[-1].append(str(node))
    for link, words in found:
        target = urljoin(start, str(link["href"]).strip())
        parts = urlsplit(target)
        if parts.scheme in ("http", "https") and not parts.path.lower().endswith(_NOT_PAGES):
            yield Found(text=target, line=link.sourceline or 0, title=" ".join(" ".join(words).split()))
