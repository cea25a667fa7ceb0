"""Taking up work that a killed worker left behind."""

from __future__ import annotations

from datetime import timedelta

from django.db import transaction
from django.utils import timezone

from tallpage.server.jobs.models import Job
from tallpage.server.jobs.owner import surely_gone
from tallpage.server.jobs.queue import hand_over

SILENT_AFTER = timedelta(seconds=60)
"""A worker beats several times a second; one that is silent for so long is not coming back."""


def recover_abandoned() -> int:
    """Queue again every running job whose worker is gone or silent; returns how many."""
    recovered = 0
    for job in Job.objects.filter(state=Job.State.RUNNING):
        silent = job.heartbeat_at is None or job.heartbeat_at < timezone.now() - SILENT_AFTER
        if not (silent or surely_gone(job.owner)):
            continue
        with transaction.atomic():
            ours = Job.objects.filter(pk=job.pk, owner=job.owner, state=Job.State.RUNNING).update(
                state=Job.State.STOPPED if job.stop_requested else Job.State.QUEUED,
                owner="",
                stop_requested=False,
            )
            if ours and not job.stop_requested:
                hand_over(job)
                recovered += 1
    return recovered
