"""What the settings want done with a page once it is taken."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest

from tallpage.server.jobs.models import Job
from tallpage.server.routines.after_taking import follow_up
from tallpage.server.routines.models import AfterTaking, Run
from tallpage.server.shelf.arriving.taking import first_cut
from tallpage.server.shelf.models import Capture
from tallpage.server.storage import incoming_folder, publish_capture
from tests.pictures import photograph, strips_of
from tests.server.conftest import Api
from tests.server.routines.conftest import SLOT

_PAGE = {"address": "http://skerrin.example/fares"}


@pytest.fixture
def arrive(transactional_db: None) -> Callable[[], None]:
    """Has every page that is waited for arrive."""

    def arrived() -> None:
        for capture in Capture.objects.filter(storage_key=""):
            folder = incoming_folder()
            manifest = strips_of(photograph(160, 240), folder)
            capture.storage_key, capture.width_px, capture.height_px = publish_capture(folder), 160, 240
            capture.bytes, capture.title = manifest.bytes, "Fares"
            capture.save()
            first_cut(capture)
            Job.objects.filter(pk=capture.job_id).update(state=Job.State.DONE)

    return arrived


def _set(api: Api, **values: object) -> None:
    api.send(
        "POST", "/settings", {"values": {name.replace("__", "."): value for name, value in values.items()}}
    )


def test_a_routine_runs_over_a_page_once_it_is_taken(
    api: Api, keep: Callable[..., dict[str, Any]], arrive: Callable[[], None]
) -> None:
    keep(SLOT, name="Narrow")
    _set(api, after__what="routine", after__routine="Narrow")
    made = api.send("POST", "/captures", _PAGE, status=202)
    follow_up()
    assert not Run.objects.exists()
    arrive()
    follow_up()
    follow_up()
    assert Run.objects.get().items.get().capture_id == made["id"]
    assert not AfterTaking.objects.exists()


def test_a_routine_that_is_no_more_is_told_beside_the_page(api: Api, arrive: Callable[[], None]) -> None:
    _set(api, after__what="routine", after__routine="Gone")
    made = api.send("POST", "/captures", _PAGE, status=202)
    arrive()
    follow_up()
    assert "“Gone”" in " ".join(Capture.objects.get(pk=made["id"]).warnings)


def test_pages_are_saved_in_one_folder_none_over_another(
    api: Api, arrive: Callable[[], None], run_queue: Callable[[], None], out: Path
) -> None:
    _set(api, after__what="folder", after__folder="harbour", files__pattern="{host}")
    for _ in range(2):
        api.send("POST", "/captures", _PAGE, status=202)
        arrive()
        follow_up()
        run_queue()
    found = sorted((out / "harbour").iterdir())
    assert [path.name for path in found] == ["skerrin.example 2.png", "skerrin.example.png"]
    assert all(path.read_bytes().startswith(b"\x89PNG") for path in found)


def test_nothing_is_done_with_a_page_that_was_not_taken_or_was_deleted(
    api: Api, arrive: Callable[[], None], out: Path
) -> None:
    _set(api, after__what="folder")
    first, second = (api.send("POST", "/captures", _PAGE, status=202)["id"] for _ in range(2))
    Job.objects.filter(capture=first).update(state=Job.State.FAILED)
    Capture.objects.filter(pk=second).delete_from_shelf()
    follow_up()
    arrive()
    follow_up()
    assert not AfterTaking.objects.exists()
    assert not out.exists()


def test_nothing_is_noted_while_pages_stay_as_they_are(api: Api) -> None:
    api.send("POST", "/captures", _PAGE, status=202)
    _set(api, after__what="routine")  # which one is not said
    api.send("POST", "/captures", _PAGE, status=202)
    assert not AfterTaking.objects.exists()
