"""Small files from the web: sitemaps, ``robots.txt``, the source of a page."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import urllib3
from urllib3.exceptions import HTTPError

from tallpage.core.errors import ListError, PageUnreachable

MOST_FETCHED_BYTES = 52_000_000  # a sitemap may have 50 MB, says sitemaps.org
_TIMES = urllib3.Timeout(connect=10, read=20)
_MOST_REDIRECTS = 5
_PIECE_BYTES = 65_536
_HEADERS = {"User-Agent": "TallPage/0.1", "Accept-Encoding": "gzip, deflate"}


@dataclass(frozen=True, slots=True, kw_only=True)
class Fetched:
    """What an address answered; ``address`` is the last of the redirects."""

    address: str
    status: int
    media_type: str
    data: bytes


Fetch = Callable[[str], Fetched]


def fetcher(*, proxy: str | None = None) -> Fetch:
    """A function that fetches an http(s) address, through ``proxy`` when one stands guard.

    It raises :class:`PageUnreachable` where nobody answers, :class:`ListError` where the answer is
    too large. Other answers than 200 are answers.
    """
    retries = urllib3.Retry(connect=1, read=0, redirect=_MOST_REDIRECTS, status=0, other=0)
    pool = (
        urllib3.ProxyManager(proxy, timeout=_TIMES, retries=retries, headers=_HEADERS)
        if proxy
        else urllib3.PoolManager(timeout=_TIMES, retries=retries, headers=_HEADERS)
    )

    def fetch(address: str) -> Fetched:
        try:
            answer = pool.request("GET", address, preload_content=False)
        except HTTPError as error:
            raise PageUnreachable(f"{address} does not answer.") from error
        try:
            data = bytearray()
            for piece in answer.stream(_PIECE_BYTES, decode_content=True):
                data += piece
                if len(data) > MOST_FETCHED_BYTES:
                    raise ListError(
                        f"{address} is over {MOST_FETCHED_BYTES // 1_000_000} MB.", code="list_too_large"
                    )
        except HTTPError as error:
            raise PageUnreachable(f"{address} broke off.") from error
        finally:
            answer.release_conn()
        return Fetched(
            address=answer.geturl() or address,
            status=answer.status,
            media_type=answer.headers.get("Content-Type", "").partition(";")[0].strip().lower(),
            data=bytes(data),
        )

    return fetch
