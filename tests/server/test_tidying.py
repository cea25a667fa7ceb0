"""What nothing in the data folder refers to is found, told and cleared; what is wanted stays."""

import os
import time
from collections.abc import Callable
from datetime import timedelta
from pathlib import Path

import pytest
from django.utils import timezone
from typer.testing import CliRunner

from tallpage.cli import app
from tallpage.server.home import scratch_folder
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import enqueue
from tallpage.server.joins.models import Join
from tallpage.server.outlets.models import Output
from tallpage.server.shelf.models import Capture
from tallpage.server.storage import incoming_folder
from tallpage.server.upkeep.leftovers import JOINS_KEPT_FOR, UNTOUCHED_FOR, find_leftovers
from tallpage.server.upkeep.tidying import tidy
from tests.pictures import photograph, strips_of, text_page
from tests.server.conftest import Api
from tests.server.test_outlets import SLOT

MakeCapture = Callable[..., Capture]


@pytest.fixture
def home(transactional_db: None, tmp_path: Path, settings: object, monkeypatch: pytest.MonkeyPatch) -> Path:
    """A data folder of this test's own, and a scratch folder beside it."""
    folder = tmp_path / "home"
    folder.mkdir()
    settings.HOME = folder  # type: ignore[attr-defined]
    monkeypatch.setenv("TALLPAGE_SCRATCH", str(tmp_path / "scratch"))
    return folder


def _long_ago(*folders: Path) -> None:
    """Make everything look as old as what is left over, and all jobs too."""
    then_s = time.time() - 30 * 3_600
    for folder in folders:
        for path in (folder, *folder.rglob("*")):
            os.utime(path, (then_s, then_s), follow_symlinks=False)
    Job.objects.update(created_at=timezone.now() - 2 * UNTOUCHED_FOR)


def _made(home: Path, name: str, data: bytes = b"x") -> Path:
    path = home / name
    path.parent.mkdir(parents=True, exist_ok=True)
    path.write_bytes(data)
    return path


def test_what_nothing_refers_to_is_told_first_and_cleared_then(
    home: Path, api: Api, make_capture: MakeCapture, run_queue: Callable[[], None]
) -> None:
    capture = make_capture()
    cut_id = api.get(f"/captures/{capture.pk}")["cuts"][0]["id"]
    api.send("POST", f"/cuts/{cut_id}/outputs", {"rules": SLOT}, status=202)
    run_queue()
    api.get(f"/captures/{capture.pk}/thumbnail")
    wanted = {path for path in home.rglob("*") if path.is_file()}
    key = "0" * 32
    left = {
        _made(home, f"captures/{key}/0000.png"),
        _made(home, f"outputs/{key}.webp", b"x" * 1_500),
        _made(home, f"views/{key}/spine.webp"),
        _made(home, f"incoming/{key}/0000.png"),
        _made(home, f"incoming/{key}.upload"),
        _made(home, "outputs/.part-abc"),
    }
    orphan = enqueue("take_page")
    Job.objects.filter(pk=orphan.pk).update(state=Job.State.DONE)
    assert find_leftovers() == [], "somebody may be at work on what is new"
    _long_ago(home)
    told = tidy(dry_run=True)
    assert {path for row in told.leftovers for path in _files(row.path)} == left
    assert told.jobs == 1
    assert any("file: 2, 1.5 kB" in line for line in told.lines())
    assert all(path.exists() for path in left)
    tidy()
    assert {path for path in home.rglob("*") if path.is_file()} == wanted
    assert Output.objects.get().paths[0].exists()
    assert not Job.objects.filter(pk=orphan.pk).exists()
    assert tidy().lines() == []


def _files(path: Path) -> list[Path]:
    return [file for file in path.rglob("*") if file.is_file()] if path.is_dir() else [path]


def test_joins_go_some_days_later_if_nothing_was_kept_of_them(
    home: Path, api: Api, make_capture: MakeCapture, run_queue: Callable[[], None]
) -> None:
    page = text_page(320, 600)
    ids = [make_capture(page[top : top + 300]).pk for top in (0, 150)]
    kept, idle = (api.send("POST", "/joins", {"captures": ids}, status=202)["id"] for _ in range(2))
    run_queue()
    api.send("POST", f"/joins/{kept}/keep", status=202)
    run_queue()
    _long_ago(home)
    tidy()
    assert api.get(f"/joins/{idle}")["state"] == "whole", "its work is not nobody's"
    Join.objects.update(created_at=timezone.now() - 2 * JOINS_KEPT_FOR)
    tidy()
    assert list(Join.objects.values_list("pk", flat=True)) == [kept]
    tidy()
    assert not Job.objects.filter(kind="find_join").exclude(join=kept).exists()


def test_work_under_way_is_left_alone_however_old(home: Path, api: Api) -> None:
    capture_id = api.send("POST", "/captures", {"address": "http://skerrin.example/"}, status=202)["id"]
    folder, moved = incoming_folder(), incoming_folder()
    strips_of(photograph(20, 20), folder)
    Capture.objects.filter(pk=capture_id).update(incoming_key=folder.name)
    _long_ago(home)
    assert [row.path for row in find_leftovers()] == [moved]
    Job.objects.update(state=Job.State.FAILED)
    assert {row.path for row in find_leftovers()} == {moved, folder}


def test_a_picture_that_cannot_be_taken_in_leaves_nothing_behind(
    home: Path, api: Api, png_file: bytes, run_queue: Callable[[], None]
) -> None:
    assert api.upload(png_file[:-2_000]).status_code == 202
    run_queue()
    assert Capture.objects.get().job.state == Job.State.FAILED
    assert list((home / "incoming").iterdir()) == []


def test_profiles_of_browsers_that_were_killed_go(home: Path) -> None:
    scratch = scratch_folder()
    assert scratch is not None
    _made(scratch, "playwright_chromiumdev_profile-killed/Local State")
    _made(scratch, "other.tmp")
    assert find_leftovers() == []
    then_s = (timezone.now() - UNTOUCHED_FOR - timedelta(minutes=1)).timestamp()
    for path in scratch.iterdir():
        os.utime(path, (then_s, then_s))
    assert [(row.kind, row.path.name) for row in find_leftovers()] == [
        ("browser profile", "playwright_chromiumdev_profile-killed")
    ]


def test_the_command_only_tells_when_it_is_asked_to(home: Path) -> None:
    left = _made(home, "outputs/unknown.png")
    _long_ago(home)
    told = CliRunner().invoke(app, ["tidy", "--dry-run"])
    assert (told.exit_code, told.stdout.splitlines()) == (0, [str(left), "Would clear: file: 1, 1 B"])
    assert left.exists()
    assert CliRunner().invoke(app, ["tidy"]).stdout == "Cleared: file: 1, 1 B\n"
    assert not left.exists()
    assert CliRunner().invoke(app, ["tidy"]).stdout == "Nothing is left over.\n"
