"""Outputs as they go into a page: what the page says of them, their files, an archive of it all."""

import io
import zipfile
from collections.abc import Callable
from typing import Any

import pytest

from tallpage.core.geometry import Box
from tallpage.core.page_map import Block, PageMap
from tallpage.server.shelf.models import Capture
from tests.pictures import text_page
from tests.server.conftest import Api

Make = Callable[..., Capture]


def _block(role: str, top_px: int, text: str) -> Block:
    box = Box(x_px=20, y_px=top_px, width_px=280, height_px=40)
    return Block(role=role, level=1 if role == "heading" else None, box=box, text=text, link="", alt="")


@pytest.fixture
def cut_id(make_capture: Make) -> int:
    capture = make_capture(text_page(320, 400))
    blocks = (
        _block("heading", 20, "Mail for accounts@skerrin.example"),
        _block("heading", 120, "Winter timetable"),
        _block("paragraph", 200, "In force from November"),
    )
    PageMap(blocks=blocks).save(capture.folder)
    return int(capture.cuts.get().pk)


@pytest.fixture
def made(api: Api, run_queue: Callable[[], None], cut_id: int) -> list[dict[str, Any]]:
    """Files of 160 px as JPEG and WebP, of 320 px as JPEG, and a square that shows something else."""
    for rules in (
        {"width_px": 160, "limit_bytes": 40_000, "formats": ["jpeg"]},
        {"width_px": 160, "limit_bytes": 40_000, "formats": ["webp"]},
        {"width_px": 320, "limit_bytes": 90_000, "formats": ["jpeg"]},
        {"way": "fill", "width_px": 100, "height_px": 100, "limit_bytes": 40_000, "formats": ["jpeg"]},
    ):
        api.send("POST", f"/cuts/{cut_id}/outputs", {"rules": rules}, status=202)
        run_queue()
    rows: list[dict[str, Any]] = api.get(f"/cuts/{cut_id}/outputs")
    assert [row["job"]["state"] for row in rows] == ["done"] * 4
    return rows


def test_a_snippet_has_all_files_that_show_the_same(api: Api, made: list[dict[str, Any]]) -> None:
    found = api.send("POST", f"/outputs/{made[0]['id']}/snippet", {"caption": "A & B", "prefix": "/media/"})
    assert [row["name"] for row in found["files"]] == [row["file_name"] for row in made[:3]]
    assert f"/media/{made[0]['file_name']} 160w, /media/{made[2]['file_name']} 320w" in found["html"]
    assert f'type="image/webp" srcset="/media/{made[1]["file_name"]}"' in found["html"]
    assert "<figcaption>A &amp; B</figcaption>" in found["html"]
    alone = api.send("POST", f"/outputs/{made[0]['id']}/snippet", {"every_size": False})
    assert [row["name"] for row in alone["files"]] == [made[0]["file_name"]]
    assert "srcset" not in alone["html"]


def test_what_it_shows_is_said_by_the_page_but_nothing_that_is_hidden(
    api: Api, made: list[dict[str, Any]], cut_id: int
) -> None:
    path = f"/outputs/{made[0]['id']}/snippet"
    assert api.send("POST", path, {})["alt"].startswith("Mail for accounts@skerrin.example, on the page")
    cut = api.get(f"/cuts/{cut_id}")
    hidden = [
        {"id": "h", "how": "solid", "x_px": 100, "y_px": 30, "width_px": 50, "height_px": 10},
    ]
    document = {**cut["document"], "hidden": hidden}
    api.send("PATCH", f"/cuts/{cut_id}", {"version": cut["version"], "document": document})
    said = api.send("POST", path, {})
    assert said["alt"].startswith("Winter timetable, on the page")
    assert "accounts" not in said["html"] + said["markdown"]
    assert len(said["files"]) == 1, "the other rows show the cut as it was"
    outline = {"points": [[0, 60], [320, 60], [320, 110], [0, 110]]}
    now = api.get(f"/cuts/{cut_id}")
    document = {**now["document"], "outline": outline}
    api.send("PATCH", f"/cuts/{cut_id}", {"version": now["version"], "document": document})
    assert "timetable," not in api.send("POST", path, {})["alt"]
    assert api.send("POST", path, {"alt": "My own words"})["alt"] == "My own words"
    assert api.send("POST", path, {"alt": ""})["alt"] == ""


def test_it_is_saved_with_its_files(api: Api, made: list[dict[str, Any]]) -> None:
    answer = api.client.get(f"/api/outputs/{made[0]['id']}/snippet.zip?caption=Ferry&every_size=true")
    archive = zipfile.ZipFile(io.BytesIO(answer.content))
    assert archive.namelist() == [*(row["file_name"] for row in made[:3]), "snippet.html", "snippet.md"]
    assert archive.read(made[0]["file_name"]) == api.client.get(f"/api/outputs/{made[0]['id']}/file").content
    assert b"Ferry" in archive.read("snippet.html")
    assert b"](" in archive.read("snippet.md")


def test_without_a_file_there_is_no_snippet(api: Api, cut_id: int) -> None:
    rules = {"rules": {"width_px": 160, "limit_bytes": 40_000, "formats": ["jpeg"]}}
    waiting = api.send("POST", f"/cuts/{cut_id}/outputs", rules, status=202)
    assert waiting["file_name"] == ""
    assert api.refused("POST", f"/outputs/{waiting['id']}/snippet", {})["title"]
