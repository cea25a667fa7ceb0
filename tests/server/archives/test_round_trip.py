"""Captures go into an archive and come out of it: pixels, cuts and all that was said of them."""

from __future__ import annotations

import io
import json
import zipfile
from collections.abc import Callable
from datetime import date
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from tallpage.core.geometry import Box
from tallpage.core.page_map import PageMap
from tallpage.core.page_words import PageWords
from tallpage.core.rights import Rights
from tallpage.server.archives.models import BroughtArchive
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.running import run_job
from tallpage.server.shelf.models import Capture, Cut
from tallpage.server.shelf.sorting import folders as sorting
from tallpage.server.storage import capture_folder
from tests.pictures import as_png, gradient, text_page
from tests.server.conftest import Api

_HIDDEN = {"x_px": 10, "y_px": 10, "width_px": 50, "height_px": 20, "id": "h1"}
_MARK = {"kind": "badge", "x_px": 60, "y_px": 60, "id": "m1"}


@pytest.fixture
def shelf(api: Api, make_capture: Callable[..., Capture]) -> list[Capture]:
    """A page with two cuts in a folder in a folder, and the page as it was before."""
    before = make_capture(text_page(320, 400), title="Fares, as they were")
    page = make_capture(
        text_page(320, 2_300),
        title="Fares",
        warnings=["It went on growing."],
        report={"left_out": ["Cookies"]},
    )
    Capture.objects.filter(pk=page.pk).update(renews=before)
    (page.folder / "map.json").write_text(
        json.dumps({"version": 1, "blocks": [_block("Winter fares", 20), _block("Summer fares", 900)]})
    )
    outer = api.send("POST", "/folders", {"name": "Help", "parent": None}, status=201)["id"]
    inner = api.send("POST", "/folders", {"name": "Fares", "parent": outer}, status=201)["id"]
    api.send("POST", "/captures/batch", {"ids": [page.pk], "action": "move", "folder": inner})
    api.send("POST", "/captures/batch", {"ids": [page.pk], "action": "label", "label": "winter"})
    cut = page.cuts.get()
    frame = {**cut.document["frame"], "width_px": 200}
    document = {**cut.document, "frame": frame, "hidden": [_HIDDEN], "marks": [_MARK]}
    api.send("PATCH", f"/cuts/{cut.pk}", {"version": 1, "document": document, "name": "Table"})
    api.send("POST", f"/captures/{page.pk}/cuts", status=201)
    Cut.objects.filter(pk=cut.pk).update(carried_from=before.cuts.get(), needs_a_look=True)
    return [Capture.objects.get(pk=page.pk), before]


def _block(text: str, y_px: int) -> dict[str, Any]:
    box = {"x_px": 10, "y_px": y_px, "width_px": 200, "height_px": 40}
    return {"role": "heading", "level": 2, "box": box, "text": text, "link": "", "alt": ""}


def _archive(api: Api, captures: list[Capture]) -> bytes:
    what = {"captures": [capture.pk for capture in captures]}
    line = api.send("POST", "/hand-overs", {"order": {"way": "archive", "what": what}}, status=202)
    response = api.client.get(line["file_url"])
    assert response["Content-Disposition"].endswith('-archive.zip"')
    return b"".join(response.streaming_content)


def _bring(api: Api, data: bytes) -> BroughtArchive:
    response = api.client.post("/api/archives", {"archive": SimpleUploadedFile("from-the-desk.zip", data)})
    assert response.status_code == 202, response.content
    row = BroughtArchive.objects.get(pk=response.json()["id"])
    run_job(row.job.pk)
    row.refresh_from_db()
    row.job.refresh_from_db()
    return row


def _brought(row: BroughtArchive) -> list[Capture]:
    return [Capture.objects.get(pk=told["capture"]) for _, told in sorted(row.brought.items())]


def _pixels(capture: Capture) -> np.ndarray[Any, Any]:
    source = capture.pixel_source()
    return source.region(Box.whole(capture.size)).rows(0, capture.height_px)


def _told(capture: Capture) -> dict[str, Any]:
    fields = ("source", "name", "address", "title", "host", "scale", "width_px", "height_px", "bytes")
    more = ("warnings", "report", "settings", "whole", "taken_at", "created_at", "screen_width_px")
    return {name: getattr(capture, name) for name in (*fields, *more, "rights")}


def test_pixels_cuts_and_what_was_said_are_the_same_after_the_round_trip(
    api: Api, shelf: list[Capture]
) -> None:
    sorting.say_rights([shelf[0].pk], Rights(state="licensed", until=date(2999, 1, 1), note="by letter"))
    shelf[0].refresh_from_db()
    row = _bring(api, _archive(api, shelf))
    assert (row.job.state, row.refused, row.total) == (Job.State.DONE, [], 2)
    page, before = _brought(row)
    for there, here in zip((page, before), shelf, strict=True):
        assert there.pk != here.pk
        assert there.folder != here.folder
        assert _told(there) == _told(here)
        assert np.array_equal(_pixels(there), _pixels(here))
        cuts = [
            [(cut.name, cut.document, cut.needs_a_look) for cut in row.cuts.all()] for row in (there, here)
        ]
        assert cuts[0] == cuts[1]
    assert len(page.cuts.all()) == 2
    assert page.shelf_folder == shelf[0].shelf_folder
    assert [label.name for label in page.labels.all()] == ["winter"]
    assert PageMap.load(page.folder) == PageMap.load(shelf[0].folder)
    assert page.renews == before
    assert page.cuts.first().carried_from == before.cuts.get()  # type: ignore[union-attr]
    assert page.pk in [found["id"] for found in api.get("/captures?words=summer")["captures"]]


def test_an_archive_goes_on_where_it_was_stopped(api: Api, shelf: list[Capture]) -> None:
    data = _archive(api, shelf)
    row = _bring(api, data)
    first, second = _brought(row)
    Job.objects.filter(pk=row.job.pk).update(state=Job.State.STOPPED)
    BroughtArchive.objects.filter(pk=row.pk).update(brought={"1": row.brought["1"]})
    again = _bring(api, data)
    assert again.brought["1"]["capture"] == first.pk
    assert again.brought["2"]["capture"] != second.pk
    assert _brought(_bring(api, data))[0].pk != first.pk  # one that came to its end is brought in anew


def test_an_archive_leaves_a_line_in_the_log(api: Api, shelf: list[Capture]) -> None:
    _archive(api, shelf[:1])
    (line,) = api.get(f"/captures/{shelf[0].pk}/log")
    assert (line["way_words"], line["answer"]) == ("Archive", "1 capture.")
    again = api.send("POST", f"/hand-overs/{line['id']}/again", status=202)
    assert again["way_words"] == "Archive"


def _changed(data: bytes, **files: bytes | None) -> bytes:
    """An archive with some of its files otherwise; None leaves one out."""
    buffer = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as old, zipfile.ZipFile(buffer, "w") as new:
        for name in old.namelist():
            inside = files.get(name.replace("/", "__"), old.read(name))
            if inside is not None:
                new.writestr(name, inside)
    return buffer.getvalue()


def _manifest(**said: object) -> bytes:
    strip = {"file": "0000.png", "top_px": 0, "height_px": 400, "bytes": 1}
    return json.dumps(
        {"version": 1, "width_px": 320, "height_px": 400, "strips": [{**strip, **said}]}
    ).encode()


_BAD: dict[str, dict[str, bytes | None]] = {
    "a strip is missing": {"captures__0001__0000.png": None},
    "a strip is no picture": {"captures__0001__0000.png": b"GIF89a nothing"},
    "a strip is of another size": {"captures__0001__0000.png": as_png(gradient(320, 300))},
    "a strip ends early": {"captures__0001__0000.png": as_png(text_page(320, 400))[:-400]},
    "a strip lies elsewhere": {"captures__0001__manifest.json": _manifest(file="../../secret.key")},
    "strips overlap": {"captures__0001__manifest.json": _manifest(top_px=7)},
    "a strip is far too tall": {"captures__0001__manifest.json": _manifest(height_px=2**40)},
    "the map is damaged": {"captures__0001__map.json": b'{"blocks": [1]}'},
    "the words are no gzip": {"captures__0001__words.json.gz": b"words"},
    "a cut is no cut": {"captures__0001__cuts__001.json": b"[]"},
    "a cut is missing": {"captures__0001__cuts__001.json": None},
}


@pytest.mark.parametrize("bad", _BAD.values(), ids=_BAD.keys())
def test_what_is_wrong_in_an_archive_is_refused_and_the_rest_is_there(
    api: Api, make_capture: Callable[..., Capture], bad: dict[str, bytes | None]
) -> None:
    captures = [make_capture(text_page(320, 400), title=title) for title in ("Bad", "Good")]
    (captures[0].folder / "map.json").write_text('{"version": 1, "blocks": []}')
    PageWords(runs=()).save(captures[0].folder)
    folders = capture_folder("x").parent
    data = _archive(api, captures)
    before = len(list(folders.iterdir()))
    row = _bring(api, _changed(data, **bad))
    assert row.job.state == Job.State.DONE
    assert [refused["name"][:3] for refused in row.refused] == ["Bad"]
    assert "Bad" in row.refused[0]["sentence"] or "archive" in row.refused[0]["sentence"]
    assert list(row.brought) == ["2"]
    assert Capture.objects.count() == 3
    assert len(list(folders.iterdir())) == before + 1


def _contents(data: bytes, **said: object) -> bytes:
    """An archive whose first capture says something else of itself."""
    with zipfile.ZipFile(io.BytesIO(data)) as archive:
        contents = json.loads(archive.read("archive.json"))
    contents["captures"][0].update(said)
    return _changed(data, **{"archive.json": json.dumps(contents).encode()})


@pytest.mark.parametrize(
    "said",
    [
        {"settings": {"extent": "sideways"}},
        {"report": {"wholeness": {"lacking": [7]}}},
        {"labels": [" "]},
        {"scale": 8},
        {"report": {"wholeness": "all"}},
        {"report": {"left_out": 7}},
        {"settings": {"steps": "none"}},
        {"rights_state": "licensed"},
    ],
)
def test_what_could_not_be_shown_is_not_taken_in(
    api: Api, shelf: list[Capture], said: dict[str, Any]
) -> None:
    row = _bring(api, _contents(_archive(api, shelf), **said))
    assert [refused["name"] for refused in row.refused] == [shelf[0].name]
    assert list(row.brought) == ["2"]


@pytest.mark.parametrize(
    "said",
    [
        {"scale": 0},
        {"name": ""},
        {"cellar": 1},
        {"created_at": "yesterday"},
        {"created_at": "2026-03-01T10:00:00"},
        {"cuts": [{"name": "x" * 81}]},
    ],
)
def test_an_archive_that_says_what_is_not_known_is_refused_at_once(
    api: Api, shelf: list[Capture], said: dict[str, Any]
) -> None:
    assert _refused(api, _contents(_archive(api, shelf), **said))["code"] == "archive_unreadable"


def _refused(api: Api, data: bytes) -> dict[str, Any]:
    before = Capture.objects.count()
    response = api.client.post("/api/archives", {"archive": SimpleUploadedFile("a.zip", data)})
    assert response.status_code == 422, response.content
    assert (BroughtArchive.objects.count(), Capture.objects.count()) == (0, before)
    problem: dict[str, Any] = response.json()
    return problem


def test_what_is_no_archive_is_refused_at_once(api: Api, shelf: list[Capture]) -> None:
    data = _archive(api, shelf)
    empty = io.BytesIO()
    zipfile.ZipFile(empty, "w").close()
    for nothing in (b"", b"PK nothing", data[:-60], empty.getvalue(), as_png(gradient(4, 4))):
        assert _refused(api, nothing)["code"] == "archive_unreadable"
    newer = _changed(data, **{"archive.json": b'{"tall_page_archive": 2}'})
    assert _refused(api, newer)["code"] == "archive_too_new"
    uploads = Path(capture_folder("x")).parent.parent / "incoming"
    assert not list(uploads.glob("*.upload"))


def test_a_killed_worker_leaves_each_capture_once(
    api: Api, shelf: list[Capture], monkeypatch: pytest.MonkeyPatch
) -> None:
    class Killed(BaseException):
        pass

    from tallpage.server.archives import bringing

    data, count = _archive(api, shelf), Capture.objects.count()
    indexed = bringing.index_capture

    def killed_at_the_second(capture: Capture, text: str) -> None:
        if capture.title == shelf[1].title:
            raise Killed
        indexed(capture, text)

    monkeypatch.setattr(bringing, "index_capture", killed_at_the_second)
    response = api.client.post("/api/archives", {"archive": SimpleUploadedFile("a.zip", data)})
    row = BroughtArchive.objects.get(pk=response.json()["id"])
    with pytest.raises(Killed):
        run_job(row.job.pk)
    monkeypatch.undo()
    Job.objects.filter(pk=row.job.pk).update(state=Job.State.QUEUED, owner="")
    run_job(row.job.pk)
    row.refresh_from_db()
    assert sorted(row.brought) == ["1", "2"]
    assert Capture.objects.count() == count + 2
