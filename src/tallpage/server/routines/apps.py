"""Wires routines and their runs."""

from django.apps import AppConfig


class RoutinesConfig(AppConfig):
    """Chains of steps, and what they are run over."""

    name = "tallpage.server.routines"
    label = "routines"

    def ready(self) -> None:
        """Say how a picture of a run is worked on, and have runs carried on again and again."""
        from django.db.models.signals import post_save

        from tallpage.server.jobs.queue import register_kind
        from tallpage.server.jobs.ticking import register_periodic
        from tallpage.server.routines import after_taking, applying
        from tallpage.server.routines.dispatch import feed_runs, wake_runs
        from tallpage.server.routines.models import Run
        from tallpage.server.routines.watching import look_into_folders
        from tallpage.server.shelf.signals import page_ordered

        after_taking.register()
        page_ordered.connect(after_taking.note_ordered)
        register_kind(applying.KIND, "files", applying.prepare)
        post_save.connect(wake_runs, sender=Run)
        register_periodic("files", after_taking.follow_up)
        register_periodic("files", feed_runs)
        register_periodic("files", look_into_folders)
