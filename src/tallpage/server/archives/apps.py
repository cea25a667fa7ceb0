"""Wires archives."""

from django.apps import AppConfig


class ArchivesConfig(AppConfig):
    """Captures to and from another Tall Page."""

    name = "tallpage.server.archives"
    label = "archives"

    def ready(self) -> None:
        """Say how an archive is brought in."""
        from tallpage.server.archives import bringing
        from tallpage.server.jobs.queue import register_kind

        register_kind(bringing.KIND, "files", bringing.prepare)
