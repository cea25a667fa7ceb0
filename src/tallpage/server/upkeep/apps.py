"""Wires the upkeep of the data folder."""

from django.apps import AppConfig


class UpkeepConfig(AppConfig):
    """What the server does for its data folder by itself."""

    name = "tallpage.server.upkeep"
    label = "upkeep"

    def ready(self) -> None:
        """Have the worker of files look after the data folder."""
        from tallpage.server.jobs.ticking import register_periodic
        from tallpage.server.upkeep import own_settings, tidying

        own_settings.register()
        register_periodic("files", tidying.look_after)
