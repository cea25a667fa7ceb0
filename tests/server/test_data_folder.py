"""What the data folder holds, and how room is made without a loss."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Any

from tallpage.server.handover.models import HandOver
from tallpage.server.shelf.models import Capture
from tallpage.server.storage import made_folder
from tests.pictures import gradient, text_page
from tests.server.conftest import Api

Make = Callable[..., Capture]


def _bytes_in(folder: Path) -> int:
    return sum(path.stat().st_size for path in folder.rglob("*") if path.is_file())


def test_it_is_told_by_kind_site_and_folder(api: Api, make_capture: Make, settings: Any) -> None:
    light = make_capture(gradient(40, 40), host="light.example")
    heavy = make_capture(text_page(320, 400), host="heavy.example")
    gone = make_capture(gradient(60, 60))
    api.send("DELETE", f"/captures/{gone.pk}", status=204)
    outer = api.send("POST", "/folders", {"name": "Help", "parent": None}, status=201)["id"]
    inner = api.send("POST", "/folders", {"name": "Fares", "parent": outer}, status=201)["id"]
    api.send("POST", "/captures/batch", {"ids": [heavy.pk], "action": "move", "folder": inner})
    api.client.get(f"/api/captures/{heavy.pk}/thumbnail")
    told = api.get("/data-folder")
    kinds = told["kinds"]
    assert kinds["captures"] == {"name": "captures", "count": 2, "bytes": light.bytes + heavy.bytes}
    assert (kinds["deleted"]["count"], kinds["deleted"]["bytes"]) == (1, gone.bytes)
    assert kinds["views"]["bytes"] == _bytes_in(Path(settings.HOME) / "views") > 0
    assert [(row["name"], row["bytes"]) for row in told["sites"]] == [
        ("heavy.example", heavy.bytes),
        ("light.example", light.bytes),
    ]
    assert [(row["name"], row["count"]) for row in told["folders"]] == [("Help / Fares", 1), ("", 1)]
    assert told["free_bytes"] > 0


def test_thumbnails_are_cleared_and_made_again(api: Api, make_capture: Make, settings: Any) -> None:
    capture = make_capture(text_page(320, 400))
    first = api.client.get(f"/api/captures/{capture.pk}/thumbnail").content
    api.send("DELETE", "/data-folder/views", status=204)
    assert api.get("/data-folder")["kinds"]["views"]["bytes"] == 0
    assert api.client.get(f"/api/captures/{capture.pk}/thumbnail").content == first
    assert capture.folder.exists()


def test_documents_are_cleared_and_their_lines_stay(
    api: Api, make_capture: Make, run_queue: Callable[[], None]
) -> None:
    capture = make_capture(text_page(320, 400))
    order = {"way": "pdf", "what": {"captures": [capture.pk]}}
    line = api.send("POST", "/hand-overs", {"order": order}, status=202)
    run_queue()
    key = HandOver.objects.get(pk=line["id"]).made_key
    assert made_folder(key).exists()
    api.send("DELETE", "/data-folder/documents", status=204)
    assert not made_folder(key).exists()
    (told,) = api.get(f"/captures/{capture.pk}/log")
    assert (told["file_url"], told["way_words"]) == ("", "PDF")


def test_only_what_can_be_made_again_is_cleared_so(api: Api) -> None:
    for kind in ("captures", "files", "shared", ".."):
        assert api.refused("DELETE", f"/data-folder/{kind}")["status"] in (404, 422)
