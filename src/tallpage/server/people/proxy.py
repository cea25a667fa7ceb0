"""A server in front, and what it says of whoever asks."""

from __future__ import annotations

from collections.abc import Callable

from django.conf import settings
from django.http import HttpRequest
from django.http.response import HttpResponseBase

_FORWARDED = ("HTTP_X_FORWARDED_FOR", "HTTP_X_FORWARDED_HOST", "HTTP_FORWARDED")


def trusted_proxy(
    respond: Callable[[HttpRequest], HttpResponseBase],
) -> Callable[[HttpRequest], HttpResponseBase]:
    """Middleware: of the trusted proxy the address of the client is believed, of everybody else nothing.

    The proxy adds the client's address at the end; what stands before it may be the client's invention.
    """

    def responding(request: HttpRequest) -> HttpResponseBase:
        said = str(request.META.get("HTTP_X_FORWARDED_FOR", ""))
        if request.META.get("REMOTE_ADDR") in settings.TRUSTED_PROXIES and said:
            request.META["REMOTE_ADDR"] = said.rpartition(",")[2].strip()
        for name in _FORWARDED:
            request.META.pop(name, None)
        return respond(request)

    return responding
