"""Running one job: claim it, work in a thread of its own, keep its row alive, store the result."""

from __future__ import annotations

import logging
import time
from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor
from contextlib import suppress
from functools import cache
from typing import Any

from django.db import OperationalError, transaction
from django.db.models import F
from django.utils import timezone

from tallpage.core.errors import Stopped, TallPageError
from tallpage.core.files import refusal_to_write
from tallpage.server.database import once_it_can_be_written, refusal_of
from tallpage.server.jobs.idling import IdleTimer
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.owner import this_process
from tallpage.server.jobs.queue import MadeWay, Signals, StopMode, Work, hand_over, prepare
from tallpage.server.jobs.turns import is_to_make_way, next_in_turn

_log = logging.getLogger(__name__)
_BEAT_SECONDS = 0.4
_LEAST_BETWEEN_BEATS_S = 0.05
"""However much news there is: each beat writes to the database."""
MOST_ATTEMPTS = 3


@cache
def _work_thread() -> ThreadPoolExecutor:
    """One thread for all work of this process: the browser belongs to the thread that opened it.

    Django refuses the database in a thread where the browser's event loop runs, which is why work
    and rows live in different threads.
    """
    return ThreadPoolExecutor(max_workers=1, thread_name_prefix="work")


@cache
def _idle_timer() -> IdleTimer:
    return IdleTimer()


def run_job(job_id: int) -> None:
    """Run a job to its end, unless it is done, stopped, or somebody else's."""
    _idle_timer().work_begins()
    try:
        _run_job(job_id)
    finally:
        _idle_timer().work_ended(_work_thread())


def _run_job(job_id: int) -> None:
    owner = this_process()
    job = _claim(next_in_turn(job_id), owner)
    if job is None:
        return
    if job.attempts > MOST_ATTEMPTS:
        _finish(job, owner, Job.State.FAILED, error=_gave_up())
        return
    work: Work | None = None
    try:
        work = prepare(job)
        signals = Signals(job.told)
        result = _wait(_work_thread().submit(work.run, signals), job, owner, signals, work.commit_early)
        _keep(job, owner, work, result)
    except MadeWay:
        if not once_it_can_be_written(lambda: _queue_again(job, owner)):
            _finish(job, owner, Job.State.STOPPED)  # which was asked for at the last moment
        _discard(work)
    except Stopped:
        _finish(job, owner, Job.State.STOPPED)
        _discard(work)
    except TallPageError as error:
        _finish(job, owner, Job.State.FAILED, error=_as_json(error))
        _discard(work)
    except Exception as error:
        refusal = _refusal_of(error)
        if refusal is None:
            _log.exception("job %s failed unexpectedly", job_id)
        _finish(job, owner, Job.State.FAILED, error=_as_json(refusal) if refusal else _internal())
        _discard(work)


def _refusal_of(error: Exception) -> TallPageError | None:
    """What a person is told, when it is the disk or the database that refused."""
    if isinstance(error, OperationalError):
        return refusal_of(error)
    return refusal_to_write(error) if isinstance(error, OSError) else None


def _claim(job_id: int, owner: str) -> Job | None:
    """Make the job ours, if it is waiting. One statement, so that only one worker can succeed."""
    return once_it_can_be_written(lambda: _claim_now(job_id, owner))


def _claim_now(job_id: int, owner: str) -> Job | None:
    with transaction.atomic():
        claimed = Job.objects.filter(pk=job_id, state=Job.State.QUEUED).update(
            state=Job.State.RUNNING,
            owner=owner,
            heartbeat_at=timezone.now(),
            stage="",
            done=0,
            expected=0,
        )
        if not claimed:
            return None
        job = Job.objects.get(pk=job_id)
        job.attempts += 1
        job.told = job.told if job.made_way else None
        job.save(update_fields=["attempts", "told"])
        return job


def _queue_again(job: Job, owner: str) -> bool:
    """Let a job wait for its turn, unless it is to stop; what it has begun is no attempt that failed."""
    with transaction.atomic():
        ours = Job.objects.filter(pk=job.pk, owner=owner, state=Job.State.RUNNING, stop_requested=False)
        waits = ours.update(
            state=Job.State.QUEUED,
            owner="",
            made_way=True,
            attempts=F("attempts") - 1,
        )
        if waits:
            hand_over(job)
    return bool(waits)


def _wait(
    future: Future[Any], job: Job, owner: str, signals: Signals, commit_early: Callable[[Any], None]
) -> Any:
    """The result of the work, with a heartbeat while it is awaited, and whenever there is news."""
    future.add_done_callback(lambda _: signals.news.set())
    while not future.done():
        signals.news.wait(timeout=_BEAT_SECONDS)
        signals.news.clear()
        if future.done():
            break
        with suppress(OperationalError):  # the next beat tells it; nothing is lost meanwhile
            signals.stop_mode = _beat(job, owner, signals)
            early = signals.take_early()
            if early is not None and signals.stop_mode == "go_on":
                result, told = early
                commit_early(result)
                # With it, even if it is to stop from now on: what stays there is what was told of.
                ours = Job.objects.filter(pk=job.pk, owner=owner, state=Job.State.RUNNING)
                ours.update(told={**(signals.told or {}), **told})
        time.sleep(_LEAST_BETWEEN_BEATS_S)
    return future.result()


def _beat(job: Job, owner: str, signals: Signals) -> StopMode:
    """Write progress, and hear what is wanted; a job that is not ours any more is to stop."""
    ours = Job.objects.filter(pk=job.pk, owner=owner, state=Job.State.RUNNING, stop_requested=False)
    progress = {
        "stage": signals.stage,
        "done": signals.done,
        "expected": signals.expected,
        "told": signals.told,
    }
    if not ours.update(heartbeat_at=timezone.now(), **progress):
        return "stop"
    signals.is_to_make_way = signals.can_make_way and is_to_make_way(job)
    return "keep" if ours.filter(keep_requested=True).exists() else "go_on"


def _keep(job: Job, owner: str, work: Work, result: Any) -> None:
    def keep_all() -> bool:
        with transaction.atomic():
            ours = _end(job, owner, Job.State.DONE)
            if ours:
                work.commit(result)
            return ours

    if not once_it_can_be_written(keep_all):
        _discard(work)


def _finish(job: Job, owner: str, state: Job.State, *, error: dict[str, str] | None = None) -> bool:
    """End the job, if it is still ours, as soon as that can be written."""
    return once_it_can_be_written(lambda: _end(job, owner, state, error=error))


def _end(job: Job, owner: str, state: Job.State, *, error: dict[str, str] | None = None) -> bool:
    return bool(
        Job.objects.filter(pk=job.pk, owner=owner, state=Job.State.RUNNING).update(
            state=state, owner="", finished_at=timezone.now(), error=error, stop_requested=False
        )
    )


def _discard(work: Work | None) -> None:
    if work is not None:
        work.rollback()


def _as_json(error: TallPageError) -> dict[str, str]:
    return {"code": error.code, "sentence": error.sentence, "hint": error.hint}


def _internal() -> dict[str, str]:
    return {
        "code": "internal",
        "sentence": "Something went wrong inside Tall Page.",
        "hint": "Try again. The worker's log says more.",
    }


def _gave_up() -> dict[str, str]:
    return {
        "code": "worker_lost",
        "sentence": f"The worker broke off {MOST_ATTEMPTS} times over this.",
        "hint": "The page or picture may need more memory than there is. Try a smaller screen or scale.",
    }
