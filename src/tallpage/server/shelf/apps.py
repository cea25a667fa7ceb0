"""Wires the shelf's kinds of work."""

from django.apps import AppConfig


class ShelfConfig(AppConfig):
    """Captures and their cuts."""

    name = "tallpage.server.shelf"
    label = "shelf"

    def ready(self) -> None:
        """Say how captures are taken and pictures taken in."""
        from tallpage.server.jobs.queue import register_kind
        from tallpage.server.shelf import importing, taking

        register_kind(taking.KIND, "pages", taking.prepare)
        register_kind(importing.KIND, "files", importing.prepare)
