"""What is deleted can be put back for a while; then it goes from the disk, with all that was made of it."""

from collections.abc import Callable
from datetime import timedelta
from pathlib import Path

import pytest
from django.utils import timezone

from tallpage.server.jobs.models import Job
from tallpage.server.outlets.models import Output
from tallpage.server.shelf.models import Capture, Cut
from tallpage.server.shelf.purge import CUTS_KEPT_FOR, clear_due, kept_for
from tallpage.server.sweeps.models import Comparison, Shot, Sweep
from tests.server.conftest import Api
from tests.server.sweeping import started
from tests.server.test_outlets import SLOT

MakeCapture = Callable[..., Capture]


def _files(home: Path) -> set[str]:
    return {str(path.relative_to(home)) for path in home.rglob("*") if path.is_file()}


def _long_ago(**which: object) -> None:
    Capture.objects.filter(**which).update(deleted_at=timezone.now() - kept_for() - timedelta(minutes=1))


def test_deleted_captures_are_listed_with_what_they_take_and_can_be_put_back(
    api: Api, make_capture: MakeCapture
) -> None:
    first, second = make_capture(title="First"), make_capture(title="Second")
    assert api.get("/captures/deleted")["total"] == 0
    api.send("DELETE", f"/captures/{first.pk}", status=204)
    api.send("DELETE", f"/captures/{second.pk}", status=204)
    listed = api.get("/captures/deleted")
    assert [row["title"] for row in listed["captures"]] == ["Second", "First"]
    assert (listed["total"], listed["bytes"], listed["kept_days"]) == (2, first.bytes + second.bytes, 30)
    assert api.get(f"/captures/{first.pk}/thumbnail").status_code == 200
    api.send("POST", f"/captures/{first.pk}/restore")
    assert [row["title"] for row in api.get("/captures/deleted")["captures"]] == ["Second"]
    assert [row["title"] for row in api.get("/captures")["captures"]] == ["First"]


def test_after_its_time_a_capture_goes_with_its_cuts_and_their_files(
    api: Api, make_capture: MakeCapture, run_queue: Callable[[], None], settings: object
) -> None:
    home = Path(settings.HOME)  # type: ignore[attr-defined]
    before = _files(home)
    kept, gone = make_capture(title="Kept"), make_capture(title="Gone")
    api.get(f"/captures/{gone.pk}/thumbnail")
    cut_id = api.get(f"/captures/{gone.pk}")["cuts"][0]["id"]
    api.send("POST", f"/cuts/{cut_id}/outputs", {"rules": SLOT}, status=202)
    run_queue()
    path = Output.objects.get().paths[0]
    assert path.exists()
    api.send("DELETE", f"/captures/{gone.pk}", status=204)
    clear_due()
    assert path.exists()
    _long_ago(pk=gone.pk)
    clear_due()
    assert not path.exists()
    assert [row.pk for row in Capture.objects.all()] == [kept.pk]
    assert not Job.objects.filter(pk=gone.job_id).exists()
    of_the_kept = {name for name in _files(home) - before if kept.storage_key in name}
    assert _files(home) - before == of_the_kept
    assert api.get("/captures?words=Gone")["total"] == 0
    assert api.refused("POST", f"/captures/{gone.pk}/restore")["code"] == "not_found"


def test_everything_deleted_can_be_cleared_at_once(api: Api, make_capture: MakeCapture) -> None:
    captures = [make_capture() for _ in range(12)]
    for capture in captures[1:]:
        api.send("DELETE", f"/captures/{capture.pk}", status=204)
    api.send("DELETE", "/captures/deleted", status=204)
    assert api.get("/captures/deleted")["total"] == 0
    api.refused("POST", f"/captures/{captures[1].pk}/restore")
    for _ in range(2):  # a few at a time
        clear_due()
    assert [row.pk for row in Capture.objects.all()] == [captures[0].pk]


def test_what_somebody_is_at_work_on_is_not_cleared(api: Api, make_capture: MakeCapture) -> None:
    capture = make_capture()
    Job.objects.filter(pk=capture.job_id).update(state=Job.State.RUNNING)
    _long_ago(pk=capture.pk)
    clear_due()
    assert capture.folder.exists()
    Job.objects.filter(pk=capture.job_id).update(state=Job.State.STOPPED)
    clear_due()
    assert not capture.folder.exists()


def test_captures_deleted_together_are_not_taken_any_more(api: Api) -> None:
    ids = [
        api.send("POST", "/captures", {"address": f"http://a.example/{n}"}, status=202)["id"] for n in "ab"
    ]
    api.send("POST", "/captures/batch", {"ids": ids, "action": "delete"})
    assert {job.state for job in Job.objects.filter(capture__in=ids)} == {Job.State.STOPPED}


def test_a_cut_that_is_deleted_takes_its_files_along(
    api: Api, make_capture: MakeCapture, run_queue: Callable[[], None]
) -> None:
    cut_id = api.send("POST", f"/captures/{make_capture().pk}/cuts", status=201)["id"]
    api.send("POST", f"/cuts/{cut_id}/outputs", {"rules": SLOT}, status=202)
    run_queue()
    path = Output.objects.get().paths[0]
    api.send("DELETE", f"/cuts/{cut_id}", status=204)
    assert path.exists(), "it can still be put back"
    Cut.with_deleted.update(deleted_at=timezone.now() - CUTS_KEPT_FOR)
    clear_due()
    assert not path.exists()


@pytest.mark.usefixtures("painted_pages")
def test_a_sweep_goes_and_its_captures_can_be_put_back(api: Api, go: Callable[[int], None]) -> None:
    sweep_id = started(api, "a", "b")
    refused = api.refused("DELETE", f"/sweeps/{sweep_id}")
    assert (refused["code"], refused["detail"]) == ("sweep_goes_on", "Stop it first, then delete it.")
    go(4)
    again = api.send("POST", f"/sweeps/{sweep_id}/again", status=201)["id"]
    go(4)
    jobs = set(Comparison.objects.filter(shot__sweep=sweep_id).values_list("job", flat=True))
    assert len(jobs) == 4
    api.send("DELETE", f"/sweeps/{sweep_id}", status=204)
    assert api.get("/captures/deleted")["total"] == 4
    assert not Job.objects.filter(pk__in=jobs).exists()
    left = api.get(f"/sweeps/{again}")
    assert left["previous_id"] is None
    assert left["count"]["by_filter"]["unchanged"] == 4  # what was found out stays


@pytest.mark.long
def test_a_cleared_capture_of_a_sweep_is_not_taken_again(api: Api, go: Callable[[int], None]) -> None:
    sweep_id = started(api, "a", "b")
    go(4)
    shot = Shot.objects.filter(sweep=sweep_id).select_related("capture").first()
    assert shot is not None
    _long_ago(pk=shot.capture_id)
    clear_due()
    Sweep.objects.update(finished_at=None)
    go(2)
    shot.refresh_from_db()
    assert (shot.capture_id, shot.dropped) == (None, True)
    assert api.get(f"/sweeps/{sweep_id}")["count"]["left"] == 0
