"""How long the API takes to answer while a sweep keeps the workers busy, beside when nothing goes on."""

from __future__ import annotations

import json
import os
import socket
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from urllib.error import URLError
from urllib.request import urlopen

PAGES = 40
_READ = ("/sweeps", "/sweeps/1", "/sweeps/1/rows?limit=50", "/captures", "/outlets", "/screens")
_QUIET_ROUNDS = 30
_PLAN = """
import django; django.setup()
from tallpage.core.capture import PRESETS
from tallpage.core.sweep import Found, Pace
from tallpage.server.shelf.schemas import TakeSettings
from tallpage.server.sweeps.planning import start_sweep
found = [Found(text=f"{site}/notices/{number}", line=1) for number in range(pages)]
start_sweep(name="", found=found, screens=[PRESETS["desk"], PRESETS["phone"]], settings=TakeSettings(),
            pattern="{number}", pace=Pace(at_once=4, pause_s=0))
"""


def _free_port() -> int:
    with socket.socket() as listener:
        listener.bind(("127.0.0.1", 0))
        return int(listener.getsockname()[1])


@contextmanager
def _demo(home: Path) -> Iterator[tuple[str, str, dict[str, str]]]:
    """``(application, demo site, environment)``, running."""
    ports = _free_port(), _free_port()
    environment = {
        **os.environ,
        "DJANGO_SETTINGS_MODULE": "tallpage.server.settings",
        "TALLPAGE_HOME": str(home),
        "TALLPAGE_PORT": str(ports[0]),
        "TALLPAGE_DEMO_SITE_PORT": str(ports[1]),
    }
    (home / "demo-loaded").touch()  # nothing on the shelf but what is measured
    command = [sys.executable, "-m", "tallpage.demo.run"]
    with subprocess.Popen(command, env=environment, stdout=subprocess.DEVNULL) as process:
        address = f"http://127.0.0.1:{ports[0]}"
        try:
            while process.poll() is None:
                try:
                    _ask(f"{address}/api/sweeps")
                    break
                except URLError:
                    time.sleep(0.5)
            yield address, f"http://skerrin-ferries.localhost:{ports[1]}", environment
        finally:
            process.terminate()


def _ask(address: str) -> tuple[float, object]:
    started = time.perf_counter()
    with urlopen(address) as answer:  # noqa: S310  (our own loopback)
        body = json.load(answer)
    return time.perf_counter() - started, body


def _told(title: str, seconds: dict[str, list[float]]) -> None:
    for path, row in seconds.items():
        print(
            f"{title:12s} {path:28s} median {1_000 * statistics.median(row):6.1f} ms"
            f"   slowest {1_000 * max(row):7.1f} ms   of {len(row)}"
        )


def main() -> None:
    """Ask during a sweep of 40 pages on two screens, and afterwards."""
    with (
        tempfile.TemporaryDirectory(ignore_cleanup_errors=True) as home,
        _demo(Path(home)) as (address, site, environment),
    ):
        plan = f"site, pages = {site!r}, {PAGES}\n{_PLAN}"
        subprocess.run([sys.executable, "-c", plan], env=environment, check=True)
        busy: dict[str, list[float]] = {path: [] for path in _READ}
        ended = False
        while not ended:
            for path in _READ:
                seconds, body = _ask(f"{address}/api{path}")
                busy[path].append(seconds)
                if path == "/sweeps/1":
                    ended = bool(body["finished_at"])  # type: ignore[index]
            time.sleep(0.2)
        time.sleep(5)
        quiet: dict[str, list[float]] = {path: [] for path in _READ}
        for _ in range(_QUIET_ROUNDS):
            for path in _READ:
                quiet[path].append(_ask(f"{address}/api{path}")[0])
        _told("sweep on", busy)
        _told("afterwards", quiet)
