"""Cuts go along when a page is taken again, and what is in doubt waits for somebody to look."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import numpy as np
import pytest
from django.test import Client

from tallpage.core.geometry import Box
from tallpage.core.page_map import Block, PageMap
from tallpage.core.page_words import PageWords, Word
from tallpage.server.shelf.models import Capture
from tests.pictures import decoded
from tests.server.conftest import Api
from tests.server.sweeping import started

Mapped = Callable[..., Capture]
_LINES = ["Fares of the summer", "Boats of the line", "Crossings in fog", "Lost things are at the quay"]
SLOT = {"rules": {"width_px": 160, "limit_bytes": 40_000, "formats": ["jpeg"]}}


@pytest.fixture
def mapped(make_capture: Mapped) -> Mapped:
    """A capture of 320 × 480 px with lines of 40 px, 20 px apart, from 20 px on."""

    def make(lines: list[str]) -> Capture:
        capture = make_capture(np.full((480, 320, 3), 230, dtype=np.uint8))
        boxes = [Box(x_px=20, y_px=20 + 60 * row, width_px=280, height_px=40) for row in range(len(lines))]
        blocks = [
            Block(role="paragraph", level=None, box=box, text=text, link="", alt="")
            for box, text in zip(boxes, lines, strict=True)
        ]
        PageMap(blocks=tuple(blocks)).save(capture.folder)
        return capture

    return make


def pointed(api: Api, capture: Capture, *, badges_y_px: tuple[int, ...], **more: Any) -> dict[str, Any]:
    """The capture's cut with numbers at these heights."""
    cut = api.get(f"/captures/{capture.pk}")["cuts"][0]
    marks = [
        {"kind": "badge", "id": f"n{number}", "x_px": 60, "y_px": y_px}
        for number, y_px in enumerate(badges_y_px)
    ]
    document = {**cut["document"], "marks": marks, **more}
    changed: dict[str, Any] = api.send(
        "PATCH", f"/cuts/{cut['id']}", {"version": cut["version"], "document": document}
    )
    return changed


def states(cut: dict[str, Any]) -> list[tuple[str, str, str, bool]]:
    return [(row["part"], row["id"], row["state"], row["doubt"]) for row in cut["review"]]


def test_a_cut_is_carried_over_to_another_capture(api: Api, mapped: Mapped) -> None:
    before, now = mapped(_LINES), mapped(["New today in the harbour", *_LINES])
    cut = pointed(api, before, badges_y_px=(100,))
    carried = api.send("POST", f"/cuts/{cut['id']}/carry", {"capture_id": now.pk}, status=201)
    assert carried["capture_id"] == now.pk
    assert carried["carried_from"] == cut["id"]
    assert carried["document"]["marks"][0]["y_px"] == 160
    assert states(carried) == [("frame", "", "same", False), ("mark", "n0", "moved", False)]
    assert carried["name"] != now.cuts.first().name  # type: ignore[union-attr]
    assert api.get(f"/captures/{before.pk}")["cuts"][0]["document"] == cut["document"]


def test_a_cut_that_is_carried_over_comes_after_those_that_are_there(api: Api, mapped: Mapped) -> None:
    before, now = mapped(_LINES), mapped(_LINES)
    cut = pointed(api, before, badges_y_px=(100,))
    there = [
        api.get(f"/captures/{now.pk}")["cuts"][0]["id"],
        api.send("POST", f"/captures/{now.pk}/cuts", status=201)["id"],
    ]
    api.send("PUT", f"/captures/{now.pk}/cuts/order", {"cut_ids": there}, status=204)
    carried = api.send("POST", f"/cuts/{cut['id']}/carry", {"capture_id": now.pk}, status=201)
    assert [row["id"] for row in api.get(f"/captures/{now.pk}")["cuts"]] == [*there, carried["id"]]


def test_files_are_asked_for_again_once_nothing_is_in_doubt(api: Api, mapped: Mapped) -> None:
    before, now = mapped(_LINES), mapped([*_LINES[:1], *_LINES[2:]])
    cut = pointed(api, before, badges_y_px=(40, 100))
    api.send("POST", f"/cuts/{cut['id']}/outputs", SLOT, status=202)
    carried = api.send("POST", f"/cuts/{cut['id']}/carry", {"capture_id": now.pk}, status=201)
    path = f"/cuts/{carried['id']}"
    assert states(carried)[0] == ("mark", "n1", "lost", True)
    assert carried["review"][0]["kept"]["id"] == "n1"
    assert [mark["id"] for mark in carried["document"]["marks"]] == ["n0"]
    assert api.get(f"{path}/outputs") == []
    assert api.refused("DELETE", f"{path}/review")["code"] == "needs_a_look"
    settled = api.send("POST", f"{path}/review", {"settled": [{"part": "mark", "id": "n1"}]})
    assert not any(row["doubt"] for row in settled["review"])
    assert [row["label"] for row in api.get(f"{path}/outputs")] == ["160 px"]
    api.send("POST", f"{path}/review", {"settled": [{"part": "mark", "id": "n1"}]})
    assert len(api.get(f"{path}/outputs")) == 1, "saying it twice asks for nothing more"
    assert api.send("DELETE", f"{path}/review")["review"] == []


def test_what_is_hidden_by_words_is_found_and_found_again(api: Api, mapped: Mapped) -> None:
    before, now = mapped(_LINES), mapped(_LINES)
    old_box = Box(x_px=20, y_px=20, width_px=90, height_px=16)
    new_boxes = [Box(x_px=20, y_px=y_px, width_px=90, height_px=16) for y_px in (80, 200)]
    PageWords(runs=((Word("desk@skerrin.example", (old_box,)),),)).save(before.folder)
    words = tuple(Word(f"{name}@skerrin.example", (box,)) for name, box in zip("ab", new_boxes, strict=True))
    PageWords(runs=(words,)).save(now.folder)
    found = api.send("POST", f"/captures/{before.pk}/found", {"kind": "email"})
    assert (found["known"], [row["text"] for row in found["places"]]) == (True, ["desk@skerrin.example"])
    sought = [{"id": "mails", "kind": "email"}]
    hidden = [
        {"id": "h", "x_px": 30, "y_px": 90, "width_px": 20, "height_px": 10},
        {"id": "mails-1", **found["places"][0]["boxes"][0], "found_by": "mails"},
    ]
    cut = pointed(api, before, badges_y_px=(), hidden=hidden, sought=sought)
    carried = api.send("POST", f"/cuts/{cut['id']}/carry", {"capture_id": now.pk}, status=201)
    areas = carried["document"]["hidden"]
    assert [(row["id"], row["y_px"]) for row in areas] == [("h", 90), ("mails-1", 78), ("mails-2", 198)]
    assert carried["document"]["sought"] == cut["document"]["sought"]


def test_of_a_picture_no_words_are_known(api: Api, mapped: Mapped) -> None:
    found = api.send("POST", f"/captures/{mapped(_LINES).pk}/found", {"kind": "words", "words": "boats"})
    assert found == {"known": False, "places": []}


def test_a_piece_shows_marks_and_nothing_that_is_hidden(api: Api, mapped: Mapped) -> None:
    capture = mapped(_LINES)
    hidden = [{"x_px": 0, "y_px": 0, "width_px": 30, "height_px": 30, "colour": "#000000"}]
    cut = pointed(api, capture, badges_y_px=(60,), hidden=hidden)
    path = f"/cuts/{cut['id']}/piece?x_px=0&y_px=0&width_px=200&height_px=100"
    shown = decoded(b"".join(api.get(path)))
    assert shown.shape[:2] == (100, 200)
    assert shown[10, 10].max() < 12
    assert abs(int(shown[5, 150][0]) - 230) < 6
    assert abs(int(shown[45, 60][0]) - 230) > 60
    beside = api.client.get(f"/api/cuts/{cut['id']}/piece?x_px=5000&y_px=0&width_px=20&height_px=20")
    assert beside.status_code == 404


def test_a_page_that_is_not_taken_yet_takes_no_cuts(api: Api, mapped: Mapped) -> None:
    cut = pointed(api, mapped(_LINES), badges_y_px=())
    waiting = api.send("POST", "/captures", {"address": "http://skerrin.example/"}, status=202)
    refused = api.refused("POST", f"/cuts/{cut['id']}/carry", {"capture_id": waiting["id"]})
    assert refused["code"] == "not_taken"


def test_a_page_taken_again_has_the_cuts_of_before(
    api: Api, run_queue: Callable[[], None], painted_pages: None, make_capture: Mapped
) -> None:
    before = make_capture()
    pointed(api, before, badges_y_px=())
    again = api.send("POST", f"/captures/{before.pk}/retake", status=202)
    run_queue()
    (cut,) = api.get(f"/captures/{again['id']}")["cuts"]
    assert (cut["name"], cut["carried_from"]) == ("Cut 1", before.cuts.get().pk)


def test_cuts_of_a_sweep_go_along_when_it_is_taken_again(api: Api, go: Callable[[int], None]) -> None:
    sweep_id = started(api, "fares", "boats")
    go(3)
    first = Capture.objects.filter(address__endswith="fares").order_by("pk")[0]
    pointed(api, first, badges_y_px=(40,))
    again = api.send("POST", f"/sweeps/{sweep_id}/again", status=201)
    go(3)
    (renewed,) = first.renewals.all()  # type: ignore[attr-defined]
    (cut,) = api.get(f"/captures/{renewed.pk}")["cuts"]
    # These pages have no blocks: whether the number is right waits for somebody who looks.
    assert states(cut)[0] == ("mark", "n0", "same", True)
    assert api.get(f"/sweeps/{again['id']}")["to_look_at"] == [renewed.pk]
    api.send("POST", f"/cuts/{cut['id']}/review", {"settled": [{"part": "mark", "id": "n0"}]})
    assert api.get(f"/sweeps/{again['id']}")["to_look_at"] == []


def test_cuts_go_along_when_a_picture_of_a_sweep_is_taken_anew(api: Api, go: Callable[[int], None]) -> None:
    sweep_id = started(api, "fares", screens=[{"width_px": 1280, "height_px": 800}])
    go(3)
    first = Capture.objects.get(address__endswith="fares")
    cut = pointed(api, first, badges_y_px=(40,))
    shot_id = first.shot.pk  # type: ignore[attr-defined]
    api.send("POST", f"/sweeps/{sweep_id}/retake", {"shot_ids": [shot_id]}, status=202)
    go(3)
    anew = Capture.objects.on_shelf().get(address__endswith="fares")
    assert anew.pk != first.pk
    assert api.get(f"/captures/{anew.pk}")["cuts"][0]["carried_from"] == cut["id"]


def test_carrying_is_looked_at_before_it_is_done(api: Api, mapped: Mapped) -> None:
    before, same, other = mapped(_LINES), mapped(_LINES), mapped(["New today", "Another line"])
    cut = pointed(api, before, badges_y_px=(100, 160))
    assert api.get(f"/cuts/{cut['id']}/carry/{same.pk}") == {"parts": 3, "doubted": [], "lost": []}
    second = api.get(f"/cuts/{cut['id']}/carry/{other.pk}")
    assert [*second["doubted"], *second["lost"]] == ["mark", "mark"]
    assert api.get(f"/cuts/{cut['id']}/carry/{other.pk}?by=px") == {"parts": 3, "doubted": [], "lost": []}
    assert len(api.get(f"/captures/{other.pk}")["cuts"]) == 1, "nothing was made"
    picture = Client().get(f"/api/cuts/{cut['id']}/carry/{other.pk}/picture?by=px")
    assert decoded(picture.content).shape == (360, 240, 3)
    carried = api.send("POST", f"/cuts/{cut['id']}/carry", {"capture_id": other.pk, "by": "px"}, status=201)
    assert not any(row["doubt"] for row in carried["review"])
