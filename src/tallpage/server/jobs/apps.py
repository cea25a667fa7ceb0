"""Wires the queue's set-up checks."""

from django.apps import AppConfig


class JobsConfig(AppConfig):
    """Queued work: rows with state, progress and heartbeat."""

    name = "tallpage.server.jobs"
    label = "jobs"

    def ready(self) -> None:
        """Register the checks."""
        from tallpage.server.jobs import checks  # noqa: F401  (importing registers them)
