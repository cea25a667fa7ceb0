"""How long the API takes to answer while a sweep keeps the workers busy, beside when nothing goes on."""

from __future__ import annotations

import statistics
import subprocess
import sys
import tempfile
import time
from pathlib import Path

from bench.running import ask, running_demo

PAGES = 40
_READ = ("/sweeps", "/sweeps/1", "/sweeps/1/rows?limit=50", "/captures", "/outlets", "/screens")
_QUIET_ROUNDS = 30
_PLAN = """
import django; django.setup()
from tallpage.core.capture import PRESETS
from tallpage.core.sweep import Found, Pace
from tallpage.server.shelf.routes.schemas import TakeSettings
from tallpage.server.sweeps.planning import start_sweep
found = [Found(text=f"{site}/notices/{number}", line=1) for number in range(pages)]
start_sweep(name="", found=found, screens=[PRESETS["desk"], PRESETS["phone"]], settings=TakeSettings(),
            pattern="{number}", pace=Pace(at_once=4, pause_s=0))
"""


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
        running_demo(Path(home)) as (address, site, environment),
    ):
        plan = f"site, pages = {site!r}, {PAGES}\n{_PLAN}"
        subprocess.run([sys.executable, "-c", plan], env=environment, check=True)
        busy: dict[str, list[float]] = {path: [] for path in _READ}
        ended = False
        while not ended:
            for path in _READ:
                seconds, body = ask(f"{address}/api{path}")
                busy[path].append(seconds)
                if path == "/sweeps/1":
                    ended = bool(body["finished_at"])
            time.sleep(0.2)
        time.sleep(5)
        quiet: dict[str, list[float]] = {path: [] for path in _READ}
        for _ in range(_QUIET_ROUNDS):
            for path in _READ:
                quiet[path].append(ask(f"{address}/api{path}")[0])
        _told("sweep on", busy)
        _told("afterwards", quiet)
