"""An archive there and back: seconds, MB, memory and what is lost, beside a plain ZIP of the strips.

Pages of the demo are taken, then stand on the shelf many times over, each with its cut, so that the archive
is as large as one of a year's work. It is brought into the same Tall Page; pixels and documents are compared.
"""

from __future__ import annotations

import shutil
import subprocess
import sys
import tempfile
import threading
import time
import urllib.request
import zipfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from bench.rest import pss_bytes, tree
from bench.running import Visitor, running_demo

_CAPTURES = 400
_PAGES = ("/timetable", "/fleet", "/guide", "/offices")
_FILL = """
import copy, django; django.setup()
from tallpage.server.jobs.models import Job
from tallpage.server.shelf.models import Capture
from tallpage.server.shelf.arriving.taking import first_cut
pages = list(Capture.objects.exclude(storage_key=""))
for number in range(captures - len(pages)):
    row = copy.copy(pages[number % len(pages)])
    row.pk, row._state = None, copy.copy(row._state)
    row._state.adding = True
    row.job, row.name = Job.objects.create(kind="take", state=Job.State.DONE), f"Page {number}"
    row.save()
    cut = first_cut(row)
    cut.document["frame"]["height_px"] = 400 + number
    cut.save()
"""
_COMPARE = """
import django; django.setup()
from collections import defaultdict
from tallpage.core.geometry import Box
from tallpage.server.shelf.models import Capture
known, pairs = {}, defaultdict(list)
def pixels(capture):
    if capture.storage_key not in known:
        known[capture.storage_key] = capture.pixel_source().region(Box.whole(capture.size)).digest()
    return known[capture.storage_key]
for capture in Capture.objects.order_by("pk"):
    documents = [cut.document for cut in capture.cuts.all()]
    pairs[capture.name, str(capture.created_at)].append((documents, pixels(capture), capture.report))
same = sum(len(pair) == 2 and pair[0] == pair[1] for pair in pairs.values())
print(f"{same} of {len(pairs)} are the same in pixels, cuts and what was noticed")
"""


@contextmanager
def _peak_mb(root: int) -> Iterator[list[float]]:
    """The most that all processes below one held meanwhile, in MB."""
    peak, ended = [0.0], threading.Event()

    def watch() -> None:
        while not ended.wait(0.25):
            peak[0] = max(peak[0], sum(map(pss_bytes, tree(root))) / 1e6)

    thread = threading.Thread(target=watch)
    thread.start()
    yield peak
    ended.set()
    thread.join()


def _take(visitor: Visitor, site: str) -> None:
    for path in _PAGES:
        visitor.post("/captures", {"address": site + path})
    while any(row["job"]["state"] in ("queued", "running") for row in visitor.get("/captures")["captures"]):
        time.sleep(0.3)


def _plainly(home: Path, target: Path) -> tuple[float, int]:
    """A ZIP of the same strips and nothing else, each capture's."""
    files = sorted((home / "captures").rglob("*.png"))
    folders = len({path.parent for path in files})
    started = time.perf_counter()
    with zipfile.ZipFile(target, "w") as archive:
        for copy in range(_CAPTURES // folders):
            for path in files:
                archive.write(path, f"{copy}/{path.parent.name}/{path.name}")
    return time.perf_counter() - started, target.stat().st_size


def _bring(visitor: Visitor, file: Path) -> tuple[float, float, Any]:
    started = time.perf_counter()
    row = visitor.post_file("/archives", "archive", file.name, file.read_bytes())
    sent = time.perf_counter() - started
    while row["job"]["state"] in ("queued", "running"):
        time.sleep(0.2)
        row = next(found for found in visitor.get("/archives") if found["id"] == row["id"])
    return sent, time.perf_counter() - started, row


def main() -> None:
    """Print what the way there and back takes."""
    with (
        tempfile.TemporaryDirectory(ignore_cleanup_errors=True) as folder,
        running_demo(Path(folder)) as (address, site, environment),
    ):
        visitor, home, root = Visitor(address), Path(folder), int(environment["TALLPAGE_BENCH_PROCESS"])
        _take(visitor, site)
        fill = f"captures = {_CAPTURES}\n{_FILL}"
        subprocess.run([sys.executable, "-c", fill], env=environment, check=True)
        print(f"before: {sum(map(pss_bytes, tree(root))) / 1e6:.0f} MB held by all processes", flush=True)
        ids = visitor.get("/captures/ids")["ids"]
        file = home / "archive.zip"
        with _peak_mb(root) as peak:
            started = time.perf_counter()
            order = {"way": "archive", "what": {"captures": ids}}
            line = visitor.post("/hand-overs", {"order": order})
            with urllib.request.urlopen(address + line["file_url"]) as answer, file.open("wb") as target:  # noqa: S310
                shutil.copyfileobj(answer, target)
            seconds = time.perf_counter() - started
        plain_s, plain_bytes = _plainly(home, home / "plain.zip")
        size = file.stat().st_size
        print(
            f"{len(ids)} captures leave: {seconds:.1f} s, {size / 1e6:.0f} MB, peak {peak[0]:.0f} MB; "
            f"a plain ZIP of as many strips {plain_s:.1f} s, {plain_bytes / 1e6:.0f} MB, "
            f"so {seconds / plain_s:.1f} times as long",
            flush=True,
        )
        with _peak_mb(root) as peak:
            sent, seconds, row = _bring(visitor, file)
        print(
            f"{row['brought']} of {row['total']} are brought in: {seconds:.1f} s, {sent:.1f} s of them sent, "
            f"peak {peak[0]:.0f} MB, {len(row['refused'])} refused",
            flush=True,
        )
        subprocess.run([sys.executable, "-c", _COMPARE], env=environment, check=True)


if __name__ == "__main__":
    main()
