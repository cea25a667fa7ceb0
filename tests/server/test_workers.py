"""Worker processes as they run for real: killed in the middle, started again."""

import os
import signal
import subprocess
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path

import psutil
import pytest

from tests.server.processes import environment, make_home, rows, run_django, start_worker, until


@pytest.fixture
def home(tmp_path: Path) -> Path:
    """A data folder with an empty database, apart from the one of this test process."""
    make_home(tmp_path)
    return tmp_path


def _told(home: Path) -> dict[str, str]:
    return environment(home, TALLPAGE_PAGE_WORKERS="1", Q_CLUSTER_NAME="pages")


def _order(home: Path, address: str) -> None:
    run_django(
        "from tallpage.core.capture import PRESETS\n"
        "from tallpage.server.shelf.arriving.taking import order_page\n"
        f"order_page({address!r}, PRESETS['desk'])",
        _told(home),
    )


@contextmanager
def _worker(home: Path) -> Iterator[subprocess.Popen[bytes]]:
    process = start_worker(home, _told(home))
    try:
        yield process
    finally:
        process.terminate()
        process.wait(timeout=30)


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


@pytest.mark.long
def test_a_capture_whose_worker_is_killed_is_completed_once_by_the_next(home: Path, site: str) -> None:
    _order(home, f"{site}/slow")
    with _worker(home) as process:
        until(lambda: rows(home, "select state, stage from jobs_job") == [("running", "opening")])
        family = {child.pid for child in psutil.Process(process.pid).children(recursive=True)}
        assert _chromium_under(family)
        os.kill(process.pid, signal.SIGKILL)
        process.wait(timeout=10)
        # Nobody is left behind: neither the queue's own processes nor the browser.
        until(lambda: not _chromium_under(family))
    assert rows(home, "select state from jobs_job") == [("running",)]
    with _worker(home):
        until(lambda: rows(home, "select state from jobs_job") == [("done",)])
    assert rows(home, "select state, attempts from jobs_job") == [("done", 2)]
    assert len(rows(home, "select id from shelf_capture where storage_key != ''")) == 1
    assert len(rows(home, "select id from shelf_cut")) == 1
    assert len(list((home / "captures").iterdir())) == 1


@pytest.mark.long
def test_a_capture_whose_browser_is_killed_is_taken_again_with_another(home: Path, site: str) -> None:
    _order(home, f"{site}/slow")
    with _worker(home) as process:
        until(lambda: rows(home, "select state, stage from jobs_job") == [("running", "opening")])
        killed = {child.pid for child in psutil.Process(process.pid).children(recursive=True)}
        killed = _chromium_under(killed)
        for process_id in killed:
            with suppress(psutil.NoSuchProcess):
                psutil.Process(process_id).kill()
        until(lambda: rows(home, "select state from jobs_job") != [("running",)])
    assert rows(home, "select state, attempts from jobs_job") == [("done", 1)]
    assert not _chromium_under(killed)
