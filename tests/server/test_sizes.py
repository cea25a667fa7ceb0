"""Files by width, height, shape or share: through the API, with what is told about them."""

from collections.abc import Callable

import numpy as np
import pytest

from tallpage.server.shelf.models import Capture
from tests.pictures import as_png, assert_close, assert_same_pixels, decoded, noise, photograph, text_page
from tests.server.conftest import Api

MakeCapture = Callable[..., Capture]
RunQueue = Callable[[], None]
RULES = {"limit_bytes": 40_000, "formats": ["jpeg", "webp"]}


@pytest.fixture
def cut_id(api: Api, make_capture: MakeCapture) -> int:
    return int(api.get(f"/captures/{make_capture(photograph(320, 600)).pk}")["cuts"][0]["id"])


def _made(api: Api, run_queue: RunQueue, cut_id: int, **rules: object) -> dict:
    api.send("POST", f"/cuts/{cut_id}/outputs", {"rules": {**RULES, **rules}}, status=202)
    run_queue()
    return api.get(f"/cuts/{cut_id}/outputs")[-1]


@pytest.mark.parametrize(
    ("rules", "shape", "words", "kept_small"),
    [
        ({"way": "width", "width_px": 160}, (300, 160), "160 px", False),
        pytest.param({"way": "width", "width_px": 640}, (600, 320), "640 px", True, marks=pytest.mark.long),
        ({"way": "width", "width_px": 640, "enlarge": True}, (1_200, 640), "640 px", False),
        ({"way": "height", "height_px": 150}, (150, 80), "150 px high", False),
        ({"way": "share", "percent": 25}, (150, 80), "25 %", False),
        ({"way": "fill", "width_px": 200, "height_px": 100}, (100, 200), "200 × 100 px, filled", False),
        ({"way": "pad", "width_px": 200, "height_px": 100}, (100, 200), "200 × 100 px, padded", False),
    ],
)
def test_a_file_comes_out_as_large_as_was_asked_for(
    api: Api,
    run_queue: RunQueue,
    cut_id: int,
    rules: dict,
    shape: tuple[int, int],
    words: str,
    kept_small: bool,
) -> None:
    row = _made(api, run_queue, cut_id, **rules)
    assert (row["made_height_px"], row["made_width_px"]) == shape
    assert (row["size_words"], row["label"], row["kept_small"]) == (words, words, kept_small)
    file = decoded(api.get(f"/outputs/{row['id']}/file").content)
    assert file.shape == (*shape, 3)
    original = decoded(api.get(f"/outputs/{row['id']}/original/0").content)
    assert_close(original, file[: len(original)], mean=12)


def test_the_weights_of_a_filled_file_lie_on_the_part_that_it_shows(
    api: Api, run_queue: RunQueue, cut_id: int
) -> None:
    rules = {"way": "fill", "width_px": 200, "height_px": 100, "anchor": "end"}
    weights = _made(api, run_queue, cut_id, **rules)["weights"]
    assert weights[0]["top_px"] == pytest.approx(440)
    assert weights[-1]["top_px"] + weights[-1]["height_px"] == pytest.approx(600)


def test_the_weights_of_a_padded_file_lie_on_the_page_and_not_around_it(
    api: Api, run_queue: RunQueue, cut_id: int
) -> None:
    weights = _made(api, run_queue, cut_id, way="pad", width_px=200, height_px=340)["weights"]
    assert weights[0]["top_px"] == pytest.approx(0)
    assert weights[-1]["top_px"] + weights[-1]["height_px"] == pytest.approx(600)


def test_what_shows_through_is_filled_with_the_slots_colour(api: Api, run_queue: RunQueue) -> None:
    pixels = np.zeros((60, 80, 4), dtype=np.uint8)
    pixels[20:40, 20:60] = (20, 40, 60, 255)
    capture = api.upload(as_png(pixels), "sign.png").json()
    run_queue()
    cut_id = api.get(f"/captures/{capture['id']}")["cuts"][0]["id"]
    rules = {"width_px": 80, "formats": ["jpeg"], "background": "#a03020"}
    row = _made(api, run_queue, cut_id, **rules)
    for side in ("original", "result"):
        rows = decoded(api.get(f"/outputs/{row['id']}/{side}/0").content)
        assert rows[5, 5].astype(int) == pytest.approx([0xA0, 0x30, 0x20], abs=8)


def test_a_file_of_a_fixed_height_is_not_divided(api: Api, run_queue: RunQueue, cut_id: int) -> None:
    row = _made(api, run_queue, cut_id, way="height", height_px=150, limit_bytes=900)
    assert "leaves" not in {advice["kind"] for advice in row["advice"]}
    refused = api.refused("POST", f"/outputs/{row['id']}/leaves", {"leaf_count": 2})
    assert refused["code"] == "leaves_impossible"


@pytest.mark.parametrize(
    ("rules", "code"),
    [
        ({"way": "fill", "width_px": 100}, "height_impossible"),
        ({"way": "share", "percent": 1_000}, "share_impossible"),
        ({"width_px": 100, "background": "red"}, "colour_malformed"),
        ({"width_px": 100, "greatest_height_px": 100, "overlap_px": 80}, "overlap_impossible"),
        ({"way": "diagonal"}, "invalid"),
    ],
)
def test_sizes_that_cannot_be_made_are_refused(api: Api, cut_id: int, rules: dict, code: str) -> None:
    assert api.refused("POST", f"/cuts/{cut_id}/outputs", {"rules": {**RULES, **rules}})["code"] == code
    assert api.get(f"/cuts/{cut_id}/outputs") == []


def test_what_is_folded_away_is_not_on_the_file(
    api: Api, run_queue: RunQueue, make_capture: MakeCapture
) -> None:
    page = photograph(120, 300)
    cut = api.get(f"/captures/{make_capture(page).pk}")["cuts"][0]
    frame = {
        "x_px": 0,
        "y_px": 10,
        "width_px": 120,
        "height_px": 280,
        "folds": [{"top_px": 100, "height_px": 50}, {"top_px": 0, "height_px": 30}],
    }
    api.send("PATCH", f"/cuts/{cut['id']}", {"version": 1, "document": {"frame": frame}})
    row = _made(api, run_queue, cut["id"], width_px=120, formats=["png"], limit_bytes=200_000)
    expected = np.vstack([page[30:100], page[150:290]])
    for path in ("file", "original/0", "result/0"):
        assert_same_pixels(decoded(api.get(f"/outputs/{row['id']}/{path}").content), expected)
    shown = [
        line for band in row["weights"] for line in range(band["top_px"], band["top_px"] + band["height_px"])
    ]
    assert shown == [*range(30, 100), *range(150, 290)]
    refused = api.refused(
        "PATCH",
        f"/cuts/{cut['id']}",
        {
            "version": 2,
            "document": {"frame": {**frame, "folds": [{"top_px": 0, "height_px": 9_000}]}},
        },
    )
    assert "Nothing of the frame" in refused["title"]


def test_leaves_of_a_folded_page_show_it_in_order(
    api: Api, run_queue: RunQueue, make_capture: MakeCapture
) -> None:
    page = photograph(120, 900)
    cut = api.get(f"/captures/{make_capture(page).pk}")["cuts"][0]
    frame = {
        "x_px": 0,
        "y_px": 0,
        "width_px": 120,
        "height_px": 900,
        "folds": [{"top_px": 200, "height_px": 300}],
    }
    api.send("PATCH", f"/cuts/{cut['id']}", {"version": 1, "document": {"frame": frame}})
    row = _made(api, run_queue, cut["id"], width_px=120, formats=["png"], limit_bytes=300_000)
    api.send("POST", f"/outputs/{row['id']}/leaves", {"leaf_count": None, "breaks": [150, 700]}, status=202)
    run_queue()
    row = api.get(f"/cuts/{cut['id']}/outputs")[-1]
    assert [(leaf["top_px"], leaf["page_height_px"], leaf["height_px"]) for leaf in row["leaves"]] == [
        (0, 150, 150),
        (150, 550, 250),
        (700, 200, 200),
    ]
    expected = np.vstack([page[:200], page[500:]])
    assert_same_pixels(decoded(api.get(f"/outputs/{row['id']}/result/0").content), expected)


@pytest.mark.long
def test_the_costliest_stretch_is_advised_to_be_folded_away_and_then_it_fits(
    api: Api, run_queue: RunQueue, make_capture: MakeCapture
) -> None:
    for middle in (noise(160, 200), noise(160, 130, seed=4)):
        page = np.vstack([text_page(160, 300), middle, text_page(160, 300, seed=2)])
        cut = api.get(f"/captures/{make_capture(page).pk}")["cuts"][0]
        alone = _made(api, run_queue, cut["id"], width_px=160, formats=["jpeg"], limit_bytes=500)
        needed = next(row["value"] for row in alone["advice"] if row["kind"] == "limit")
        rules = {"width_px": 160, "formats": ["jpeg"], "limit_bytes": round(0.8 * needed)}
        row = _made(api, run_queue, cut["id"], **rules)
        assert not row["met"]
        (advice,) = [advice for advice in row["advice"] if advice["kind"] == "fold"]
        assert 250 <= advice["folds"][0]["top_px"] < 500
        frame = {"x_px": 0, "y_px": 0, "width_px": 160, "height_px": len(page), "folds": advice["folds"]}
        api.send("PATCH", f"/cuts/{cut['id']}", {"version": 1, "document": {"frame": frame}})
        assert _made(api, run_queue, cut["id"], **rules)["met"]
