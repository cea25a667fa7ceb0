"""Folders, labels, and many captures at once: found, moved, labelled, deleted and put back; none is lost."""

from collections.abc import Callable
from datetime import UTC, datetime

import pytest

from tallpage.server.outlets.models import Output
from tallpage.server.shelf.models import Capture, Folder, Label
from tests.pictures import gradient
from tests.server.conftest import Api
from tests.server.test_outlets import SLOT

Make = Callable[..., Capture]
_BY_HAND = {"format": "webp", "quality": 60}


@pytest.fixture
def shelf(make_capture: Make) -> list[int]:
    """Five captures, the oldest first."""
    return [make_capture(gradient(40, 40), title=f"Page {number}").pk for number in range(5)]


def _folder(api: Api, name: str, parent: int | None = None) -> int:
    return int(api.send("POST", "/folders", {"name": name, "parent": parent}, status=201)["id"])


def _batch(api: Api, ids: list[int], **what: object) -> list[int]:
    changed: list[int] = api.send("POST", "/captures/batch", {"ids": ids, **what})["ids"]
    return changed


def _found(api: Api, query: str) -> list[int]:
    ids = [row["id"] for row in api.get(f"/captures?{query}")["captures"]]
    assert api.get(f"/captures/ids?{query}")["ids"] == ids
    return ids


def test_captures_are_moved_and_found_with_the_folders_inside(api: Api, shelf: list[int]) -> None:
    outer = _folder(api, "Help")
    inner = _folder(api, "Fares", outer)
    _batch(api, shelf[:2], action="move", folder=inner)
    _batch(api, shelf[2:3], action="move", folder=outer)
    assert _found(api, f"folder={outer}") == [shelf[2], shelf[1], shelf[0]]
    assert _found(api, f"folder={inner}") == [shelf[1], shelf[0]]
    assert _found(api, "folder=0") == [shelf[4], shelf[3]]
    counts = {row["name"]: (row["parent"], row["count"]) for row in api.get("/folders")}
    assert counts == {"Help": (None, 1), "Fares": (outer, 2)}


def test_what_lies_in_a_folder_that_is_deleted_moves_up(api: Api, shelf: list[int]) -> None:
    outer, same = _folder(api, "Help"), _folder(api, "Fares")
    inner = _folder(api, "Fares", outer)
    deep = _folder(api, "Winter", inner)
    _batch(api, shelf[:1], action="move", folder=inner)
    _batch(api, shelf[1:2], action="move", folder=deep)
    api.send("DELETE", f"/folders/{inner}", status=204)
    assert Capture.objects.get(pk=shelf[0]).shelf_folder_id == outer
    assert Folder.objects.get(pk=deep).parent_id == outer
    api.send("DELETE", f"/folders/{outer}", status=204)
    assert Capture.objects.get(pk=shelf[0]).shelf_folder_id is None
    assert Capture.objects.get(pk=shelf[1]).shelf_folder_id == deep
    assert {row["name"] for row in api.get("/folders")} == {"Fares", "Winter"}
    assert Folder.objects.filter(pk=same).exists()
    assert Capture.objects.on_shelf().count() == 5


def test_folders_have_names_of_their_own_and_never_lie_in_themselves(api: Api) -> None:
    outer = _folder(api, "Help")
    inner = _folder(api, "Fares", outer)
    assert api.refused("POST", "/folders", {"name": " help "})["code"] == "name_taken"
    assert api.refused("POST", "/folders", {"name": "  "})["code"] == "no_name"
    for parent in (outer, inner):
        assert (
            api.refused("PUT", f"/folders/{outer}", {"name": "Help", "parent": parent})["code"] == "in_itself"
        )
    moved = api.send("PUT", f"/folders/{inner}", {"name": "Winter fares", "parent": None})
    assert (moved["name"], moved["parent"]) == ("Winter fares", None)
    deepest = None
    for number in range(12):
        deepest = _folder(api, f"{number}", deepest)
    assert api.refused("POST", "/folders", {"name": "more", "parent": deepest})["code"] == "too_deep"


def test_labels_are_given_once_taken_and_gone_when_nobody_has_them(api: Api, shelf: list[int]) -> None:
    _batch(api, shelf[:3], action="label", label="  Winter   fares ")
    _batch(api, shelf[1:4], action="label", label="winter fares")
    assert api.get("/labels") == [{"name": "Winter fares", "count": 4}]
    assert _found(api, "label=WINTER%20fares") == [shelf[3], shelf[2], shelf[1], shelf[0]]
    assert api.get("/captures")["captures"][-1]["labels"] == ["Winter fares"]
    _batch(api, shelf, action="unlabel", label="Winter Fares")
    assert Label.objects.count() == 0
    assert (
        api.refused("POST", "/captures/batch", {"ids": shelf, "action": "label", "label": " "})["code"]
        == "no_name"
    )


def test_all_that_match_are_deleted_and_put_back(api: Api, shelf: list[int]) -> None:
    _batch(api, shelf[:3], action="label", label="old")
    deleted = api.send("POST", "/captures/batch", {"wanted": {"label": "old"}, "action": "delete"})["ids"]
    assert sorted(deleted) == shelf[:3]
    assert _found(api, "") == [shelf[4], shelf[3]]
    _batch(api, deleted, action="restore")
    assert len(_found(api, "")) == 5


def test_captures_are_found_by_host_and_state(api: Api, shelf: list[int]) -> None:
    Capture.objects.filter(pk=shelf[0]).update(host="other.example", whole=False)
    Capture.objects.filter(pk=shelf[1]).update(warnings=["Still loading."])
    assert _found(api, "host=OTHER.example") == [shelf[0]]
    assert _found(api, "state=not_whole") == [shelf[0]]
    assert _found(api, "state=warned") == [shelf[1]]
    assert len(_found(api, "state=ready")) == 5
    assert _found(api, "state=under_way") == []
    assert api.refused("GET", "/captures?state=odd")["status"] == 422


def test_nothing_is_done_to_nothing(api: Api, shelf: list[int]) -> None:
    assert api.refused("POST", "/captures/batch", {"action": "delete"})["code"] == "nothing_chosen"
    wanted = {"wanted": {"label": "none"}, "action": "delete"}
    assert api.refused("POST", "/captures/batch", wanted)["code"] == "nothing_chosen"
    assert (
        api.refused("POST", "/captures/batch", {"ids": shelf, "action": "move", "folder": 99})["status"]
        == 404
    )
    assert Capture.objects.on_shelf().count() == 5


def test_captures_are_told_in_the_order_that_is_asked_for(api: Api, make_capture: Make) -> None:
    tall = make_capture(gradient(40, 90), title="b", host="zz.example")
    small = make_capture(gradient(40, 20), title="c", host="aa.example")
    middle = make_capture(gradient(40, 50), title="a", host="aa.example")
    Capture.objects.filter(pk=small.pk).update(bytes=9_000_000)
    orders = {
        "newest": [middle, small, tall],
        "oldest": [tall, small, middle],
        "name": [middle, tall, small],
        "site": [middle, small, tall],
        "tallest": [tall, middle, small],
    }
    for order, rows in orders.items():
        assert api.get(f"/captures/ids?order={order}") == {"ids": [row.pk for row in rows], "total": 3}
    assert api.get("/captures/ids?order=heaviest")["ids"][0] == small.pk


def test_captures_are_found_by_site_screen_and_day(api: Api, make_capture: Make) -> None:
    old = make_capture(gradient(40, 40), host="help.skerrin.example")
    screen = {"screen_width_px": 390, "screen_height_px": 844, "scale": 3}
    phone = make_capture(gradient(40, 40), host="b.example", **screen)
    made = {"created_at": datetime(2026, 3, 31, 23, 59, 59, tzinfo=UTC)}
    Capture.objects.filter(pk=old.pk).update(**made)
    assert _found(api, "host=HELP.skerrin.example") == [old.pk]
    assert _found(api, "screen=390x844@3") == [phone.pk]
    assert _found(api, "since=2026-03-31&until=2026-03-31") == [old.pk]
    assert _found(api, "until=2026-03-30") == []
    assert _found(api, "since=2026-04-01") == [phone.pk]
    for nothing in ("390x844", "axb@c", "390x844@3@3", "²x1@1", "9999999999999999999999x1@1"):
        assert _found(api, f"screen={nothing}") == []
    by = api.get("/captures/by")
    assert {"host": "help.skerrin.example", "count": 1} in by["sites"]
    assert [row["count"] for row in by["screens"] if row["key"] == "390x844@3"] == [1]


def test_rows_come_in_the_order_asked_for_without_those_that_are_gone(api: Api, shelf: list[int]) -> None:
    api.send("DELETE", f"/captures/{shelf[1]}", status=204)
    asked = [shelf[3], shelf[1], shelf[0], 999_999, shelf[3]]
    rows = api.get("/captures/rows?" + "&".join(f"ids={pk}" for pk in asked))
    assert [row["id"] for row in rows] == [shelf[3], shelf[0]]
    many = "&".join(f"ids={number}" for number in range(201))
    assert "200" in api.refused("GET", f"/captures/rows?{many}")["title"]


def test_a_search_is_kept_replaced_and_let_go(api: Api) -> None:
    kept = {"name": "Winter fares", "wanted": {"words": "fare", "state": "ready"}, "order": "tallest"}
    first = api.send("PUT", "/searches", kept)
    assert (first["wanted"]["words"], first["order"]) == ("fare", "tallest")
    again = api.send("PUT", "/searches", {**kept, "name": "winter fares", "wanted": {"host": "a.example"}})
    assert again["id"] == first["id"]
    assert [(row["name"], row["wanted"]["host"]) for row in api.get("/searches")] == [
        ("winter fares", "a.example")
    ]
    api.refused("PUT", "/searches", {**kept, "name": "  "})
    api.send("DELETE", f"/searches/{first['id']}", status=204)
    assert api.get("/searches") == []


def test_many_pages_are_taken_again_beside_what_they_were(
    api: Api, shelf: list[int], png_file: bytes
) -> None:
    picture = api.upload(png_file).json()["id"]
    told = api.send("POST", "/captures/retake", {"ids": [*shelf[:3], picture, shelf[0]]}, status=202)
    assert told["left_out"] == 1
    renewed = Capture.objects.in_bulk(told["ids"])
    assert [renewed[pk].renews_id for pk in told["ids"]] == shelf[:3]
    assert all(row.job.state == "queued" for row in renewed.values())
    assert api.refused("POST", "/captures/retake", {"ids": []})["code"] == "nothing_chosen"
    too_many = api.refused("POST", "/captures/retake", {"ids": list(range(1, 202))})
    assert (too_many["code"], too_many["detail"]) == ("too_many", "Choose fewer.")


def test_files_of_many_are_made_for_an_outlet_once(
    api: Api, shelf: list[int], run_queue: Callable[[], None]
) -> None:
    outlet = api.send("POST", "/outlets", {"name": "News"}, status=201)["id"]
    for width_px in (20, 30):
        slot = {**SLOT, "width_px": width_px, "name": f"{width_px} px"}
        api.send("POST", f"/outlets/{outlet}/slots", slot, status=201)
    Capture.objects.get(pk=shelf[2]).cuts.update(needs_a_look=True)
    asked = {"captures": [*shelf[:3], 999_999]}
    first = api.send("POST", f"/outlets/{outlet}/files", asked, status=202)
    assert (first["ordered"], first["there"]) == (4, 0)
    assert [row["name"][:6] for row in first["left_out"]] == ["Page 2"]
    run_queue()
    again = api.send("POST", f"/outlets/{outlet}/files", asked, status=202)
    assert (again["ordered"], again["there"]) == (0, 4)
    cut = Capture.objects.get(pk=shelf[0]).cuts.get()
    frame = {**cut.document["frame"], "height_px": 30}
    api.send("PATCH", f"/cuts/{cut.pk}", {"version": 1, "document": {**cut.document, "frame": frame}})
    row = api.get(f"/cuts/{cut.pk}/outputs")[0]
    Output.objects.filter(pk=row["id"]).update(choice=_BY_HAND)
    changed = api.send("POST", f"/outlets/{outlet}/files", asked, status=202)
    assert (changed["ordered"], changed["there"]) == (2, 2)
    assert len(api.get(f"/cuts/{cut.pk}/outputs")) == 2
    assert Output.objects.get(pk=row["id"]).choice == _BY_HAND
