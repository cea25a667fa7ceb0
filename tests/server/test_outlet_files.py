"""Outlets copied, ordered, carried in and out of a file, and what was last made for them."""

import json
from collections.abc import Callable
from contextlib import AbstractContextManager

import pytest

from tallpage.server.outlets.models import Outlet, Slot
from tallpage.server.shelf.models import Capture
from tests.server.conftest import Api

MakeCapture = Callable[..., Capture]
RunQueue = Callable[[], None]
SLOT = {
    "name": "Article",
    "width_px": 160,
    "limit_bytes": 9_000,
    "formats": ["jpeg", "webp"],
    "greatest_height_px": 900,
}


@pytest.fixture
def outlet_id(api: Api) -> int:
    outlet = api.send("POST", "/outlets", {"name": "Harbour Gazette"}, status=201)
    for name in ("Article", "Teaser"):
        api.send("POST", f"/outlets/{outlet['id']}/slots", {**SLOT, "name": name}, status=201)
    return int(outlet["id"])


def _names(api: Api) -> list[tuple[str, list[str]]]:
    return [(row["name"], [slot["name"] for slot in row["slots"]]) for row in api.get("/outlets")]


@pytest.mark.parametrize("blank", ["   ", "\u00a0", "\t\n"])
def test_a_blank_name_is_refused_everywhere(api: Api, outlet_id: int, blank: str) -> None:
    slot_id = api.get("/outlets")[0]["slots"][0]["id"]
    file = {"kind": "outlets", "version": 1, "outlets": [{"name": blank, "slots": []}]}
    for method, path, body in (
        ("POST", "/outlets", {"name": blank}),
        ("PATCH", f"/outlets/{outlet_id}", {"name": blank}),
        ("PUT", f"/slots/{slot_id}", {**SLOT, "name": blank}),
        ("POST", "/outlets/file", file),
    ):
        assert api.refused(method, path, body)["code"] == "invalid"
    assert _names(api) == [("Harbour Gazette", ["Article", "Teaser"])]


def test_a_file_of_thousands_of_slots_is_taken_in_with_few_statements(
    api: Api, outlet_id: int, django_assert_max_num_queries: Callable[..., AbstractContextManager[object]]
) -> None:
    slots = [{**SLOT, "name": f"Slot {number}"} for number in range(2_000)] + [{**SLOT, "width_px": 320}]
    file = {"kind": "outlets", "version": 1, "outlets": [{"name": "harbour gazette", "slots": slots}]}
    with django_assert_max_num_queries(50):
        api.send("POST", "/outlets/file", file)
    (outlet,) = api.get("/outlets")
    assert [slot["name"] for slot in outlet["slots"]][:3] == ["Article", "Teaser", "Slot 0"]
    assert len(outlet["slots"]) == 2_002
    assert outlet["slots"][0]["width_px"] == 320


def test_rows_whose_names_an_earlier_version_let_go_blank_are_listed_carried_and_mended(
    api: Api, outlet_id: int
) -> None:
    Outlet.objects.filter(pk=outlet_id).update(name="")
    slot_id = api.get("/outlets")[0]["slots"][0]["id"]
    Slot.objects.filter(pk=slot_id).update(name="")
    assert _names(api) == [("", ["", "Teaser"])]
    (carried,) = json.loads(api.client.get("/api/outlets/file").content)["outlets"]
    assert carried["name"] == f"Outlet {outlet_id}"
    assert carried["slots"][0]["name"] == f"Slot {slot_id}"
    api.send("PATCH", f"/outlets/{outlet_id}", {"name": " Gazette "})
    api.send("PUT", f"/slots/{slot_id}", SLOT)
    assert _names(api) == [("Gazette", ["Article", "Teaser"])]


def test_a_copy_has_the_same_slots_under_a_name_that_is_free(api: Api, outlet_id: int) -> None:
    for _ in range(2):
        api.send("POST", f"/outlets/{outlet_id}/copy", status=201)
    slots = ["Article", "Teaser"]
    assert _names(api) == [
        ("Harbour Gazette", slots),
        ("Harbour Gazette copy", slots),
        ("Harbour Gazette copy 2", slots),
    ]


def test_outlets_and_slots_are_put_in_order(api: Api, outlet_id: int) -> None:
    other = api.send("POST", "/outlets", {"name": "Noticeboard"}, status=201)["id"]
    api.send("PUT", "/outlets/order", {"ids": [other, outlet_id]}, status=204)
    slots = [slot["id"] for slot in api.get("/outlets")[1]["slots"]]
    api.send("PUT", f"/outlets/{outlet_id}/slots/order", {"ids": slots[::-1]}, status=204)
    assert _names(api) == [("Noticeboard", []), ("Harbour Gazette", ["Teaser", "Article"])]


def test_a_file_of_outlets_comes_back_as_it_went(api: Api, outlet_id: int) -> None:
    answer = api.client.get("/api/outlets/file")
    assert answer["Content-Disposition"] == 'attachment; filename="outlets.json"'
    file = json.loads(answer.content)
    before = _names(api)
    api.send("DELETE", f"/outlets/{outlet_id}", status=204)
    assert api.send("POST", "/outlets/file", file) == {"added": ["Harbour Gazette"], "changed": []}
    assert _names(api) == before
    assert json.loads(api.client.get("/api/outlets/file").content) == file


def test_a_file_adds_to_what_is_there_and_takes_over_rules_of_the_same_name(api: Api, outlet_id: int) -> None:
    slots = [{**SLOT, "name": "article", "width_px": 720}, {**SLOT, "name": "Front page"}]
    file = {"kind": "outlets", "version": 1, "outlets": [{"name": "harbour gazette", "slots": slots}]}
    assert api.send("POST", "/outlets/file", file) == {"added": [], "changed": ["harbour gazette"]}
    assert _names(api) == [("Harbour Gazette", ["article", "Teaser", "Front page"])]
    assert api.get("/outlets")[0]["slots"][0]["width_px"] == 720


@pytest.mark.parametrize(
    ("change", "code"),
    [
        ({"kind": "screens"}, "invalid"),
        ({"version": 2}, "invalid"),
        ({"outlets": [{"name": "A", "slots": [{**SLOT, "formats": ["exe"]}]}]}, "invalid"),
        ({"outlets": [{"name": "A"}, {"name": "B", "slots": [{**SLOT, "width_px": 0}]}]}, "width_impossible"),
    ],
)
def test_a_file_with_a_mistake_changes_nothing(api: Api, outlet_id: int, change: dict, code: str) -> None:
    before = _names(api)
    file = {"kind": "outlets", "version": 1, "outlets": [], **change}
    refused = api.refused("POST", "/outlets/file", file)
    assert refused["code"] == code
    if code == "width_impossible":
        assert "“B”, slot “Article”" in refused["title"]
    assert _names(api) == before


def test_a_slot_shows_what_was_last_made_for_it(
    api: Api, run_queue: RunQueue, make_capture: MakeCapture, outlet_id: int
) -> None:
    slot_id = api.get("/outlets")[0]["slots"][0]["id"]
    for title in ("Timetable", "Fares"):
        cut_id = api.get(f"/captures/{make_capture(title=title).pk}")["cuts"][0]["id"]
        for _ in range(2):
            api.send("POST", f"/cuts/{cut_id}/outputs", {"slot_id": slot_id}, status=202)
    last = api.get("/outlets")[0]["slots"][0]["last"]
    assert [row["name"].split(" ")[0] for row in last] == ["Fares", "Timetable"]
