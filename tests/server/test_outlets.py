import threading
from collections.abc import Callable
from typing import Any

import numpy as np
import pytest
from django.db.models.signals import post_save

from tallpage.core.fit import fit_order
from tallpage.server.jobs.queue import Signals
from tallpage.server.outlets import making
from tallpage.server.outlets.models import Output
from tallpage.server.shelf.models import Capture
from tests.pictures import assert_close, assert_same_pixels, decoded, photograph, text_page
from tests.server.conftest import Api

MakeCapture = Callable[..., Capture]
RunQueue = Callable[[], None]
SLOT = {
    "name": "Article",
    "width_px": 160,
    "limit_bytes": 9_000,
    "formats": ["jpeg", "webp"],
    "greatest_height_px": None,
}


@pytest.fixture
def slot_id(api: Api) -> int:
    outlet = api.send("POST", "/outlets", {"name": "Harbour Gazette"}, status=201)
    return int(api.send("POST", f"/outlets/{outlet['id']}/slots", SLOT, status=201)["id"])


@pytest.fixture
def cut_id(api: Api, make_capture: MakeCapture) -> int:
    return int(api.get(f"/captures/{make_capture().pk}")["cuts"][0]["id"])


def _ledger(api: Api, cut_id: int) -> dict:
    rows = api.get(f"/cuts/{cut_id}/outputs")
    return rows[-1]


def test_outlets_are_made_renamed_and_deleted_with_their_slots(api: Api, slot_id: int) -> None:
    outlet = api.get("/outlets")[0]
    (slot,) = outlet["slots"]
    assert slot == {**slot, **SLOT, "id": slot_id, "last": [], "size_words": "160 px"}
    api.send("PATCH", f"/outlets/{outlet['id']}", {"name": "Gazette"})
    api.send("PUT", f"/slots/{slot_id}", {**SLOT, "width_px": 720})
    assert api.get("/outlets")[0]["slots"][0]["width_px"] == 720
    api.send("DELETE", f"/outlets/{outlet['id']}", status=204)
    assert api.get("/outlets") == []


def test_two_outlets_cannot_have_one_name(api: Api, slot_id: int) -> None:
    assert api.refused("POST", "/outlets", {"name": "harbour gazette"})["code"] == "name_taken"


@pytest.mark.parametrize(
    ("change", "code"),
    [
        ({"width_px": 0}, "width_impossible"),
        ({"width_px": 10_000_000}, "width_impossible"),
        ({"limit_bytes": 0}, "limit_impossible"),
        ({"formats": []}, "format_unknown"),
        ({"formats": ["exe"]}, "invalid"),
        ({"name": ""}, "invalid"),
    ],
)
def test_absurd_slots_are_refused(api: Api, slot_id: int, change: dict, code: str) -> None:
    assert api.refused("PUT", f"/slots/{slot_id}", {**SLOT, **change})["code"] == code
    assert api.get("/outlets")[0]["slots"][0]["width_px"] == 160


def test_a_file_is_made_for_a_slot_and_saved_under_a_sensible_name(
    api: Api, run_queue: RunQueue, cut_id: int, slot_id: int
) -> None:
    api.send("POST", f"/cuts/{cut_id}/outputs", {"slot_id": slot_id}, status=202)
    run_queue()
    row = _ledger(api, cut_id)
    assert (row["met"], row["stale"], row["by_hand"]) == (True, False, False)
    assert row["label"] == "Harbour Gazette: Article"
    assert row["format"] in SLOT["formats"]
    assert row["looks"]
    assert {point["choice"]["format"] for one in row["tradeoffs"] for point in one["points"]} == {
        "jpeg",
        "webp",
    }
    saved = api.get(f"/outputs/{row['id']}/file")
    assert len(saved.content) == row["bytes"] <= 9_000
    assert decoded(saved.content).shape == (240, 160, 3)
    extension = {"jpeg": "jpg", "webp": "webp"}[row["format"]]
    expected = f'attachment; filename="timetable-skerrin-example-2026-11-24-160x240.{extension}"'
    assert saved["Content-Disposition"] == expected


def test_only_the_frame_is_in_the_file(api: Api, run_queue: RunQueue, make_capture: MakeCapture) -> None:
    pixels = photograph(320, 480)
    cut = api.get(f"/captures/{make_capture(pixels).pk}")["cuts"][0]
    frame = {"x_px": 30, "y_px": 200, "width_px": 120, "height_px": 90}
    api.send("PATCH", f"/cuts/{cut['id']}", {"version": 1, "document": {"frame": frame}})
    own = {"width_px": 120, "limit_bytes": 200_000, "formats": ["png"]}
    api.send("POST", f"/cuts/{cut['id']}/outputs", {"rules": own}, status=202)
    run_queue()
    row = _ledger(api, cut["id"])
    assert_same_pixels(decoded(api.get(f"/outputs/{row['id']}/file").content), pixels[200:290, 30:150])


def test_a_quality_by_hand_makes_another_file_and_automatic_brings_the_search_back(
    api: Api, run_queue: RunQueue, cut_id: int, slot_id: int
) -> None:
    api.send("POST", f"/cuts/{cut_id}/outputs", {"slot_id": slot_id}, status=202)
    run_queue()
    searched = _ledger(api, cut_id)
    choice = {"format": "jpeg", "quality": 12}
    api.send("POST", f"/outputs/{searched['id']}/fit", {"choice": choice}, status=202)
    run_queue()
    by_hand = _ledger(api, cut_id)
    assert by_hand["by_hand"]
    assert by_hand["made_choice"]["quality"] == 12
    assert by_hand["bytes"] < searched["bytes"]
    assert by_hand["fidelity"] < searched["fidelity"]
    assert by_hand["tradeoffs"] == searched["tradeoffs"] != [], "what the search found stays to choose from"
    assert not by_hand["stale"]
    api.send("POST", f"/outputs/{searched['id']}/fit", {"choice": None}, status=202)
    run_queue()
    assert _ledger(api, cut_id)["bytes"] == searched["bytes"]


@pytest.mark.parametrize(
    "choice", [{"format": "jpeg"}, {"format": "png", "quality": 50}, {"format": "webp", "quality": 500}]
)
def test_a_choice_that_makes_no_sense_is_refused(
    api: Api, run_queue: RunQueue, cut_id: int, slot_id: int, choice: dict
) -> None:
    output = api.send("POST", f"/cuts/{cut_id}/outputs", {"slot_id": slot_id}, status=202)
    assert api.refused("POST", f"/outputs/{output['id']}/fit", {"choice": choice})["status"] == 422


@pytest.mark.parametrize(
    ("rules", "code"),
    [
        ({"width_px": 0, "limit_bytes": 9_000}, "width_impossible"),
        ({"width_px": 10_000_000, "limit_bytes": 9_000}, "width_impossible"),
        ({"width_px": 100, "limit_bytes": 0}, "limit_impossible"),
        ({"width_px": 100}, "limit_impossible"),
        ({"width_px": "wide", "limit_bytes": 9_000}, "invalid"),
    ],
)
def test_absurd_rules_are_refused_and_no_row_is_added(api: Api, cut_id: int, rules: dict, code: str) -> None:
    assert api.refused("POST", f"/cuts/{cut_id}/outputs", {"rules": rules})["code"] == code
    assert api.get(f"/cuts/{cut_id}/outputs") == []


def test_a_file_says_when_its_slot_has_changed_and_follows_it_when_asked(
    api: Api, run_queue: RunQueue, cut_id: int, slot_id: int
) -> None:
    api.send("POST", f"/cuts/{cut_id}/outputs", {"slot_id": slot_id}, status=202)
    run_queue()
    assert not _ledger(api, cut_id)["slot_changed"]
    api.send("PUT", f"/slots/{slot_id}", {**SLOT, "name": "Column", "width_px": 120})
    row = _ledger(api, cut_id)
    assert (row["slot_changed"], row["width_px"], row["made_width_px"]) == (True, 160, 160)
    api.send("POST", f"/outputs/{row['id']}/fit", {"follow_slot": True}, status=202)
    run_queue()
    row = _ledger(api, cut_id)
    assert (row["slot_changed"], row["made_width_px"]) == (False, 120)
    assert row["label"] == "Harbour Gazette: Column"


def test_a_limit_that_cannot_be_met_says_what_would(api: Api, run_queue: RunQueue, cut_id: int) -> None:
    rules = {"width_px": 320, "limit_bytes": 5_200, "formats": ["jpeg"]}
    api.send("POST", f"/cuts/{cut_id}/outputs", {"rules": rules}, status=202)
    run_queue()
    row = _ledger(api, cut_id)
    assert not row["met"]
    assert {advice["kind"] for advice in row["advice"]} == {"fold", "format", "leaves", "limit", "width"}


def test_a_file_says_when_its_cut_has_changed(
    api: Api, run_queue: RunQueue, cut_id: int, slot_id: int
) -> None:
    api.send("POST", f"/cuts/{cut_id}/outputs", {"slot_id": slot_id}, status=202)
    run_queue()
    frame = {"x_px": 0, "y_px": 0, "width_px": 100, "height_px": 100}
    api.send("PATCH", f"/cuts/{cut_id}", {"version": 1, "document": {"frame": frame}})
    assert _ledger(api, cut_id)["stale"]
    api.send("POST", f"/outputs/{_ledger(api, cut_id)['id']}/fit", {"choice": None}, status=202)
    run_queue()
    row = _ledger(api, cut_id)
    assert (row["stale"], row["made_height_px"], row["kept_small"]) == (False, 100, True)


@pytest.mark.long
def test_compare_shows_both_at_the_same_place(
    api: Api, run_queue: RunQueue, make_capture: MakeCapture, slot_id: int
) -> None:
    cut_id = api.get(f"/captures/{make_capture(photograph(160, 2_500)).pk}")["cuts"][0]["id"]
    api.send("PUT", f"/slots/{slot_id}", {**SLOT, "limit_bytes": 60_000})
    api.send("POST", f"/cuts/{cut_id}/outputs", {"slot_id": slot_id}, status=202)
    run_queue()
    output_id = _ledger(api, cut_id)["id"]
    for number, height in ((0, 1_024), (1, 1_024), (2, 452)):
        original, result = (
            decoded(api.get(f"/outputs/{output_id}/{side}/{number}").content)
            for side in ("original", "result")
        )
        assert original.shape == (height, 160, 3)
        assert_close(result, original, mean=8)
    assert api.refused("GET", f"/outputs/{output_id}/original/3")["status"] == 404


def test_a_slot_may_ask_for_the_lightest_file_that_looks_so_good(
    api: Api, run_queue: RunQueue, cut_id: int, slot_id: int
) -> None:
    light = {**SLOT, "limit_bytes": None, "least_fidelity": 80}
    api.send("PUT", f"/slots/{slot_id}", light)
    text = api.get("/outlets/file")
    assert text["outlets"][0]["slots"][0]["least_fidelity"] == 80
    assert api.send("POST", "/outlets/file", text)["changed"] == ["Harbour Gazette"]
    api.send("POST", f"/cuts/{cut_id}/outputs", {"slot_id": slot_id}, status=202)
    run_queue()
    row = _ledger(api, cut_id)
    assert (row["limit_bytes"], row["least_fidelity"], row["met"]) == (None, 80, True)
    assert row["fidelity"] >= 80
    assert "lightest" in row["why"]
    choice = {"format": "jpeg", "quality": 5}
    api.send("POST", f"/outputs/{row['id']}/fit", {"choice": choice}, status=202)
    run_queue()
    assert not _ledger(api, cut_id)["met"], "made by hand it looks worse than was asked for"


@pytest.mark.parametrize(
    "wanted",
    [
        {"limit_bytes": None},
        {"limit_bytes": None, "least_fidelity": 20},
        {"limit_bytes": None, "least_fidelity": 101},
    ],
)
def test_a_slot_that_asks_for_nothing_that_can_be_made_is_refused(
    api: Api, slot_id: int, wanted: dict[str, object]
) -> None:
    assert api.refused("PUT", f"/slots/{slot_id}", {**SLOT, **wanted})["status"] == 422
    assert api.get("/outlets")[0]["slots"][0]["limit_bytes"] == SLOT["limit_bytes"]


def test_a_removed_row_takes_its_file_along(api: Api, run_queue: RunQueue, cut_id: int, slot_id: int) -> None:
    api.send("POST", f"/cuts/{cut_id}/outputs", {"slot_id": slot_id}, status=202)
    run_queue()
    output = Output.objects.get()
    (path,) = output.paths
    assert path.exists()
    api.send("DELETE", f"/outputs/{output.pk}", status=204)
    assert not path.exists()
    assert api.get(f"/cuts/{cut_id}/outputs") == []


def test_a_search_that_is_stopped_keeps_the_best_so_far(
    api: Api, make_capture: MakeCapture, run_queue: Callable[[], None], monkeypatch: pytest.MonkeyPatch
) -> None:
    def endless(*told: Any, should_stop: Callable[[], None], **more: Any) -> None:
        fit_order(*told, should_stop=should_stop, **more)
        while True:
            should_stop()
            threading.Event().wait(0.01)

    def stop(instance: Output, **_: object) -> None:
        if instance.files.exists():
            api.send("POST", f"/outputs/{instance.pk}/stop")

    monkeypatch.setattr(making, "fit_order", endless)
    cut_id = api.get(f"/captures/{make_capture(photograph(320, 480)).pk}")["cuts"][0]["id"]
    output_id = api.send("POST", f"/cuts/{cut_id}/outputs", {"rules": SLOT}, status=202)["id"]
    post_save.connect(stop, sender=Output)
    try:
        run_queue()
    finally:
        post_save.disconnect(stop, sender=Output)
    (row,) = api.get(f"/cuts/{cut_id}/outputs")
    assert (row["id"], row["job"]["state"], row["format"] != "") == (output_id, "stopped", True)
    assert 0 < row["bytes"] <= SLOT["limit_bytes"]
    assert row["job"]["told"]["best"]["bytes"] == row["bytes"]
    assert row["job"]["told"]["expected"]["met"]
    assert row["why"].startswith("The best so far")
    assert Output.objects.get().paths[0].exists()


def test_advice_is_there_while_more_is_looked_for(
    api: Api, make_capture: MakeCapture, run_queue: Callable[[], None], monkeypatch: pytest.MonkeyPatch
) -> None:
    seen: list[tuple[str, list[str]]] = []

    def note(instance: Output, **_: object) -> None:
        (row,) = api.get(f"/cuts/{instance.cut_id}/outputs")
        seen.append((row["job"]["state"], [advice["kind"] for advice in row["advice"]]))

    def slowly(self: Signals, result: object, **told: Any) -> None:
        publish_preview(self, result, **told)
        threading.Event().wait(0.6)  # longer than between two looks at what was handed over

    publish_preview = Signals.publish_preview
    monkeypatch.setattr(Signals, "publish_preview", slowly)
    letters = make_capture(np.repeat(text_page(160, 480), 2, axis=1))
    cut_id = api.get(f"/captures/{letters.pk}")["cuts"][0]["id"]
    api.send("POST", f"/cuts/{cut_id}/outputs", {"rules": {**SLOT, "limit_bytes": 900}}, status=202)
    post_save.connect(note, sender=Output)
    try:
        run_queue()
    finally:
        post_save.disconnect(note, sender=Output)
    early = [kinds for state, kinds in seen if state == "running" and kinds]
    assert early
    assert len(early[0]) < len(seen[-1][1])
    assert set(early[0]) <= set(seen[-1][1])
