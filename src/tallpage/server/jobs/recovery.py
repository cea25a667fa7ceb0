"""Taking up work that a killed worker left behind."""

from __future__ import annotations

from datetime import timedelta

from django.db import transaction
from django.utils import timezone

from tallpage.server.jobs.apart import each_apart
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.owner import is_dead
from tallpage.server.jobs.queue import Cluster, hand_over, kinds_on

SILENT_AFTER = timedelta(seconds=60)
"""A worker beats several times a second; one that is silent for so long is not coming back."""

IDLE_AFTER = timedelta(seconds=15)
"""A worker with nothing to do draws a ticket at once."""


def recover_abandoned() -> int:
    """Queue again every running job whose worker is gone or silent; returns how many."""
    recovered = []
    long_ago = timezone.now() - SILENT_AFTER

    def take_up(job: Job) -> None:
        silent = job.heartbeat_at is None or job.heartbeat_at < long_ago
        if not (silent or is_dead(job.owner)):
            return
        with transaction.atomic():
            ours = Job.objects.filter(pk=job.pk, owner=job.owner, state=Job.State.RUNNING).update(
                state=Job.State.STOPPED if job.stop_requested else Job.State.QUEUED,
                finished_at=timezone.now() if job.stop_requested else None,
                owner="",
                stop_requested=False,
            )
            if ours and not job.stop_requested:
                hand_over(job)
                recovered.append(job)

    each_apart(Job.objects.filter(state=Job.State.RUNNING), take_up, fail=_fail)
    return len(recovered)


def recover_lost_tickets(cluster: Cluster) -> int:
    """Hand over again every job that waits although nobody works on its queue; returns how many.

    A process that is killed takes the tickets with it that it had drawn and not begun. The queue
    would give them out again only after the longest time that work may take.
    """
    long_ago = timezone.now() - IDLE_AFTER
    recovered = 0
    jobs = Job.objects.filter(kind__in=kinds_on(cluster))
    if jobs.filter(state=Job.State.RUNNING).exists():
        return 0
    for job in jobs.filter(state=Job.State.QUEUED, created_at__lt=long_ago):
        if (job.heartbeat_at or job.created_at) > long_ago:
            continue
        with transaction.atomic():
            ours = Job.objects.filter(pk=job.pk, state=Job.State.QUEUED, heartbeat_at=job.heartbeat_at)
            if ours.update(heartbeat_at=timezone.now()):
                hand_over(job)
                recovered += 1
    return recovered


def _fail(job: Job, reason: str) -> None:
    Job.objects.filter(pk=job.pk, owner=job.owner, state=Job.State.RUNNING).update(
        state=Job.State.FAILED,
        owner="",
        finished_at=timezone.now(),
        error={"code": "internal", "sentence": reason, "hint": ""},
    )
