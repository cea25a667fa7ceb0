"""Addresses: the API, the admin, and one page for every screen of the interface."""

from django.contrib import admin
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import path, re_path
from django.views.decorators.csrf import ensure_csrf_cookie

from tallpage.server.api import api
from tallpage.server.handover import shared
from tallpage.server.people.pages import SignIn, SignOut


@ensure_csrf_cookie
def interface(request: HttpRequest) -> HttpResponse:
    """The page that carries the interface; which screen it shows is decided there."""
    return render(request, "server/interface.html")


urlpatterns = [
    path("api/", api.urls),
    path("admin/", admin.site.urls),
    path("account/sign-in", SignIn.as_view(), name="sign-in"),
    path("account/sign-out", SignOut.as_view(), name="sign-out"),
    path("shared/style.css", shared.style),
    path("shared/<str:token>/", shared.page, name="shared"),
    path("shared/<str:token>/<str:name>", shared.file),
    re_path(r"^(?!account/|api/|admin/|static/|shared/).*$", interface, name="interface"),
]
