import json
from collections.abc import Callable
from pathlib import Path
from typing import Any
from urllib.parse import urlsplit

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection

from tallpage.server.signins.models import SavedSignIn
from tests.server.conftest import Api

SECRET = "kettle"


def _crew(site: str) -> dict[str, str]:
    return {"host": site, "address": f"{site}/sign-in", "name": "purser", "password": SECRET}


def _take(api: Api, run_queue: Callable[[], None], address: str, **settings: object) -> Any:
    screen = {"width_px": 800, "height_px": 600}
    order = {"address": address, "screen": screen, "settings": settings}
    capture_id = api.send("POST", "/captures", order, status=202)["id"]
    run_queue()
    return api.get(f"/captures/{capture_id}")


def test_pages_of_a_host_are_taken_with_its_sign_in(
    api: Api, run_queue: Callable[[], None], site: str
) -> None:
    stranger = _take(api, run_queue, f"{site}/crew")
    assert stranger["warnings"][0].startswith("A sign-in page was met instead")
    saved = api.send("PUT", "/sign-ins/form", _crew(site))
    assert (saved["host"], saved["kind"], saved["label"]) == (urlsplit(site).netloc, "form", "purser")
    crew = _take(api, run_queue, f"{site}/crew")
    assert (crew["signed_in"], crew["warnings"], crew["final_address"]) == (True, [], f"{site}/crew")
    without = _take(api, run_queue, f"{site}/crew", signed_in=False)
    assert not without["signed_in"]
    assert without["warnings"]


def test_what_is_secret_is_sealed_and_shown_nowhere(api: Api, site: str, settings: Any) -> None:
    api.send("PUT", "/sign-ins/form", _crew(site))
    assert SECRET not in json.dumps(api.get("/sign-ins"))
    assert SECRET.encode() not in bytes(SavedSignIn.objects.get().sealed)
    key = Path(settings.HOME) / "sign-ins.key"
    assert key.stat().st_mode & 0o077 == 0
    connection.ensure_connection()
    everything_stored = "\n".join(connection.connection.iterdump())
    assert "purser" in everything_stored
    assert SECRET not in everything_stored


def test_a_sign_in_without_its_key_says_what_to_do(
    api: Api, run_queue: Callable[[], None], site: str, settings: Any
) -> None:
    api.send("PUT", "/sign-ins/form", _crew(site))
    key = Path(settings.HOME) / "sign-ins.key"
    kept = key.read_bytes()
    key.unlink()
    try:
        capture = _take(api, run_queue, f"{site}/crew")
    finally:
        key.write_bytes(kept)
    assert capture["job"]["error"]["code"] == "sign_in_sealed"
    assert "sign-ins.key" in capture["job"]["error"]["hint"]


def test_one_sign_in_a_host_and_it_can_be_forgotten(api: Api, site: str) -> None:
    api.send("PUT", "/sign-ins/form", _crew(site))
    basic = api.send("PUT", "/sign-ins/basic", {"host": f"{site}/x", "name": "mate", "password": "word"})
    assert [(row["kind"], row["label"]) for row in api.get("/sign-ins")] == [("basic", "mate")]
    api.send("DELETE", f"/sign-ins/{basic['id']}", status=204)
    assert api.get("/sign-ins") == []
    assert api.refused("DELETE", f"/sign-ins/{basic['id']}")["status"] == 404


def test_cookies_come_from_a_file(api: Api) -> None:
    def send(data: bytes) -> Any:
        file = SimpleUploadedFile("cookies.json", data)
        return api.client.post("/api/sign-ins/state", {"host": "crew.example", "file": file})

    cookie = {"name": "crew", "value": "aboard", "domain": "crew.example"}
    saved = send(json.dumps([cookie]).encode()).json()
    assert (saved["kind"], saved["label"]) == ("state", "1 cookie")
    refused = send(b"no cookies here")
    assert (refused.status_code, refused.json()["code"]) == (422, "sign_in_unreadable")


@pytest.mark.parametrize(
    "change",
    [{"host": ""}, {"host": "ftp://a.example"}, {"name": ""}, {"address": ""}, {"address": "no address"}],
)
def test_sign_ins_that_make_no_sense_are_refused(api: Api, site: str, change: dict[str, str]) -> None:
    assert api.refused("PUT", "/sign-ins/form", {**_crew(site), **change})["status"] == 422
    assert api.get("/sign-ins") == []


def test_a_file_that_is_nested_without_end_is_refused_in_words(api: Api) -> None:
    form = {"host": "skerrin.example", "file": SimpleUploadedFile("c.json", b"[" * 200_000 + b"]" * 200_000)}
    answer = api.client.post("/api/sign-ins/state", form)
    assert (answer.status_code, answer.json()["code"]) == (422, "sign_in_unreadable")
