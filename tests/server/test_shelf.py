from collections.abc import Callable

import numpy as np
import pytest

from tallpage.core.cut import read_cut
from tallpage.server.shelf.models import Capture
from tallpage.server.storage import capture_folder, incoming_folder
from tests.pictures import (
    as_png,
    assert_same_pixels,
    decoded,
    gradient,
    lying_png,
    photograph,
    strips_of,
)
from tests.server.conftest import Api

MakeCapture = Callable[..., Capture]
DESK = {"width_px": 1280, "height_px": 800, "scale": 1}


def test_a_page_goes_from_address_to_shelf(api: Api, run_queue: Callable[[], None], site: str) -> None:
    ordered = api.send("POST", "/captures", {"address": f"{site}/departures", "screen": DESK}, status=202)
    assert ordered["job"]["state"] == "queued"
    assert ordered["picture_key"] == ""
    run_queue()
    taken = api.get(f"/captures/{ordered['id']}")
    assert taken["job"]["state"] == "done"
    assert taken["name"].startswith("Departures")
    assert taken["host"].partition(":")[0] in taken["name"]
    assert taken["width_px"] == 1280
    assert sum(strip["height_px"] for strip in taken["strips"]) == taken["height_px"]
    assert [cut["name"] for cut in taken["cuts"]] == ["Cut 1"]
    strip = api.get(f"/captures/{taken['id']}/strips/0")
    assert decoded(strip.content).shape == (taken["strips"][0]["height_px"], 1280, 3)
    assert "immutable" in strip["Cache-Control"]


def test_a_page_that_fails_says_why_and_can_be_taken_again(
    api: Api, run_queue: Callable[[], None], closed_port: int
) -> None:
    order = {"address": f"http://127.0.0.1:{closed_port}/", "screen": DESK}
    capture_id = api.send("POST", "/captures", order, status=202)["id"]
    run_queue()
    failed = api.get(f"/captures/{capture_id}")
    assert failed["job"]["state"] == "failed"
    assert failed["job"]["error"]["code"] == "page_refused"
    assert failed["job"]["error"]["hint"]
    again = api.send("POST", f"/captures/{capture_id}/again", status=202)
    assert (again["id"], again["job"]["state"]) == (capture_id, "queued")


@pytest.mark.parametrize(
    ("address", "code"),
    [
        ("", "address_empty"),
        ("two words", "address_malformed"),
        ("file:///etc/passwd", "address_scheme"),
        ("javascript:alert(1)", "address_scheme"),
    ],
)
def test_a_bad_address_is_refused_and_nothing_is_stored(api: Api, address: str, code: str) -> None:
    problem = api.refused("POST", "/captures", {"address": address, "screen": DESK})
    assert (problem["status"], problem["code"]) == (422, code)
    assert api.get("/captures")["total"] == 0


@pytest.mark.parametrize(
    "screen", [{**DESK, "width_px": 0}, {**DESK, "height_px": 10_000_000}, {**DESK, "scale": 7}]
)
def test_an_absurd_screen_is_refused(api: Api, screen: dict[str, int]) -> None:
    problem = api.refused("POST", "/captures", {"address": "skerrin.example", "screen": screen})
    assert problem["code"] == "screen_impossible"


def test_a_dropped_picture_comes_in_to_the_last_bit(api: Api, run_queue: Callable[[], None]) -> None:
    pixels = gradient(90, 3_000)
    answer = api.upload(as_png(pixels), "Ferry at dusk.png")
    assert answer.status_code == 202
    run_queue()
    taken = api.get(f"/captures/{answer.json()['id']}")
    assert taken["source"] == "picture"
    assert taken["name"].startswith("Ferry at dusk – ")
    strips = [
        decoded(api.get(f"/captures/{taken['id']}/strips/{row['number']}").content) for row in taken["strips"]
    ]
    assert_same_pixels(np.concatenate(strips), pixels)


@pytest.mark.parametrize(
    ("data", "code"),
    [
        (b"", "picture_unreadable"),
        (b"not a picture at all", "picture_unreadable"),
        (lying_png(60_000, 60_000), "picture_too_large"),
    ],
)
def test_what_is_no_picture_is_refused_at_once(api: Api, data: bytes, code: str) -> None:
    answer = api.upload(data)
    assert answer.status_code == 422
    assert answer.json()["code"] == code
    assert api.get("/captures")["total"] == 0


def test_a_truncated_picture_fails_with_its_reason(
    api: Api, run_queue: Callable[[], None], png_file: bytes
) -> None:
    capture_id = api.upload(png_file[: len(png_file) // 2]).json()["id"]
    run_queue()
    job = api.get(f"/captures/{capture_id}")["job"]
    assert (job["state"], job["error"]["code"]) == ("failed", "picture_damaged")


def test_what_a_killed_worker_had_put_away_without_writing_its_row_is_deleted(
    api: Api, run_queue: Callable[[], None]
) -> None:
    capture_id = api.upload(as_png(photograph(60, 40))).json()["id"]
    left_behind = capture_folder("0" * 32)
    left_behind.mkdir(parents=True)
    Capture.objects.filter(pk=capture_id).update(incoming_key=left_behind.name)
    run_queue()
    capture = Capture.objects.get(pk=capture_id)
    assert not left_behind.exists()
    assert capture.incoming_key == ""
    assert capture.manifest().height_px == 40


def test_a_name_can_be_changed_and_survives_a_new_take(api: Api, make_capture: MakeCapture) -> None:
    capture = make_capture()
    assert (
        api.send("PATCH", f"/captures/{capture.pk}", {"name": "  Winter sailings "})["name"]
        == "Winter sailings"
    )
    assert api.refused("PATCH", f"/captures/{capture.pk}", {"name": ""})["status"] == 422
    assert api.get(f"/captures/{capture.pk}")["name"] == "Winter sailings"


def test_deleting_can_be_undone(api: Api, make_capture: MakeCapture) -> None:
    capture = make_capture()
    api.send("DELETE", f"/captures/{capture.pk}", status=204)
    assert api.get("/captures")["total"] == 0
    assert api.refused("GET", f"/captures/{capture.pk}")["status"] == 404
    api.send("POST", f"/captures/{capture.pk}/restore")
    assert [row["id"] for row in api.get("/captures")["captures"]] == [capture.pk]


def test_the_shelf_is_newest_first_and_comes_in_pages(api: Api, make_capture: MakeCapture) -> None:
    ids = [make_capture(gradient(4, 4), title=f"Page {number}").pk for number in range(5)]
    first = api.get("/captures?limit=2")
    assert first["total"] == 5
    assert [row["id"] for row in first["captures"]] == ids[:-3:-1]
    second = api.get(f"/captures?limit=9&before={first['next_before']}")
    assert [row["id"] for row in second["captures"]] == ids[2::-1]
    assert second["next_before"] is None


def test_views_of_a_capture_are_pictures(api: Api, make_capture: MakeCapture) -> None:
    capture = make_capture(photograph(300, 900))
    for name, shape in (
        ("thumbnail", (1_200, 480, 3)),
        ("spine", (600, 200, 3)),
        ("strips/0?shrink=4", (225, 75, 3)),
    ):
        assert decoded(api.get(f"/captures/{capture.pk}/{name}").content).shape == shape
    assert api.refused("GET", f"/captures/{capture.pk}/strips/7")["status"] == 404


def _frame(x: int, y: int, width: int, height: int) -> dict[str, object]:
    return {"x_px": x, "y_px": y, "width_px": width, "height_px": height, "folds": []}


def test_a_cut_is_changed_and_the_capture_stays(api: Api, make_capture: MakeCapture) -> None:
    capture = make_capture()
    before = (capture.folder / "0000.png").read_bytes()
    cut = api.get(f"/captures/{capture.pk}")["cuts"][0]
    changed = api.send(
        "PATCH",
        f"/cuts/{cut['id']}",
        {"version": cut["version"], "document": {"frame": _frame(5, 6, 70, 80)}},
    )
    assert changed["document"]["frame"] == _frame(5, 6, 70, 80)
    second = api.send("POST", f"/captures/{capture.pk}/cuts", status=201)
    assert (second["name"], second["document"]["frame"]) == ("Cut 2", _frame(0, 0, 320, 480))
    assert (capture.folder / "0000.png").read_bytes() == before


@pytest.mark.parametrize(
    "frame", [_frame(0, 0, 321, 10), _frame(-1, 0, 10, 10), _frame(0, 480, 10, 1), _frame(0, 0, 0, 5)]
)
def test_a_frame_outside_the_page_is_refused(
    api: Api, make_capture: MakeCapture, frame: dict[str, int]
) -> None:
    cut = api.get(f"/captures/{make_capture().pk}")["cuts"][0]
    problem = api.refused(
        "PATCH", f"/cuts/{cut['id']}", {"version": cut["version"], "document": {"frame": frame}}
    )
    assert problem["code"] == "frame_outside"
    assert api.get(f"/cuts/{cut['id']}")["document"]["frame"] == _frame(0, 0, 320, 480)


def test_the_second_of_two_tabs_is_told_and_writes_nothing(api: Api, make_capture: MakeCapture) -> None:
    cut = api.get(f"/captures/{make_capture().pk}")["cuts"][0]
    api.send("PATCH", f"/cuts/{cut['id']}", {"version": 1, "document": {"frame": _frame(1, 1, 10, 10)}})
    problem = api.refused(
        "PATCH", f"/cuts/{cut['id']}", {"version": 1, "document": {"frame": _frame(2, 2, 20, 20)}}
    )
    assert (problem["status"], problem["code"]) == (409, "changed_elsewhere")
    assert api.get(f"/cuts/{cut['id']}")["document"]["frame"] == _frame(1, 1, 10, 10)


def test_what_there_is_of_a_page_under_way_is_shown(api: Api, make_capture: MakeCapture) -> None:
    capture = make_capture()
    path = f"/captures/{capture.pk}/so-far"
    assert api.get(path).status_code == 204, "nothing is under way"
    folder = incoming_folder()
    Capture.objects.filter(pk=capture.pk).update(incoming_key=folder.name)
    assert api.get(f"{path}/0").status_code == 204, "no strip is there yet"
    strips_of(photograph(320, 480), folder)
    assert decoded(api.get(path).content).shape[:2] == (720, 480)
    assert decoded(api.get(f"{path}/0").content).shape[1] == 320
    assert api.get(f"{path}/99").status_code == 204
    (folder / "0000.png").write_bytes((folder / "0000.png").read_bytes()[:200])
    assert api.get(path).status_code == 204, "it is being moved away"


def test_what_is_not_known_of_a_cut_is_refused_and_not_dropped(api: Api, make_capture: MakeCapture) -> None:
    cut = api.get(f"/captures/{make_capture().pk}")["cuts"][0]
    frame = _frame(1, 1, 10, 10)
    for document in (
        {"frame": frame, "tone": "grey"},
        {"frame": {**frame, "z": 1}},
        {"version": 2, "frame": frame},
    ):
        problem = api.refused("PATCH", f"/cuts/{cut['id']}", {"version": 1, "document": document})
        assert problem["status"] == 422
    assert api.get(f"/cuts/{cut['id']}")["version"] == 1


def test_a_cut_is_saved_as_a_file_that_the_command_line_reads(api: Api, make_capture: MakeCapture) -> None:
    cut = api.get(f"/captures/{make_capture().pk}")["cuts"][0]
    frame = {**_frame(5, 6, 70, 80), "folds": [{"top_px": 20, "height_px": 9}]}
    api.send("PATCH", f"/cuts/{cut['id']}", {"version": 1, "document": {"frame": frame}})
    saved = api.client.get(f"/api/cuts/{cut['id']}/file")
    assert "cut-1.json" in saved["Content-Disposition"]
    assert read_cut(saved.content).as_json() == {"version": 1, "frame": frame}
