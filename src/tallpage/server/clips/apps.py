"""Wires clips."""

from django.apps import AppConfig


class ClipsConfig(AppConfig):
    """A few seconds of pages."""

    name = "tallpage.server.clips"
    label = "clips"

    def ready(self) -> None:
        """Say how frames are taken, and how files are made of them."""
        from tallpage.server.clips import making, sharing, taking
        from tallpage.server.jobs.queue import register_kind

        register_kind(taking.KIND, "pages", taking.prepare)
        register_kind(making.KIND, "files", making.prepare)
        register_kind(sharing.KIND, "files", sharing.prepare)
