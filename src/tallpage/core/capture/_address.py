"""What counts as an address, and which hosts may be opened."""

from __future__ import annotations

import re
import socket
from urllib.parse import urlsplit, urlunsplit

from tallpage.core.capture.browser._filtering_proxy import PrivateHosts
from tallpage.core.errors import AddressError, PageUnreachable

_MAX_ADDRESS_CHARS = 4_096
_SCHEME = re.compile(r"([a-z][a-z0-9+.-]*):", re.IGNORECASE)
_HOST_AND_PORT = re.compile(r"[^/?#@\s]+:\d{1,5}([/?#].*)?", re.DOTALL)
_HOST_CHARS = re.compile(r"[\w.-]+|[0-9a-f:.]+", re.IGNORECASE)


def normalise_address(text: str) -> str:
    """A full http or https address from what a person typed or pasted.

    A missing scheme becomes ``https``, or ``http`` for this machine (``localhost``, loopback).

    Raises:
        AddressError: empty, malformed, over 4,096 characters, or of another kind than http(s).
    """
    typed = text.strip()
    if not typed:
        raise AddressError("There is no address.", code="address_empty")
    if len(typed) > _MAX_ADDRESS_CHARS:
        raise AddressError(f"The address is over {_MAX_ADDRESS_CHARS} characters long.")
    if any("\ud800" <= character <= "\udfff" for character in typed):
        raise AddressError("The address holds half of a character.", hint="Copy it anew.")
    if any(character.isspace() or ord(character) < 32 for character in typed):
        raise AddressError(f"“{typed[:80]}” is not an address: it holds spaces or line breaks.")
    scheme = _SCHEME.match(typed)
    if scheme and not _HOST_AND_PORT.fullmatch(typed):
        if scheme[1].lower() not in ("http", "https"):
            raise AddressError(
                f"“{scheme[1].lower()}:” addresses are never opened.",
                hint="Only http and https pages are taken. To bring in a file, drop the picture itself.",
                code="address_scheme",
            )
        full = typed
    else:
        full = f"{'http' if _names_this_machine(typed) else 'https'}://{typed}"
    return _checked(full, typed)


def _names_this_machine(typed: str) -> bool:
    host = re.split(r"[/?#:]", typed, maxsplit=1)[0].lower()
    return host == "localhost" or host.endswith(".localhost") or host.startswith("127.")


def _checked(full: str, typed: str) -> str:
    malformed = AddressError(f"“{typed[:80]}” is not an address.")
    try:
        parts = urlsplit(full)
        host, port = parts.hostname or "", parts.port
    except ValueError as error:
        raise malformed from error
    if not host or not _HOST_CHARS.fullmatch(host) or ".." in host or host.startswith((".", "-")):
        raise malformed
    if port == 0:
        raise malformed
    return urlunsplit((parts.scheme.lower(), parts.netloc, parts.path or "/", parts.query, parts.fragment))


def require_public(address: str, listed: PrivateHosts) -> None:
    """Refuse an address on this machine or a private network that is not listed.

    Raises:
        AddressError: the host stands for a private address.
        PageUnreachable: the name is not known.
    """
    host = urlsplit(address).hostname or ""
    try:
        found = socket.getaddrinfo(host, None, type=socket.SOCK_STREAM)
    except OSError as error:
        raise PageUnreachable(f"The host {host} is not known.", code="page_host_unknown") from error
    if not all(listed.allows(host, str(row[4][0])) for row in found):
        raise private_address(host)


def private_address(host: str) -> AddressError:
    """What is said of a host on a private network where the policy refuses those."""
    return AddressError(
        f"{host} is on a private network, which this server does not open.",
        hint="Run Tall Page on your own machine, or list the host in TALLPAGE_PRIVATE_HOSTS on the server.",
        code="address_private",
    )
