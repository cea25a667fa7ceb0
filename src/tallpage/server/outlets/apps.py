"""Wires the outlets' kind of work."""

from django.apps import AppConfig


class OutletsConfig(AppConfig):
    """Places with their slots, and the files made for them."""

    name = "tallpage.server.outlets"
    label = "outlets"

    def ready(self) -> None:
        """Say how files are made, and that they go with their rows."""
        from django.db.models.signals import post_delete

        from tallpage.server.jobs.idling import when_idle
        from tallpage.server.jobs.queue import register_kind
        from tallpage.server.outlets import fitting, making, own_settings
        from tallpage.server.outlets.models import OutputFile
        from tallpage.server.shelf.cuts.renewing import when_ready

        own_settings.register()
        when_idle(making.forget_fits)
        register_kind(making.KIND, "files", making.prepare, takes_turns=True)
        when_ready(fitting.renew_outputs)
        post_delete.connect(making.remove_file_of, sender=OutputFile)
