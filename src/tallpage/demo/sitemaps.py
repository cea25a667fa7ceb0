"""The demo site's sitemaps: an index of its pages and, gzipped, of its notices."""

from __future__ import annotations

import gzip
from collections.abc import Iterable
from datetime import date

from tallpage.demo.notices import notice_day, notice_numbers

_SPACE = "http://www.sitemaps.org/schemas/sitemap/0.9"
_HEAD = '<?xml version="1.0" encoding="UTF-8"?>'
_LAST_CHANGED = date(2026, 11, 18)
_GONE = "/timetable/winter-2019"
"""Still listed, though it is not there any more, as happens."""


def sitemap_file(name: str, root: str, pages: Iterable[str], edition: int = 1) -> bytes | None:
    """The file of a name below ``root``; None when there is none."""
    if name == "/sitemap.xml":
        parts = ("/sitemap-pages.xml", "/sitemap-notices.xml.gz")
        rows = "".join(f"<sitemap><loc>{root}{part}</loc></sitemap>" for part in parts)
        return f'{_HEAD}<sitemapindex xmlns="{_SPACE}">{rows}</sitemapindex>'.encode()
    if name == "/sitemap-pages.xml":
        return _urls((f"{root}{path}", _LAST_CHANGED) for path in (*pages, _GONE))
    if name == "/sitemap-notices.xml.gz":
        notices = ((f"{root}/notices/{number}", notice_day(number)) for number in notice_numbers(edition))
        return gzip.compress(_urls(notices), mtime=0)
    return None


def _urls(rows: Iterable[tuple[str, date]]) -> bytes:
    entries = "".join(f"<url><loc>{place}</loc><lastmod>{day}</lastmod></url>" for place, day in rows)
    return f'{_HEAD}<urlset xmlns="{_SPACE}">{entries}</urlset>'.encode()
