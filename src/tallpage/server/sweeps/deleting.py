"""Deleting sweeps, and what becomes of a shot whose capture is cleared."""

from __future__ import annotations

from django.db import transaction

from tallpage.core.errors import ListError
from tallpage.server.jobs.models import Job
from tallpage.server.shelf.models import Capture
from tallpage.server.sweeps.models import Shot, Sweep

_JOBS_AT_ONCE = 500


def delete_sweep(sweep: Sweep) -> None:
    """Delete a sweep that has ended; its captures can still be put back on the shelf for a while.

    Raises:
        ListError: it still goes on, or is being saved.
    """
    if sweep.finished_at is None:
        raise ListError(
            f"“{sweep.name}” still goes on.", hint="Stop it first, then delete it.", code="sweep_goes_on"
        )
    if sweep.savings.filter(job__state__in=(Job.State.QUEUED, Job.State.RUNNING)).exists():
        raise ListError(
            f"“{sweep.name}” is being saved.", hint="Delete it once it is.", code="sweep_being_saved"
        )
    with transaction.atomic():
        comparisons = list(Job.objects.filter(comparison__shot__sweep=sweep).values_list("pk", flat=True))
        Capture.objects.filter(pk__in=sweep.shots.values("capture"), deleted_at=None).delete_from_shelf()
        sweep.delete()
        for start in range(0, len(comparisons), _JOBS_AT_ONCE):
            Job.objects.filter(pk__in=comparisons[start : start + _JOBS_AT_ONCE]).delete()


def drop_shot_of(instance: Capture, **_: object) -> None:
    """A shot whose capture is cleared is dropped: with no capture it would count as waiting."""
    Shot.objects.filter(capture=instance).update(dropped=True)
