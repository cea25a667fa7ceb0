from collections.abc import Callable
from urllib.parse import urlencode

import pytest

from tests.pictures import decoded
from tests.server.conftest import Api

SCREEN = {"width_px": 800, "height_px": 600, "scale": 1}


def _taken(api: Api, run_queue: Callable[[], None], address: str, **settings: object) -> dict:
    order = {"address": address, "screen": SCREEN, "settings": settings}
    capture_id = api.send("POST", "/captures", order, status=202)["id"]
    run_queue()
    return api.get(f"/captures/{capture_id}")


def test_a_page_is_taken_as_it_was_asked_for_and_retaken_the_same_way(
    api: Api, run_queue: Callable[[], None], site: str
) -> None:
    asked = {
        "extent": "full",
        "max_height_px": 700,
        "leave_out": ["header"],
        "fixed_overlays": "keep",
        "wait_ms": 200,
    }
    first = _taken(api, run_queue, f"{site}/timetable", **asked)
    assert (first["height_px"], first["truncated"]) == (700, True)
    assert any("Timetable" in words for words in first["left_out"])
    assert {name: first["settings"][name] for name in asked} == asked
    again_id = api.send("POST", f"/captures/{first['id']}/retake", status=202)["id"]
    run_queue()
    again = api.get(f"/captures/{again_id}")
    assert again_id != first["id"]
    assert again["settings"] == first["settings"]
    strips = [api.get(f"/captures/{row['id']}/strips/0").content for row in (first, again)]
    assert (decoded(strips[0]) == decoded(strips[1])).all()


@pytest.mark.long
def test_the_first_screen_in_dark_colours(api: Api, run_queue: Callable[[], None], site: str) -> None:
    capture = _taken(api, run_queue, f"{site}/islands", extent="view", scheme="dark")
    assert (capture["width_px"], capture["height_px"]) == (800, 600)


@pytest.mark.parametrize(
    ("settings", "code"),
    [
        ({"wait_ms": 10_000_000}, "wait_impossible"),
        ({"wait_ms": -1}, "wait_impossible"),
        ({"max_height_px": 0}, "height_impossible"),
        ({"extent": "half"}, "invalid"),
        ({"scheme": "mauve"}, "invalid"),
        ({"extent": "panel"}, "element_missing"),
        ({"language": "??"}, "language_malformed"),
        ({"steps": [{"kind": "click"}]}, "step_malformed"),
        ({"steps": [{"kind": "press", "text": "no key"}]}, "step_malformed"),
    ],
)
def test_impossible_settings_are_refused_and_nothing_is_stored(api: Api, settings: dict, code: str) -> None:
    order = {"address": "skerrin.example", "screen": SCREEN, "settings": settings}
    problem = api.refused("POST", "/captures", order)
    assert (problem["status"], problem["code"]) == (422, code)
    assert api.get("/captures")["total"] == 0


def test_a_selector_that_is_none_fails_with_its_name(
    api: Api, run_queue: Callable[[], None], site: str
) -> None:
    capture = _taken(api, run_queue, f"{site}/departures", leave_out=["p[["])
    assert capture["job"]["error"]["code"] == "element_malformed"
    assert "p[[" in capture["job"]["error"]["sentence"]


def test_a_dropped_picture_cannot_be_retaken(
    api: Api, run_queue: Callable[[], None], png_file: bytes
) -> None:
    capture_id = api.upload(png_file).json()["id"]
    run_queue()
    assert api.refused("POST", f"/captures/{capture_id}/retake")["code"] == "not_a_page"


@pytest.mark.long
def test_a_cut_off_page_goes_on_further_down(api: Api, run_queue: Callable[[], None], site: str) -> None:
    upper = _taken(api, run_queue, f"{site}/timetable", max_screens=2)
    assert (upper["truncated"], upper["top_px"], upper["bottom_px"]) == (True, 0, 1_200)
    further_id = api.send("POST", f"/captures/{upper['id']}/further", status=202)["id"]
    run_queue()
    lower = api.get(f"/captures/{further_id}")
    assert (lower["top_px"], lower["bottom_px"], lower["height_px"]) == (1_200, 2_400, 1_200)
    whole = _taken(api, run_queue, f"{site}/departures")
    assert api.refused("POST", f"/captures/{whole['id']}/further")["code"] == "not_cut_off"


def test_steps_are_done_and_told(api: Api, run_queue: Callable[[], None], site: str) -> None:
    steps = [{"kind": "hover", "target": "h1", "text": ""}, {"kind": "pause", "target": "", "text": "0.1"}]
    capture = _taken(api, run_queue, f"{site}/departures", steps=steps, wait_ms=50)
    assert capture["settings"]["steps"] == steps
    assert capture["done_before"] == ["hover h1", "pause 0.1", "pause 0.05"]


@pytest.mark.long
def test_own_screens_are_added_chosen_and_removed(api: Api, run_queue: Callable[[], None], site: str) -> None:
    presets = api.get("/screens")
    assert {row["name"]: row["touch"] for row in presets}["phone"]
    kiosk = {"name": "Kiosk", "width_px": 600, "height_px": 900, "scale": 2, "touch": True}
    assert api.send("POST", "/screens", kiosk, status=201) == {**kiosk, "own": True}
    assert [row["name"] for row in api.get("/screens")] == [*(row["name"] for row in presets), "Kiosk"]
    assert api.refused("POST", "/screens", {**kiosk, "name": " kiosk"})["code"] == "screen_name"
    assert api.refused("POST", "/screens", {**kiosk, "width_px": 3})["code"] == "screen_impossible"
    order = {
        "address": f"{site}/departures",
        "screen": {name: kiosk[name] for name in SCREEN} | {"touch": True},
    }
    capture_id = api.send("POST", "/captures", order, status=202)["id"]
    run_queue()
    taken = api.get(f"/captures/{capture_id}")
    assert (taken["width_px"], taken["screen"]["touch"]) == (1_200, True)
    api.send("DELETE", "/screens?name=Kiosk", status=204)
    assert api.get("/screens") == presets
    assert api.refused("DELETE", "/screens?name=desk")["status"] == 404


@pytest.mark.parametrize("name", ["a/b", "..", "50 % & more?", "#1"])
def test_an_own_screen_of_any_name_can_be_removed(api: Api, name: str) -> None:
    before = api.get("/screens")
    api.send("POST", "/screens", {"name": name, "width_px": 600, "height_px": 900}, status=201)
    api.send("DELETE", f"/screens?{urlencode({'name': name})}", status=204)
    assert api.get("/screens") == before
