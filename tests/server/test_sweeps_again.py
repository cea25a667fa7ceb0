"""The same sweep once more: compared with the last time, by hand or at set times."""

from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest

from tallpage.server.jobs.models import Job
from tallpage.server.sweeps.models import Schedule, Shot, Sweep
from tallpage.server.sweeps.scheduling import next_times, start_due
from tests.server.conftest import Api
from tests.server.sweeping import started

Go = Callable[[int], None]


@pytest.fixture
def listed(monkeypatch: pytest.MonkeyPatch) -> Callable[..., None]:
    """Says what a site lists from now on."""
    from tallpage.core.sweep import Found, list_of
    from tallpage.server.sweeps import listing, scheduling

    def lists(*paths: str) -> None:
        found = [Found(text=f"http://skerrin.example/{path}", line=1) for path in paths]
        answer = listing.Listing(pages=list_of(found), source="sitemap")
        monkeypatch.setattr(scheduling, "list_site", lambda _: answer)

    return lists


def _again(api: Api, sweep_id: int, go: Go) -> int:
    next_id = int(api.send("POST", f"/sweeps/{sweep_id}/again", status=201)["id"])
    go(4)
    return next_id


def _words(api: Api, sweep_id: int) -> dict[str, str]:
    rows = api.get(f"/sweeps/{sweep_id}/rows?limit=200")["rows"]
    return {row["address"].rpartition("/")[2]: row["shots"][0]["change"] for row in rows if row["shots"]}


def _shown(api: Api, sweep_id: int, kept: str) -> list[str]:
    rows = api.get(f"/sweeps/{sweep_id}/rows?kept={kept}")["rows"]
    return [row["address"].rpartition("/")[2] for row in rows]


def test_blank_pages_and_those_like_another_are_found(api: Api, go: Go) -> None:
    sweep_id = started(api, "a", "blank", "twin-1", "b", "twin-2")
    go(4)
    count = api.get(f"/sweeps/{sweep_id}")["count"]["by_filter"]
    assert (count["blank"], count["same"], count["changed"], count["new"]) == (2, 6, 0, 0)
    assert _shown(api, sweep_id, "blank") == ["blank"]
    assert _shown(api, sweep_id, "same") == ["blank", "twin-1", "twin-2"]  # blank on both screens, too
    shots = [row["shots"][0] for row in api.get(f"/sweeps/{sweep_id}/rows")["rows"]]
    assert [shot["blank"] for shot in shots] == [False, True, False, False, False]


def test_a_second_time_is_compared_with_the_first(api: Api, go: Go) -> None:
    first = started(api, "a", "changing", "broken")
    go(4)
    assert set(_words(api, first).values()) == {""}
    second = _again(api, first, go)
    assert _words(api, second) == {"a": "unchanged", "changing": "changed", "broken": ""}
    assert api.get(f"/sweeps/{second}")["previous_at"] == api.get(f"/sweeps/{first}")["created_at"]
    row = api.get(f"/sweeps/{second}/rows?kept=changed")["rows"][0]
    change = api.get(f"/sweeps/shots/{row['shots'][0]['id']}/change")
    assert 0 < change["changed_share"] <= 1
    assert change["stretches"][0]["now"]["width_px"] <= 64
    before = Shot.objects.get(sweep=first, page__address__endswith="changing", screen_at=0)
    assert change["before_id"] == before.capture_id


@pytest.mark.long
def test_what_failed_the_last_time_is_compared_with_the_time_before(api: Api, go: Go) -> None:
    first = started(api, "changing")
    go(4)
    second = _again(api, first, go)
    Shot.objects.filter(sweep=second).update(capture=None)
    third = _again(api, second, go)
    assert _words(api, third) == {"changing": "changed"}


@pytest.mark.long
def test_a_retaken_page_is_looked_at_anew(api: Api, go: Go) -> None:
    first = started(api, "changing")
    go(4)
    second = _again(api, first, go)
    row = api.get(f"/sweeps/{second}/rows")["rows"][0]
    shot_id = row["shots"][0]["id"]
    share = api.get(f"/sweeps/shots/{shot_id}/change")["changed_share"]
    api.send("POST", f"/sweeps/{second}/retake", {"shot_ids": [shot_id]}, status=202)
    assert api.client.get(f"/api/sweeps/shots/{shot_id}/change").status_code == 404
    go(4)
    assert api.get(f"/sweeps/shots/{shot_id}/change")["changed_share"] != share


def test_a_page_that_answers_an_error_now_is_gone(api: Api, go: Go) -> None:
    first = started(api, "a")
    go(4)
    second = int(api.send("POST", f"/sweeps/{first}/again", status=201)["id"])
    go(1)
    for shot in Shot.objects.filter(sweep=second).select_related("capture"):
        assert shot.capture
        shot.capture.status = 404
        shot.capture.save()
    go(3)
    assert _words(api, second) == {"a": "gone"}
    assert _shown(api, second, "gone") == ["a"]


@pytest.mark.long
def test_a_site_is_asked_again_what_it_lists(api: Api, go: Go, listed: Callable[..., None]) -> None:
    unwanted = "http://skerrin.example/news/unwanted"
    first = started(api, "news/a", "news/b", site="http://skerrin.example/map.xml", left_out=[unwanted])
    go(4)
    listed("news/b", "news/unwanted", "news/c", "jobs/d")  # of jobs nothing was wanted the last time
    second = _again(api, first, go)
    assert _words(api, second) == {"b": "unchanged", "c": "new"}
    assert _shown(api, second, "all") == ["b", "c", "a"]
    assert _shown(api, second, "gone") == ["a"]
    assert api.get(f"/sweeps/{second}")["count"]["by_filter"]["gone"] == 1
    listed("news/b", "news/c", "news/a")
    assert _words(api, _again(api, second, go)) == {"b": "unchanged", "c": "unchanged", "a": "unchanged"}


def test_times_are_those_of_a_clock_on_the_wall() -> None:
    before_the_clocks_change = datetime(2027, 3, 27, 12, tzinfo=UTC)
    times = next_times("30 6 * * *", "Europe/London", after=before_the_clocks_change, count=2)
    assert [time.astimezone(UTC).hour for time in times] == [5, 5]
    assert [time.hour for time in times] == [6, 6]


@pytest.mark.parametrize(
    ("cron", "time_zone"),
    [("whenever", "UTC"), ("61 6 * * *", "UTC"), ("0 6 30 2 *", "UTC"), ("0 6 * * *", "Skerrin/Town"),
     ("0 6 * * *", "../../etc/passwd"), ("", "UTC")],
)  # fmt: skip
def test_what_is_no_time_is_refused_in_words(api: Api, cron: str, time_zone: str) -> None:
    refused = api.refused("POST", "/schedules/times", {"cron": cron, "time_zone": time_zone})
    assert refused["code"] == "schedule_malformed"


def _scheduled(api: Api, go: Go, *paths: str, **more: Any) -> int:
    sweep_id = started(api, *paths, **more)
    go(4)
    body = {"cron": "0 6 * * 1", "time_zone": "Europe/London"}
    assert api.send("PUT", f"/sweeps/{sweep_id}/schedule", body)["schedule"]["cron"] == "0 6 * * 1"
    return sweep_id


def _let_time_come() -> None:
    Schedule.objects.update(next_at=datetime.now(UTC) - timedelta(hours=1))


def test_a_sweep_is_taken_again_when_its_time_comes(api: Api, go: Go, run_queue: Callable[[], None]) -> None:
    first = _scheduled(api, go, "a", "changing")
    start_due()
    assert Sweep.objects.count() == 1, "its time has not come"
    _let_time_come()
    start_due()
    start_due()
    run_queue()
    assert Sweep.objects.count() == 2, "once, however many supervisors look"
    second = Sweep.objects.first()
    assert second is not None
    assert api.get(f"/sweeps/{first}")["schedule"] is None
    assert api.get(f"/sweeps/{second.pk}")["schedule"]["next_at"] > datetime.now(UTC).isoformat()
    _let_time_come()
    start_due()
    run_queue()
    assert Sweep.objects.count() == 2, "the last one still goes on"
    go(4)
    assert _words(api, second.pk) == {"a": "unchanged", "changing": "changed"}
    start_due()
    run_queue()
    assert Sweep.objects.count() == 3


def test_a_schedule_whose_time_zone_is_gone_is_told_and_others_are_kept(
    api: Api, go: Go, run_queue: Callable[[], None]
) -> None:
    broken, sound = _scheduled(api, go, "a"), _scheduled(api, go, "b")
    Schedule.objects.filter(sweep=broken).update(time_zone="Sound/Skerrin")
    _let_time_come()
    start_due()
    run_queue()
    assert "Sound/Skerrin" in api.get(f"/sweeps/{broken}")["problem"]
    assert api.get(f"/sweeps/{broken}")["schedule"] is None
    assert Sweep.objects.filter(previous=sound).count() == 1


@pytest.mark.long
def test_a_time_at_which_the_site_did_not_answer_is_told_and_the_next_one_kept(
    api: Api, go: Go, run_queue: Callable[[], None], closed_port: int
) -> None:
    sweep_id = _scheduled(api, go, "a", site=f"http://127.0.0.1:{closed_port}/sitemap.xml")
    _let_time_come()
    start_due()
    run_queue()
    assert Job.objects.latest("pk").state == Job.State.FAILED
    schedule = api.get(f"/sweeps/{sweep_id}")["schedule"]
    assert "does not answer" in schedule["problem"]
    assert schedule["next_at"] > datetime.now(UTC).isoformat()
    assert api.send("DELETE", f"/sweeps/{sweep_id}/schedule")["schedule"] is None
    assert Sweep.objects.count() == 1
