"""Runs: over captures, pages and sweeps; tried first, paused, stopped, made again, handed over."""

import json
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest

from tallpage.server.jobs.models import Job
from tallpage.server.outlets.models import Output
from tallpage.server.routines.dispatch import feed_runs
from tallpage.server.routines.models import RoutineVersion, Run, RunItem
from tallpage.server.shelf.models import Capture, Cut
from tallpage.server.sweeps.models import Sweep
from tests.pictures import assert_same_pixels, decoded
from tests.server.conftest import Api
from tests.server.routines.conftest import SLOT, TABLE, TABLE_BOX

TAKE = {"kind": "take", "screen": "390x844@2", "touch": True, "scheme": "dark"}
Keep = Callable[..., dict[str, Any]]
MakePage = Callable[..., Capture]
CarryOn = Callable[..., None]


def _start(api: Api, routine: dict[str, Any], **over: Any) -> dict[str, Any]:
    run: dict[str, Any] = api.send("POST", f"/routines/{routine['id']}/runs", over, status=202)
    return run


def _items(api: Api, run: dict[str, Any]) -> list[dict[str, Any]]:
    rows: list[dict[str, Any]] = api.get(f"/runs/{run['id']}/items")["items"]
    return rows


def _read(api: Api, run: dict[str, Any]) -> dict[str, Any]:
    told: dict[str, Any] = api.get(f"/runs/{run['id']}")
    return told


def test_five_captures_of_which_one_lacks_the_block(
    api: Api, keep: Keep, make_page: MakePage, carry_on: CarryOn
) -> None:
    pages = [make_page(table=number != 2, seed=number) for number in range(5)]
    run = _start(api, keep(TABLE, SLOT), captures=[page.pk for page in pages])
    assert run["counts"]["waiting"] == 5
    carry_on()
    told = _read(api, run)
    assert told["finished"]
    assert (told["counts"]["done"], told["counts"]["skipped"]) == (4, 1)
    first, *others = _items(api, run)
    assert first["capture_id"] == pages[2].pk, "what needs a look comes first"
    assert first["needs_a_look"]
    assert "no table on the page" in first["warnings"][0]
    assert pages[2].cuts.count() == 1
    for item in others:
        cut = Cut.objects.get(pk=item["cut_id"])
        assert cut.name == "Fares"
        assert cut.document["frame"] == TABLE_BOX
        (file,) = item["files"]
        assert (file["slot"], file["width"], file["met"]) == ("Narrow", 100, True)
        assert file["bytes"] <= 30_000
    assert len(api.get(f"/runs/{run['id']}/outputs")) == 4


def test_a_run_whose_values_no_longer_fit_fails_alone(
    api: Api, keep: Keep, make_page: MakePage, carry_on: CarryOn
) -> None:
    asking, plain = keep(TABLE, SLOT), keep(TABLE, name="Plain")
    broken = _start(api, asking, captures=[make_page().pk], values={"width": "90"})
    sound = _start(api, plain, captures=[make_page().pk])
    version = Run.objects.get(pk=broken["id"]).version
    slot = {name: value for name, value in SLOT.items() if name != "ask"}
    RoutineVersion.objects.filter(pk=version.pk).update(document={**version.document, "steps": [TABLE, slot]})
    carry_on()
    assert _read(api, sound)["counts"]["done"] == 1
    told = _read(api, broken)
    assert (told["finished"], told["counts"]["failed"]) == (True, 1)
    assert "width" in told["note"]
    assert _items(api, broken)[0]["error"] == told["note"]


def test_the_pixels_are_those_that_a_person_makes_by_hand(
    api: Api, keep: Keep, make_page: MakePage, carry_on: CarryOn, run_queue: Callable[[], None]
) -> None:
    page = make_page()
    run = _start(api, keep(TABLE, SLOT), captures=[page.pk])
    carry_on()
    cut = page.cuts.order_by("pk").first()
    assert cut is not None
    api.send(
        "PATCH", f"/cuts/{cut.pk}", {"version": cut.version, "document": {"version": 1, "frame": TABLE_BOX}}
    )
    rules = {"width_px": 100, "limit_bytes": 30_000, "formats": ["png"]}
    by_hand = api.send("POST", f"/cuts/{cut.pk}/outputs", {"rules": rules}, status=202)
    run_queue()
    made = Output.objects.get(pk=_items(api, run)[0]["files"][0]["output_id"])
    other = Output.objects.get(pk=by_hand["id"])
    assert_same_pixels(decoded(made.paths[0].read_bytes()), decoded(other.paths[0].read_bytes()))


def test_a_trial_shows_three_and_keeps_nothing(
    api: Api, keep: Keep, make_page: MakePage, carry_on: CarryOn
) -> None:
    pages = [make_page(table=number != 6, seed=number) for number in range(7)]
    routine = keep(TABLE, SLOT, {**SLOT, "name": "Too light", "limit_bytes": 60})
    run = _start(api, routine, captures=[page.pk for page in pages], trial=True)
    carry_on()
    items = _items(api, run)
    assert {item["capture_id"] for item in items} == {pages[0].pk, pages[3].pk, pages[6].pk}
    assert items[0]["state"] in ("skipped", "done")
    skipped = next(item for item in items if item["state"] == "skipped")
    assert skipped["capture_id"] == pages[6].pk
    tried = next(item for item in items if item["state"] == "done")
    assert [file["met"] for file in tried["files"]] == [True, False]
    assert tried["needs_a_look"], "one of its files would not be as asked"
    look = api.client.get(f"/api/runs/items/{tried['id']}/look")
    assert decoded(look.content).shape[1] == 100
    assert Cut.objects.count() == 7
    assert Output.objects.count() == 0
    assert api.get("/runs") == []
    _start(api, routine, captures=[pages[0].pk], trial=True)
    assert not RunItem.objects.filter(run=run["id"]).exists(), "the trial before is of no use any more"


def test_values_are_asked_for_when_it_runs(
    api: Api, keep: Keep, make_page: MakePage, carry_on: CarryOn
) -> None:
    routine, page = keep(SLOT), make_page()
    run = _start(api, routine, captures=[page.pk], values={"width": 64})
    carry_on()
    assert _items(api, run)[0]["files"][0]["width"] == 64
    assert _read(api, run)["values"] == {"width": 64}
    for values, words in (({"height": 3}, "does not ask for “height”"), ({"width": 0}, "(slot)")):
        problem = api.refused(
            "POST", f"/routines/{routine['id']}/runs", {"captures": [page.pk], "values": values}
        )
        assert words in problem["title"]


def test_a_page_in_the_address_field_is_taken_and_run_over(
    api: Api, keep: Keep, carry_on: CarryOn, painted_pages: None
) -> None:
    routine = keep(TAKE, SLOT)
    runs = [_start(api, routine, addresses=[f"skerrin.example/{name}"]) for name in ("fleet", "broken")]
    carry_on()
    (taken,), (failed,) = (_items(api, run) for run in runs)
    capture = Capture.objects.get(pk=taken["capture_id"])
    assert (capture.scale, capture.touch, capture.settings["scheme"]) == (2, True, "dark")
    assert (taken["state"], failed["state"]) == ("done", "failed")
    assert "The page does not work" in failed["error"]
    assert all(_read(api, run)["finished"] for run in runs)
    assert api.send("POST", f"/runs/{runs[1]['id']}/retry")["again"] == 1
    carry_on()
    assert Capture.objects.filter(address="https://skerrin.example/broken").count() == 2, "taken once more"


@pytest.mark.long
def test_several_pages_are_taken_by_a_sweep_so_that_no_host_is_pressed(
    api: Api, keep: Keep, carry_on: CarryOn, go: Callable[[int], None]
) -> None:
    addresses = [f"skerrin.example/{name}" for name in ("a", "broken", "c", "d", "e", "f", "g")]
    run = _start(api, keep(TAKE, SLOT), addresses=addresses)
    carry_on(2)
    assert Capture.objects.count() == 0, "the sweep takes them, at its pace"
    go(1)
    assert Capture.objects.count() == 1
    Sweep.objects.update(pause_ms=0)
    go(6)
    carry_on(8)
    told = _read(api, run)
    assert (told["finished"], told["counts"]["done"], told["counts"]["failed"]) == (True, 6, 1)
    assert "The page does not work" in _items(api, run)[0]["error"]
    assert Capture.objects.filter(scale=2, touch=True).count() == 7


def test_every_page_of_a_sweep_is_run_over_as_it_arrives_and_again_the_next_time(
    api: Api, keep: Keep, carry_on: CarryOn, go: Callable[[int], None]
) -> None:
    pages = [{"address": f"skerrin.example/{name}", "line": 1} for name in ("a", "broken", "c")]
    screens = [{"width_px": 1280, "height_px": 800}]
    sweep = api.send("POST", "/sweeps", {"pages": pages, "screens": screens, "pause_ms": 0}, status=201)
    routine = keep(SLOT)
    run = _start(api, routine, sweep_id=sweep["id"])
    carry_on(1)
    assert not _read(api, run)["finished"], "its pages are still to come"
    go(4)
    carry_on()
    told = _read(api, run)
    assert (told["finished"], told["counts"]["done"]) == (True, 2)
    again = api.send("POST", f"/sweeps/{sweep['id']}/again", {}, status=201)
    go(4)
    carry_on()
    runs = api.get(f"/runs?routine={routine['id']}")
    assert [row["sweep_id"] for row in runs] == [again["id"], sweep["id"]]
    assert runs[0]["counts"]["done"] == 2


@pytest.mark.long
def test_a_run_is_paused_gone_on_with_and_stopped(
    api: Api, keep: Keep, make_page: MakePage, run_queue: Callable[[], None], carry_on: CarryOn
) -> None:
    pages = [make_page(seed=number).pk for number in range(8)]
    run = _start(api, keep(SLOT), captures=pages)
    api.send("PUT", f"/runs/{run['id']}/mode", {"mode": "pause"})
    carry_on(2)
    assert _read(api, run)["counts"]["waiting"] == 8
    api.send("PUT", f"/runs/{run['id']}/mode", {"mode": "go_on"})
    feed_runs()
    told = api.send("PUT", f"/runs/{run['id']}/mode", {"mode": "stop"})
    assert told["counts"]["applying"] == 6, "so many are on their way"
    carry_on(3)
    told = _read(api, run)
    assert told["finished"]
    assert told["counts"]["stopped"] == 8
    assert api.send("POST", f"/runs/{run['id']}/retry")["again"] == 8
    carry_on(8)
    assert _read(api, run)["counts"]["done"] == 8
    assert Cut.objects.filter(name="Fares").count() == 8


def test_a_step_can_end_the_whole_run(api: Api, keep: Keep, make_page: MakePage, carry_on: CarryOn) -> None:
    pages = [make_page(table=number > 0, seed=number).pk for number in range(9)]
    run = _start(api, keep({**TABLE, "if_missing": "stop"}, SLOT), captures=pages)
    carry_on(8)
    told = _read(api, run)
    assert told["finished"]
    assert "no table on the page" in told["ended_by"]
    assert told["counts"]["failed"] == 1
    assert told["counts"]["stopped"] >= 3
    assert told["counts"]["done"] + told["counts"]["stopped"] == 8


def test_a_step_that_fails_on_every_picture_tells_so_of_each(
    api: Api, keep: Keep, make_page: MakePage, carry_on: CarryOn
) -> None:
    fold = {"kind": "fold_bands", "folds": [{"top_px": 0, "height_px": 100_000}]}
    run = _start(api, keep(fold, SLOT), captures=[make_page(seed=n).pk for n in range(3)])
    carry_on()
    assert _read(api, run)["counts"]["failed"] == 3
    assert {item["error"] for item in _items(api, run)} == {
        "Nothing of the frame would be left between its folds. "
        "Give a box of at least 1 × 1 px that lies on the picture."
    }


def test_the_new_version_replaces_what_the_old_one_made_unless_somebody_changed_it(
    api: Api, keep: Keep, make_page: MakePage, carry_on: CarryOn
) -> None:
    routine, pages = keep(TABLE, SLOT), [make_page(seed=1), make_page(seed=2)]
    run = _start(api, routine, captures=[page.pk for page in pages])
    carry_on()
    old = {page.pk: page.cuts.get(name="Fares") for page in pages}
    touched = old[pages[1].pk]
    api.send("PATCH", f"/cuts/{touched.pk}", {"version": 1, "document": {"version": 1, "frame": TABLE_BOX,
             "tone": {"grey": True}}})  # fmt: skip
    steps = [{**TABLE, "room_px": 5}, SLOT]
    api.send("PUT", f"/routines/{routine['id']}",
             {"document": {**routine["document"], "steps": steps}, "changes": 1})  # fmt: skip
    again = api.send("POST", f"/runs/{run['id']}/again", status=202)
    carry_on()
    assert (again["version"], _read(api, run)["newest_version"]) == (2, 2)
    now = [cut.document["frame"]["width_px"] for cut in pages[0].cuts.all()]
    assert now == [320, 210], "the old one has gone"
    assert Cut.with_deleted.get(pk=old[pages[0].pk].pk).deleted_at is not None
    assert [cut.document["frame"]["width_px"] for cut in pages[1].cuts.all()] == [320, 200, 210]
    before = _items(api, again)[0]["before"]
    looks = [
        api.client.get(f"/api/runs/items/{row}/look")
        for row in (before["item_id"], _items(api, again)[0]["id"])
    ]
    assert [row.status_code for row in looks] == [200, 200]
    assert looks[0].content != looks[1].content
    assert (before["version"], before["files"][0]["width"]) == (1, 100)


def test_documents_are_made_of_each_picture(
    api: Api, keep: Keep, make_page: MakePage, carry_on: CarryOn
) -> None:
    routine = keep(TABLE, {"kind": "out", "way": "pdf", "paper": "A4"})
    run = _start(api, routine, captures=[make_page(seed=1).pk, make_page(seed=2).pk])
    carry_on(8)
    items = _items(api, run)
    assert [item["state"] for item in items] == ["done", "done"]
    for item in items:
        saved = api.client.get(f"/api/hand-overs/{item['document_id']}/file")
        assert b"".join(saved.streaming_content).startswith(b"%PDF")


def test_files_go_into_a_folder_of_the_server_but_for_those_that_are_not_cleared(
    api: Api, keep: Keep, make_page: MakePage, carry_on: CarryOn, out: Path
) -> None:
    routine = keep(SLOT, {"kind": "out", "way": "folder", "folder": "Fares", "names": "{number} {slot}"})
    pages = [make_page(seed=1), make_page(seed=2), make_page(seed=3, rights_state="uncleared")]
    uncleared = not pages[2].rights.cleared_on(pages[2].created_at.date())
    run = _start(api, routine, captures=[page.pk for page in pages])
    carry_on(8)
    names = {path.name for path in (out / "Fares").iterdir()}
    assert names == {"1 Narrow.png", "2 Narrow.png", "manifest.json", "manifest.csv"}
    assert uncleared
    assert "the rights are not cleared" in _read(api, run)["note"]


def test_what_cannot_be_run_is_refused(api: Api, keep: Keep, make_page: MakePage) -> None:
    def refusal(routine: dict[str, Any], **over: Any) -> str:
        return str(api.refused("POST", f"/routines/{routine['id']}/runs", over)["title"])

    page = make_page()
    plain = keep(SLOT)
    assert "nothing to run it on" in refusal(plain)
    assert "nothing to run it on" in refusal(plain, captures=[999_999])
    assert "ftp" in refusal(plain, addresses=["ftp://skerrin.example/x"])
    assert "no file" in refusal(keep({"kind": "out", "way": "folder", "folder": "x"}), captures=[page.pk])
    to_nowhere = keep(SLOT, {"kind": "out", "way": "upload", "outlet": "The Herald"})
    assert "no outlet “The Herald”" in refusal(to_nowhere, captures=[page.pk])


def test_a_worker_that_is_killed_leaves_nothing_twice(
    api: Api, keep: Keep, make_page: MakePage, carry_on: CarryOn
) -> None:
    page = make_page()
    run = _start(api, keep(SLOT), captures=[page.pk])
    feed_runs()
    item = RunItem.objects.get(run=run["id"])
    # A worker that was killed in the middle: its job is found by the others, and begun anew.
    Job.objects.filter(pk=item.job_id).update(attempts=1)
    carry_on()
    assert page.cuts.filter(name="Fares").count() == 1
    assert Output.objects.count() == 1


@pytest.mark.parametrize("state", ["failed", "stopped"])
def test_a_job_that_ends_badly_is_told_of_its_picture(
    api: Api, keep: Keep, make_page: MakePage, carry_on: CarryOn, state: str
) -> None:
    run = _start(api, keep(SLOT), captures=[make_page().pk])
    feed_runs()
    error = {"code": "x", "sentence": "The worker broke off 3 times over this.", "hint": ""}
    Job.objects.filter(run_item__run=run["id"]).update(state=state, error=error)
    carry_on()
    item = _items(api, run)[0]
    assert item["state"] == state
    assert "broke off" in item["error"]
    assert json.dumps(item)


@pytest.mark.parametrize("count", [500, pytest.param(10_000, marks=pytest.mark.long)])
def test_thousands_of_pages_and_pictures_are_run_over_and_far_too_many_are_refused(
    api: Api, keep: Keep, make_page: MakePage, count: int
) -> None:
    routine = keep(SLOT)
    addresses = [f"http://skerrin.example/notices/{number}" for number in range(count)]
    run = _start(api, routine, addresses=addresses)
    assert Sweep.objects.get().shots.count() == count
    assert _read(api, run)["counts"]["all"] == 0  # each joins as it arrives
    first = make_page()
    more = [
        Capture(
            job=Job.objects.create(kind="take_page", state=Job.State.DONE),
            name=f"{number}",
            storage_key=first.storage_key,
        )
        for number in range(count - 1)
    ]
    Capture.objects.bulk_create(more, batch_size=500)
    ids = list(Capture.objects.exclude(storage_key="").order_by("pk").values_list("pk", flat=True))
    run = _start(api, routine, captures=ids)
    feed_runs()
    told = _read(api, run)
    assert told["counts"]["all"] == len(ids) == count
    assert (
        RunItem.objects.filter(run=run["id"], state__in=("taking", "applying")).count() == 6
    )  # by the spoonful
    page = api.get(f"/runs/{run['id']}/items?limit=60")
    assert len(page["items"]) == 60
    problem = api.refused(
        "POST", f"/routines/{routine['id']}/runs", {"addresses": ["http://skerrin.example/"] * 20_001}
    )
    assert problem["status"] == 422
