"""The app of live pages."""

from django.apps import AppConfig


class LiveConfig(AppConfig):
    """Pages that people use, in a process of its own."""

    name = "tallpage.server.live"
    label = "live"
