import threading
from collections.abc import Callable

import pytest
from django.utils import timezone
from django_q.models import OrmQ

from tallpage.core.errors import PageError, Stopped
from tallpage.server.jobs import idling
from tallpage.server.jobs.apart import each_apart, safely
from tallpage.server.jobs.bell import Bell, ring
from tallpage.server.jobs.broker import BellBroker
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.owner import is_dead, this_process
from tallpage.server.jobs.queue import MadeWay, Signals, Work, enqueue, register_kind, request_stop
from tallpage.server.jobs.recovery import IDLE_AFTER, SILENT_AFTER, recover_abandoned, recover_lost_tickets
from tallpage.server.jobs.running import MOST_ATTEMPTS, run_job
from tallpage.server.jobs.turns import is_to_make_way, next_in_turn, take_in_hand

pytestmark = pytest.mark.django_db(transaction=True)


class Sample:
    """A kind of work that does what a test tells it, and notes what became of it."""

    def __init__(self) -> None:
        self.run: Callable[[Signals], object] = lambda _signals: "result"
        self.kept: list[object] = []
        self.discarded = 0

    def prepare(self, _job: Job) -> Work:
        return Work(run=lambda signals: self.run(signals), commit=self.kept.append, rollback=self._discard)

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


def test_of_several_rows_one_that_fails_fails_alone(sample: Sample) -> None:
    jobs = [enqueue("sample") for _ in range(3)]
    failed: list[tuple[Job, str]] = []

    def do(job: Job) -> None:
        if job == jobs[0]:
            raise ZeroDivisionError
        if job == jobs[1]:
            raise PageError("The page broke.", hint="Mend it.", code="page_broke")
        done.append(job)

    done: list[Job] = []
    each_apart(jobs, do, fail=lambda job, reason: failed.append((job, reason)))
    assert done == jobs[2:]
    assert [job for job, _ in failed] == jobs[:2]
    assert "The server's log says more" in failed[0][1]
    assert failed[1][1] == "The page broke. Mend it."


@pytest.mark.parametrize(
    "error", [ZeroDivisionError(), OSError("full"), UnicodeEncodeError("x", "", 0, 0, "")]
)
def test_a_step_that_fails_does_not_end_what_goes_round(error: Exception) -> None:
    def step() -> None:
        raise error

    assert safely(step) is None
    assert safely(lambda: 7) == 7


def test_a_row_that_cannot_be_marked_as_failed_does_not_stop_the_others(sample: Sample) -> None:
    jobs, met = [enqueue("sample") for _ in range(2)], []

    def broken(job: Job, *_: object) -> None:
        met.append(job)
        raise ZeroDivisionError

    each_apart(jobs, broken, fail=broken)
    assert met == [jobs[0], jobs[0], jobs[1], jobs[1]]


def test_a_job_that_was_stopped_while_it_waited_has_its_end(sample: Sample) -> None:
    job = enqueue("sample")
    request_stop(job)
    job.refresh_from_db()
    assert (job.state, job.finished_at is not None) == ("stopped", True)


def test_a_waiting_job_is_stopped_at_once(sample: Sample) -> None:
    job = enqueue("sample")
    request_stop(job)
    run_job(job.pk)
    assert (_state(job), sample.kept) == ("stopped", [])


def test_a_running_job_learns_that_it_shall_end_with_what_there_is(sample: Sample) -> None:
    job = enqueue("sample")

    def work(signals: Signals) -> object:
        waiting = 0
        while signals.stop_mode != "keep":
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
        while signals.stop_mode != "stop":
            waiting += 1
            _pause()
            assert waiting < 2_000
        raise Stopped("The person asked.")

    sample.run = work
    Job.objects.filter(pk=job.pk).update(stop_requested=True)
    run_job(job.pk)
    assert (_state(job), sample.discarded) == ("stopped", 1)


def _take_turns(work: Sample) -> None:
    register_kind("sample", "files", work.prepare, takes_turns=True)


def _works_until_it_makes_way(signals: Signals) -> object:
    signals.tell(best="so far")
    signals.can_make_way = True
    for _ in range(2_000):
        if signals.is_to_make_way:
            raise MadeWay
        _pause()
    raise AssertionError("nothing came first")


def test_work_makes_way_for_what_has_not_begun_and_goes_on_later(sample: Sample) -> None:
    _take_turns(sample)
    first, second = enqueue("sample"), enqueue("sample")
    sample.run = _works_until_it_makes_way
    run_job(first.pk)
    assert (_state(first), first.made_way, first.attempts, first.told) == (
        "queued",
        True,
        0,
        {"best": "so far"},
    )
    assert sample.discarded == 1
    sample.run = lambda signals: signals.told
    run_job(second.pk)  # whose ticket comes next
    run_job(first.pk)
    assert (_state(second), _state(first)) == ("done", "done")
    assert sample.kept == [None, {"best": "so far"}], "what was told before is told on"


def test_what_somebody_has_in_hand_comes_first(sample: Sample) -> None:
    _take_turns(sample)
    jobs = [enqueue("sample") for _ in range(3)]
    take_in_hand(jobs[2])
    assert next_in_turn(jobs[0].pk) == jobs[2].pk
    run_job(jobs[0].pk)
    assert [_state(job) for job in jobs] == ["queued", "queued", "done"]
    Job.objects.filter(pk__in=[job.pk for job in jobs[:2]]).update(made_way=True)
    running = jobs[0]
    assert not is_to_make_way(running), "both have begun, and nobody wants one more than the other"
    take_in_hand(jobs[1])
    assert is_to_make_way(running)
    take_in_hand(running)
    assert not is_to_make_way(running)


def test_work_of_other_kinds_is_done_in_the_order_it_came_in(sample: Sample) -> None:
    first, second = enqueue("sample"), enqueue("sample")
    take_in_hand(second)
    assert next_in_turn(first.pk) == first.pk


def test_a_job_that_is_stopped_as_it_makes_way_is_stopped_at_once(sample: Sample) -> None:
    _take_turns(sample)
    job = enqueue("sample")

    def make_way(_signals: Signals) -> object:
        raise MadeWay

    sample.run = make_way
    Job.objects.filter(pk=job.pk).update(stop_requested=True)
    run_job(job.pk)
    assert (_state(job), sample.discarded) == ("stopped", 1)


def test_a_job_that_is_stopped_while_it_makes_way_stays_stopped(sample: Sample) -> None:
    _take_turns(sample)
    first, _ = enqueue("sample"), enqueue("sample")
    sample.run = _works_until_it_makes_way
    run_job(first.pk)
    request_stop(first)
    assert (_state(first), next_in_turn(first.pk) == first.pk) == ("stopped", False)


def test_what_is_kept_ready_goes_when_nothing_comes(sample: Sample, monkeypatch: pytest.MonkeyPatch) -> None:
    released = threading.Event()
    monkeypatch.setattr(idling, "_IDLE_S", 0.01)
    monkeypatch.setattr(idling, "_RELEASES", [released.set])
    run_job(enqueue("sample").pk)
    assert released.wait(30)


def test_a_bell_wakes_who_waits_for_a_ticket(sample: Sample) -> None:
    broker = BellBroker(list_key="files")
    assert broker.dequeue() is None, "rung for nothing, or waited in vain"
    heard = threading.Event()

    def wait() -> None:
        Bell("somebody").wait(60)
        heard.set()

    waiter = threading.Thread(target=wait, daemon=True)
    waiter.start()
    for _ in range(2_000):
        ring("somebody")
        if heard.wait(0.01):
            break
    assert heard.is_set()
    enqueue("sample")
    found = broker.dequeue()
    assert found is not None
    assert len(found) == 1


def _pause() -> None:
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
    assert not is_dead("elsewhere.example:1:1.00")
    assert not is_dead("")
    assert not is_dead(this_process())


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
