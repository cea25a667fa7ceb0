"""Nobody comes in who may not: the check before every view."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any
from urllib.parse import urlencode

from django.conf import settings
from django.http import HttpRequest, HttpResponse, HttpResponseRedirect
from django.http.response import HttpResponseBase

from tallpage.server.people.access import need_of, only_reads
from tallpage.server.people.models import Token
from tallpage.server.people.roles import Role, role_of
from tallpage.server.people.tokens import token_of
from tallpage.server.problems import problem

SIGN_IN = "/account/sign-in"
_BEARER = "Bearer "
_ADMIN = "admin/"


class Guard:
    """Middleware: asks for an account, and for what the address asks of it, wherever accounts are needed."""

    def __init__(self, respond: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self._respond = respond

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """Go on to the view."""
        return self._respond(request)

    def process_view(
        self, request: HttpRequest, _view: object, _args: object, _kwargs: object
    ) -> HttpResponseBase | None:
        """Refuse, or None to go on. Django's own administration asks for itself.

        Where nobody has to sign in, a script may: what its token does not allow is refused there too.
        """
        match = request.resolver_match
        route = match.route if match else ""
        if route.startswith(_ADMIN):
            return None
        need = need_of(route, request.method or "GET")
        if need == "anybody":
            return None
        token = _said_token(request)
        if token is not None:
            request.user = token.user
            request.token = token  # type: ignore[attr-defined]
            if _only_reads(token) and not only_reads(route, request.method or "GET"):
                return _refused("This token is for reading.", "Make one with --scope all.")
        if not settings.ACCOUNTS:
            return None
        if not request.user.is_authenticated:
            return _to_sign_in(request, route)
        if need is None:
            return problem(403, "no_rule", "That address lets nobody in.")
        if need == "producer" and role_of(request.user) == "viewer":
            return _refused(
                "With this account you can look, search and save files.", "Ask a producer to change that."
            )
        return None


def is_token(request: HttpRequest) -> bool:
    """Whether a script has signed in by a token: no other site can make a browser send one."""
    return getattr(request, "token", None) is not None


def person_of(request: HttpRequest) -> str:
    """Who asks, for the log; empty on a machine of one's own, where nobody signs in."""
    known = settings.ACCOUNTS or is_token(request)
    return request.user.get_username() if known and request.user.is_authenticated else ""


def role_here(request: HttpRequest) -> Role:
    """The role of whoever asks. Where nobody signs in that is a producer, but for a script that reads."""
    if _only_reads(getattr(request, "token", None)):
        return "viewer"
    return role_of(request.user) if settings.ACCOUNTS or is_token(request) else "producer"


def _said_token(request: HttpRequest) -> Token | None:
    said = request.headers.get("Authorization", "")
    return token_of(said.removeprefix(_BEARER).strip()) if said.startswith(_BEARER) else None


def _only_reads(token: Any) -> bool:
    return token is not None and token.scope == Token.Scope.READ


def _to_sign_in(request: HttpRequest, route: str) -> HttpResponse:
    if route.startswith("api/"):
        return problem(401, "signed_out", "You are not signed in.", "Sign in, and try again.")
    return HttpResponseRedirect(f"{SIGN_IN}?{urlencode({'next': request.get_full_path()})}")


def _refused(sentence: str, hint: str) -> HttpResponse:
    return problem(403, "viewer", sentence, hint)
