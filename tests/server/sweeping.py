"""Sweeps for tests: pages that are painted instead of taken, and lists of them."""

from __future__ import annotations

from typing import Any

import numpy as np

from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import Work
from tallpage.server.shelf.arriving import taking
from tallpage.server.shelf.models import Capture
from tallpage.server.storage import incoming_folder, publish_capture
from tests.pictures import Pixels, photograph, strips_of
from tests.server.conftest import Api

TWO_SCREENS = [{"width_px": 1280, "height_px": 800}, {"width_px": 390, "height_px": 844, "scale": 2}]


def painted(capture: Capture) -> Pixels:
    """What a page shows: the same each time, unless its address says otherwise."""
    if "blank" in capture.address:
        return np.full((96, 64, 3), 255, dtype=np.uint8)
    of_the_time = capture.pk if "changing" in capture.address else 0
    words = "twin" if "twin" in capture.address else capture.address
    return photograph(64, 96, seed=hash((words, capture.screen_width_px, of_the_time)))


def prepare_painting(job: Job) -> Work:
    """Paints a page; one with ``broken`` in its address fails, with ``late`` it has a warning."""
    capture = Capture.objects.get(job=job)

    def run(_signals: object) -> object:
        if "broken" in capture.address:
            raise taking.PageError("The page does not work.", code="page_failed")
        folder = incoming_folder()
        return folder, strips_of(painted(capture), folder)

    def commit(made: Any) -> None:
        folder, manifest = made
        Capture.objects.filter(pk=capture.pk).update(
            storage_key=publish_capture(folder),
            width_px=manifest.width_px,
            height_px=manifest.height_px,
            title="One title for all",
            final_address=capture.address,
            warnings=["Something was late."] if "late" in capture.address else [],
            whole="late" not in capture.address,
        )
        taking.begin_cuts(Capture.objects.get(pk=capture.pk))

    return Work(run=run, commit=commit)


def started(api: Api, *paths: str, **more: Any) -> int:
    pages = [
        {"address": f"http://skerrin.example/{path}", "line": line} for line, path in enumerate(paths, 1)
    ]
    body = {"pages": pages, "screens": TWO_SCREENS, "pause_ms": 0, "at_once": 16, **more}
    return int(api.send("POST", "/sweeps", body, status=201)["id"])
