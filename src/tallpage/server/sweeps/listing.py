"""What a list holds, looked at before anything is stored."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from django.conf import settings

from tallpage.core.capture import Guard, normalise_address
from tallpage.core.sweep import (
    Column,
    Fetch,
    PageList,
    Robots,
    fetcher,
    links_of_page,
    list_of,
    read_file,
    read_pasted,
    read_sitemap,
    sitemap_like,
)

_ROBOTS_ASKED_OF_HOSTS = 20


@dataclass(frozen=True, slots=True, kw_only=True)
class Listing:
    """A list, where it came from, and what ``robots.txt`` asks programmes to leave out of it."""

    pages: PageList
    source: str
    columns: tuple[Column, ...] = ()
    column: int | None = None
    problems: tuple[str, ...] = ()
    forbidden: frozenset[str] = frozenset()
    robots: str = ""


def list_pasted(text: str) -> Listing:
    """The pages in a text of any kind."""
    return Listing(pages=list_of(read_pasted(text)), source="pasted")


def list_file(data: bytes, name: str, column: int | None) -> Listing:
    """The pages in a dropped file; without a column, in the one that holds most addresses.

    Raises:
        ListError: it is not a list that can be read.
    """
    table = read_file(data, name)
    chosen = table.likeliest if column is None else column
    return Listing(pages=list_of(table.found_in(chosen)), source=name, columns=table.columns, column=chosen)


def list_site(address: str) -> Listing:
    """The pages of a sitemap, or those that a page links to in its main part.

    Raises:
        AddressError, PageUnreachable, ListError: there is none, or it cannot be read.
    """
    start = normalise_address(address)
    with _allowed_fetch() as fetch:
        problems: tuple[str, ...] = ()
        if sitemap_like(start):
            sitemap = read_sitemap(start, fetch)
            pages, problems = list_of(sitemap.found), sitemap.problems
        else:
            pages = list_of(links_of_page(fetch(start)))
        robots = Robots(fetch)
        hosts = Counter(page.host for page in pages.pages)
        asked = {host for host, _ in hosts.most_common(_ROBOTS_ASKED_OF_HOSTS)}
        if len(hosts) > len(asked):
            others = len(hosts) - len(asked)
            problems += (
                f"robots.txt was asked of the {len(asked)} hosts with the most pages, "
                f"not of the other {others}.",
            )
        forbidden = frozenset(
            page.address for page in pages.pages if page.host in asked and not robots.allows(page.address)
        )
        return Listing(
            pages=pages,
            source=start,
            problems=problems,
            forbidden=forbidden,
            robots=robots.text(start),
        )


@contextmanager
def _allowed_fetch() -> Iterator[Fetch]:
    """Fetching as this server may: on one's own machine anything, else past the guard only."""
    if settings.ALLOW_PRIVATE:
        yield fetcher()
        return
    with Guard(settings.PRIVATE_HOSTS.allows) as guard:
        yield fetcher(proxy=guard.address)
