"""Routines over the API: kept, changed, in versions, as files, from a cut, looked at step by step."""

import json
from collections.abc import Callable
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from tallpage.server.shelf.models import Capture
from tests.pictures import decoded
from tests.server.conftest import Api
from tests.server.routines.conftest import SLOT, TABLE, TABLE_BOX

Keep = Callable[..., dict[str, Any]]


def _changed(api: Api, routine: dict[str, Any], **changes: Any) -> dict[str, Any]:
    document = {**routine["document"], **changes}
    told: dict[str, Any] = api.send(
        "PUT", f"/routines/{routine['id']}", {"document": document, "changes": routine["changes"]}
    )
    return told


def test_a_routine_is_kept_listed_changed_deleted_and_restored(api: Api, keep: Keep) -> None:
    routine = keep(TABLE, SLOT)
    assert (routine["version"], routine["steps"], routine["made"]) == (1, ["frame_block", "slot"], 0)
    assert routine["questions"] == [
        {"name": "width", "words": "How wide?", "usual": 100, "step": 1, "field": "width_px"}
    ]
    renamed = _changed(api, routine, name="Fares of cars")
    assert [row["name"] for row in api.get("/routines")] == ["Fares of cars"]
    assert renamed["version"] == 1, "nothing was made with it yet"
    api.send("DELETE", f"/routines/{routine['id']}", status=204)
    assert api.get("/routines") == []
    assert api.send("POST", f"/routines/{routine['id']}/restore")["name"] == "Fares of cars"


def test_two_windows_do_not_write_over_each_other(api: Api, keep: Keep) -> None:
    routine = keep(SLOT)
    _changed(api, routine, note="For the paper.")
    problem = api.refused(
        "PUT", f"/routines/{routine['id']}", {"document": routine["document"], "changes": 1}
    )
    assert "changed in another window" in problem["title"]
    assert api.get(f"/routines/{routine['id']}")["note"] == "For the paper."


def test_a_change_after_a_run_is_another_version_and_each_says_what_it_made(
    api: Api, keep: Keep, make_page: Callable[..., Capture], carry_on: Callable[..., None]
) -> None:
    routine = keep(TABLE, SLOT)
    api.send("POST", f"/routines/{routine['id']}/runs", {"captures": [make_page().pk]}, status=202)
    carry_on()
    changed = _changed(api, routine, steps=[SLOT])
    assert [(row["number"], row["made"]) for row in changed["versions"]] == [(1, 1), (2, 0)]
    before = api.client.get(f"/api/routines/{routine['id']}/file?version=1").json()
    assert [step["kind"] for step in before["steps"]] == ["frame_block", "slot"]


def test_order_keys_and_duplicates(api: Api, keep: Keep) -> None:
    first, second = keep(SLOT, name="One"), keep(SLOT, name="Two")
    again = api.send("POST", f"/routines/{first['id']}/duplicate", status=201)
    api.send("PUT", "/routines/order", {"ids": [second["id"], again["id"]]}, status=204)
    assert [row["name"] for row in api.get("/routines")] == ["Two", "One again", "One"]
    api.send("PUT", f"/routines/{first['id']}/key", {"key": 3})
    api.send("PUT", f"/routines/{second['id']}/key", {"key": 3})
    assert {row["name"]: row["key"] for row in api.get("/routines")} == {
        "Two": 3,
        "One": None,
        "One again": None,
    }
    assert api.refused("PUT", f"/routines/{first['id']}/key", {"key": 10})["status"] == 422
    assert "no order" in api.refused("PUT", "/routines/order", {"ids": [first["id"], 999]})["title"]


def test_a_routine_goes_out_as_a_file_and_comes_in_again(api: Api, keep: Keep) -> None:
    routine = keep(TABLE, SLOT, name="Fares: “cars”")
    saved = api.client.get(f"/api/routines/{routine['id']}/file")
    assert 'filename="fares-cars.json"' in saved["Content-Disposition"]
    opened = api.client.post("/api/routines/file", {"file": SimpleUploadedFile("r.json", saved.content)})
    assert opened.status_code == 201
    assert opened.json()["document"] == routine["document"]


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"no JSON", "not JSON"),
        (b'{"version": 7, "name": "x", "steps": []}', "version 7"),
        (json.dumps({"version": 1, "name": "x", "steps": [
            {"kind": "dress", "dressing": {"stamp": {"picture": "crest"}}}]}).encode(), "no picture “crest”"),
        (json.dumps({"version": 1, "name": "x", "steps": [
            {"kind": "frame_block", "block": {"role": "sidebar"}}]}).encode(), "steps[0].block.role"),
    ],
)  # fmt: skip
def test_a_file_that_is_no_routine_is_refused_in_words(api: Api, data: bytes, words: str) -> None:
    refused = api.client.post("/api/routines/file", {"file": SimpleUploadedFile("r.json", data)})
    assert refused.status_code == 422
    assert words in refused.json()["title"]
    assert api.get("/routines") == []


def test_those_that_ship_can_be_kept(api: Api) -> None:
    starters = api.get("/routines/starters")
    assert len(starters) == 6
    for row in starters:
        kept = api.send("POST", "/routines", {"starter": row["name"]}, status=201)
        assert kept["name"] == row["title"]
    assert "ships" in api.refused("POST", "/routines", {"starter": "nothing"})["title"]


def test_what_was_done_to_a_page_is_kept_with_its_files(
    api: Api, make_page: Callable[..., Capture], run_queue: Callable[[], None]
) -> None:
    capture = make_page(settings={"extent": "full", "scheme": "dark", "steps": [
        {"kind": "click", "target": "#more", "text": ""}]})  # fmt: skip
    cut = capture.cuts.get()
    document = {"version": 1, "frame": TABLE_BOX, "dressing": {"border": {"width_px": 2}}}
    api.send("PATCH", f"/cuts/{cut.pk}", {"version": cut.version, "document": document})
    rules = {"width_px": 90, "limit_bytes": 20_000, "formats": ["png", "jpeg"]}
    api.send("POST", f"/cuts/{cut.pk}/outputs", {"rules": rules}, status=202)
    kept = api.send("POST", "/routines", {"cut_id": cut.pk, "name": "Like this"}, status=201)
    take, frame, dress, slot = kept["document"]["steps"]
    assert (take["scheme"], take["steps"], take["screen"]) == ("dark", ["click #more"], "1280x800")
    assert frame["block"] == {"role": "table"}
    assert dress["dressing"]["border"]["width_px"] == 2
    assert (slot["width_px"], slot["limit_bytes"], slot["formats"]) == (90, 20_000, ["png", "jpeg"])
    assert kept["name"] == "Like this"


def test_each_step_is_looked_at_on_a_sample(api: Api, keep: Keep, make_page: Callable[..., Capture]) -> None:
    routine = keep(TABLE, {"kind": "tone", "tone": {"grey": True}, "off": True}, SLOT)
    sample = make_page()
    looks = api.get(f"/routines/{routine['id']}/looks?capture={sample.pk}")
    assert [row["changes"] for row in looks] == [False, True, False, False]
    assert [(row["width_px"], row["height_px"]) for row in looks] == [(320, 400), *[(200, 120)] * 3]
    path = f"/api/routines/{routine['id']}/looks/1?capture={sample.pk}&key={looks[1]['key']}"
    picture = api.client.get(path)
    assert "immutable" in picture["Cache-Control"]
    assert decoded(picture.content).shape[:2] == (60, 100), "as wide as the file that is made"


def test_a_chain_is_shown_up_to_the_step_that_would_leave_the_sample_out(
    api: Api, keep: Keep, make_page: Callable[..., Capture]
) -> None:
    hide = {"kind": "hide_areas", "areas": [{"x_px": 0, "y_px": 0, "width_px": 9, "height_px": 9}]}
    routine = keep(hide, TABLE, SLOT)
    lacking = make_page(table=False)
    looks = api.get(f"/routines/{routine['id']}/looks?capture={lacking.pk}")
    assert [bool(row["key"]) for row in looks] == [True, True, False, False]
    assert "no table on the page" in looks[2]["said"]
    assert api.client.get(f"/api/routines/{routine['id']}/looks/2?capture={lacking.pk}").status_code == 404
