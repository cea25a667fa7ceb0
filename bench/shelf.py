"""A shelf of 20,000 captures: how soon it is there, how evenly it scrolls, and what its server answers.

The captures share the pictures of twenty; each has a report of its own, 6 kB long as those of real pages are.
Headless Chromium draws without a graphics card; times between frames without anything else tell what the
machine itself can do.
"""

from __future__ import annotations

import io
import statistics
import subprocess
import sys
import tempfile
import time
from pathlib import Path

import numpy as np
from PIL import Image
from selenium import webdriver
from tests.browser.stack import open_window

from bench.frames import NOTHING, tell, times_between_frames
from bench.running import Visitor, ask, running_demo

_CAPTURES, _PICTURES, _OPENINGS = 20_000, 20, 9
WANTED = "wanted: opening at most 1 s, scrolling median at most 17 ms"
_FILL = """
import copy, django; django.setup()
from datetime import timedelta
from django.utils import timezone
from tallpage.server.jobs.models import Job
from tallpage.server.shelf.models import Capture, Label
from tallpage.server.shelf.sorting.searching import index_capture
pictures = list(Capture.objects.exclude(storage_key=""))
Capture.objects.filter(cuts=None).delete()
missing = captures - len(pictures)
jobs = Job.objects.bulk_create([Job(kind="take", state=Job.State.DONE) for _ in range(missing)])
report = {"left_out": ["Cookies"], "wholeness": {"words": 900, "lacking": []}, "seen": "x" * 6_000}
rows = []
for number, job in enumerate(jobs):
    row = copy.copy(pictures[number % len(pictures)])
    row.pk, row._state = None, copy.copy(row._state)
    row._state.adding = True
    row.job, row.report = job, report
    row.source, row.host = "page", f"site-{number % 300}.skerrin.example"
    row.address = f"https://{row.host}/notices/{number}"
    row.name = row.title = f"Notice {number} of the sound"
    row.screen_width_px, row.screen_height_px, row.one_of_many = 1280, 800, number % 2 == 1
    row.warnings = ["The page went on growing."] if number % 9 == 0 else []
    rows.append(row)
made = Capture.objects.bulk_create(rows)
for row in made:
    index_capture(row, "The cello crosses the sound in a suitcase. " * 5)
label = Label.objects.create(name="winter")
through = Capture.labels.through
through.objects.bulk_create(through(capture_id=row.pk, label_id=label.pk) for row in made[::7])
"""
_ANSWERS = (
    "/captures/ids?alone=true",
    "/captures/ids",
    "/captures/ids?order=name",
    "/captures/ids?words=cello",
    "/captures/ids?host=site-7.skerrin.example",
    "/captures/ids?state=warned&label=winter",
    "/captures/by",
    "/captures?limit=60",
)
_SCROLL = """
const grid = document.querySelector("[data-shelf-grid], [data-shelf-list]");
let view = grid.parentElement;
while (getComputedStyle(view).overflowY !== "auto") view = view.parentElement;
view.scrollTop += 60;
"""
_SHOWN = """
const images = [...document.querySelectorAll("main [data-capture] img")].filter(
  (image) => image.getBoundingClientRect().top < innerHeight);
return images.length > 3 && images.every((image) => image.complete && image.naturalWidth > 0);
"""


def _drop_pictures(visitor: Visitor) -> None:
    made = np.random.default_rng(1)
    for number in range(_PICTURES):
        coarse = made.integers(0, 255, (100 + 40 * number, 160, 3), dtype=np.uint8)
        buffer = io.BytesIO()
        picture = Image.fromarray(coarse)
        picture.resize((1_280, picture.height * 8), Image.Resampling.NEAREST).save(buffer, "PNG")
        visitor.post_picture(f"page-{number}.png", buffer.getvalue())
    while any(row["job"]["state"] != "done" for row in visitor.get("/captures")["captures"]):
        time.sleep(0.2)


def _seconds_to_open(driver: webdriver.Chrome, address: str) -> float:
    driver.get("about:blank")
    started = time.perf_counter()
    driver.get(f"{address}/shelf")
    while not driver.execute_script(_SHOWN):
        time.sleep(0.01)
    return time.perf_counter() - started


def main() -> None:
    """Print the times beside what is wanted."""
    with (
        tempfile.TemporaryDirectory(ignore_cleanup_errors=True) as home,
        running_demo(Path(home)) as (address, _, environment),
        open_window() as driver,
    ):
        _drop_pictures(Visitor(address))
        fill = f"captures = {_CAPTURES}\n{_FILL}"
        subprocess.run([sys.executable, "-c", fill], env=environment, check=True)
        for path in _ANSWERS:
            times = [ask(f"{address}/api{path}")[0] for _ in range(7)]
            print(f"{path}: median {1_000 * statistics.median(times):.0f} ms", flush=True)
        opened = [_seconds_to_open(driver, address) for _ in range(_OPENINGS)]
        print(
            f"opening with {_CAPTURES:,}: first {opened[0]:.2f} s, "
            f"median of the others {statistics.median(opened[1:]):.2f} s, most {max(opened[1:]):.2f} s"
        )
        driver.set_script_timeout(60)
        tell("nothing", times_between_frames(driver, NOTHING))
        tell("scrolling cards", times_between_frames(driver, _SCROLL))
        driver.find_element("css selector", "[aria-label='As a list']").click()
        time.sleep(2)
        tell("scrolling the list", times_between_frames(driver, _SCROLL))
        print(WANTED)


if __name__ == "__main__":
    main()
