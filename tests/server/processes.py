"""Processes of the server over a data folder of their own, apart from the one of the test process."""

from __future__ import annotations

import os
import shutil
import sqlite3
import subprocess
import sys
import time
from collections.abc import Callable
from contextlib import closing
from pathlib import Path
from typing import Any

import psutil

from tests.server.migrated import migrated_database


def environment(home: Path, **more: str) -> dict[str, str]:
    """What a process of the server is told, besides ``more``."""
    return {
        **os.environ,
        "DJANGO_SETTINGS_MODULE": "tallpage.server.settings",
        "TALLPAGE_HOME": str(home),
        **more,
    }


def run_django(code: str, told: dict[str, str]) -> None:
    """Run some lines with Django set up, to their end."""
    command = [sys.executable, "-c", f"import django; django.setup()\n{code}"]
    subprocess.run(command, env=told, check=True)


def make_home(home: Path) -> None:
    """Give a data folder an empty database of this version."""
    shutil.copyfile(migrated_database(), home / "tallpage.sqlite3")


def start_logged(command: list[str], told: dict[str, str], log_path: Path) -> subprocess.Popen[bytes]:
    """Start a process whose words go to the end of a file."""
    with log_path.open("ab") as log:
        return subprocess.Popen(command, env=told, stdout=log, stderr=log)


def start_worker(home: Path, told: dict[str, str]) -> subprocess.Popen[bytes]:
    """Start the supervisor of a queue."""
    return start_logged([sys.executable, "-m", "django", "worker"], told, home / "worker.log")


def kill_family(process: subprocess.Popen[bytes]) -> None:
    """Kill a process and all that it has started, the youngest first, and wait until they are gone."""
    family = [psutil.Process(process.pid), *psutil.Process(process.pid).children(recursive=True)]
    for one in reversed(family):
        one.kill()
    process.wait(timeout=20)
    psutil.wait_procs(family, timeout=20)


def rows(home: Path, query: str) -> list[tuple[Any, ...]]:
    """What the database of a data folder answers."""
    with closing(sqlite3.connect(home / "tallpage.sqlite3", timeout=20)) as database:
        return database.execute(query).fetchall()


def until(
    seen: Callable[[], bool], *, timeout_s: float = 60, step: Callable[[], None] = lambda: None
) -> None:
    """Wait for something, doing ``step`` meanwhile."""
    last_s = time.monotonic() + timeout_s
    while not seen():
        assert time.monotonic() < last_s, "it did not come to that in time"
        step()
        time.sleep(0.05)
