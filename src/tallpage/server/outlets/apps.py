"""Wires the outlets' kind of work."""

from django.apps import AppConfig


class OutletsConfig(AppConfig):
    """Places with their slots, and the files made for them."""

    name = "tallpage.server.outlets"
    label = "outlets"

    def ready(self) -> None:
        """Say how files are made."""
        from tallpage.server.jobs.queue import register_kind
        from tallpage.server.outlets import making

        register_kind(making.KIND, "files", making.prepare)
