"""Wires the pacing of sweeps."""

from django.apps import AppConfig


class SweepsConfig(AppConfig):
    """Sweeps and their pages."""

    name = "tallpage.server.sweeps"
    label = "sweeps"

    def ready(self) -> None:
        """Have the workers ask again and again what may be taken next."""
        from tallpage.server.jobs.ticking import every_moment
        from tallpage.server.sweeps.feeding import feed_all

        every_moment("pages", feed_all)
