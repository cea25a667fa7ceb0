"""Who can reach this server, and what follows from it."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from django.http import HttpRequest, HttpResponse

NO_ACCOUNT = (
    "Whoever comes to Tall Page at {where} has to sign in, and there is no account to sign in with.\n"
    "Make one first: tallpage user add NAME. Or listen on 127.0.0.1 only, without TALLPAGE_ALLOWED_HOSTS "
    "and TALLPAGE_ACCOUNTS."
)


def allows_private(told: str, *, loopback: bool, other_hosts: Sequence[str]) -> bool:
    """Whether pages of this machine and of private networks may be taken.

    ``told`` is TALLPAGE_ALLOW_PRIVATE: 1 or 0 is obeyed. Without it, they may be taken where only
    this machine reaches the server: on loopback, and under no further host name.
    """
    if told in ("0", "1"):
        return told == "1"
    return loopback and not other_hosts


def refusal_to_start(where: str, *, accounts_needed: bool, has_account: bool) -> str:
    """Why the server does not start there; empty when it does."""
    return NO_ACCOUNT.format(where=where) if accounts_needed and not has_account else ""


def same_origin_resources(
    respond: Callable[[HttpRequest], HttpResponse],
) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware: pictures of other people's pages are not embedded by other sites."""

    def responding(request: HttpRequest) -> HttpResponse:
        response = respond(request)
        response.headers.setdefault("Cross-Origin-Resource-Policy", "same-origin")
        return response

    return responding


def secure_cookies(respond: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware: what was asked for over TLS sets cookies that only go back over TLS."""

    def responding(request: HttpRequest) -> HttpResponse:
        response = respond(request)
        if request.is_secure():
            for cookie in response.cookies.values():
                cookie["secure"] = True
        return response

    return responding
