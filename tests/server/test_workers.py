"""Worker processes as they run for real: killed in the middle, started again."""

import os
import signal
import sqlite3
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager, suppress
from pathlib import Path

import psutil
import pytest

PATIENCE_S = 60


@pytest.fixture
def home(tmp_path: Path) -> Path:
    """A data folder with an empty database, apart from the one of this test process."""
    _django(tmp_path, "from django.core.management import call_command; call_command('migrate', verbosity=0)")
    return tmp_path


def _environment(home: Path) -> dict[str, str]:
    settings = {"DJANGO_SETTINGS_MODULE": "tallpage.server.settings", "TALLPAGE_HOME": str(home)}
    return {**os.environ, **settings, "TALLPAGE_PAGE_WORKERS": "1", "Q_CLUSTER_NAME": "pages"}


def _django(home: Path, code: str) -> None:
    subprocess.run(
        [sys.executable, "-c", f"import django; django.setup()\n{code}"], env=_environment(home), check=True
    )


def _order(home: Path, address: str) -> None:
    _django(
        home,
        "from tallpage.core.capture import PRESETS\nfrom tallpage.server.shelf.taking import order_page\n"
        f"order_page({address!r}, PRESETS['desk'])",
    )


@contextmanager
def _worker(home: Path) -> Iterator[subprocess.Popen[bytes]]:
    command = [sys.executable, "-m", "django", "worker"]
    with (home / "worker.log").open("ab") as log:
        process = subprocess.Popen(command, env=_environment(home), stdout=log, stderr=log)
    try:
        yield process
    finally:
        process.terminate()
        process.wait(timeout=30)


def _rows(home: Path, query: str) -> list[tuple]:
    with closing(sqlite3.connect(home / "tallpage.sqlite3", timeout=20)) as database:
        return database.execute(query).fetchall()


def _until(seen: Callable[[], bool]) -> None:
    last = time.monotonic() + PATIENCE_S
    while not seen():
        assert time.monotonic() < last, "it did not come to that in time"
        time.sleep(0.05)


def _chromium_under(process_ids: set[int]) -> set[int]:
    found = set()
    for process_id in process_ids:
        try:
            if (
                "chrom" in psutil.Process(process_id).name()
                and psutil.Process(process_id).status() != "zombie"
            ):
                found.add(process_id)
        except psutil.NoSuchProcess:
            continue
    return found


def test_a_capture_whose_worker_is_killed_is_completed_once_by_the_next(home: Path, site: str) -> None:
    _order(home, f"{site}/slow")
    with _worker(home) as process:
        _until(lambda: _rows(home, "select state, stage from jobs_job") == [("running", "opening")])
        family = {child.pid for child in psutil.Process(process.pid).children(recursive=True)}
        assert _chromium_under(family)
        os.kill(process.pid, signal.SIGKILL)
        process.wait(timeout=10)
        # Nobody is left behind: neither the queue's own processes nor the browser.
        _until(lambda: not _chromium_under(family))
    assert _rows(home, "select state from jobs_job") == [("running",)]
    with _worker(home):
        _until(lambda: _rows(home, "select state from jobs_job") == [("done",)])
    assert _rows(home, "select state, attempts from jobs_job") == [("done", 2)]
    assert len(_rows(home, "select id from shelf_capture where storage_key != ''")) == 1
    assert len(_rows(home, "select id from shelf_cut")) == 1
    assert len(list((home / "captures").iterdir())) == 1


def test_a_capture_whose_browser_is_killed_is_taken_again_with_another(home: Path, site: str) -> None:
    _order(home, f"{site}/slow")
    with _worker(home) as process:
        _until(lambda: _rows(home, "select state, stage from jobs_job") == [("running", "opening")])
        killed = {child.pid for child in psutil.Process(process.pid).children(recursive=True)}
        killed = _chromium_under(killed)
        for process_id in killed:
            with suppress(psutil.NoSuchProcess):
                psutil.Process(process_id).kill()
        _until(lambda: _rows(home, "select state from jobs_job") != [("running",)])
    assert _rows(home, "select state, attempts from jobs_job") == [("done", 1)]
    assert not _chromium_under(killed)
