"""Requests to places: one try each, and every failure in our words."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import urllib3
from urllib3.exceptions import HTTPError, NewConnectionError
from urllib3.exceptions import TimeoutError as WebTimeoutError

from tallpage.core.errors import HandOverError
from tallpage.core.uploads._answer import Answer

CONNECT_S, ANSWER_S = 10.0, 20.0
_MOST_ANSWER_BYTES = 1_000_000
_pool = urllib3.PoolManager(retries=False)


def require_web(address: str) -> str:
    """The address itself, if it is one of the web.

    Raises:
        HandOverError: it is not.
    """
    try:
        parts = urllib3.util.parse_url(address)
    except urllib3.exceptions.LocationParseError:
        parts = None
    if parts is None or parts.scheme not in ("http", "https") or not parts.host or parts.auth:
        raise HandOverError(
            f"“{address[:200]}” is no address that files can be sent to.",
            hint="Give one that begins with https:// or http://, without a name or password in it.",
            code="upload_address",
        )
    return address


def ask(
    method: str,
    address: str,
    *,
    headers: Mapping[str, str],
    body: bytes | None = None,
    fields: Mapping[str, Any] | None = None,
    timeout_s: float = ANSWER_S,
    most_bytes: int = _MOST_ANSWER_BYTES,
) -> tuple[int, Mapping[str, str], bytes] | Answer:
    """Status, headers and body; or what kept the place from answering. No redirection is followed.

    Of the body at most ``most_bytes`` are read.
    """
    timeout = urllib3.Timeout(connect=min(CONNECT_S, timeout_s), read=timeout_s)
    given: dict[str, Any] = {"fields": dict(fields)} if fields is not None else {"body": body}
    try:
        answer = _pool.request(
            method,
            address,
            headers=dict(headers),
            timeout=timeout,
            redirect=False,
            preload_content=False,
            **given,
        )
        try:
            return answer.status, answer.headers, answer.read(most_bytes)
        finally:
            answer.close()
    except NewConnectionError:  # which counts as a timeout to the library
        return Answer(outcome="broken_off")
    except WebTimeoutError:
        return Answer(outcome="slow")
    except (HTTPError, OSError):
        return Answer(outcome="broken_off")
