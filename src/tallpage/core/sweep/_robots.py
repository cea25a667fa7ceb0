"""What a host asks of programmes (RFC 9309)."""

from __future__ import annotations

from urllib.parse import urlsplit, urlunsplit

from protego import Protego

from tallpage.core.errors import TallPageError
from tallpage.core.sweep._fetching import Fetch

AGENT = "TallPage"


_NOTHING_ALLOWED = "User-agent: *\nDisallow: /"
_SERVER_ERROR = 500


class Robots:
    """The ``robots.txt`` of each host, fetched once.

    Where there is none, everything is welcome. Where it cannot be asked for, nothing is: the host may
    forbid it. Source: RFC 9309, 2.3.1.3 and 2.3.1.4.
    """

    def __init__(self, fetch: Fetch) -> None:
        self._fetch = fetch
        self._rules: dict[str, tuple[Protego, str]] = {}
        self._problems: list[str] = []

    def allows(self, address: str) -> bool:
        """Whether the host lets this page be taken by a programme."""
        return bool(self._of(address)[0].can_fetch(address, AGENT))

    def text(self, address: str) -> str:
        """The file as it stands, for a person to read; empty where there is none."""
        return self._of(address)[1]

    @property
    def problems(self) -> tuple[str, ...]:
        """A sentence for each host asked so far whose file could not be read."""
        return tuple(self._problems)

    def _of(self, address: str) -> tuple[Protego, str]:
        parts = urlsplit(address)
        if parts.netloc not in self._rules:
            found = self._fetched(urlunsplit((parts.scheme, parts.netloc, "/robots.txt", "", "")))
            rules = _NOTHING_ALLOWED if found is None else found
            self._rules[parts.netloc] = (Protego.parse(rules), found or "")
        return self._rules[parts.netloc]

    def _fetched(self, address: str) -> str | None:
        """The file, empty where there is none; None where that cannot be known."""
        try:
            answer = self._fetch(address)
        except TallPageError as error:
            self._note_unknown(address, error.sentence)
            return None
        if answer.status >= _SERVER_ERROR:
            self._note_unknown(address, f"It answered {answer.status}.")
            return None
        if answer.status != 200 or "html" in answer.media_type:
            return ""
        return answer.data[:500_000].decode("utf-8", errors="replace")

    def _note_unknown(self, address: str, why: str) -> None:
        self._problems.append(
            f"{address} could not be read, so the pages of {urlsplit(address).netloc} count as blocked by "
            f"it. {why}"
        )
