"""Clips over the API: taken, changed, made into files, cleared."""

from __future__ import annotations

import io
from collections.abc import Callable, Iterator
from datetime import timedelta
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image

from tallpage.server.clips.models import Clip, ClipOutput
from tallpage.server.clips.taking import KIND, prepare
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import Signals
from tallpage.server.jobs.running import _work_thread
from tallpage.server.shelf.arriving.taking import close_browser
from tallpage.server.storage import clip_folder, incoming_folder, incoming_named, publish_clip
from tallpage.server.upkeep import leftovers
from tests.core.capture.plain_site import plain_site
from tests.core.capture.test_clip import PAGES
from tests.core.clip.made_up import blinking, write_frames
from tests.pictures import as_png
from tests.server.conftest import Api

PLAIN = {"dropped": [], "keep_every": 1, "speed": 1.0, "there_and_back": False, "hold_start_ms": 0,
         "hold_end_ms": 0, "repeats": 0, "box": None, "pointer": True, "hidden": [], "marks": []}  # fmt: skip

_BOX = {"x_px": 0, "y_px": 0, "width_px": 9, "height_px": 9}


@pytest.fixture
def clip(api: Api) -> Clip:
    """Two seconds of a mark that moves, taken already."""
    folder = incoming_folder()
    frames = write_frames(folder, blinking(20))
    return Clip.objects.create(
        name="Board",
        address="http://skerrin.example/quay",
        asked={},
        storage_key=publish_clip(folder),
        width_px=frames.width_px,
        height_px=frames.height_px,
        rate_fps=frames.rate_fps,
        frame_count=len(frames.frames),
        job=Job.objects.create(kind=KIND, state=Job.State.DONE),
    )


@pytest.fixture
def cleared(monkeypatch: pytest.MonkeyPatch) -> Callable[[], list[Path]]:
    """What would be cleared by now, had nobody touched it for long."""
    monkeypatch.setattr(leftovers, "UNTOUCHED_FOR", timedelta(seconds=-1))
    kinds = ("clip", "file", "unfinished work")
    return lambda: [row.path for row in leftovers.find_leftovers() if row.kind in kinds]


@pytest.fixture(scope="module")
def pages() -> Iterator[str]:
    with plain_site(PAGES) as address:
        yield address
    _work_thread().submit(close_browser).result()


def _make(api: Api, clip: Clip, run_queue: Callable[[], None], **asked: Any) -> Any:
    wanted = {"format": "webp", "limit_bytes": 60_000, "width_px": 320, **asked}
    made = api.send("POST", f"/clips/{clip.pk}/files", wanted, status=202)
    run_queue()
    return next(row for row in api.get(f"/clips/{clip.pk}")["outputs"] if row["id"] == made["id"])


def test_a_page_is_taken_named_and_listed(api: Api, pages: str, run_queue: Callable[[], None]) -> None:
    asked = {"address": f"{pages}/tall", "kind": "scroll", "speed_px_s": 4_000, "rate_fps": 8}
    ordered = api.send("POST", "/clips", asked, status=202)
    assert (ordered["job"]["state"], ordered["files"]) == ("queued", [])
    run_queue()
    taken = api.get(f"/clips/{ordered['id']}")
    assert (taken["name"], taken["job"]["state"]) == ("Tall", "done")
    assert len(taken["files"]) == taken["frame_count"] > 8
    (row,) = api.get("/clips")
    assert (row["id"], row["frame_count"]) == (taken["id"], taken["frame_count"])
    picture = api.client.get(f"/api/clips/{taken['id']}/frames/0/120")
    with Image.open(io.BytesIO(picture.content)) as small:
        assert small.size == (120, 75)
    for path in (f"frames/{taken['frame_count']}/120", "frames/0/5000"):
        assert api.client.get(f"/api/clips/{taken['id']}/{path}").status_code == 404


@pytest.mark.parametrize(
    ("asked", "code"),
    [
        ({"address": "two words"}, "address_malformed"),
        ({"address": "file:///etc/passwd"}, "address_scheme"),
        ({"address": "a.test", "rate_fps": 31}, "rate_impossible"),
        ({"address": "a.test", "kind": "watch"}, "clip_no_kind"),
        ({"address": "a.test", "kind": "watch", "seconds": 1e9}, "clip_too_long"),
        ({"address": "a.test", "from_px": -1}, "clip_impossible"),
        (
            {"address": "a.test", "kind": "steps", "steps": [{"kind": "press", "text": "??"}]},
            "step_malformed",
        ),
    ],
)
def test_what_cannot_be_taken_is_refused_and_nothing_is_stored(
    api: Api, asked: dict[str, object], code: str
) -> None:
    assert api.refused("POST", "/clips", asked)["code"] == code
    assert not Clip.objects.exists()


def test_how_it_is_seen_is_changed_and_another_window_is_not_overwritten(api: Api, clip: Clip) -> None:
    document = {**PLAIN, "dropped": [3, 4], "there_and_back": True}
    changed = api.send("PUT", f"/clips/{clip.pk}", {"revision": 0, "document": document})
    assert (changed["document"], changed["revision"]) == (document, 1)
    late = api.refused("PUT", f"/clips/{clip.pk}", {"revision": 0, "document": PLAIN})
    assert (late["status"], "another window" in late["title"]) == (409, True)
    absurd = api.refused("PUT", f"/clips/{clip.pk}", {"revision": 1, "document": {**PLAIN, "speed": 1e12}})
    assert absurd["code"] == "clip_impossible"
    assert api.get(f"/clips/{clip.pk}")["document"] == document


def test_a_file_is_made_under_its_limit_and_played(
    api: Api, clip: Clip, run_queue: Callable[[], None], cleared: Callable[[], list[Path]]
) -> None:
    document = {**PLAIN, "dropped": list(range(5, 15)), "there_and_back": True}
    api.send("PUT", f"/clips/{clip.pk}", {"revision": 0, "document": document})
    made = _make(api, clip, run_queue)
    assert (made["job"]["state"], made["met"]) == ("done", True)
    assert made["pictures_wanted"] == 18
    assert made["given_up"]
    answer = api.client.get(f"/api/clips/files/{made['id']}/file?save=true")
    data = b"".join(answer.streaming_content)  # type: ignore[attr-defined]
    assert len(data) == made["bytes"] <= 60_000
    assert answer["Content-Type"] == "image/webp"
    assert "Board.webp" in answer["Content-Disposition"]
    with Image.open(io.BytesIO(data)) as picture:
        assert picture.n_frames == made["pictures"]  # type: ignore[attr-defined]
    path = ClipOutput.objects.get().path
    assert path not in cleared()
    api.send("DELETE", f"/clips/files/{made['id']}", status=204)
    assert path in cleared()


@pytest.mark.long
def test_what_cannot_be_made_is_told_with_numbers(
    api: Api, clip: Clip, run_queue: Callable[[], None]
) -> None:
    made = _make(api, clip, run_queue, format="gif", limit_bytes=200, width_px=96)
    assert not made["met"]
    assert [row["kind"] for row in made["advice"]] == ["limit", "length"]
    api.send("PUT", f"/clips/{clip.pk}", {"revision": 0, "document": {**PLAIN, "dropped": list(range(20))}})
    asked = {"format": "gif", "limit_bytes": 10_000}
    for absurd in ({"width_px": 10**30}, {"width_px": 0}, {"limit_bytes": 10**30}, {"limit_bytes": 0}):
        assert api.refused("POST", f"/clips/{clip.pk}/files", {**asked, **absurd})["status"] == 422
    assert api.refused("POST", f"/clips/{clip.pk}/files", asked)["code"] == "clip_empty"
    outside = {**PLAIN, "box": {"x_px": 0, "y_px": 0, "width_px": 9_999, "height_px": 1}}
    api.send("PUT", f"/clips/{clip.pk}", {"revision": 1, "document": outside})
    assert api.refused("POST", f"/clips/{clip.pk}/files", asked)["code"] == "clip_box"


def test_stopped_files_and_clips_leave_nothing(
    api: Api, clip: Clip, run_queue: Callable[[], None], cleared: Callable[[], list[Path]]
) -> None:
    asked = {"format": "webp", "limit_bytes": 10_000}
    made = api.send("POST", f"/clips/{clip.pk}/files", asked, status=202)
    assert api.send("POST", f"/clips/files/{made['id']}/stop")["job"]["state"] == "stopped"
    ordered = api.send("POST", "/clips", {"address": "skerrin.example"}, status=202)
    assert api.send("POST", f"/clips/{ordered['id']}/stop")["job"]["state"] == "stopped"
    run_queue()
    folder = clip_folder(clip.storage_key)
    for number in (clip.pk, ordered["id"]):
        api.send("DELETE", f"/clips/{number}", status=204)
    assert api.get("/clips") == []
    assert folder in cleared()


@pytest.mark.long
def test_what_a_killed_worker_began_is_cleared_and_taken_anew(
    api: Api, pages: str, run_queue: Callable[[], None], cleared: Callable[[], list[Path]]
) -> None:
    asked = {"address": f"{pages}/moving", "kind": "watch", "seconds": 0.4, "rate_fps": 5}
    ordered = api.send("POST", "/clips", asked, status=202)
    job = Job.objects.get(clip=ordered["id"])
    _work_thread().submit(
        prepare(job).run, Signals()
    ).result()  # taken, and killed before its row was written
    begun = Clip.objects.get().incoming_key
    assert incoming_named(begun).exists()
    run_queue()
    assert not incoming_named(begun).exists()
    assert api.get(f"/clips/{ordered['id']}")["frame_count"] == 2
    assert clip_folder(Clip.objects.get().storage_key) not in cleared()


def test_what_is_hidden_and_marked_is_on_the_frames_and_in_files(
    api: Api, clip: Clip, run_queue: Callable[[], None]
) -> None:
    area = {"how": "solid", "colour": "#102030", "x_px": 0, "y_px": 0, "width_px": 320, "height_px": 100}
    mark = {"kind": "box", "filling": "#FF0000", "x_px": 0, "y_px": 100, "width_px": 320, "height_px": 100}
    document = {**PLAIN, "hidden": [{"area": area, "last": 9}], "marks": [{"mark": mark}]}
    changed = api.send("PUT", f"/clips/{clip.pk}", {"revision": clip.revision, "document": document})
    assert changed["document"]["hidden"][0]["last"] == 9

    def seen(number: int, query: str) -> tuple[list[int], list[int]]:
        answer = api.client.get(f"/api/clips/{clip.pk}/frames/{number}/640?{query}")
        with Image.open(io.BytesIO(answer.content)) as picture:
            pixels = np.asarray(picture.convert("RGB")).tolist()
        return pixels[75][160], pixels[150][160]

    upper, lower = seen(3, f"revision={changed['revision']}")
    assert max(abs(is_ - wanted) for is_, wanted in zip(upper, (16, 32, 48), strict=True)) < 12
    assert lower[0] > 200 > 60 > lower[1]
    assert seen(12, f"revision={changed['revision']}")[0] != upper  # the range is over
    assert seen(3, "") == (upper, lower)  # nobody sees what is hidden

    made = _make(api, clip, run_queue, format="gif", limit_bytes=400_000)
    answer = api.client.get(f"/api/clips/files/{made['id']}/file")
    with Image.open(io.BytesIO(b"".join(answer.streaming_content))) as film:  # type: ignore[attr-defined]
        covered = np.asarray(film.convert("RGB"))[30:60, 100:200].astype(int)
    assert np.abs(covered - (16, 32, 48)).max() < 12


@pytest.mark.parametrize(
    "more",
    [
        {"hidden": [{"area": {"x_px": 0, "y_px": 0, "width_px": 0, "height_px": 5}}]},
        {"marks": [{"mark": {"kind": "box", **_BOX}, "first": 5, "last": 2}]},
        {"marks": [{"mark": {"kind": "sticker", "picture": "x", **_BOX}}]},
    ],
)
def test_what_cannot_be_on_frames_is_refused_and_nothing_changes(
    api: Api, clip: Clip, more: dict[str, object]
) -> None:
    api.refused("PUT", f"/clips/{clip.pk}", {"revision": clip.revision, "document": {**PLAIN, **more}})
    assert api.get(f"/clips/{clip.pk}")["revision"] == clip.revision


_ENDED = {"name": "Shared tab", "rate_fps": 10, "frame_count": 5}


def _shared(api: Api, key: str, number: int, picture: bytes) -> Any:
    path = f"/api/clips/shared/{key}/frames?number={number}"
    return api.client.post(path, {"picture": SimpleUploadedFile("frame.png", picture)})


def test_the_frames_of_a_shared_screen_become_a_clip(
    api: Api, run_queue: Callable[[], None], cleared: Callable[[], list[Path]]
) -> None:
    key = api.send("POST", "/clips/shared", status=201)["key"]
    first, second = (as_png(pixels) for pixels in blinking(2))
    assert api.refused("POST", f"/clips/shared/{key}", _ENDED)["code"] == "clip_empty"
    for number, picture in ((1, first), (3, second)):  # the very first did not arrive
        assert _shared(api, key, number, picture).status_code == 200
    ended = api.send("POST", f"/clips/shared/{key}", _ENDED, status=202)
    assert incoming_named(key) not in cleared()
    run_queue()
    clip = api.get(f"/clips/{ended['id']}")
    assert (clip["name"], clip["frame_count"], clip["width_px"]) == ("Shared tab", 5, 320)
    assert len(set(clip["files"][:3])) == len(set(clip["files"][3:])) == 1 < len(set(clip["files"]))
    assert not incoming_named(key).exists()
    assert clip_folder(Clip.objects.get().storage_key) not in cleared()


@pytest.mark.parametrize("key", ["0" * 32, "..", "abc", "%2e%2e%2fclips"])
def test_frames_are_taken_only_where_a_clip_was_begun(api: Api, key: str) -> None:
    assert _shared(api, key, 0, b"no picture").status_code in (404, 422)


def test_what_is_no_picture_is_told_when_the_clip_is_made(api: Api, run_queue: Callable[[], None]) -> None:
    key = api.send("POST", "/clips/shared", status=201)["key"]
    for number in (-1, 10**6):
        assert _shared(api, key, number, b"").status_code == 422
    for absurd in ({"frame_count": 0}, {"frame_count": 10**30}, {"rate_fps": 0}, {"name": ""}):
        assert api.refused("POST", f"/clips/shared/{key}", {**_ENDED, **absurd})["status"] == 422
    assert _shared(api, key, 0, b"no picture").status_code == 200
    ended = api.send("POST", f"/clips/shared/{key}", _ENDED, status=202)
    run_queue()
    assert api.get(f"/clips/{ended['id']}")["job"]["error"]["sentence"]
