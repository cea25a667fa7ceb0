"""The pages of shared links: for people without an account, and of nothing but what was shared."""

from __future__ import annotations

from collections.abc import Callable
from datetime import timedelta
from functools import wraps
from pathlib import Path
from typing import Any

from csp.decorators import csp
from django.contrib.auth.hashers import check_password
from django.core import signing
from django.db.models import F
from django.http import FileResponse, Http404, HttpRequest, HttpResponse, HttpResponseRedirect
from django.http.response import HttpResponseBase
from django.shortcuts import render
from django.utils import timezone
from django.views.decorators.csrf import csrf_exempt
from django.views.decorators.http import require_GET, require_http_methods

from tallpage.core.units import format_bytes
from tallpage.server.database import if_it_can_be_written
from tallpage.server.handover.models import SharedLink
from tallpage.server.handover.sharing import link_path
from tallpage.server.people.tries import forget_tries, may_try
from tallpage.server.storage import shared_folder

_COOKIE = "word"
_SALT = "tallpage.shared"
_OPEN_FOR = timedelta(hours=12)
_MOST_WORDS = 10
"""Until a quarter of an hour has passed, from one address."""
_POLICY = {
    "default-src": ["'none'"],
    "img-src": ["'self'", "data:"],
    "style-src": ["'self'"],
    "form-action": ["'self'"],
    "frame-ancestors": ["'none'"],
    "base-uri": ["'none'"],
}

_View = Callable[..., HttpResponseBase]


def _of_a_stranger(view: _View) -> _View:
    """What is shown to whoever has an address: kept by nobody, found by no search engine, telling nobody."""

    @csp(_POLICY)
    @wraps(view)
    def responding(*args: Any, **kwargs: Any) -> HttpResponseBase:
        try:
            response = view(*args, **kwargs)
        except Http404:
            # One answer for what never was, has run out and was taken back: nobody learns which.
            response = render(args[0], "handover/gone.html", status=404)
        response["X-Robots-Tag"] = "noindex, nofollow, noarchive"
        response["Referrer-Policy"] = "no-referrer"
        response["Cache-Control"] = "private, no-store"
        return response

    return responding


@csrf_exempt  # a stranger has no session that somebody else could use
@require_http_methods(["GET", "HEAD", "POST"])
@_of_a_stranger
def page(request: HttpRequest, token: str) -> HttpResponseBase:
    """The page of a link, or the question for its word."""
    link = _link(token)
    if request.method == "POST":
        return _said(request, link)
    if not _may_see(request, link):
        return render(request, "handover/word.html", {"link": link}, status=401)
    if request.method == "GET":
        opened = SharedLink.objects.filter(pk=link.pk)
        if_it_can_be_written(lambda: opened.update(opened=F("opened") + 1, opened_at=timezone.now()))
    return render(
        request, "handover/shared.html", {"link": link, "pictures": [_shown(row) for row in link.pictures]}
    )


@require_GET
@_of_a_stranger
def file(request: HttpRequest, token: str, name: str) -> HttpResponseBase:
    """A file of a link; with ``?save`` as a download under its name."""
    link = _link(token)
    known = {part["file"]: part["name"] for row in link.pictures for part in row["parts"]}
    known |= {row["full"]: row["full_name"] for row in link.pictures}
    path = shared_folder(link.token) / name
    if name not in known or not _may_see(request, link) or not path.is_file():
        raise Http404
    return FileResponse(path.open("rb"), as_attachment="save" in request.GET, filename=known[name])


@require_GET
@_of_a_stranger
def style(_request: HttpRequest) -> HttpResponseBase:
    """The looks of these pages."""
    return HttpResponse(Path(__file__).with_name("shared.css").read_bytes(), content_type="text/css")


def _link(token: str) -> SharedLink:
    """The link of a token.

    Raises:
        Http404: it leads nowhere.
    """
    link = SharedLink.objects.filter(token=token).first()
    if link is None or not link.leads_somewhere():
        raise Http404
    return link


def _said(request: HttpRequest, link: SharedLink) -> HttpResponse:
    """Take a word; the right one opens the link for a while, in this browser."""
    what = f"link {link.pk}"
    if not may_try(what, request, most=_MOST_WORDS):
        said = "Too many wrong words were said. Try again in a quarter of an hour."
        return render(request, "handover/word.html", {"link": link, "said": said}, status=429)
    if not check_password(request.POST.get("word", "").strip(), link.word_hash):
        said = "That is not the word."
        return render(request, "handover/word.html", {"link": link, "said": said}, status=401)
    forget_tries(what, request)
    response = HttpResponseRedirect(link_path(link))
    response.set_cookie(
        _COOKIE,
        signing.dumps([link.token, link.word_hash[-12:]], salt=_SALT),
        path=link_path(link),
        max_age=int(_OPEN_FOR.total_seconds()),
        httponly=True,
        samesite="Strict",
    )
    return response


def _may_see(request: HttpRequest, link: SharedLink) -> bool:
    if not link.word_hash:
        return True
    try:
        said = signing.loads(request.COOKIES.get(_COOKIE, ""), salt=_SALT, max_age=_OPEN_FOR)
    except signing.BadSignature:
        return False
    return bool(said == [link.token, link.word_hash[-12:]])


def _shown(row: dict[str, Any]) -> dict[str, Any]:
    """A picture as its template reads it."""
    return {
        **row,
        "full_size": f"{row['full_width_px']:,} × {row['full_height_px']:,} px",
        "full_words": format_bytes(row["full_bytes"]),
    }
