"""Wires the shelf's kinds of work."""

from django.apps import AppConfig


class ShelfConfig(AppConfig):
    """Captures and their cuts."""

    name = "tallpage.server.shelf"
    label = "shelf"

    def ready(self) -> None:
        """Say how captures are taken and pictures taken in, and have deleted ones cleared in the end."""
        from tallpage.server.jobs.idling import when_idle
        from tallpage.server.jobs.queue import register_kind
        from tallpage.server.jobs.ticking import register_periodic
        from tallpage.server.shelf import own_settings, purge
        from tallpage.server.shelf.arriving import importing, taking

        own_settings.register()
        when_idle(taking.close_browser)
        register_kind(taking.KIND, "pages", taking.prepare)
        register_kind(importing.KIND, "files", importing.prepare)
        register_periodic("files", purge.clear_due)
