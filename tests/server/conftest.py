"""The API over a database of its own, with a worker that runs when it is told to."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Callable, Iterator
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest
from django.contrib.contenttypes.management import create_contenttypes
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from django.db.models.signals import post_migrate
from django.test import Client
from django.utils import timezone
from pytest_django import DjangoDbBlocker

from tallpage.core.capture import PRESETS
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import enqueue, register_kind
from tallpage.server.jobs.running import run_job
from tallpage.server.shelf.arriving import taking
from tallpage.server.shelf.arriving.taking import KIND as TAKE_KIND
from tallpage.server.shelf.arriving.taking import first_cut
from tallpage.server.shelf.models import Capture
from tallpage.server.storage import incoming_folder, publish_capture
from tallpage.server.sweeps.dispatch import feed_all
from tests.pictures import Pixels, as_png, photograph, strips_of
from tests.server.migrated import migrated_database

_IN_MEMORY = "file:tests?mode=memory&cache=shared"


class Api:
    """Requests as the interface sends them, answers as it reads them."""

    def __init__(self) -> None:
        self.client = Client()

    def get(self, path: str) -> Any:
        return self._read(self.client.get(f"/api{path}"))

    def send(self, method: str, path: str, body: object = None, *, status: int = 200) -> Any:
        response = self._sent(method, path, body)
        assert response.status_code == status, response.content
        return self._read(response)

    def refused(self, method: str, path: str, body: object = None) -> dict[str, Any]:
        response = self._sent(method, path, body)
        assert response.status_code >= 400, response.content
        assert response["Content-Type"] == "application/problem+json"
        problem = response.json()
        assert problem["status"] == response.status_code
        assert problem["title"]
        return problem

    def upload(self, data: bytes, name: str = "ferry.png") -> Any:
        return self.client.post("/api/pictures", {"picture": SimpleUploadedFile(name, data)})

    def _sent(self, method: str, path: str, body: object) -> Any:
        data = json.dumps(body)
        return self.client.generic(method, f"/api{path}", data, content_type="application/json")

    @staticmethod
    def _read(response: Any) -> Any:
        if response.content and response.get("Content-Type", "").startswith("application/json"):
            return response.json()
        return response


@pytest.fixture(scope="session")
def django_db_setup(django_test_environment: None, django_db_blocker: DjangoDbBlocker) -> Iterator[None]:
    """A database in memory, a copy of one that was migrated before.

    It is emptied after a test without Django's own permissions being written anew: the application does not
    use them, and writing them takes longer than most of the tests.
    """
    post_migrate.disconnect(dispatch_uid="django.contrib.auth.management.create_permissions")
    post_migrate.disconnect(create_contenttypes)
    with closing(sqlite3.connect(_IN_MEMORY, uri=True)) as kept:  # it lasts as long as somebody has it open
        with closing(sqlite3.connect(migrated_database())) as migrated:
            migrated.backup(kept)
        with django_db_blocker.unblock():
            connection.close()
            connection.settings_dict["NAME"] = _IN_MEMORY
            yield
            connection.close()


@pytest.fixture
def api(transactional_db: None) -> Api:
    with connection.cursor() as cursor:
        cursor.execute("delete from shelf_text")  # no model's table: the test runner does not empty it
    return Api()


@pytest.fixture
def run_queue(transactional_db: None) -> Callable[[], None]:
    """Runs everything that is queued, as a worker would."""

    def run() -> None:
        for job in Job.objects.filter(state=Job.State.QUEUED):
            run_job(job.pk)

    return run


@pytest.fixture
def make_capture(transactional_db: None) -> Callable[..., Capture]:
    """A page on the shelf, taken already."""

    def make(pixels: Pixels | None = None, *, title: str = "Timetable", **told: object) -> Capture:
        folder = incoming_folder()
        manifest = strips_of(photograph(320, 480) if pixels is None else pixels, folder)
        job = enqueue(TAKE_KIND)
        Job.objects.filter(pk=job.pk).update(state=Job.State.DONE)
        screen = PRESETS["desk"]
        capture = Capture.objects.create(
            source=Capture.Source.PAGE,
            name=f"{title} – skerrin.example – 2026-11-24",
            title=title,
            address="http://skerrin.example/timetable",
            host="skerrin.example",
            screen_width_px=screen.width_px,
            screen_height_px=screen.height_px,
            storage_key=publish_capture(folder),
            width_px=manifest.width_px,
            height_px=manifest.height_px,
            bytes=manifest.bytes,
            job=job,
            taken_at=timezone.now(),
        )
        if told:
            Capture.objects.filter(pk=capture.pk).update(**told)
            capture.refresh_from_db()
        first_cut(capture)
        return capture

    return make


@pytest.fixture
def png_file(tmp_path: Path) -> bytes:
    return as_png(photograph(200, 120))


@pytest.fixture
def painted_pages() -> Iterator[None]:
    """Pages are painted instead of taken."""
    from tests.server.sweeping import prepare_painting

    register_kind(TAKE_KIND, "pages", prepare_painting)
    yield
    register_kind(TAKE_KIND, "pages", taking.prepare)


@pytest.fixture
def go(api: Api, painted_pages: None, run_queue: Callable[[], None]) -> Callable[[int], None]:
    """Lets supervisor and workers go round so many times."""

    def rounds(count: int) -> None:
        for _ in range(count):
            feed_all()
            run_queue()

    return rounds
