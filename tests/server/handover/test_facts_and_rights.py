"""Facts that go along as an outlet wants it, and the question before what is not cleared leaves."""

import io
import json
import zipfile
from collections.abc import Callable
from typing import Any

import pytest
from PIL import Image

from tallpage.demo.stand_ins.publishing import PublishingSite
from tallpage.server.shelf.models import Capture, Label
from tests.server.conftest import Api

HandOverNow = Callable[..., Any]
MakeOutput = Callable[..., dict[str, Any]]
FACTS = {"credit": " Skerrin \n Press ", "facts_in_file": True, "facts_beside": True}


@pytest.fixture
def slot_id(api: Api, outlet_id: int) -> int:
    (outlet,) = [row for row in api.get("/outlets") if row["id"] == outlet_id]
    return int(outlet["slots"][0]["id"])


def _zip(api: Api, line: dict[str, Any]) -> dict[str, bytes]:
    response = api.client.get(f"/api/hand-overs/{line['id']}/package")
    with zipfile.ZipFile(io.BytesIO(b"".join(response.streaming_content))) as archive:
        return {name: archive.read(name) for name in archive.namelist()}


def _credit(data: bytes) -> str | None:
    with Image.open(io.BytesIO(data)) as picture:
        found = picture.getxmp()
    return found["RDF"]["Description"]["creator"]["Seq"]["li"] if found else None


def _note(api: Api, capture: Capture, **rights: str) -> None:
    api.send("POST", "/captures/batch", {"ids": [capture.pk], "action": "rights", "rights": rights})


def test_usually_nothing_goes_along(
    api: Api, capture: Capture, slot_id: int, make_output: MakeOutput, hand_over: HandOverNow
) -> None:
    output = make_output(capture, slot_id=slot_id)
    line = hand_over("disk", outputs=[output["id"]])
    assert line["way"] == "file"
    assert _credit(api.get(f"/hand-overs/{line['id']}/package").content) is None


def test_an_outlets_facts_stand_in_its_files_and_beside_them(
    api: Api, capture: Capture, outlet_id: int, slot_id: int, make_output: MakeOutput, hand_over: HandOverNow
) -> None:
    api.send("PUT", f"/outlets/{outlet_id}/facts", FACTS)
    output = make_output(capture, slot_id=slot_id)
    files = _zip(api, hand_over("disk", outputs=[output["id"]]))
    name = output["file_name"]
    assert list(files)[:2] == [name, f"{name}.json"]
    assert _credit(files[name]) == "Skerrin Press"
    assert len(files[name]) == output["bytes"] <= 60_000
    assert json.loads(files[f"{name}.json"]) == {
        "file": name,
        "credit": "Skerrin Press",
        "source": "http://skerrin.example/timetable",
        "taken_at": json.loads(files[f"{name}.json"])["taken_at"],
        "width_px": 240,
        "height_px": 300,
        "rights": "",
    }
    assert [row["file"] for row in json.loads(files["manifest.json"])] == [name], "of pictures alone"


def test_the_button_gives_the_picture_alone(
    api: Api, capture: Capture, outlet_id: int, slot_id: int, make_output: MakeOutput
) -> None:
    api.send("PUT", f"/outlets/{outlet_id}/facts", FACTS)
    output = make_output(capture, slot_id=slot_id)
    assert not output["file_name"].endswith(".zip")
    assert _credit(api.get(f"/outputs/{output['id']}/file").content) == "Skerrin Press"


def test_a_credit_of_today_lies_beside_and_makes_no_file_anew(
    api: Api, capture: Capture, outlet_id: int, slot_id: int, make_output: MakeOutput, hand_over: HandOverNow
) -> None:
    output = make_output(capture, slot_id=slot_id)
    api.send("PUT", f"/outlets/{outlet_id}/facts", {"credit": "Isa", "facts_beside": True})
    (row,) = api.get(f"/cuts/{output['cut_id']}/outputs")
    assert not row["slot_changed"], "the file itself says nothing, before and after"
    files = _zip(api, hand_over("disk", outputs=[output["id"]]))
    assert json.loads(files[f"{row['file_name']}.json"])["credit"] == "Isa"


def test_uploads_bring_the_picture_alone(
    api: Api,
    publishing: PublishingSite,
    capture: Capture,
    outlet_id: int,
    slot_id: int,
    make_output: MakeOutput,
    hand_over: HandOverNow,
) -> None:
    api.send("PUT", f"/outlets/{outlet_id}/facts", FACTS)
    output = make_output(capture, slot_id=slot_id)
    line = hand_over("upload", outputs=[output["id"]], outlet=outlet_id)
    assert line["job"]["state"] == "done"
    assert len(line["files"]) == 1


def test_files_that_are_there_wait_until_they_are_fitted_to_the_slot_again(
    api: Api,
    capture: Capture,
    outlet_id: int,
    slot_id: int,
    make_output: MakeOutput,
    run_queue: Callable[[], None],
) -> None:
    output = make_output(capture, slot_id=slot_id)
    api.send("PUT", f"/outlets/{outlet_id}/facts", FACTS)
    path = f"/cuts/{output['cut_id']}/outputs"
    assert api.get(path)[0]["slot_changed"]
    api.send("POST", f"/outputs/{output['id']}/fit", {"follow_slot": True}, status=202)
    run_queue()
    (again,) = api.get(path)
    assert not again["slot_changed"]
    assert 200 < again["bytes"] - output["bytes"] < 1_000
    assert _credit(api.get(f"/outputs/{output['id']}/file").content) == "Skerrin Press"


def test_a_file_of_outlets_and_a_copy_keep_the_facts(api: Api, outlet_id: int) -> None:
    api.send("PUT", f"/outlets/{outlet_id}/facts", FACTS)
    file = api.get("/outlets/file")
    api.send("PUT", f"/outlets/{outlet_id}/facts", {})
    api.send("POST", "/outlets/file", file)
    api.send("POST", f"/outlets/{outlet_id}/copy", status=201)
    for outlet in api.get("/outlets"):
        assert (outlet["credit"], outlet["facts_in_file"], outlet["facts_beside"]) == (
            "Skerrin Press",
            True,
            True,
        )
    for earlier in file["outlets"]:
        for name in FACTS:
            del earlier[name]
    api.send("POST", "/outlets/file", file)
    assert api.get("/outlets")[0]["facts_in_file"], "a file of an earlier version says nothing of them"


def test_a_credit_that_is_too_long_is_refused_and_nothing_changes(api: Api, outlet_id: int) -> None:
    api.send("PUT", f"/outlets/{outlet_id}/facts", FACTS)
    refused = api.refused("PUT", f"/outlets/{outlet_id}/facts", {"credit": "x" * 300})
    assert refused["code"] == "credit_too_long"
    assert api.get("/outlets")[0]["credit"] == "Skerrin Press"


@pytest.mark.parametrize("way", ["disk", "folder", "pdf", "link", "archive"])
def test_what_is_not_cleared_leaves_after_one_question(
    api: Api, capture: Capture, hand_over: HandOverNow, way: str
) -> None:
    _note(api, capture, state="asked", note="Odd wrote on Monday.")
    order = {"way": way, "what": {"captures": [capture.pk], "pictures": True}}
    refused = api.refused("POST", "/hand-overs", {"order": order})
    assert refused["code"] == "not_cleared"
    assert "asked, no answer yet" in refused["title"]
    assert "Odd" not in refused["title"], "the note stays in the house"
    assert api.get(f"/captures/{capture.pk}/log") == []
    line = hand_over(way, captures=[capture.pk], pictures=True, uncleared=True)
    assert line["uncleared"]
    assert api.refused("POST", f"/hand-overs/{line['id']}/again", {})["code"] == "not_cleared"
    again = api.send("POST", f"/hand-overs/{line['id']}/again", {"uncleared": True}, status=202)
    assert again["uncleared"]


def test_the_list_of_files_says_the_rights(
    api: Api, capture: Capture, make_capture: Callable[..., Capture], hand_over: HandOverNow
) -> None:
    other = make_capture()
    _note(api, capture, state="licensed", until="2026-11-01")
    _note(api, other, state="own", note="ours")
    line = hand_over("disk", captures=[capture.pk, other.pk], pictures=True, uncleared=True)
    rows = json.loads(_zip(api, line)["manifest.json"])
    assert [row["rights"] for row in rows] == ["licence ran out on 2026-11-01", "own"]


def test_once_noted_as_ones_own_nobody_is_asked(api: Api, capture: Capture, hand_over: HandOverNow) -> None:
    _note(api, capture, state="not_cleared")
    asked = {"captures": [capture.pk]}
    assert "not cleared" in api.send("POST", "/hand-over/rights", asked)["sentence"]
    _note(api, capture, state="own")
    assert api.send("POST", "/hand-over/rights", asked)["sentence"] == ""
    assert not hand_over("disk", captures=[capture.pk], pictures=True)["uncleared"]


def test_captures_are_found_by_what_is_not_cleared(
    api: Api, capture: Capture, make_capture: Callable[..., Capture]
) -> None:
    cleared = make_capture()
    _note(api, cleared, state="licensed", until="2999-01-01")
    _note(api, capture, state="licensed", until="2026-11-01")
    assert api.get("/captures/ids?state=not_cleared")["ids"] == [capture.pk]


@pytest.mark.parametrize("rights", [{"state": "licensed"}, {"state": "own", "until": "2026-11-01"}])
def test_a_licence_without_a_day_is_refused(api: Api, capture: Capture, rights: dict[str, str]) -> None:
    body = {"ids": [capture.pk], "action": "rights", "rights": rights}
    assert api.refused("POST", "/captures/batch", body)["code"] == "licence_day"
    assert api.get(f"/captures/{capture.pk}")["rights"]["state"] == ""


def test_a_page_that_is_taken_again_lies_where_it_lay_with_labels_and_rights(
    api: Api, capture: Capture
) -> None:
    folder = api.send("POST", "/folders", {"name": "Winter"}, status=201)
    capture.shelf_folder_id = folder["id"]
    capture.save()
    capture.labels.add(Label.objects.create(name="rona"))
    _note(api, capture, state="asked")
    again = api.send("POST", f"/captures/{capture.pk}/retake", status=202)
    assert (again["folder"], again["labels"], again["rights"]["state"]) == (folder["id"], ["rona"], "asked")


def test_one_capture_tells_its_labels_and_rights(api: Api, capture: Capture) -> None:
    capture.labels.add(Label.objects.create(name="rona"))
    _note(api, capture, state="own", note="ours")
    told = api.get(f"/captures/{capture.pk}")
    assert told["labels"] == ["rona"]
    assert (told["rights"]["words"], told["rights"]["note"]) == ("own", "ours")
