"""What the application holds when nobody works with it, and how soon the next page starts all the same.

Memory is the proportional share (PSS) of all of its processes: what several of them share counts once.
Processor time is what they have used within half a minute, beside one core.
"""

from __future__ import annotations

import statistics
import tempfile
import time
from collections import Counter
from pathlib import Path

from bench.running import Visitor, running_demo

_WORK_PAGES = 4
_QUIET_S, _WATCHED_S = 60.0, 30.0
_NEXT_PAGES, _IDLE_S = 5, 40.0
_TICKS_A_SECOND = 100
WANTED = "wanted: at most 450 MB, 1 % of a core, one browser, the next page begun within 1 s"


def tree(root: int) -> list[int]:
    """A process and all that came from it."""
    parents: dict[int, list[int]] = {}
    for entry in Path("/proc").iterdir():
        if entry.name.isdigit():
            try:
                fields = (entry / "stat").read_text().rpartition(")")[2].split()
            except OSError:
                continue
            parents.setdefault(int(fields[1]), []).append(int(entry.name))
    found, left = [], [root]
    while left:
        found.append(left.pop())
        left += parents.get(found[-1], [])
    return found


def pss_bytes(process: int) -> int:
    """The share of memory of a process; 0 when it has gone."""
    try:
        rollup = Path(f"/proc/{process}/smaps_rollup").read_text()
    except OSError:
        return 0
    return 1_024 * int(next(line.split()[1] for line in rollup.splitlines() if line.startswith("Pss:")))


def used_seconds(processes: list[int]) -> float:
    """Processor time of some processes so far."""
    ticks = 0
    for process in processes:
        try:
            fields = Path(f"/proc/{process}/stat").read_text().rpartition(")")[2].split()
        except OSError:
            continue
        ticks += int(fields[11]) + int(fields[12])
    return ticks / _TICKS_A_SECOND


def kind_of(process: int) -> str:
    """What a process is, in a word."""
    try:
        words = Path(f"/proc/{process}/cmdline").read_bytes().replace(b"\0", b" ").decode("utf-8", "replace")
    except OSError:
        return "gone"
    kinds: tuple[str, ...] = (
        "zygote",
        "renderer",
        "utility",
        "gpu-process",
        "headless_shell",
        "chrom",
        "node",
        "gunicorn",
    )
    kinds += ("gunicorn", "worker", "supervisord", "site_server", "demo")
    return next((kind for kind in kinds if kind in words), words[:40])


def main() -> None:
    """Take a few pages, wait, and look; then take one more."""
    with (
        tempfile.TemporaryDirectory(ignore_cleanup_errors=True) as home,
        running_demo(Path(home)) as (address, site, environment),
    ):
        visitor = Visitor(address)
        for number in range(_WORK_PAGES):
            _take(visitor, f"{site}/notices/{number}")
        time.sleep(_QUIET_S)
        root = int(environment["TALLPAGE_BENCH_PROCESS"])
        before = tree(root)
        used = used_seconds(before)
        time.sleep(_WATCHED_S)
        after = tree(root)
        share = (used_seconds([row for row in after if row in before]) - used) / _WATCHED_S
        kinds = Counter(kind_of(process) for process in after)
        weights = Counter[str]()
        for process in after:
            weights[kind_of(process)] += pss_bytes(process)
        for kind, weight in weights.most_common():
            print(f"{kinds[kind]:3d} × {kind:40s} {weight / 1e6:7.1f} MB")
        print(
            f"at rest: {len(after)} processes, {sum(weights.values()) / 1e6:.0f} MB, "
            f"{100 * share:.1f} % of a core; {WANTED}"
        )
        begun, done = [], []
        for number in range(_NEXT_PAGES):
            begun_s, done_s = _take(visitor, f"{site}/notices/{number}")
            begun.append(begun_s)
            done.append(done_s)
            time.sleep(_IDLE_S)
        print(
            f"next page after {_IDLE_S:.0f} s or more of rest, {_NEXT_PAGES} times: begun after "
            f"{statistics.median(begun):.2f} s (most {max(begun):.2f}), "
            f"done after {statistics.median(done):.2f} s (most {max(done):.2f})"
        )


def _take(visitor: Visitor, address: str) -> tuple[float, float]:
    """Seconds until a page that was asked for was being scrolled or taken, and until it was there."""
    started, begun_s = time.perf_counter(), 0.0
    capture = visitor.post("/captures", {"address": address})
    while True:
        capture = visitor.get(f"/captures/{capture['id']}")
        job = capture["job"]
        if not begun_s and (job["stage"] or job["state"] not in ("queued", "running")):
            begun_s = time.perf_counter() - started
        if job["state"] not in ("queued", "running"):
            return begun_s, time.perf_counter() - started
        time.sleep(0.03)
