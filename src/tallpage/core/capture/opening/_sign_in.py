"""Ways of being signed in on a page. What is secret never shows in a log or a message."""

from __future__ import annotations

import json
import tempfile
from dataclasses import dataclass, field
from http.cookiejar import LoadError, MozillaCookieJar
from typing import Any

from tallpage.core.errors import PageError

_MOST_STATE_BYTES = 2_000_000
_MOST_COOKIES = 2_000
_FIELDS_OF_A_COOKIE = 7
_SAME_SITE = {"strict": "Strict", "lax": "Lax", "none": "None", "no_restriction": "None"}


@dataclass(frozen=True, slots=True, kw_only=True)
class BasicSignIn:
    """A name and password that the server itself asks for (HTTP basic authentication)."""

    name: str
    password: str = field(repr=False)


@dataclass(frozen=True, slots=True, kw_only=True)
class FormSignIn:
    """A form on a page. Fields that are not told by a CSS selector are found by themselves."""

    address: str
    name: str
    password: str = field(repr=False)
    name_field: str = ""
    password_field: str = ""
    button: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class StateSignIn:
    """Cookies and stored values of a browser that is signed in already."""

    cookies: tuple[dict[str, Any], ...] = field(repr=False)
    origins: tuple[dict[str, Any], ...] = field(default=(), repr=False)


SignIn = BasicSignIn | FormSignIn | StateSignIn


def read_state(data: bytes) -> StateSignIn:
    """Cookies from a file: a storage state (JSON), a list of cookies (JSON), or ``cookies.txt``.

    Raises:
        PageError: it is none of these, or there is nothing in it.
    """
    if len(data) > _MOST_STATE_BYTES:
        raise _unreadable(f"A file of cookies has at most {_MOST_STATE_BYTES // 1_000_000} MB.")
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise _unreadable("The file of cookies is not text.") from error
    try:
        found = json.loads(text)
    except RecursionError as error:
        raise _unreadable("The file of cookies is nested too deeply.") from error
    except ValueError:
        return _checked(_from_text(text), [])
    if isinstance(found, list):
        return _checked(found, [])
    if isinstance(found, dict):
        return _checked(found.get("cookies", []), found.get("origins", []))
    raise _unreadable("The file holds no cookies.")


def _from_text(text: str) -> list[dict[str, Any]]:
    if not any(line.count("\t") >= _FIELDS_OF_A_COOKIE - 1 for line in text.splitlines()):
        raise _unreadable("The file holds no cookies.")
    jar = MozillaCookieJar()
    with tempfile.NamedTemporaryFile("w", encoding="utf-8", suffix=".txt") as file:
        # The reader insists on the first line that some programs leave out.
        file.write(text if text.startswith("#") else f"# Netscape HTTP Cookie File\n{text}")
        file.flush()
        try:
            jar.load(file.name, ignore_discard=True, ignore_expires=True)
        except (LoadError, OSError) as error:
            raise _unreadable("The file holds no cookies.") from error
    return [
        {
            "name": cookie.name,
            "value": cookie.value or "",
            "domain": cookie.domain,
            "path": cookie.path,
            "expires": cookie.expires or -1,
            "secure": cookie.secure,
        }
        for cookie in jar
    ]


def _checked(cookies: Any, origins: Any) -> StateSignIn:
    if not isinstance(cookies, list) or not isinstance(origins, list) or len(cookies) > _MOST_COOKIES:
        raise _unreadable("The file of cookies is not put together as it should be.")
    state = StateSignIn(
        cookies=tuple(_cookie(row) for row in cookies), origins=tuple(_origin(row) for row in origins)
    )
    if not state.cookies and not state.origins:
        raise _unreadable("The file holds no cookies.")
    return state


def _cookie(row: Any) -> dict[str, Any]:
    try:
        return {
            "name": str(row["name"]),
            "value": str(row["value"]),
            "domain": str(row["domain"]),
            "path": str(row.get("path") or "/"),
            "expires": float(row.get("expires") or row.get("expirationDate") or -1),
            "httpOnly": bool(row.get("httpOnly", False)),
            "secure": bool(row.get("secure", False)),
            "sameSite": _same_site(row),
        }
    except (KeyError, TypeError, ValueError, AttributeError) as error:
        raise _unreadable("A cookie of the file has no name, value or domain.") from error


def _same_site(row: dict[str, Any]) -> str:
    said = _SAME_SITE.get(str(row.get("sameSite") or "").lower(), "Lax")
    # A browser refuses a cookie that goes to every site and is not kept to safe connections.
    return "Lax" if said == "None" and not row.get("secure") else said


def _origin(row: Any) -> dict[str, Any]:
    try:
        values = [
            {"name": str(pair["name"]), "value": str(pair["value"])} for pair in row.get("localStorage", [])
        ]
        return {"origin": str(row["origin"]), "localStorage": values}
    except (KeyError, TypeError, AttributeError) as error:
        raise _unreadable("A stored value of the file has no origin, name or value.") from error


def _unreadable(sentence: str) -> PageError:
    return PageError(
        sentence,
        hint="Give a storage state or a list of cookies as JSON, or a cookies.txt.",
        code="sign_in_unreadable",
    )


_SHORT_CHARS, _BRIEF_CHARS = 3_000, 800
"""A page that says more is one that has a sign-in form besides; one that says less is little else."""


def looks_like_sign_in(*, asked: str, final: str, status: int, password_fields: int, text_chars: int) -> bool:
    """Whether a page that was met asks to be signed in, instead of being what was asked for.

    A page that was asked for as a sign-in page is one; nothing is wrong with that.
    """
    if status == 401:
        return True
    if password_fields != 1:
        return False
    led_elsewhere = asked.partition("#")[0].rstrip("/") != final.partition("#")[0].rstrip("/")
    if status == 403 or (led_elsewhere and text_chars < _SHORT_CHARS):
        return True
    return text_chars < _BRIEF_CHARS and not _names_it(asked)


def _names_it(address: str) -> bool:
    path = address.partition("://")[2].partition("/")[2].lower()
    return any(word in path for word in ("login", "logon", "signin", "sign-in", "sign_in", "auth", "account"))
