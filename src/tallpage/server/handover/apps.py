"""Wires the ways out."""

from django.apps import AppConfig


class HandoverConfig(AppConfig):
    """What leaves, and the log of it."""

    name = "tallpage.server.handover"
    label = "handover"

    def ready(self) -> None:
        """Say how things are handed over, and that files of links go with them."""
        from django.db.models.signals import post_delete

        from tallpage.server.handover import mail_settings, own_settings, saving, working
        from tallpage.server.handover.models import SharedLink
        from tallpage.server.handover.sharing import remove_files_of
        from tallpage.server.jobs.queue import register_kind
        from tallpage.server.outlets.signals import file_saved

        mail_settings.register()
        own_settings.register()
        register_kind(working.KIND, "files", working.prepare)
        file_saved.connect(saving.note_file)
        post_delete.connect(remove_files_of, sender=SharedLink)
