"""Putting work on the queue, and saying how each kind of work is done."""

from __future__ import annotations

import threading
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Literal

from django.conf import settings
from django.db import transaction
from django.utils import timezone
from django_q.tasks import async_task

from tallpage.server.jobs.models import Job

Cluster = Literal["pages", "files"]
StopMode = Literal["go_on", "stop", "keep"]
"""What the person wants of work under way: ``keep`` is to stop, with what there is."""


class MadeWay(Exception):
    """Work has ended for now, to be begun again when it is its turn."""


@dataclass(frozen=True, slots=True)
class Work:
    """A job in two steps. ``run`` computes, without the database; ``commit`` stores what it gave.

    ``commit`` runs in the transaction that marks the job done, and only if the job is still ours:
    so however often a job is run, its result is kept once. ``rollback`` clears up otherwise.
    ``commit_early`` stores what :meth:`Signals.publish_preview` was given meanwhile.
    """

    run: Callable[[Signals], Any]
    commit: Callable[[Any], None]
    rollback: Callable[[], None] = lambda: None
    commit_early: Callable[[Any], None] = lambda _: None


class Signals:
    """What passes between the thread that works and the thread that keeps the row up to date."""

    def __init__(self, told: dict[str, Any] | None = None) -> None:
        self.stage = ""
        self.done = 0
        self.expected = 0
        self.stop_mode: StopMode = "go_on"
        self.told: dict[str, Any] | None = told
        self.can_make_way = False
        """Whether what a person waits for first has been told, so that others may come first now."""
        self.is_to_make_way = False
        """Whether something else of its kind comes first: the work is to end with :class:`MadeWay`."""
        self.news = threading.Event()
        """Set when something was told or handed over, which may be shown at once."""
        self._early: Any = None

    def report(self, stage: str, done: int = 0, expected: int = 0) -> None:
        """Tell how far the work is."""
        if stage != self.stage:
            self.news.set()
        self.stage, self.done, self.expected = stage, done, expected

    def tell(self, **more: Any) -> None:
        """Say something besides how far the work is; what was said before under other names stays."""
        self.told = {**(self.told or {}), **more}
        self.news.set()

    def publish_preview(self, result: Any, **told: Any) -> None:
        """Hand over something that is of use before the work is done, and what is said with it."""
        self._early = result, told
        self.news.set()

    def take_early(self) -> tuple[Any, dict[str, Any]] | None:
        """What was handed over since the last time with what is said of it, or None."""
        early: tuple[Any, dict[str, Any]] | None = self._early
        self._early = None
        return early


@dataclass(frozen=True, slots=True)
class _Kind:
    cluster: Cluster
    prepare: Callable[[Job], Work]
    takes_turns: bool


_KINDS: dict[str, _Kind] = {}


def register_kind(
    kind: str, cluster: Cluster, prepare: Callable[[Job], Work], *, takes_turns: bool = False
) -> None:
    """Say how jobs of ``kind`` are done, and on which queue.

    Jobs that take turns are not done in the order they came in (:mod:`tallpage.server.jobs.turns`).
    """
    _KINDS[kind] = _Kind(cluster=cluster, prepare=prepare, takes_turns=takes_turns)


def takes_turns(kind: str) -> bool:
    """Whether jobs of a kind take turns."""
    return _KINDS[kind].takes_turns


def kinds_on(cluster: Cluster) -> list[str]:
    """The kinds of work on a queue."""
    return [name for name, row in _KINDS.items() if row.cluster == cluster]


def prepare(job: Job) -> Work:
    """The work of a job."""
    return _KINDS[job.kind].prepare(job)


def enqueue(kind: str) -> Job:
    """A new job, queued together with whatever else the surrounding transaction writes."""
    with transaction.atomic():
        job = Job.objects.create(kind=kind)
        hand_over(job)
    return job


def hand_over(job: Job) -> None:
    """Put a queued job's ticket on the queue. A second ticket for one job does no harm.

    In the database it appears together with the job. Another store knows nothing of the transaction:
    it gets the ticket afterwards, and when it cannot be reached, the ticket counts as lost.
    """

    def put() -> None:
        async_task("tallpage.server.jobs.running.run_job", job.pk, cluster=_KINDS[job.kind].cluster)

    if settings.BROKER:
        transaction.on_commit(put, robust=True)
    else:
        put()


def request_stop(job: Job, *, keep: bool = False) -> None:
    """Stop a job: at once when nobody has begun, else at the worker's next heartbeat.

    With ``keep`` the work ends with what there is by then, if it can.
    """
    with transaction.atomic():  # between the two statements it could begin to wait for its turn again
        stopped = Job.objects.filter(pk=job.pk, state=Job.State.QUEUED).update(
            state=Job.State.STOPPED, finished_at=timezone.now()
        )
        if not stopped:
            stop_mode = {"keep_requested": True} if keep else {"stop_requested": True}
            Job.objects.filter(pk=job.pk, state=Job.State.RUNNING).update(**stop_mode)
