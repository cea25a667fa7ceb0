"""The way in and out."""

from __future__ import annotations

from typing import Any

from django.contrib.auth.forms import AuthenticationForm
from django.contrib.auth.views import LoginView, LogoutView
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render

from tallpage.server.people.tries import forget_tries, may_try

_SIGN_IN = "sign-in"
_MOST_TRIES = 30


class SignIn(LoginView):
    """Name and password."""

    template_name = "people/sign_in.html"
    redirect_authenticated_user = True
    next_page = "/"

    def post(self, request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponse:
        """Sign in, unless too much was tried from the same address, whatever the names were."""
        if not may_try(_SIGN_IN, request, most=_MOST_TRIES):
            return locked(request)
        return super().post(request, *args, **kwargs)

    def form_valid(self, form: AuthenticationForm) -> HttpResponse:
        """Name and password are right."""
        forget_tries(_SIGN_IN, self.request)
        return super().form_valid(form)


class SignOut(LogoutView):
    """Ends the session, by POST only."""

    next_page = "/account/sign-in"


def locked(request: HttpRequest, *_: Any, **__: Any) -> HttpResponse:
    """What is said after too many wrong passwords."""
    said = "Too many wrong passwords. Try again in a quarter of an hour."
    return render(request, "people/sign_in.html", {"locked": said}, status=429)
