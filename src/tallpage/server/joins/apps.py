"""Wires joins."""

from django.apps import AppConfig


class JoinsConfig(AppConfig):
    """Captures joined into one tall one."""

    name = "tallpage.server.joins"
    label = "joins"

    def ready(self) -> None:
        """Say how places are found, and how what was found is kept."""
        from tallpage.server.jobs.queue import register_kind
        from tallpage.server.joins import finding, keeping

        register_kind(finding.KIND, "files", finding.prepare)
        register_kind(keeping.KIND, "files", keeping.prepare)
