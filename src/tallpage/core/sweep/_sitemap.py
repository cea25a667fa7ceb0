"""Pages out of a sitemap (sitemaps.org): XML, gzipped, plain text, or an index of others."""

from __future__ import annotations

import io
import time
import zlib
from collections import deque
from collections.abc import Iterator
from dataclasses import dataclass
from urllib.parse import urljoin, urlsplit
from xml.etree.ElementTree import ParseError

from defusedxml import ElementTree
from defusedxml.common import DefusedXmlException

from tallpage.core.capture import normalise_address
from tallpage.core.errors import AddressError, ListError, TallPageError
from tallpage.core.sweep._fetching import MOST_FETCHED_BYTES, Fetch, Fetched
from tallpage.core.sweep._pages import MOST_PAGES, Found
from tallpage.core.sweep._pasted import looks_like_address

_MOST_FILES = 200
_MOST_DEPTH = 4
_TIMEOUT_S = 120
_GZIP_START = b"\x1f\x8b"
_WRONG = "list_not_a_sitemap"


@dataclass(frozen=True, slots=True, kw_only=True)
class Sitemap:
    """Pages of a sitemap and of those it names, and what could not be read of them."""

    found: tuple[Found, ...]
    files: int
    problems: tuple[str, ...]


def read_sitemap(address: str, fetch: Fetch, *, timeout_s: float = _TIMEOUT_S) -> Sitemap:
    """Read a sitemap, or an index of sitemaps, each file once, down to four levels.

    What is wrong with a file further down is a problem of the result, as is what was not begun
    within ``timeout_s``.

    Raises:
        ListError: the first file is not a sitemap.
        PageUnreachable: it does not answer.
    """
    queue = deque([(address, 0)])
    seen = {address}
    found: list[Found] = []
    problems: list[str] = []
    files = 0
    last_s = time.monotonic() + timeout_s
    while queue and len(found) < MOST_PAGES:
        if files and time.monotonic() > last_s:
            problems.append(f"{len(queue)} more files were not read: it took over {timeout_s:g} s.")
            break
        current, depth = queue.popleft()
        files += 1
        try:
            pages, further = _read_one(fetch(current))
        except TallPageError as error:
            if current == address:
                raise
            problems.append(error.sentence)
            continue
        found += [
            Found(text=row.text, line=len(found) + number, modified=row.modified)
            for number, row in enumerate(pages, start=1)
        ]
        for link in further:
            target = _usable(urljoin(current, link.strip()))
            if target is None or target in seen:
                continue
            if depth + 1 >= _MOST_DEPTH or len(seen) >= _MOST_FILES:
                problems.append(f"{target} was not read: the index leads too far.")
                continue
            seen.add(target)
            queue.append((target, depth + 1))
    return Sitemap(found=tuple(found[:MOST_PAGES]), files=files, problems=tuple(problems))


def _usable(address: str) -> str | None:
    try:
        return normalise_address(address) if address.startswith(("http://", "https://")) else None
    except AddressError:
        return None


def _read_one(answer: Fetched) -> tuple[list[Found], list[str]]:
    """``(pages, further sitemaps)`` of one file."""
    if answer.status != 200:
        raise ListError(f"{answer.address} answers {answer.status}.", hint="Check the address.", code=_WRONG)
    data = _unpacked(answer)
    start = data.lstrip(b"\xef\xbb\xbf \t\r\n")[:1_000].lower()
    if start.startswith((b"<!doctype html", b"<html")):
        raise ListError(
            f"{answer.address} is a page, not a sitemap.",
            hint="Give the address of the sitemap itself, or take the links of this page.",
            code=_WRONG,
        )
    if not start.startswith(b"<"):
        return _plain(data, answer), []
    pages: list[Found] = []
    further: list[str] = []
    try:
        for kind, values in _entries(data):
            location = values.get("loc", "").strip()
            if location and kind == "url":
                pages.append(Found(text=location, line=0, modified=values.get("lastmod", "").strip()[:10]))
            elif location:
                further.append(location)
    except (ParseError, DefusedXmlException, ValueError) as error:
        raise ListError(
            f"{answer.address} is not well-formed XML, or not safe to read.", code=_WRONG
        ) from error
    return pages, further


def _entries(data: bytes) -> Iterator[tuple[str, dict[str, str]]]:
    """``("url" or "sitemap", {child: text})``, read without holding the tree; of other spaces nothing."""
    root_kinds = {"urlset", "sitemapindex"}
    root = None
    for event, element in ElementTree.iterparse(io.BytesIO(data), events=("start", "end"), forbid_dtd=False):
        space, _, name = element.tag.rpartition("}")
        if root is None:
            root = element
            if name not in root_kinds:
                raise ValueError(f"a {name} is not a sitemap")
        if event == "end" and name in ("url", "sitemap"):
            own = f"{space}}}" if space else ""
            yield (
                name,
                {
                    child.tag.removeprefix(own): child.text or ""
                    for child in element
                    if child.tag.startswith(own) and "}" not in child.tag.removeprefix(own)
                },
            )
            root.clear()


def _plain(data: bytes, answer: Fetched) -> list[Found]:
    """One address a line."""
    lines = [line.strip() for line in data.decode("utf-8", errors="replace").splitlines()]
    filled = [line for line in lines if line]
    if not filled or not all(looks_like_address(line) for line in filled[:20]):
        raise ListError(
            f"{answer.address} is not a sitemap.",
            hint="Give the address of an XML or text sitemap.",
            code=_WRONG,
        )
    return [Found(text=line, line=0) for line in filled]


def _unpacked(answer: Fetched) -> bytes:
    """The file, unpacked when it is gzipped, as far as that stays within bounds."""
    if not answer.data.startswith(_GZIP_START):
        return answer.data
    unpacker = zlib.decompressobj(wbits=31)
    try:
        data = unpacker.decompress(answer.data, MOST_FETCHED_BYTES)
    except zlib.error as error:
        raise ListError(f"{answer.address} is a damaged gzip file.", code=_WRONG) from error
    if not unpacker.eof and not unpacker.unconsumed_tail:
        raise ListError(f"{answer.address} is a gzip file that was cut off, not a sitemap.", code=_WRONG)
    if unpacker.unconsumed_tail:
        raise ListError(
            f"{answer.address} unpacks to over {MOST_FETCHED_BYTES // 1_000_000} MB.", code="list_too_large"
        )
    return data


def sitemap_like(address: str) -> bool:
    """Whether an address reads like that of a sitemap rather than of a page."""
    path = urlsplit(address).path.lower()
    return "sitemap" in path.rpartition("/")[2] or path.endswith((".xml", ".xml.gz"))
