"""Lists of pages that commands are given: files, sitemaps, standard input."""

from __future__ import annotations

import re
from dataclasses import replace
from pathlib import Path

from tallpage.cli._piping import STANDARD, input_file
from tallpage.core.capture import normalise_address
from tallpage.core.errors import ListError
from tallpage.core.sweep import Found, ListedPage, PageList, Robots, fetcher, list_of, read_file, read_sitemap

WEB = re.compile(r"https?://", re.IGNORECASE)


def listed_pages(source: str, column: int | None) -> tuple[PageList, list[str]]:
    """The list, and what could not be read of a sitemap."""
    if WEB.match(source):
        sitemap = read_sitemap(normalise_address(source), fetcher())
        return list_of(sitemap.found), list(sitemap.problems)
    try:
        with input_file(Path(source)) as file:
            data = file.read_bytes()
    except OSError as error:
        raise ListError(f"{source} cannot be read.", hint="Check the path.", code="list_missing") from error
    table = read_file(data, "list.txt" if source == str(STANDARD) else Path(source).name)
    found: list[Found] = table.found_in(table.likeliest if column is None else column - 1)
    return list_of(found), []


def welcome_pages(pages: PageList) -> tuple[PageList, int, tuple[str, ...]]:
    """The pages that their hosts let programmes take, how many they do not, and what cannot be known."""
    robots = Robots(fetcher())
    kept: list[ListedPage] = [page for page in pages.pages if robots.allows(page.address)]
    return replace(pages, pages=tuple(kept)), len(pages.pages) - len(kept), robots.problems
