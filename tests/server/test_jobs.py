from collections.abc import Callable
from datetime import timedelta

import pytest
from django.utils import timezone
from django_q.models import OrmQ

from tallpage.core.errors import PageError, Stopped
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.owner import surely_gone, this_process
from tallpage.server.jobs.queue import Signals, Work, enqueue, register_kind, request_stop
from tallpage.server.jobs.recovery import IDLE_AFTER, SILENT_AFTER, recover_abandoned, recover_lost_tickets
from tallpage.server.jobs.running import MOST_ATTEMPTS, run_job

pytestmark = pytest.mark.django_db(transaction=True)


class Sample:
    """A kind of work that does what a test tells it, and notes what became of it."""

    def __init__(self) -> None:
        self.run: Callable[[Signals], object] = lambda _signals: "result"
        self.kept: list[object] = []
        self.discarded = 0

    def prepare(self, _job: Job) -> Work:
        return Work(run=lambda signals: self.run(signals), keep=self.kept.append, discard=self._discard)

    def _discard(self) -> None:
        self.discarded += 1


@pytest.fixture
def sample() -> Sample:
    work = Sample()
    register_kind("sample", "files", work.prepare)
    return work


def _state(job: Job) -> str:
    job.refresh_from_db()
    return str(job.state)


def test_a_job_run_twice_is_kept_once(sample: Sample) -> None:
    job = enqueue("sample")
    run_job(job.pk)
    run_job(job.pk)
    assert (_state(job), sample.kept) == ("done", ["result"])


def test_a_known_error_is_kept_for_the_person(sample: Sample) -> None:
    def fail(_signals: Signals) -> object:
        raise PageError("The page broke.", hint="Mend it.", code="page_broke")

    sample.run = fail
    job = enqueue("sample")
    run_job(job.pk)
    assert _state(job) == "failed"
    assert job.error == {"code": "page_broke", "sentence": "The page broke.", "hint": "Mend it."}
    assert (sample.kept, sample.discarded) == ([], 1)


def test_an_unknown_error_is_told_without_its_insides(sample: Sample) -> None:
    def fail(_signals: Signals) -> object:
        raise ZeroDivisionError("secret path")

    sample.run = fail
    job = enqueue("sample")
    run_job(job.pk)
    assert _state(job) == "failed"
    assert job.error is not None
    assert (job.error["code"], "secret" in str(job.error)) == ("internal", False)


def test_a_waiting_job_is_stopped_at_once(sample: Sample) -> None:
    job = enqueue("sample")
    request_stop(job)
    run_job(job.pk)
    assert (_state(job), sample.kept) == ("stopped", [])


def test_a_running_job_learns_that_it_shall_end_with_what_there_is(sample: Sample) -> None:
    job = enqueue("sample")

    def work(signals: Signals) -> object:
        waiting = 0
        while signals.wish != "keep":
            waiting += 1
            _pause()
            assert waiting < 2_000
        return "half of it"

    sample.run = work
    Job.objects.filter(pk=job.pk).update(keep_requested=True)
    run_job(job.pk)
    assert (_state(job), sample.kept) == ("done", ["half of it"])


def test_a_running_job_learns_that_it_shall_stop(sample: Sample) -> None:
    job = enqueue("sample")

    def work(signals: Signals) -> object:
        signals.report("taking", 1, 2)
        waiting = 0
        while signals.wish != "stop":
            waiting += 1
            _pause()
            assert waiting < 2_000
        raise Stopped("The person asked.")

    sample.run = work
    Job.objects.filter(pk=job.pk).update(stop_requested=True)
    run_job(job.pk)
    assert (_state(job), sample.discarded) == ("stopped", 1)


def _pause() -> None:
    import threading

    threading.Event().wait(0.01)


def test_work_of_a_dead_worker_is_taken_up_again(sample: Sample) -> None:
    job = enqueue("sample")
    host = this_process().rsplit(":", 2)[0]
    Job.objects.filter(pk=job.pk).update(
        state="running", owner=f"{host}:999999999:1.00", heartbeat_at=timezone.now(), attempts=1
    )
    assert recover_abandoned() == 1
    run_job(job.pk)
    assert (_state(job), sample.kept, job.attempts) == ("done", ["result"], 2)


def test_work_of_a_living_worker_is_left_alone_until_it_falls_silent(sample: Sample) -> None:
    job = enqueue("sample")
    Job.objects.filter(pk=job.pk).update(state="running", owner=this_process(), heartbeat_at=timezone.now())
    assert recover_abandoned() == 0
    Job.objects.filter(pk=job.pk).update(heartbeat_at=timezone.now() - 2 * SILENT_AFTER)
    assert recover_abandoned() == 1


def test_a_worker_that_lost_its_job_meanwhile_keeps_nothing(sample: Sample) -> None:
    job = enqueue("sample")
    original = sample.prepare

    def prepare(row: Job) -> Work:
        Job.objects.filter(pk=job.pk).update(owner="somebody else")
        return original(row)

    register_kind("sample", "files", prepare)
    run_job(job.pk)
    assert (_state(job), sample.kept, sample.discarded) == ("running", [], 1)


def test_what_breaks_its_worker_again_and_again_is_given_up(sample: Sample) -> None:
    job = enqueue("sample")
    Job.objects.filter(pk=job.pk).update(attempts=MOST_ATTEMPTS)
    run_job(job.pk)
    assert _state(job) == "failed"
    assert job.error is not None
    assert job.error["code"] == "worker_lost"


def test_an_owner_on_another_machine_is_never_surely_gone() -> None:
    assert not surely_gone("elsewhere.example:1:1.00")
    assert not surely_gone("")
    assert not surely_gone(this_process())
    assert timedelta(seconds=1) < SILENT_AFTER


def test_a_job_whose_ticket_was_lost_is_handed_over_again_once_nobody_is_at_work(sample: Sample) -> None:
    lost, running = enqueue("sample"), enqueue("sample")
    Job.objects.filter(pk=running.pk).update(state=Job.State.RUNNING, owner=this_process())
    tickets = OrmQ.objects.count()
    assert recover_lost_tickets("files") == 0, "it has not waited long"
    Job.objects.update(created_at=timezone.now() - 2 * IDLE_AFTER)
    assert recover_lost_tickets("files") == 0, "somebody is at work"
    Job.objects.filter(pk=running.pk).update(state=Job.State.DONE)
    assert recover_lost_tickets("pages") == 0, "another queue's"
    assert [recover_lost_tickets("files"), recover_lost_tickets("files")] == [1, 0]
    assert OrmQ.objects.count() == tickets + 1
    assert _state(lost) == "queued"
