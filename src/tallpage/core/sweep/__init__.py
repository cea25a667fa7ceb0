"""A list of many pages -> what to take, in which order and under which names."""

from tallpage.core.file_names import DEFAULT_PATTERN, FIELDS, Namer, Pattern
from tallpage.core.sweep._fetching import Fetch, Fetched, fetcher
from tallpage.core.sweep._folder import SweepOrder, sweep_into
from tallpage.core.sweep._links import links_of_page
from tallpage.core.sweep._naming import Named
from tallpage.core.sweep._pace import Pace, Waiting, next_up
from tallpage.core.sweep._pages import MOST_PAGES, BadLine, Found, ListedPage, PageList, list_of, section_of
from tallpage.core.sweep._pasted import looks_like_address, read_pasted
from tallpage.core.sweep._robots import Robots
from tallpage.core.sweep._running import workers_for_this_machine
from tallpage.core.sweep._sitemap import Sitemap, read_sitemap, sitemap_like
from tallpage.core.sweep._tables import Column, Table, read_file

__all__ = [
    "DEFAULT_PATTERN",
    "FIELDS",
    "MOST_PAGES",
    "BadLine",
    "Column",
    "Fetch",
    "Fetched",
    "Found",
    "ListedPage",
    "Named",
    "Namer",
    "Pace",
    "PageList",
    "Pattern",
    "Robots",
    "Sitemap",
    "SweepOrder",
    "Table",
    "Waiting",
    "fetcher",
    "links_of_page",
    "list_of",
    "looks_like_address",
    "next_up",
    "read_file",
    "read_pasted",
    "read_sitemap",
    "section_of",
    "sitemap_like",
    "sweep_into",
    "workers_for_this_machine",
]
