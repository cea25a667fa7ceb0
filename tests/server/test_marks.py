"""Marks, hidden areas and dressing through the API: kept as given, drawn into files, refused in words."""

from collections.abc import Callable
from typing import Any

import numpy as np
import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from tallpage.core.cut import read_cut
from tallpage.server.shelf.models import Capture
from tests.pictures import Pixels, as_png, decoded, photograph, text_page
from tests.server.conftest import Api

MakeCapture = Callable[..., Capture]
WHITE = np.full((400, 300, 3), 255, dtype=np.uint8)
FRAME = {"x_px": 0, "y_px": 0, "width_px": 300, "height_px": 400, "folds": []}
BOX = {
    "kind": "box",
    "x_px": 30.5,
    "y_px": 40,
    "width_px": 100,
    "height_px": 60,
    "filling": "#FF0000",
    "outline_px": 0,
}


@pytest.fixture
def cut(api: Api, make_capture: MakeCapture) -> dict[str, Any]:
    return api.get(f"/captures/{make_capture(WHITE).pk}")["cuts"][0]


def _change(api: Api, cut: dict[str, Any], **parts: Any) -> dict[str, Any]:
    version = api.get(f"/cuts/{cut['id']}")["version"]
    document = {"version": 1, "frame": FRAME, **parts}
    return api.send("PATCH", f"/cuts/{cut['id']}", {"version": version, "document": document})


def _refused(api: Api, cut: dict[str, Any], **parts: Any) -> dict[str, Any]:
    document = {"version": 1, "frame": FRAME, **parts}
    return api.refused("PATCH", f"/cuts/{cut['id']}", {"version": cut["version"], "document": document})


def _file(api: Api, run_queue: Callable[[], None], cut: dict[str, Any], width_px: int = 300) -> Pixels:
    rules = {"width_px": width_px, "limit_bytes": 500_000, "formats": ["png"]}
    api.send("POST", f"/cuts/{cut['id']}/outputs", {"rules": rules}, status=202)
    run_queue()
    row = api.get(f"/cuts/{cut['id']}/outputs")[-1]
    assert row["job"]["state"] == "done", row["job"]
    return decoded(api.get(f"/outputs/{row['id']}/file").content)


def _keep(api: Api, data: bytes, name: str = "logo.png") -> Any:
    return api.client.post("/api/stickers", {"picture": SimpleUploadedFile(name, data)})


def test_a_cut_keeps_its_parts_as_they_were_given(api: Api, cut: dict[str, Any]) -> None:
    assert cut["document"] == {
        "version": 1,
        "frame": FRAME,
        "hidden": [],
        "sought": [],
        "marks": [],
        "styles": {},
    }
    parts = {
        "marks": [{**BOX, "id": "a1"}, {"id": "p1", "kind": "pen", "points": [[1, 2.5], [3, 4]]}],
        "hidden": [{"id": "h1", "how": "blur", "x_px": 1, "y_px": 2, "width_px": 3, "height_px": 4}],
        "dressing": {"caption": {"text": "{title}"}, "corner_px": 4},
        "styles": {"quiet": {"filling": None, "thickness_px": 3}},
    }
    _change(api, cut, **parts)
    kept = api.get(f"/cuts/{cut['id']}")["document"]
    assert {name: kept[name] for name in parts} == parts


def test_what_has_no_id_gets_one_of_its_own(api: Api, cut: dict[str, Any]) -> None:
    marks = _change(api, cut, marks=[BOX, BOX])["document"]["marks"]
    assert len({mark["id"] for mark in marks if mark["id"]}) == 2


def test_a_file_shows_marks_and_not_what_is_hidden(
    api: Api, run_queue: Callable[[], None], make_capture: MakeCapture
) -> None:
    cut = api.get(f"/captures/{make_capture(text_page(300, 400)).pk}")["cuts"][0]
    hidden = [{"how": "solid", "x_px": 0, "y_px": 100, "width_px": 300, "height_px": 50, "colour": "#112233"}]
    _change(api, cut, marks=[{**BOX, "x_px": 30}], hidden=hidden)
    drawn = _file(api, run_queue, cut)
    assert (drawn[40:100, 30:130] == (255, 0, 0)).all()
    assert (drawn[100:150, 140:] == (0x11, 0x22, 0x33)).all()


def test_a_changed_mark_makes_the_file_old_and_a_restored_one_new_again(
    api: Api, run_queue: Callable[[], None], cut: dict[str, Any]
) -> None:
    box = {**BOX, "id": "a1"}

    def is_stale() -> bool:
        return bool(api.get(f"/cuts/{cut['id']}/outputs")[-1]["stale"])

    _change(api, cut, marks=[box])
    _file(api, run_queue, cut)
    assert not is_stale()
    _change(api, cut, marks=[{**box, "x_px": 31}])
    assert is_stale()
    _change(api, cut, marks=[box])
    assert not is_stale()


def test_a_caption_is_filled_with_facts_of_the_page(
    api: Api, run_queue: Callable[[], None], cut: dict[str, Any]
) -> None:
    def captioned(text: str) -> Pixels:
        _change(api, cut, dressing={"caption": {"text": text, "size_px": 12}, "background": "#FFFFFF"})
        return _file(api, run_queue, cut)

    filled = captioned("{title} / {host}")
    assert np.array_equal(filled, captioned("Timetable / skerrin.example"))
    assert filled.shape[1] == 300
    assert filled.shape[0] > 410


def test_an_own_picture_is_kept_once_drawn_and_goes_along_in_the_file(
    api: Api, run_queue: Callable[[], None], cut: dict[str, Any]
) -> None:
    logo = as_png(np.full((20, 20, 3), (0, 128, 0), dtype=np.uint8))
    name = _keep(api, logo).json()["name"]
    assert _keep(api, logo).json()["name"] == name
    sticker = {"kind": "sticker", "x_px": 100, "y_px": 100, "width_px": 40, "height_px": 40, "picture": name}
    _change(api, cut, marks=[sticker])
    drawn = _file(api, run_queue, cut)
    assert tuple(drawn[120, 120]) == (0, 128, 0)
    assert tuple(drawn[90, 90]) == (255, 255, 255)
    assert set(read_cut(api.client.get(f"/api/cuts/{cut['id']}/file").content).pictures) == {name}
    assert decoded(b"".join(api.client.get(f"/api/stickers/{name}").streaming_content)).shape == (20, 20, 3)


@pytest.mark.parametrize(
    "data",
    [
        b"<svg xmlns='http://www.w3.org/2000/svg' width='9' height='9'><rect width='9' height='9'/></svg>",
        b"<?xml version='1.0'?><svg xmlns='http://www.w3.org/2000/svg'/>",
        b"",
        b"GIF89a",
        as_png(photograph(40, 40))[:300],
    ],
)
def test_what_is_no_picture_is_not_kept(api: Api, data: bytes) -> None:
    answer = _keep(api, data, "logo.png")
    assert answer.status_code == 422
    assert answer.json()["title"]


@pytest.mark.parametrize("name", ["..%2f..%2fdb", "0" * 32, "x"])
def test_a_picture_that_is_not_there_is_not_found(api: Api, name: str) -> None:
    assert api.client.get(f"/api/stickers/{name}").status_code == 404


@pytest.mark.parametrize(
    "parts",
    [
        {"marks": [{**BOX, "kind": "cloud"}]},
        {"marks": [{**BOX, "width_px": -1}]},
        {"marks": [{**BOX, "torn": True}]},
        {"marks": [BOX] * 2_001},
        {"marks": [{**BOX, "style": "loud"}]},
        {"marks": [{**BOX, "kind": "sticker", "filling": None}]},
        {"hidden": [{"how": "erase", "x_px": 0, "y_px": 0, "width_px": 1, "height_px": 1}]},
        {"dressing": {"caption": {"text": "{author}"}}},
        {"dressing": {"stamp": {"picture": "0" * 32}}},
        {"mood": {}},
    ],
)
def test_what_is_not_known_or_impossible_is_refused_and_nothing_is_changed(
    api: Api, cut: dict[str, Any], parts: dict[str, Any]
) -> None:
    assert _refused(api, cut, **parts)["status"] == 422
    assert api.get(f"/cuts/{cut['id']}") == cut


def test_marks_are_drawn_for_the_screen_with_their_labels(api: Api) -> None:
    badge = {"kind": "badge", "x_px": 50, "y_px": 50}
    dims = [{"kind": "dim", "x_px": at, "y_px": 5, "width_px": 9, "height_px": 9} for at in (5, 50)]
    asked = {"width_px": 300, "height_px": 400, "marks": [badge, *dims], "labels": {"0": "7"}}
    drawn = api.send("POST", "/marks/drawn", asked)
    assert len(drawn) == 2
    other = api.send("POST", "/marks/drawn", {**asked, "marks": [badge], "labels": {"0": "8"}})
    assert drawn[0]["extent"] == other[0]["extent"]
    assert drawn[0]["parts"] != other[0]["parts"]
    missing = {"kind": "text", "x_px": 1, "y_px": 1, "text": "𓀀"}
    assert api.send("POST", "/marks/drawn", {**asked, "marks": [missing]})[0]["missing"] == ["𓀀"]
    assert (
        api.refused("POST", "/marks/drawn", {**asked, "marks": [{**badge, "style": "loud"}]})["status"] == 422
    )


def test_what_each_kind_usually_looks_like_is_told(api: Api) -> None:
    usual = api.get("/marks/usual")
    assert len(usual) == 10
    assert usual["arrow"]["heads"] == "end"
    assert "from_x_px" not in usual["arrow"]
    assert len(api.get("/signs")) == 30


def test_a_hidden_area_is_seen_as_the_files_show_it(api: Api, make_capture: MakeCapture) -> None:
    capture = make_capture(text_page(300, 400))
    asked = "how=pixelate&x_px=20&y_px=30&width_px=200&height_px=60"
    seen = decoded(api.client.get(f"/api/captures/{capture.pk}/hidden?{asked}").content)
    assert seen.shape == (60, 200, 3)
    assert seen.astype(int).std() < 12
    beyond = asked.replace("y_px=30", "y_px=9000")
    assert api.client.get(f"/api/captures/{capture.pk}/hidden?{beyond}").status_code == 404
    absurd = asked.replace("y_px=30", "y_px=-1")
    assert api.client.get(f"/api/captures/{capture.pk}/hidden?{absurd}").status_code == 422


def test_the_view_of_a_dressed_cut_has_its_width_and_both_ends(api: Api, make_capture: MakeCapture) -> None:
    cut = api.get(f"/captures/{make_capture(text_page(300, 9_000)).pk}")["cuts"][0]
    frame = {**FRAME, "height_px": 9_000}
    room = {"room": {"left_px": 20, "right_px": 20}}
    document = {"version": 1, "frame": frame, "dressing": room}
    api.send("PATCH", f"/cuts/{cut['id']}", {"version": cut["version"], "document": document})
    seen = decoded(api.client.get(f"/api/cuts/{cut['id']}/dressed?width_px=240").content)
    assert seen.shape[1] == 240
    assert 1_800 < seen.shape[0] < 2_500
    assert api.client.get(f"/api/cuts/{cut['id']}/dressed?width_px=30").status_code == 422


def test_looks_are_kept_under_a_name_and_one_of_them_is_the_usual_one(api: Api) -> None:
    calm = {
        "name": " Calm  arrow ",
        "look": {"filling": "#1F5C4D", "thickness_px": 6},
        "usual_for": ["arrow", "line"],
    }
    assert api.send("PUT", "/marks/styles", calm) == [{**calm, "name": "Calm arrow"}]
    loud = {"name": "Loud", "look": {"filling": "#A93B2B"}, "usual_for": ["arrow"]}
    api.send("PUT", "/marks/styles", loud)
    assert [(row["name"], row["usual_for"]) for row in api.get("/marks/styles")] == [
        ("Calm arrow", ["line"]),
        ("Loud", ["arrow"]),
    ]
    api.send("PUT", "/marks/styles", {**loud, "look": {"opacity": 0.5}})
    assert api.get("/marks/styles")[1]["look"] == {"opacity": 0.5}
    assert [row["name"] for row in api.send("DELETE", "/marks/styles?name=Calm+arrow")] == ["Loud"]


@pytest.mark.parametrize(
    "style",
    [
        {"name": "", "look": {}},
        {"name": "   ", "look": {}},
        {"name": "x" * 61, "look": {}},
        {"name": "x", "look": {"filling": "red"}},
        {"name": "x", "look": {"glow": 3}},
        {"name": "x", "look": {}, "usual_for": ["blob"]},
    ],
)
def test_a_style_that_says_nothing_sensible_is_refused(api: Api, style: dict[str, Any]) -> None:
    api.refused("PUT", "/marks/styles", style)
    assert api.get("/marks/styles") == []


def test_a_file_says_how_small_letters_are_and_can_keep_them_legible(
    api: Api, run_queue: Callable[[], None], cut: dict[str, Any]
) -> None:
    _change(api, cut, marks=[{"kind": "badge", "x_px": 150, "y_px": 200, "size_px": 30}])
    _file(api, run_queue, cut, 75)
    (row,) = api.get(f"/cuts/{cut['id']}/outputs")
    assert (row["letters_px"], row["legible_marks"]) == (pytest.approx(4.2), False)
    before = api.get(f"/outputs/{row['id']}/file").content
    api.send("PUT", f"/outputs/{row['id']}/legible", {"legible": True}, status=202)
    run_queue()
    (row,) = api.get(f"/cuts/{cut['id']}/outputs")
    assert (row["letters_px"], row["legible_marks"], row["stale"]) == (9, True, False)
    after = api.get(f"/outputs/{row['id']}/file").content
    covered = [int((decoded(data) < 200).any(axis=2).sum()) for data in (before, after)]
    assert covered[1] > 3 * covered[0]


def test_how_coarse_an_area_has_to_be_is_told(api: Api, make_capture: MakeCapture) -> None:
    capture = make_capture(WHITE)
    box = "x_px=10&y_px=10&width_px=100&height_px=40"
    assert api.get(f"/captures/{capture.pk}/coarseness?{box}") == {"asked_px": 40}
    assert api.client.get(f"/api/captures/{capture.pk}/coarseness?x_px=-1").status_code == 422
    assert api.client.get(f"/api/captures/9999/coarseness?{box}").status_code == 404


def _open(api: Api, capture_id: int, data: bytes, name: str = "for the help page.json") -> Any:
    return api.client.post(f"/api/captures/{capture_id}/cuts/file", {"cut": SimpleUploadedFile(name, data)})


def test_a_cut_is_opened_from_its_file_with_the_pictures_in_it(
    api: Api, make_capture: MakeCapture, cut: dict[str, Any]
) -> None:
    logo = _keep(api, as_png(photograph(40, 30))).json()["name"]
    sticker = {"kind": "sticker", "x_px": 10, "y_px": 10, "width_px": 40, "height_px": 30, "picture": logo}
    stamp = {"picture": logo, "place": "middle"}
    _change(api, cut, marks=[BOX, sticker], dressing={"stamp": stamp})
    saved = api.client.get(f"/api/cuts/{cut['id']}/file").content
    other = make_capture(text_page(300, 900))
    opened = _open(api, other.pk, saved)
    assert opened.status_code == 201
    assert opened.json()["name"] == "for the help page"
    document = opened.json()["document"]
    assert document["marks"][1]["picture"] == logo
    assert document["dressing"]["stamp"]["picture"] == logo
    assert all(mark["id"] for mark in document["marks"])
    assert (
        read_cut(api.client.get(f"/api/cuts/{opened.json()['id']}/file").content).pictures
        == read_cut(saved).pictures
    )
    # Once more: the name is taken.
    assert _open(api, other.pk, saved).json()["name"] == "Cut 2"


@pytest.mark.parametrize(
    ("data", "said"),
    [
        (b"no cut", "JSON"),
        (b'{"version": 9}', "version 9"),
        (b'{"version": 1, "frame": {"x_px": 0, "y_px": 0, "width_px": 300, "height_px": 4000}}', "300"),
        (
            b'{"version": 1, "frame": {"x_px": 0, "y_px": 0, "width_px": 3, "height_px": 4}, "marks": [{}]}',
            "marks[0]",
        ),
    ],
)
def test_a_file_that_is_no_cut_of_this_page_is_refused_in_words(
    api: Api, make_capture: MakeCapture, data: bytes, said: str
) -> None:
    capture = make_capture(WHITE)
    refused = _open(api, capture.pk, data)
    assert 400 <= refused.status_code < 500
    assert said in refused.json()["title"]
    assert len(api.get(f"/captures/{capture.pk}")["cuts"]) == 1
