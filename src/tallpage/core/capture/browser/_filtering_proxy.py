"""A proxy on loopback that only connects to public addresses.

A browser that opens strangers' pages for strangers must not open its own network to them: not by an
address, not by a redirect, not by a picture in a page, and not by a name that answers differently
between look-up and use. So the browser connects nowhere itself. The filtering proxy looks each name up once,
checks every address it stands for, and connects to the very address it checked.
"""

from __future__ import annotations

import ipaddress
import re
import selectors
import socket
import socketserver
import threading
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass
from types import TracebackType
from typing import Self
from urllib.parse import urlsplit

Allows = Callable[[str, str], bool]
"""Whether a host may be opened at an IP address that it stands for."""

_MOST_HEAD_BYTES = 65_536
_CONNECT_SECONDS = 15.0
_IDLE_SECONDS = 120.0
_END_SEEN_AFTER_SECONDS = 0.05
_PIECE_BYTES = 65_536
_REQUEST_LINE = re.compile(rb"([A-Z]+) (\S+) (HTTP/1\.[01])\r\n")
_CONNECTION_HEADER = re.compile(rb"(?im)^(?:proxy-)?connection:[^\r\n]*\r\n")
_REFUSED = b"HTTP/1.1 403 Forbidden\r\nContent-Length: 0\r\nConnection: close\r\n\r\n"
UNREACHABLE_HEADER = "tall-page-unreachable"
"""Tells an answer of ours from a page's own."""
_UNREACHABLE = (
    b"HTTP/1.1 502 Bad Gateway\r\nTall-Page-Unreachable: yes\r\n"
    b"Content-Length: 0\r\nConnection: close\r\n\r\n"
)
_MALFORMED = b"HTTP/1.1 400 Bad Request\r\nContent-Length: 0\r\nConnection: close\r\n\r\n"


_CARRIES_IPV4_AT_ITS_END = tuple(
    ipaddress.IPv6Network(text) for text in ("64:ff9b::/96", "64:ff9b:1::/48", "::ffff:0:0:0/96", "::/96")
)
"""NAT64 (RFC 6052, RFC 8215), IPv4-translated (RFC 2765) and IPv4-compatible (RFC 4291) addresses."""
_6TO4, _SITE_LOCAL = ipaddress.IPv6Network("2002::/16"), ipaddress.IPv6Network("fec0::/10")


def is_public(address: str) -> bool:
    """Whether an IP address belongs to the public network, and so does an IPv4 address inside it."""
    found = ipaddress.ip_address(address)
    if found.is_multicast:
        return False
    if isinstance(found, ipaddress.IPv4Address):
        return found.is_global
    if found in _SITE_LOCAL:
        return False
    inner = _ipv4_within(found)
    if inner is not None:
        return is_public(str(inner))
    return found.is_global


def _ipv4_within(address: ipaddress.IPv6Address) -> ipaddress.IPv4Address | None:
    """The IPv4 address that an IPv6 address leads to."""
    if address.ipv4_mapped is not None:
        return address.ipv4_mapped
    if address in _6TO4:
        return address.sixtofour
    if any(address in network for network in _CARRIES_IPV4_AT_ITS_END):
        return ipaddress.IPv4Address(int(address) & 0xFFFF_FFFF)
    return None


@dataclass(frozen=True, slots=True)
class PrivateHosts:
    """Names, addresses and networks that may be opened although they are private."""

    names: frozenset[str] = frozenset()
    networks: tuple[ipaddress.IPv4Network | ipaddress.IPv6Network, ...] = ()

    @classmethod
    def parse(cls, text: str) -> Self:
        """From ``intranet.example, 10.1.0.0/16``: separated by commas or spaces."""
        names, networks = set(), []
        for part in text.replace(",", " ").split():
            try:
                networks.append(ipaddress.ip_network(part, strict=False))
            except ValueError:
                names.add(part.lower())
        return cls(names=frozenset(names), networks=tuple(networks))

    def allows(self, host: str, address: str) -> bool:
        """Whether ``host`` may be opened at ``address``: it is public, or listed."""
        found = ipaddress.ip_address(address)
        return (
            is_public(address)
            or host.lower() in self.names
            or any(found in network for network in self.networks)
        )


class FilteringProxy:
    """The proxy while it runs; ``refused`` names the hosts that were asked for and not opened."""

    def __init__(self, allows: Allows = PrivateHosts().allows) -> None:
        self.refused: set[str] = set()
        self._allows = allows
        self._server = _Server(self)

    def __enter__(self) -> Self:
        serve = {"poll_interval": _END_SEEN_AFTER_SECONDS}
        threading.Thread(
            target=self._server.serve_forever, kwargs=serve, name="filtering_proxy", daemon=True
        ).start()
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        self._server.shutdown()
        self._server.server_close()

    @property
    def address(self) -> str:
        """Where the browser finds it."""
        return f"http://127.0.0.1:{self._server.server_address[1]}"

    def connect(self, host: str, port: int) -> socket.socket | None:
        """A connection to ``host``, or None when any address it stands for is not allowed.

        Raises:
            OSError: the name is not known, or nobody answers.
        """
        rows = socket.getaddrinfo(host, port, type=socket.SOCK_STREAM)
        if not all(self._allows(host, str(row[4][0])) for row in rows):
            self.refused.add(host)
            return None
        return socket.create_connection((str(rows[0][4][0]), port), timeout=_CONNECT_SECONDS)


class _Server(socketserver.ThreadingTCPServer):
    daemon_threads = True
    allow_reuse_address = True

    def __init__(self, filtering_proxy: FilteringProxy) -> None:
        super().__init__(("127.0.0.1", 0), _Passing)
        self.filtering_proxy = filtering_proxy


class _Passing(socketserver.BaseRequestHandler):
    server: _Server

    def handle(self) -> None:
        """Read what is asked for, connect if that is allowed, then pass bytes both ways."""
        client: socket.socket = self.request
        client.settimeout(_IDLE_SECONDS)
        with suppress(OSError):
            head, rest = _read_head(client)
            asked = _destination(head)
            if asked is None:
                client.sendall(_MALFORMED)
                return
            host, port, forwarded = asked
            try:
                upstream = self.server.filtering_proxy.connect(host, port)
            except OSError:
                client.sendall(_UNREACHABLE)
                return
            if upstream is None:
                client.sendall(_REFUSED)
                return
            with upstream:
                if forwarded is None:
                    client.sendall(b"HTTP/1.1 200 Connection established\r\n\r\n")
                else:
                    upstream.sendall(forwarded)
                upstream.sendall(rest)
                _pass_both_ways(client, upstream)


def _read_head(client: socket.socket) -> tuple[bytes, bytes]:
    """The request's line and headers, and what came of the body already."""
    data = b""
    while b"\r\n\r\n" not in data:
        piece = client.recv(_PIECE_BYTES)
        if not piece or len(data) > _MOST_HEAD_BYTES:
            return b"", b""
        data += piece
    head, _, rest = data.partition(b"\r\n\r\n")
    return head + b"\r\n\r\n", rest


def _destination(head: bytes) -> tuple[str, int, bytes | None] | None:
    """Host, port, and what to send there first (None for a tunnel); None for what is no request."""
    line = _REQUEST_LINE.match(head)
    if line is None:
        return None
    method, target = line[1], line[2].decode("latin-1")
    try:
        parts = urlsplit(f"//{target}" if method == b"CONNECT" else target)
        host, port = parts.hostname, parts.port
    except ValueError:
        return None
    if not host:
        return None
    if method == b"CONNECT":
        return host, port or 443, None
    if parts.scheme not in ("http", "ws"):
        return None
    path = (parts.path or "/") + (f"?{parts.query}" if parts.query else "")
    headers = _CONNECTION_HEADER.sub(b"", head[line.end() :])
    upgrading = b"\r\nupgrade:" in head.lower()
    connection = b"Connection: Upgrade\r\n" if upgrading else b"Connection: close\r\n"
    first = b"%s %s %s\r\n" % (method, path.encode("latin-1"), line[3])
    return host, port or 80, first + connection + headers


def _pass_both_ways(client: socket.socket, upstream: socket.socket) -> None:
    """Until both have said all, or nothing was said for two minutes."""
    upstream.settimeout(_IDLE_SECONDS)
    with selectors.DefaultSelector() as watch:
        watch.register(client, selectors.EVENT_READ, upstream)
        watch.register(upstream, selectors.EVENT_READ, client)
        while watch.get_map():
            ready = watch.select(timeout=_IDLE_SECONDS)
            if not ready:
                return
            for key, _ in ready:
                source, target = key.fileobj, key.data
                piece = source.recv(_PIECE_BYTES)  # type: ignore[union-attr]  # only sockets are registered
                if piece:
                    target.sendall(piece)
                    continue
                watch.unregister(source)
                if source is upstream:
                    return
                with suppress(OSError):
                    target.shutdown(socket.SHUT_WR)
