"""Whose turn it is among jobs of a kind that take turns.

Each is begun as soon as it can be, until it has said what a person waits for first; then they come to
their ends one after the other, what somebody has in hand before the others.
"""

from __future__ import annotations

from django.db.models import F, Q, QuerySet
from django.utils import timezone

from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import takes_turns


def take_in_hand(job: Job) -> None:
    """A person looks at what this job makes: it comes before others that wait."""
    Job.objects.filter(pk=job.pk, state__in=(Job.State.QUEUED, Job.State.RUNNING)).update(
        wanted_at=timezone.now()
    )


def next_in_turn(job_id: int) -> int:
    """The job that a ticket is used for: the one it was written for, or the next of its kind."""
    job = Job.objects.filter(pk=job_id).first()
    if job is None or not takes_turns(job.kind):
        return job_id
    waiting = _waiting(job.kind).order_by("made_way", F("wanted_at").desc(nulls_last=True), "pk")
    return waiting.values_list("pk", flat=True).first() or job_id


def is_to_make_way(job: Job) -> bool:
    """Whether another job of its kind comes before a job that is under way."""
    if not takes_turns(job.kind):
        return False
    wanted_at = Job.objects.values_list("wanted_at", flat=True).get(pk=job.pk)
    wanted_more = Q(wanted_at__gt=wanted_at) if wanted_at else Q(wanted_at__isnull=False)
    return _waiting(job.kind).filter(Q(made_way=False) | wanted_more).exists()


def _waiting(kind: str) -> QuerySet[Job]:
    return Job.objects.filter(kind=kind, state=Job.State.QUEUED)
