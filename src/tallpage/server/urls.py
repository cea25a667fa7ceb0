"""Addresses: the API, the admin, and one page for every screen of the interface."""

from django.contrib import admin
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import path, re_path
from django.views.decorators.csrf import ensure_csrf_cookie

from tallpage.server.api import api


@ensure_csrf_cookie
def interface(request: HttpRequest) -> HttpResponse:
    """The page that carries the interface; which screen it shows is decided there."""
    return render(request, "server/interface.html")


urlpatterns = [
    path("api/", api.urls),
    path("admin/", admin.site.urls),
    re_path(r"^(?!api/|admin/|static/).*$", interface, name="interface"),
]
