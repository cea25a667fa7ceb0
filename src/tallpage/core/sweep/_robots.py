"""What a host asks of programmes (RFC 9309)."""

from __future__ import annotations

from urllib.parse import urlsplit, urlunsplit

from protego import Protego

from tallpage.core.errors import TallPageError
from tallpage.core.sweep._fetching import Fetch

AGENT = "TallPage"


class Robots:
    """The ``robots.txt`` of each host, fetched once; where there is none, everything is welcome."""

    def __init__(self, fetch: Fetch) -> None:
        self._fetch = fetch
        self._rules: dict[str, tuple[Protego, str]] = {}

    def allows(self, address: str) -> bool:
        """Whether the host lets this page be taken by a programme."""
        return bool(self._of(address)[0].can_fetch(address, AGENT))

    def text(self, address: str) -> str:
        """The file as it stands, for a person to read; empty where there is none."""
        return self._of(address)[1]

    def _of(self, address: str) -> tuple[Protego, str]:
        parts = urlsplit(address)
        if parts.netloc not in self._rules:
            text = self._fetched(urlunsplit((parts.scheme, parts.netloc, "/robots.txt", "", "")))
            self._rules[parts.netloc] = (Protego.parse(text), text)
        return self._rules[parts.netloc]

    def _fetched(self, address: str) -> str:
        try:
            answer = self._fetch(address)
        except TallPageError:
            return ""  # the pages themselves will tell that nobody answers
        if answer.status != 200 or "html" in answer.media_type:
            return ""
        return answer.data[:500_000].decode("utf-8", errors="replace")
