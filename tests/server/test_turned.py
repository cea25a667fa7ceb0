"""Turned and cleared pages through the API: looked at in squares, framed, fitted; nonsense is refused."""

import json
from collections.abc import Callable
from io import BytesIO
from typing import Any
from urllib.parse import quote

import numpy as np
import pytest
from PIL import Image

from tallpage.core.clearing import MOST_COLOURS, MOST_PUT_BACK
from tallpage.server import web
from tallpage.server.shelf.models import Capture
from tests.pictures import Pixels, decoded, noise, text_page
from tests.server.conftest import Api

PAGE = text_page(300, 1_500)
QUARTER = {"turn_deg": 90}
TURNED = np.rot90(PAGE, -1)


@pytest.fixture
def capture(make_capture: Callable[..., Capture]) -> Capture:
    return make_capture(PAGE)


def _as_query(preparation: dict[str, Any]) -> str:
    return quote(json.dumps(preparation))


def _tile(api: Api, capture: Capture, place: str, preparation: dict[str, Any], shrink: int = 1) -> Any:
    path = f"/captures/{capture.pk}/tiles/{place}?shrink={shrink}&preparation={_as_query(preparation)}"
    return api.client.get(f"/api{path}")


def _frame(pixels: Pixels) -> dict[str, Any]:
    return {"x_px": 0, "y_px": 0, "width_px": pixels.shape[1], "height_px": pixels.shape[0], "folds": []}


def test_squares_of_a_turned_page_are_its_pixels(api: Api, capture: Capture) -> None:
    turned = {"orientation": QUARTER}
    assert (decoded(_tile(api, capture, "0/0", turned).content) == TURNED[:1_024, :1_024]).all()
    assert (decoded(_tile(api, capture, "1/0", turned).content) == TURNED[:, 1_024:]).all()
    assert _tile(api, capture, "0/1", turned).status_code == 404
    assert decoded(_tile(api, capture, "0/0", turned, shrink=4).content).shape[:2] == (75, 375)
    spine = api.client.get(f"/api/captures/{capture.pk}/spine?preparation={_as_query(turned)}")
    assert decoded(spine.content).shape[:2] == (40, 200)


def test_empty_stretches_are_those_of_the_box(api: Api, make_capture: Callable[..., Capture]) -> None:
    rows = np.full((600, 90, 3), 255, dtype=np.uint8)
    rows[:20], rows[300:330] = noise(90, 20), noise(90, 30)
    rows[:, :2] = 255
    rows[::7, 1] = 0
    capture = make_capture(rows)
    box = {"x_px": 2, "y_px": 100, "width_px": 80, "height_px": 400}
    found = api.send("POST", f"/captures/{capture.pk}/blank", {"box": box, "least_px": 100})
    assert found == [{"top_px": 100, "height_px": 200}, {"top_px": 330, "height_px": 170}]
    whole = {"x_px": 0, "y_px": 0, "width_px": 90, "height_px": 600}
    assert api.send("POST", f"/captures/{capture.pk}/blank", {"box": whole, "least_px": 100}) == []
    columns = {"box": {**box, "y_px": 330, "height_px": 100}, "least_px": 9, "axis": "down"}
    assert api.send("POST", f"/captures/{capture.pk}/blank", columns) == [{"top_px": 2, "height_px": 80}]


def test_what_is_cleared_shows_through(api: Api, capture: Capture) -> None:
    colour = "#{:02x}{:02x}{:02x}".format(*PAGE[0, 0])
    cleared = {"cleared": {"colours": [{"colour": colour, "x_px": 0, "y_px": 0}]}}
    found = np.asarray(Image.open(BytesIO(_tile(api, capture, "0/0", cleared).content)))
    assert found[0, 0, 3] == 0
    assert found[:, :, 3].max() == 255


def test_a_turned_cut_is_fitted_as_it_is_shown(
    api: Api, capture: Capture, run_queue: Callable[[], None]
) -> None:
    cut = api.get(f"/captures/{capture.pk}")["cuts"][0]
    document = {"version": 1, "orientation": QUARTER, "frame": _frame(TURNED)}
    change = {"version": cut["version"], "document": document}
    assert api.send("PATCH", f"/cuts/{cut['id']}", change)["document"]["orientation"] == QUARTER
    rules = {"way": "share", "percent": 100, "limit_bytes": 900_000, "formats": ["png"]}
    api.send("POST", f"/cuts/{cut['id']}/outputs", {"rules": rules}, status=202)
    run_queue()
    row = api.get(f"/cuts/{cut['id']}/outputs")[-1]
    assert (decoded(api.get(f"/outputs/{row['id']}/file").content) == TURNED).all()


def test_a_file_of_nothing_is_not_made_and_says_why(
    api: Api, make_capture: Callable[..., Capture], run_queue: Callable[[], None]
) -> None:
    rows = np.full((60, 80, 3), 250, dtype=np.uint8)
    cut = api.get(f"/captures/{make_capture(rows).pk}")["cuts"][0]
    document = {"version": 1, "frame": _frame(rows), "cleared": {"colours": [{"colour": "#ffffff"}]}}
    api.send("PATCH", f"/cuts/{cut['id']}", {"version": cut["version"], "document": document})
    rules = {"way": "share", "percent": 100, "limit_bytes": 900_000, "formats": ["png"]}
    api.send("POST", f"/cuts/{cut['id']}/outputs", {"rules": rules}, status=202)
    run_queue()
    job = api.get(f"/cuts/{cut['id']}/outputs")[-1]["job"]
    assert job["state"] == "failed"
    assert "nothing would be left of the picture" in job["error"]["sentence"]


def test_a_frame_of_the_page_before_its_turn_is_refused(api: Api, capture: Capture) -> None:
    cut = api.get(f"/captures/{capture.pk}")["cuts"][0]
    document = {"version": 1, "orientation": QUARTER, "frame": _frame(PAGE)}
    said = api.refused("PATCH", f"/cuts/{cut['id']}", {"version": cut["version"], "document": document})
    assert "does not lie on the picture of 1500 × 300 px" in said["title"]


def test_plain_edges_are_those_of_the_turned_page(api: Api, make_capture: Callable[..., Capture]) -> None:
    rows = np.full((80, 120, 3), 255, dtype=np.uint8)
    rows[10:30, 20:100] = 40
    capture = make_capture(rows)
    box = {"x_px": 0, "y_px": 0, "width_px": 80, "height_px": 120}
    asked = {"box": box, "preparation": json.dumps({"orientation": QUARTER})}
    found = api.send("POST", f"/captures/{capture.pk}/trim", asked)
    assert found == {"x_px": 50, "y_px": 20, "width_px": 20, "height_px": 80}


def test_a_colour_and_the_level_are_found_on_the_page_as_it_is_seen(
    api: Api, make_capture: Callable[..., Capture]
) -> None:
    slanted = Image.fromarray(text_page(600, 800)).rotate(3, Image.Resampling.BICUBIC, fillcolor="#f2f1ec")
    capture = make_capture(np.asarray(slanted))
    found = api.send("POST", f"/captures/{capture.pk}/level", {})
    assert found["angle_deg"] == pytest.approx(3, abs=0.2)
    straight = json.dumps({"orientation": {"angle_deg": found["angle_deg"], "colour": "#123456"}})
    assert api.send("POST", f"/captures/{capture.pk}/level", {"preparation": straight})["angle_deg"] == 0
    corner = {"x_px": 0, "y_px": 0, "preparation": straight}
    assert api.send("POST", f"/captures/{capture.pk}/colour", corner) == {"colour": "#123456"}
    beside = api.refused("POST", f"/captures/{capture.pk}/colour", {"x_px": 9_000, "y_px": 0})
    assert "does not lie on the picture" in beside["title"]


@pytest.mark.parametrize(
    "preparation", ['{"frame": {}}', '{"orientation": {"angle_deg": 1e9}}', "nonsense", "{" * 30_000]
)
def test_a_preparation_that_is_none_is_refused(api: Api, capture: Capture, preparation: str) -> None:
    answer = api.client.get(f"/api/captures/{capture.pk}/tiles/0/0", {"preparation": preparation})
    assert answer.status_code == 422
    assert "preparation" in answer.json()["title"]


def test_the_longest_preparation_is_in_an_address_that_is_taken() -> None:
    colours = [{"colour": "#ffffff", "tolerance": 254, "x_px": 99_999, "y_px": 99_999}] * MOST_COLOURS
    spots = [{"x_px": 9_999, "y_px": 99_999}] * MOST_PUT_BACK
    preparation = {"cleared": {"colours": colours, "put_back": spots}}
    assert len(_as_query(preparation).replace("%20", "")) + 200 < web.limit_request_line
