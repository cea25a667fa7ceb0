"""The way in and out."""

from __future__ import annotations

from typing import Any

from django.contrib.auth.views import LoginView, LogoutView
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render


class SignIn(LoginView):
    """Name and password."""

    template_name = "people/sign_in.html"
    redirect_authenticated_user = True
    next_page = "/"


class SignOut(LogoutView):
    """Ends the session, by POST only."""

    next_page = "/account/sign-in"


def locked(request: HttpRequest, *_: Any, **__: Any) -> HttpResponse:
    """What is said after too many wrong passwords."""
    said = "Too many wrong passwords. Try again in a quarter of an hour."
    return render(request, "people/sign_in.html", {"locked": said}, status=429)
