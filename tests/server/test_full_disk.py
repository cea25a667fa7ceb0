"""A disk that is full, or a database that somebody else holds: said in words, and nothing is lost."""

import errno
import os
import shutil
import sqlite3
import threading
from collections import namedtuple
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager
from pathlib import Path

import pytest
from django.db import OperationalError, connection
from django.test import Client

from tallpage.core.errors import StorageBusy, StorageError
from tallpage.server import reserve
from tallpage.server.database import once_it_can_be_written, refusal_of
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import Signals, Work, enqueue, register_kind
from tallpage.server.jobs.running import run_job
from tallpage.server.shelf.models import Capture
from tests.server.conftest import Api

MakeCapture = Callable[..., Capture]
Usage = namedtuple("Usage", "total used free")


@contextmanager
def _full_database() -> Iterator[None]:
    """A database that may not grow."""
    with connection.cursor() as cursor:
        cursor.execute("vacuum")  # pages that earlier tests left free would take something in
        pages = cursor.execute("pragma page_count").fetchone()[0]
        cursor.execute(f"pragma max_page_count = {pages}")
        try:
            yield
        finally:
            cursor.execute("pragma max_page_count = 1073741823")


def _no_room(*_: object, **__: object) -> None:
    raise OSError(errno.ENOSPC, "No space left on device")


def test_what_does_not_fit_into_the_database_is_answered_507_and_nothing_of_it_is_kept(api: Api) -> None:
    with _full_database():
        much = {"leave_out": ["#" + "x" * 1_900] * 100}
        problem = api.refused("POST", "/captures", {"address": "skerrin.example", "settings": much})
    assert (problem["status"], problem["code"]) == (507, "storage_full")
    assert api.get("/captures")["total"] == 0
    api.send("POST", "/captures", {"address": "http://skerrin.example/"}, status=202)


@pytest.mark.parametrize("function", ["fsync", "open"])
def test_an_upload_that_does_not_fit_is_answered_507(
    api: Api, png_file: bytes, monkeypatch: pytest.MonkeyPatch, function: str
) -> None:
    if function == "fsync":
        monkeypatch.setattr("tallpage.server.shelf.arriving.importing.check_picture", _no_room)
    else:  # Django keeps large ones in a file while it reads them
        monkeypatch.setattr("django.core.files.uploadhandler.TemporaryUploadedFile", _no_room)
        png_file += b"\0" * 2_000_000
    answer = api.upload(png_file)
    assert (answer.status_code, answer.json()["code"]) == (507, "storage_full")
    assert str(os.environ["TALLPAGE_HOME"]) not in answer.content.decode()
    assert Capture.objects.count() == 0


def test_a_folder_that_may_not_be_written_is_told_without_its_path(
    api: Api, png_file: bytes, monkeypatch: pytest.MonkeyPatch
) -> None:
    def denied(*_: object) -> None:
        raise PermissionError(errno.EACCES, "Permission denied", os.environ["TALLPAGE_HOME"])

    monkeypatch.setattr("tallpage.server.shelf.arriving.importing.check_picture", denied)
    answer = api.upload(png_file)
    assert (answer.status_code, answer.json()["code"]) == (507, "storage_denied")
    assert os.environ["TALLPAGE_HOME"] not in answer.content.decode()


def test_on_a_full_disk_pictures_are_shown_all_the_same(
    api: Api, make_capture: MakeCapture, monkeypatch: pytest.MonkeyPatch
) -> None:
    capture = make_capture()
    monkeypatch.setattr(os, "fsync", _no_room)
    for path in ("thumbnail", "spine", "strips/0?shrink=2"):
        assert api.get(f"/captures/{capture.pk}/{path}").status_code == 200


def test_room_that_is_set_aside_is_given_up_for_deleting_and_set_aside_again(
    api: Api, make_capture: MakeCapture, monkeypatch: pytest.MonkeyPatch
) -> None:
    capture = make_capture()
    kept = Path(os.environ["TALLPAGE_HOME"]) / "reserve"
    free = [10**12]
    monkeypatch.setattr(shutil, "disk_usage", lambda _: Usage(10**12, 0, free[0]))
    reserve.keep_reserve()
    assert kept.stat().st_size >= 8_000_000
    api.send("DELETE", f"/captures/{capture.pk}", status=204)
    assert kept.exists(), "there was room"
    api.send("POST", f"/captures/{capture.pk}/restore")
    free[0] = 0
    reserve.keep_reserve()
    api.send("DELETE", f"/captures/{capture.pk}", status=204)
    assert not kept.exists()
    free[0] = 10**12
    reserve.keep_reserve()
    assert kept.exists()
    kept.unlink()


def test_where_no_room_is_set_aside_pictures_that_are_made_anew_give_way(
    api: Api, make_capture: MakeCapture, monkeypatch: pytest.MonkeyPatch
) -> None:
    capture, other = make_capture(), make_capture()
    thumbnail = f"/captures/{other.pk}/thumbnail"
    before = api.get(thumbnail).content
    made = Path(os.environ["TALLPAGE_HOME"]) / "views" / other.storage_key / "thumbnail-usual.webp"
    assert made.exists()
    monkeypatch.setattr(shutil, "disk_usage", lambda _: Usage(10**12, 0, 0))
    api.send("DELETE", f"/captures/{capture.pk}", status=204)
    assert not made.exists()
    assert api.get(thumbnail).content == before


def test_refusals_of_the_database_are_told_apart() -> None:
    told = {
        "database is locked": ("storage_busy", StorageBusy),
        "database or disk is full": ("storage_full", StorageError),
        "attempt to write a readonly database": ("storage_denied", StorageError),
    }
    for said, (code, kind) in told.items():
        refusal = refusal_of(OperationalError(said))
        assert refusal is not None
        assert (refusal.code, type(refusal)) == (code, kind)
    assert refusal_of(OperationalError("no such table: x")) is None


def test_what_cannot_be_written_now_is_written_later() -> None:
    answers = iter([OperationalError("database is locked"), OperationalError("disk is full"), None])

    def write() -> str:
        error = next(answers)
        if error:
            raise error
        return "written"

    assert once_it_can_be_written(write, pause_s=0) == "written"
    with pytest.raises(StorageBusy):
        once_it_can_be_written(_locked, timeout_s=0, pause_s=0)
    with pytest.raises(OperationalError, match="no such table"):
        once_it_can_be_written(lambda: _raise(OperationalError("no such table: x")))


def _locked() -> None:
    raise OperationalError("database is locked")


def _raise(error: Exception) -> None:
    raise error


def test_work_that_ends_while_somebody_else_writes_is_kept(
    transactional_db: None, monkeypatch: pytest.MonkeyPatch
) -> None:
    kept: list[object] = []
    name = connection.settings_dict["NAME"]
    holding = threading.Event()
    with closing(sqlite3.connect(name, isolation_level=None, check_same_thread=False, timeout=20)) as other:

        def run(_: Signals) -> str:
            other.execute("begin immediate")
            holding.set()
            threading.Timer(3, lambda: other.execute("rollback")).start()
            return "result"

        register_kind("sample", "files", lambda _: Work(run=run, commit=kept.append))
        job = enqueue("sample")
        with connection.cursor() as cursor:
            cursor.execute("pragma busy_timeout = 100")  # it gives up at once, as after the usual 20 s
        run_job(job.pk)
    job.refresh_from_db()
    assert (holding.is_set(), job.state, kept) == (True, Job.State.DONE, ["result"])


def test_work_for_which_there_is_no_room_says_so(transactional_db: None) -> None:
    register_kind("sample", "files", lambda _: Work(run=_no_room, commit=lambda _: None))
    job = enqueue("sample")
    run_job(job.pk)
    job.refresh_from_db()
    assert job.state == Job.State.FAILED
    assert job.error == {
        "code": "storage_full",
        "sentence": "The disk is full.",
        "hint": StorageError.default_hint,
    }


def test_a_name_that_is_too_long_for_the_disk_is_refused_in_words(db: None) -> None:
    answer = Api().upload(b"\x89PNG" + b"\0" * 2_000_000, "a." + "x" * 5_000)
    assert 400 <= answer.status_code < 500
    assert answer["Content-Type"] == "application/problem+json"
    assert Client().get("/api/captures").status_code == 200
