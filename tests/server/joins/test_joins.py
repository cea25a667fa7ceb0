"""Captures are put together, their seams moved, and the whole is kept as one capture."""

from __future__ import annotations

import io
import json
from collections.abc import Callable
from typing import Any

import numpy as np
import pytest
from PIL import Image

from tallpage.core.geometry import Box
from tallpage.core.page_map import Block, PageMap
from tallpage.core.render import whole_page
from tallpage.server.shelf.models import Capture
from tallpage.server.shelf.purge import clear_due
from tests.core.stitch.sequences import Views, scrolled, under_header
from tests.pictures import Pixels, text_page
from tests.server.conftest import Api

PAGE = text_page(480, 1_800)
MakeCapture = Callable[..., Capture]


@pytest.fixture
def screens(make_capture: MakeCapture) -> tuple[Views, list[int]]:
    """Three screens of a page under a header, dropped in another order than they were taken in."""
    views = under_header(scrolled(PAGE, [500.0, 0.0, 250.0], 400), 40)
    return views, [make_capture(view, title=f"Screen {n}").pk for n, view in enumerate(views.views)]


def _pixels(capture_id: int) -> Pixels:
    capture = Capture.objects.get(pk=capture_id)
    return whole_page(capture.folder, capture.manifest()).rows(0, capture.height_px)


def _joined(api: Api, run_queue: Callable[[], None], ids: list[int], **said: object) -> dict[str, Any]:
    join = api.send("POST", "/joins", {"captures": ids, **said}, status=202)
    assert join["state"] == "finding"
    run_queue()
    found: dict[str, Any] = api.get(f"/joins/{join['id']}")
    return found


def test_dropped_screens_are_found_to_be_one_page_and_kept(
    api: Api, run_queue: Callable[[], None], screens: tuple[Views, list[int]]
) -> None:
    views, ids = screens
    join = _joined(api, run_queue, ids)
    assert (join["state"], join["height_px"], join["missing"]) == ("whole", 900, [])
    assert [row["capture"] for row in join["pieces"]] == [ids[1], ids[2], ids[0]]
    assert [row["top_px"] for row in join["pieces"]] == [0, 250, 500]
    kept = api.send("POST", f"/joins/{join['id']}/keep", status=202)["capture"]
    run_queue()
    assert np.array_equal(_pixels(kept), views.whole)
    assert api.get(f"/captures/{kept}")["name"] == "Screen 1 – skerrin.example – 2026-11-24, joined"
    again = api.send("POST", f"/joins/{join['id']}/keep", status=202)["capture"]
    assert again == kept, "kept twice is one capture"
    assert len(Capture.objects.on_shelf()) == 4


def test_a_seam_is_moved_and_shown_where_it_is(
    api: Api, run_queue: Callable[[], None], make_capture: MakeCapture
) -> None:
    views = scrolled(PAGE, [0.0, 250.0], 400)
    changed = views.views[1].copy()
    changed[60:80, 200:280] = (200, 30, 30)  # something that only the lower one shows
    ids = [make_capture(view).pk for view in (views.views[0], changed)]
    join = _joined(api, run_queue, ids)
    (seam,) = join["seams"]
    assert (seam["least_px"], seam["most_px"]) == (250, 400)
    for at_px, is_red in ((260, True), (380, False)):
        moved = api.send("POST", f"/joins/{join['id']}/seam", {"number": 1, "at_px": at_px})
        assert moved["seams"][0]["at_px"] == at_px
        part = api.get(f"/joins/{join['id']}/parts/0")
        shown = np.asarray(Image.open(io.BytesIO(part.content)).convert("RGB"))
        assert (shown[320, 240, 0] > 150 and shown[320, 240, 1] < 90) == is_red
    refused = api.refused("POST", f"/joins/{join['id']}/seam", {"number": 1, "at_px": 401})
    assert (refused["status"], refused["code"]) == (422, "seam")
    assert api.client.get(f"/api/joins/{join['id']}/parts/1").status_code == 404


def test_a_missing_piece_is_named_and_there_is_nothing_to_keep(
    api: Api, run_queue: Callable[[], None], make_capture: MakeCapture
) -> None:
    views = scrolled(PAGE, [0.0, 250.0, 900.0, 1_100.0], 400)
    ids = [make_capture(view).pk for view in views.views]
    join = _joined(api, run_queue, ids, in_order=True)
    assert (join["state"], join["seams"], join["height_px"]) == ("missing", [], None)
    assert join["missing"] == [{"below": 1, "above": 2, "why": "nothing_shared"}]
    assert api.refused("POST", f"/joins/{join['id']}/keep")["code"] == "join_missing"
    assert api.refused("POST", f"/joins/{join['id']}/seam", {"number": 1, "at_px": 9})["status"] == 422


def test_a_page_taken_further_down_becomes_one_capture_with_one_map(
    api: Api, run_queue: Callable[[], None], make_capture: MakeCapture
) -> None:
    ids = []
    for top_px, height_px, name in ((900, 600, "Below"), (0, 900, "Above")):
        capture = make_capture(
            PAGE[top_px : top_px + height_px],
            final_address="http://skerrin.example/timetable",
            report={"top_px": top_px, "page_height_px": height_px},
            truncated=True,
        )
        box = Box(x_px=8, y_px=100, width_px=200, height_px=20)
        block = Block(role="heading", level=1, box=box, text=name, link="", alt="")
        PageMap(blocks=(block,)).save(capture.folder)
        ids.append(capture.pk)
    join = _joined(api, run_queue, ids)
    assert (join["state"], join["height_px"]) == ("whole", 1_500), "they share no row"
    kept = api.send("POST", f"/joins/{join['id']}/keep", status=202)["capture"]
    run_queue()
    assert np.array_equal(_pixels(kept), PAGE[:1_500])
    blocks = [(row["text"], row["y_px"]) for row in api.get(f"/captures/{kept}/map")]
    assert blocks == [("Above", 100), ("Below", 1_000)]
    assert api.get(f"/captures/{kept}")["truncated"]
    further = api.send("POST", f"/captures/{kept}/further", status=202)
    assert api.get(f"/captures/{further['id']}")["settings"]["from_px"] == 1_500


@pytest.mark.parametrize(
    ("widths", "code"), [([480], "join_count"), ([480, 320], "join_widths"), ([480, None], "join_gone")]
)
def test_what_cannot_be_joined_is_refused_at_once(
    api: Api, make_capture: MakeCapture, widths: list[int | None], code: str
) -> None:
    ids = [999_999 if width is None else make_capture(text_page(width, 300)).pk for width in widths]
    assert api.refused("POST", "/joins", {"captures": ids})["code"] == code


def test_pieces_that_are_cleared_from_the_disk_meanwhile_are_missed(
    api: Api, run_queue: Callable[[], None], screens: tuple[Views, list[int]]
) -> None:
    _, ids = screens
    join = _joined(api, run_queue, ids)
    api.send("DELETE", f"/captures/{ids[0]}", status=204)
    assert api.get(f"/joins/{join['id']}")["state"] == "whole", "what is deleted can be restored"
    api.send("DELETE", "/captures/deleted", status=204)
    clear_due()
    assert api.refused("POST", f"/joins/{join['id']}/keep")["code"] == "join_missing"
    assert json.dumps(api.get(f"/joins/{join['id']}"))
