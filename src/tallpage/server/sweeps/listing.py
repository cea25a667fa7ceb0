"""What a list holds, looked at before anything is stored."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from django.conf import settings

from tallpage.core.capture import FilteringProxy, PrivateHosts, normalise_address, require_public
from tallpage.core.errors import ListError
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
from tallpage.server.aside import aside

_ROBOTS_ASKED_OF_HOSTS = 20
_SOON_READ_BYTES = 100_000
_READING_S, _SITE_S = 60.0, 300.0


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
    """The pages in a text of any kind.

    Raises:
        ListError: it takes too long to read.
    """
    if len(text) < _SOON_READ_BYTES:
        return read_text(text)
    return aside(_too_long("The text"), _READING_S, read_text, text)


def read_text(text: str) -> Listing:
    """As :func:`list_pasted`, here and now."""
    return Listing(pages=list_of(read_pasted(text)), source="pasted")


def list_file(data: bytes, name: str, column: int | None) -> Listing:
    """The pages in a dropped file; without a column, in the one that holds most addresses.

    Raises:
        ListError: it is not a list that can be read, or it takes too long.
    """
    if len(data) < _SOON_READ_BYTES:
        return read_list(data, name, column)
    return aside(_too_long(name), _READING_S, read_list, data, name, column)


def read_list(data: bytes, name: str, column: int | None) -> Listing:
    """As :func:`list_file`, here and now."""
    table = read_file(data, name)
    chosen = table.likeliest if column is None else column
    return Listing(pages=list_of(table.found_in(chosen)), source=name, columns=table.columns, column=chosen)


def list_site(address: str) -> Listing:
    """The pages of a sitemap, or those that a page links to in its main part.

    Raises:
        AddressError, PageUnreachable, ListError: there is none, or it cannot be read.
    """
    start = normalise_address(address)
    allowed = None if settings.ALLOW_PRIVATE else settings.PRIVATE_HOSTS
    if allowed is not None:
        require_public(start, allowed)
    return aside(_too_long(start), _SITE_S, read_site, start, allowed)


def read_site(start: str, allowed: PrivateHosts | None) -> Listing:
    """As :func:`list_site`, here and now; without ``allowed``, of any host."""
    with _allowed_fetch(allowed) as fetch:
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
            problems=problems + robots.problems,
            forbidden=forbidden,
            robots=robots.text(start),
        )


def _too_long(name: str) -> ListError:
    return ListError(
        f"{name} takes too long to read.", hint="Divide it, or take things out.", code="list_too_large"
    )


@contextmanager
def _allowed_fetch(allowed: PrivateHosts | None) -> Iterator[Fetch]:
    """Fetching as this server may: on one's own machine anything, else past the filtering proxy only."""
    if allowed is None:
        yield fetcher()
        return
    with FilteringProxy(allowed.allows) as filtering_proxy:
        yield fetcher(filtering_proxy=filtering_proxy)
