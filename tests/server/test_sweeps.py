"""Sweeps over the API, with a feeder and workers that act when they are told to."""

import csv
import io
import json
import zipfile
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from tallpage.core.geometry import Box
from tallpage.core.sweep import Fetched
from tallpage.server.outlets.models import Outlet, Slot
from tallpage.server.shelf.models import Capture
from tallpage.server.sweeps import listing
from tallpage.server.sweeps.dispatch import feed_all
from tallpage.server.sweeps.models import Shot, Sweep
from tests.server.conftest import Api
from tests.server.sweeping import TWO_SCREENS, started


def _count(api: Api, sweep_id: int) -> dict[str, Any]:
    return api.get(f"/sweeps/{sweep_id}")["count"]


def _zip(api: Api, sweep_id: int, query: str = "") -> zipfile.ZipFile:
    answer = api.client.get(f"/api/sweeps/{sweep_id}/zip{query}")
    assert answer["Content-Type"] == "application/zip"
    return zipfile.ZipFile(io.BytesIO(b"".join(answer.streaming_content)))


def test_a_list_is_looked_at_before_anything_is_stored(api: Api) -> None:
    text = "skerrin.example/news/a\nskerrin.example/news/a\nnothing here\n"
    listing = api.send("POST", "/lists/text", {"text": text})
    assert [page["address"] for page in listing["pages"]] == ["https://skerrin.example/news/a"]
    assert listing["sections"] == {"skerrin.example/news": 1}
    assert (listing["duplicates"], listing["bad_count"], listing["bad"][0]["line"]) == (1, 1, 3)
    assert api.get("/sweeps") == []


def test_a_column_of_a_dropped_table_can_be_chosen(api: Api) -> None:
    data = b"old,new\nskerrin.example/a,skerrin.example/b\n"
    for column, address in ((None, "https://skerrin.example/a"), (1, "https://skerrin.example/b")):
        form: dict[str, Any] = {"list_file": SimpleUploadedFile("list.csv", data)}
        if column is not None:
            form["column"] = column
        listing = api.client.post("/api/lists/file", form).json()
        assert [page["address"] for page in listing["pages"]] == [address]


def test_a_site_is_asked_for_its_pages(api: Api, site: str) -> None:
    listing = api.send("POST", "/lists/site", {"address": f"{site}/sitemap.xml"})
    assert len(listing["pages"]) > 100
    assert "Disallow: /crew" in listing["robots"]
    links = api.send("POST", "/lists/site", {"address": f"{site}/planning"})
    assert {page["address"].removeprefix(site) for page in links["pages"]} >= {"/islands"}
    refused = api.refused("POST", "/lists/site", {"address": f"{site}/sailings.csv"})
    assert refused["code"] == "list_not_a_page"


def test_of_many_hosts_those_with_most_pages_are_asked_for_their_wishes(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    pages = [f"https://h{number}.example/{path}" for number in range(22) for path in ("a", "b", "c")]
    pages.remove("https://h3.example/c")
    pages.remove("https://h7.example/c")
    asked: list[str] = []

    def fetch(address: str) -> Fetched:
        if not address.endswith("/robots.txt"):
            rows = "".join(f"<url><loc>{page}</loc></url>" for page in pages)
            data = f"<urlset xmlns='http://www.sitemaps.org/schemas/sitemap/0.9'>{rows}</urlset>"
        else:
            asked.append(address)
            data = "User-agent: *\nDisallow: /b\n"
        return Fetched(address=address, status=200, media_type="text/xml", data=data.encode())

    monkeypatch.setattr(listing, "fetcher", lambda **_: fetch)
    listed = listing.read_site("https://h0.example/sitemap.xml", None)
    assert len(listed.forbidden) == 20
    assert not listed.forbidden & {"https://h3.example/b", "https://h7.example/b"}
    assert len(set(asked)) == 20
    assert listed.problems == (
        "robots.txt was asked of the 20 hosts with the most pages, not of the other 2.",
    )


@pytest.mark.parametrize(
    ("change", "code"),
    [
        ({"pages": []}, "list_empty"),
        ({"screens": []}, "screens_count"),
        ({"pattern": "{nothing}"}, "pattern_malformed"),
        ({"at_once": 0}, "pace_impossible"),
        ({"settings": {"wait_ms": -1}}, "wait_impossible"),
    ],
)
def test_a_sweep_that_cannot_be_is_refused_and_nothing_is_stored(
    api: Api, change: dict[str, Any], code: str
) -> None:
    body = {"pages": [{"address": "skerrin.example/a"}], "screens": TWO_SCREENS, **change}
    assert api.refused("POST", "/sweeps", body)["code"] == code
    assert api.get("/sweeps") == []


def test_every_page_arrives_once_on_each_screen(api: Api, go: Callable[[int], None]) -> None:
    sweep_id = started(api, "a", "broken", "late")
    go(5)
    assert {name: _count(api, sweep_id)[name] for name in ("all", "taken", "failed", "left")} == {
        "all": 6, "taken": 4, "failed": 2, "left": 0,
    }  # fmt: skip
    assert api.get(f"/sweeps/{sweep_id}")["finished_at"]
    assert Capture.objects.count() == 6
    for kept, numbers in (
        ("failed", [2]),
        ("warnings", [3]),
        ("not_whole", [3]),
        ("arrived", [1, 3]),
        ("all", [1, 2, 3]),
    ):
        rows = api.get(f"/sweeps/{sweep_id}/rows?kept={kept}")
        assert ([row["number"] for row in rows["rows"]], rows["total"]) == (numbers, len(numbers))
    assert api.get(f"/sweeps/{sweep_id}/rows?words=LATE")["total"] == 1


def test_the_queue_holds_only_what_is_taken_soon_and_hosts_are_not_pressed(
    api: Api, painted_pages: None
) -> None:
    sweep_id = started(api, *(f"p{number}" for number in range(20)), at_once=2)
    feed_all()
    feed_all()
    assert _count(api, sweep_id)["under_way"] == 2
    api.send("POST", f"/sweeps/{sweep_id}/stop-mode", {"stop_mode": "stop"})
    other = started(api, *(f"p{number}" for number in range(20)), at_once=16)
    feed_all()
    assert 2 < _count(api, other)["under_way"] <= 6


def test_pause_and_stop_take_hold_and_going_on_takes_the_rest(api: Api, go: Callable[[int], None]) -> None:
    sweep_id = started(api, "a", "b", "c", at_once=1)
    go(1)
    for stop_mode in ("pause", "stop"):
        api.send("POST", f"/sweeps/{sweep_id}/stop-mode", {"stop_mode": stop_mode})
        go(2)
        assert _count(api, sweep_id)["taken"] == 1
    assert api.get(f"/sweeps/{sweep_id}")["finished_at"]
    api.send("POST", f"/sweeps/{sweep_id}/stop-mode", {"stop_mode": "go_on"})
    go(8)
    assert _count(api, sweep_id)["taken"] == Capture.objects.count() == 6


def test_a_sweep_that_cannot_go_on_fails_alone_and_goes_on_when_asked(
    api: Api, go: Callable[[int], None]
) -> None:
    broken, sound = started(api, "a", "b"), started(api, "c")
    asked = Sweep.objects.get(pk=broken).settings
    Sweep.objects.filter(pk=broken).update(settings={"wait_ms": "for ever"})
    go(3)
    assert api.get(f"/sweeps/{sound}")["finished_at"]
    Sweep.objects.filter(pk=broken).update(settings=asked)
    told = api.get(f"/sweeps/{broken}")
    assert told["finished_at"]
    assert told["problem"].startswith("It cannot go on: ")
    api.send("POST", f"/sweeps/{broken}/stop-mode", {"stop_mode": "go_on"})
    go(4)
    told = api.get(f"/sweeps/{broken}")
    assert (told["count"]["taken"], told["problem"]) == (4, "")


def test_what_failed_or_was_marked_is_retaken(api: Api, go: Callable[[int], None]) -> None:
    sweep_id = started(api, "a", "broken")
    go(3)
    first = api.get(f"/sweeps/{sweep_id}/rows")["rows"][0]["shots"][0]
    api.send("POST", f"/sweeps/{sweep_id}/mark", {"shot_ids": [first["id"]], "word": "retake"})
    assert api.send("POST", f"/sweeps/{sweep_id}/retake", {}, status=202) == {"done": 3}
    assert api.get(f"/sweeps/{sweep_id}")["finished_at"] is None
    go(2)
    again = api.get(f"/sweeps/{sweep_id}/rows")["rows"][0]["shots"][0]
    assert again["capture_id"] != first["capture_id"]
    assert (again["mark"], again["job"]["state"]) == ("", "done")
    assert Capture.objects.on_shelf().count() == 4
    changed = {"shot_ids": [first["id"]], "settings": {"wait_ms": 700}}
    assert api.send("POST", f"/sweeps/{sweep_id}/retake", changed, status=202) == {"done": 1}
    feed_all()
    assert Shot.objects.get(pk=first["id"]).capture.settings["wait_ms"] == 700  # type: ignore[union-attr]


def test_retakes_press_a_host_no_harder_than_the_sweep_did(api: Api, go: Callable[[int], None]) -> None:
    sweep_id = started(api, *(f"broken-{number}" for number in range(10)), at_once=2)
    go(12)
    assert _count(api, sweep_id)["failed"] == 20
    api.send("POST", f"/sweeps/{sweep_id}/stop-mode", {"stop_mode": "stop"})
    go(1)
    assert api.send("POST", f"/sweeps/{sweep_id}/retake", {}, status=202) == {"done": 20}
    feed_all()
    feed_all()
    assert {name: _count(api, sweep_id)[name] for name in ("under_way", "left")} == {
        "under_way": 2,
        "left": 20,
    }


def test_what_was_dropped_before_its_turn_is_taken_when_it_is_wanted_after_all(
    api: Api, go: Callable[[int], None]
) -> None:
    sweep_id = started(api, "a")
    shot_ids = [shot["id"] for shot in api.get(f"/sweeps/{sweep_id}/rows")["rows"][0]["shots"]]
    api.send("POST", f"/sweeps/{sweep_id}/mark", {"shot_ids": shot_ids, "word": "drop"})
    go(2)
    assert api.get(f"/sweeps/{sweep_id}")["finished_at"]
    api.send("POST", f"/sweeps/{sweep_id}/mark", {"shot_ids": shot_ids[:1], "word": ""})
    go(2)
    assert _count(api, sweep_id)["taken"] == 1


def test_the_zip_holds_what_its_manifest_says(api: Api, go: Callable[[int], None]) -> None:
    listing = {"pattern": "{section}/{title}"}
    sweep_id = started(api, "news/a", "news/broken", "b", **listing)
    go(4)
    archive = _zip(api, sweep_id)
    rows = json.loads(archive.read("manifest.json"))
    files = {row["file"]: row for row in rows if row["file"]}
    pictures = {name for name in archive.namelist() if name.endswith(".png")}
    assert set(files) == pictures == {
        "news/One title for all.png", "news/One title for all-2.png",
        "top/One title for all.png", "top/One title for all-2.png",
    }  # fmt: skip
    for name, row in files.items():
        assert len(archive.read(name)) == row["bytes"]
    assert [row["error"] for row in rows if not row["file"]] == 2 * [
        "The page does not work. Open the address in a browser to see whether it works, then take it again."
    ]
    table = list(csv.DictReader(io.StringIO(archive.read("manifest.csv").decode("utf-8-sig"))))
    assert [row["file"] for row in table] == [row["file"] for row in rows]
    assert archive.read("contact-sheet.html").count(b"data:image/webp") == 4
    assert archive.read("contact-sheet.pdf").startswith(b"%PDF-")


@pytest.mark.long
def test_a_sweep_is_saved_into_a_folder_of_the_server(
    api: Api, go: Callable[[int], None], tmp_path: Path, settings: Any
) -> None:
    settings.OUT = tmp_path / "out"
    sweep_id = started(api, "news/a", "b", pattern="{section}/{number}")
    go(4)
    for name, wanted in (("../../etc: Monday", "etc Monday"), ("../../etc: Monday", "etc Monday 2")):
        api.send("POST", f"/sweeps/{sweep_id}/folder", {"folder": name}, status=202)
        go(1)
        saving = api.get(f"/sweeps/{sweep_id}")["saving"]
        assert (saving["job"]["state"], saving["job"]["error"]) == ("done", None)
        assert Path(saving["folder"]).parent == settings.OUT
        assert Path(saving["folder"]).name.replace(".", "").strip() == wanted
        rows = json.loads((Path(saving["folder"]) / "manifest.json").read_text("utf-8"))
        assert len(rows) == 4
        for row in rows:
            assert (Path(saving["folder"]) / row["file"]).stat().st_size == row["bytes"]


@pytest.mark.long
def test_only_what_was_kept_is_saved_when_that_is_asked_for(api: Api, go: Callable[[int], None]) -> None:
    sweep_id = started(api, "a", "b")
    go(3)
    shots = api.get(f"/sweeps/{sweep_id}/rows")["rows"][1]["shots"]
    api.send("POST", f"/sweeps/{sweep_id}/mark", {"shot_ids": [shots[0]["id"]], "word": "keep"})
    api.send("POST", f"/sweeps/{sweep_id}/mark", {"shot_ids": [shots[1]["id"]], "word": "drop"})
    names = [name for name in _zip(api, sweep_id, "?only_kept=true").namelist() if name.endswith(".png")]
    assert names == ["skerrin.example/b-64.png"]
    assert len([name for name in _zip(api, sweep_id).namelist() if name.endswith(".png")]) == 3


def test_slots_are_made_of_every_page(api: Api, go: Callable[[int], None]) -> None:
    slot = Slot.objects.create(
        outlet=Outlet.objects.create(name="Web"),
        name="Hero",
        width_px=32,
        limit_bytes=9_000,
        formats=["jpeg"],
    )
    sweep_id = started(api, "a", slot_ids=[slot.pk], pattern="{number}-{slot}")
    go(4)
    archive = _zip(api, sweep_id)
    assert [name for name in archive.namelist() if name.endswith("jpg")] == [
        "1-Web Hero.jpg",
        "1-Web Hero-2.jpg",
    ]
    rows = json.loads(archive.read("manifest.json"))
    assert all(row["width_px"] == 32 and row["bytes"] <= 9_000 for row in rows)
    cut = Capture.objects.first().cuts.get()  # type: ignore[union-attr]
    assert cut.as_cut().frame.box == Box(x_px=0, y_px=0, width_px=64, height_px=96)


def test_names_can_be_tried_before_starting(api: Api) -> None:
    body = {
        "pattern": "{host}/{number}-{width}",
        "pages": [{"address": "skerrin.example/a"}, {"address": "skerrin.example/b"}],
        "screens": TWO_SCREENS,
    }
    assert api.send("POST", "/lists/names", body)["names"] == [
        "skerrin.example/1-1280.png", "skerrin.example/1-780.png",
        "skerrin.example/2-1280.png", "skerrin.example/2-780.png",
    ]  # fmt: skip
    assert api.refused("POST", "/lists/names", {**body, "pattern": "{x}"})["code"] == "pattern_malformed"


@pytest.mark.long
def test_a_sweep_can_be_run_again(api: Api, go: Callable[[int], None]) -> None:
    first = started(api, "a", "b", name="Every Monday")
    go(3)
    again = api.send("POST", f"/sweeps/{first}/again", status=201)
    assert again["id"] != first
    assert (again["name"], again["count"]["all"], again["count"]["taken"]) == ("Every Monday", 4, 0)


@pytest.mark.long
def test_five_thousand_pages_can_be_planned_and_shown(api: Api) -> None:
    sweep_id = started(api, *(f"section-{number % 7}/{number}" for number in range(5_000)))
    rows = api.get(f"/sweeps/{sweep_id}/rows?offset=4990&limit=50")
    assert (len(rows["rows"]), rows["total"]) == (10, 5_000)
    assert _count(api, sweep_id)["all"] == 10_000


@pytest.mark.long
def test_pages_of_a_sweep_do_not_crowd_out_what_was_taken_alone(api: Api, go: Callable[[int], None]) -> None:
    alone = {"address": "http://skerrin.example/alone", "screen": TWO_SCREENS[0]}
    alone_id = api.send("POST", "/captures", alone, status=202)["id"]
    started(api, "a", "b")
    go(4)
    assert api.get("/captures")["total"] == 5
    assert [row["id"] for row in api.get("/captures?alone=true")["captures"]] == [alone_id]


def test_of_two_windows_that_mark_one_shot_the_later_is_told(api: Api, go: Callable[[int], None]) -> None:
    sweep_id = started(api, "/a", "/b")
    go(2)
    ids = [row["shots"][0]["id"] for row in api.get(f"/sweeps/{sweep_id}/rows")["rows"]]
    path = f"/sweeps/{sweep_id}/mark"
    api.send("POST", path, {"shot_ids": ids, "word": "keep", "was": ["", ""]})
    problem = api.refused("POST", path, {"shot_ids": ids, "word": "drop", "was": ["", "keep"]})
    assert (problem["status"], problem["code"]) == (409, "changed_elsewhere")
    assert {shot.mark for shot in Shot.objects.filter(pk__in=ids)} == {"keep"}
    assert not Shot.objects.filter(dropped=True).exists()
    api.send("POST", path, {"shot_ids": ids, "word": "drop", "was": ["keep", "keep"]})
    api.send("POST", path, {"shot_ids": ids, "word": "", "was": ["drop", "drop"]})


@pytest.mark.long
def test_a_long_list_is_read_beside_the_server(api: Api, monkeypatch: pytest.MonkeyPatch) -> None:
    text = "\n".join(f"skerrin.example/pier/{number}/{'x' * 50}" for number in range(2_000))
    listed = api.send("POST", "/lists/text", {"text": text})
    assert len(listed["pages"]) == 2_000
    monkeypatch.setattr(listing, "_READING_S", 0.0)
    assert api.refused("POST", "/lists/text", {"text": text})["code"] == "list_too_large"
    assert api.send("POST", "/lists/text", {"text": "skerrin.example/a"})["pages"]
    form = {"list_file": SimpleUploadedFile("list.txt", text.encode())}
    answer = api.client.post("/api/lists/file", form)
    assert (answer.status_code, answer.json()["title"]) == (422, "list.txt takes too long to read.")
