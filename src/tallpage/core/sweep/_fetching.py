"""Small files from the web: sitemaps, ``robots.txt``, the source of a page."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import dataclass
from urllib.parse import urljoin, urlsplit, urlunsplit

import urllib3
from urllib3.exceptions import HTTPError

from tallpage.core.capture import UNREACHABLE_HEADER, FilteringProxy, private_address
from tallpage.core.errors import ListError, PageUnreachable

MOST_FETCHED_BYTES = 52_000_000  # a sitemap may have 50 MB, says sitemaps.org
_TIMES = urllib3.Timeout(connect=10, read=20)
_MOST_REDIRECTS = 5
_TIMEOUT_S = 60
"""For one whole file: an answer that drips would else hold its reader for hours."""
_PIECE_BYTES = 65_536
_FORBIDDEN = 403
_HEADERS = {"User-Agent": "TallPage/0.1", "Accept-Encoding": "gzip, deflate"}


@dataclass(frozen=True, slots=True, kw_only=True)
class Fetched:
    """What an address answered; ``address`` is the last of the redirects."""

    address: str
    status: int
    media_type: str
    data: bytes


Fetch = Callable[[str], Fetched]


def fetcher(*, filtering_proxy: FilteringProxy | None = None, timeout_s: float = _TIMEOUT_S) -> Fetch:
    """A function that fetches an http(s) address; past a ``filtering_proxy`` (it runs already), if any.

    It raises :class:`PageUnreachable` where nobody answers, or not to the end within ``timeout_s``,
    and :class:`ListError` where the answer is too large. Other answers than 200 are answers. What the
    filtering_proxy refuses to open is an :class:`AddressError`.
    """
    retries = urllib3.Retry(connect=1, read=0, redirect=_MOST_REDIRECTS, status=0, other=0)
    pool = (
        urllib3.ProxyManager(filtering_proxy.address, timeout=_TIMES, retries=retries)
        if filtering_proxy
        else urllib3.PoolManager(timeout=_TIMES, retries=retries)
    )

    def fetch(address: str) -> Fetched:
        opened, headers = (address, _HEADERS) if filtering_proxy else _by_loopback(address)
        last_s = time.monotonic() + timeout_s
        if filtering_proxy:
            filtering_proxy.refused.clear()
        try:
            answer = pool.request("GET", opened, headers=headers, preload_content=False)
        except HTTPError as error:
            _require_not_refused(filtering_proxy)
            raise PageUnreachable(f"{address} does not answer.") from error
        try:
            if answer.status == _FORBIDDEN:
                _require_not_refused(filtering_proxy)
            if filtering_proxy and UNREACHABLE_HEADER in answer.headers:
                raise PageUnreachable(f"{address} does not answer.")
            data = bytearray()
            while piece := answer.read1(_PIECE_BYTES, decode_content=True):
                data += piece
                if time.monotonic() > last_s:
                    raise PageUnreachable(f"{address} answers too slowly: it took over {timeout_s:g} s.")
                if len(data) > MOST_FETCHED_BYTES:
                    raise ListError(
                        f"{address} is over {MOST_FETCHED_BYTES // 1_000_000} MB.", code="list_too_large"
                    )
        except HTTPError as error:
            raise PageUnreachable(f"{address} broke off.") from error
        finally:
            answer.close()
        return Fetched(
            address=address if answer.geturl() in (None, opened) else urljoin(opened, answer.geturl()),
            status=answer.status,
            media_type=answer.headers.get("Content-Type", "").partition(";")[0].strip().lower(),
            data=bytes(data),
        )

    return fetch


def _require_not_refused(filtering_proxy: FilteringProxy | None) -> None:
    if filtering_proxy and filtering_proxy.refused:
        raise private_address(sorted(filtering_proxy.refused)[0])


def _by_loopback(address: str) -> tuple[str, dict[str, str]]:
    """``(address to connect to, headers)``: names below ``localhost`` are this machine (RFC 6761),
    which browsers know and the system's resolver often does not."""
    parts = urlsplit(address)
    if not (parts.hostname or "").endswith(".localhost"):
        return address, _HEADERS
    place = f"127.0.0.1:{parts.port}" if parts.port else "127.0.0.1"
    return urlunsplit(parts._replace(netloc=place)), {**_HEADERS, "Host": parts.netloc}
