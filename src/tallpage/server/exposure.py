"""Who can reach this server, and what follows from it."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from django.http import HttpRequest, HttpResponse

OPEN_FLAG = "TALLPAGE_OPEN_TO_NETWORK"
NOT_ALONE = (
    "{host} can be reached from other machines, and Tall Page asks nobody to sign in: whoever reaches it "
    "sees, changes and deletes everything.\n"
    "Listen on 127.0.0.1 behind a server of your own with sign-in and TLS, or set {flag}=1 if that is "
    "what you want."
)


def allows_private(told: str, *, loopback: bool, other_hosts: Sequence[str]) -> bool:
    """Whether pages of this machine and of private networks may be taken.

    ``told`` is TALLPAGE_ALLOW_PRIVATE: 1 or 0 is obeyed. Without it, they may be taken where only
    this machine reaches the server: on loopback, and under no further host name.
    """
    if told in ("0", "1"):
        return told == "1"
    return loopback and not other_hosts


def refusal_to_start(host: str, *, loopback: bool, told_open: str) -> str:
    """Why the server does not start there; empty when it does."""
    return "" if loopback or told_open == "1" else NOT_ALONE.format(host=host, flag=OPEN_FLAG)


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
