"""Wires the pacing of sweeps."""

from django.apps import AppConfig


class SweepsConfig(AppConfig):
    """Sweeps and their pages."""

    name = "tallpage.server.sweeps"
    label = "sweeps"

    def ready(self) -> None:
        """Have the workers ask again and again what may be taken next, and say how the rest is done."""
        from django.db.models.signals import post_save, pre_delete

        from tallpage.server.jobs.queue import register_kind
        from tallpage.server.jobs.ticking import register_periodic
        from tallpage.server.shelf.models import Capture
        from tallpage.server.sweeps import comparing, deleting, export_folder, scheduling
        from tallpage.server.sweeps.dispatch import feed_all, wake_feeding
        from tallpage.server.sweeps.models import Sweep

        register_kind(comparing.KIND, "files", comparing.prepare)
        register_kind(scheduling.KIND, "files", scheduling.prepare)
        register_kind(export_folder.KIND, "files", export_folder.prepare)
        # Without its capture a shot would count as waiting, and be taken anew.
        pre_delete.connect(deleting.drop_shot_of, sender=Capture)
        post_save.connect(wake_feeding, sender=Sweep)
        register_periodic("pages", feed_all)
        register_periodic("files", scheduling.start_due)
