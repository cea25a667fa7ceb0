"""Places that files are handed over to, and something to be handed over."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest

from tallpage.demo.stand_ins.mail import Letterbox, start_mail_server
from tallpage.demo.stand_ins.publishing import TOKEN, PublishingSite
from tallpage.server.handover.models import HandOver
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.running import run_job
from tallpage.server.shelf.models import Capture
from tests.pictures import text_page
from tests.server.conftest import Api


class Killed(BaseException):
    """Stands for the end of a worker: nothing of ours is told of it."""


@pytest.fixture
def letterbox(settings: Any, free_port: int) -> Iterator[Letterbox]:
    """The simulated mail server, which the settings name."""
    box = Letterbox()
    controller = start_mail_server(free_port, box)
    settings.MAIL_SERVER, settings.MAIL_FROM = f"smtp://127.0.0.1:{free_port}", "desk@skerrin.example"
    yield box
    controller.stop()


@pytest.fixture(autouse=True)
def out(settings: Any, tmp_path: Path) -> Path:
    """Where folders are made."""
    settings.OUT = tmp_path / "out"
    return tmp_path / "out"


@pytest.fixture
def capture(make_capture: Callable[..., Capture]) -> Capture:
    """A page of 320 × 400 px."""
    return make_capture(text_page(320, 400))


@pytest.fixture
def make_output(api: Api, run_queue: Callable[[], None]) -> Callable[..., dict[str, Any]]:
    """Makes a file of a capture's first cut, by rules or for a slot."""

    def make(capture: Capture, *, slot_id: int | None = None, **rules: Any) -> dict[str, Any]:
        cut_id = capture.cuts.get().pk
        usual = {"width_px": 160, "limit_bytes": 40_000, "formats": ["jpeg"]}
        body = {"slot_id": slot_id} if slot_id else {"rules": {**usual, **rules}}
        output = api.send("POST", f"/cuts/{cut_id}/outputs", body, status=202)
        run_queue()
        rows = api.get(f"/cuts/{cut_id}/outputs")
        return next(row for row in rows if row["id"] == output["id"])

    return make


@pytest.fixture
def output(make_output: Callable[..., dict[str, Any]], capture: Capture) -> dict[str, Any]:
    """A file of 160 px as JPEG."""
    return make_output(capture)


@pytest.fixture
def hand_over(api: Api, run_queue: Callable[[], None]) -> Callable[..., Any]:
    """Hands something over and waits for it; the line of the log."""

    def ordered(way: str, *, status: int = 202, **order: Any) -> Any:
        what = {
            name: order.pop(name)
            for name in ("outputs", "captures", "cut", "sweep", "pictures")
            if name in order
        }
        line = api.send("POST", "/hand-overs", {"order": {"way": way, "what": what, **order}}, status=status)
        run_queue()
        return api.get(f"/hand-overs/{line['id']}")

    return ordered


@pytest.fixture
def outlet_id(api: Api, publishing: PublishingSite) -> int:
    """An outlet of 240 px and 60 kB that is uploaded to the simulated site."""
    outlet = api.send("POST", "/outlets", {"name": "Harbour News"}, status=201)
    slot = {"name": "Notice", "width_px": 240, "limit_bytes": 60_000, "formats": ["jpeg", "png"]}
    api.send("POST", f"/outlets/{outlet['id']}/slots", slot, status=201)
    place = {"kind": "form", "address": f"http://127.0.0.1:{publishing.server_port}/media", "secret": TOKEN}
    api.send("PUT", f"/outlets/{outlet['id']}/upload", place)
    return int(outlet["id"])


def begin_again(line_id: int) -> None:
    """What the supervisor does with the work of a worker that was killed; and the work, begun anew."""
    line = HandOver.objects.get(pk=line_id)
    assert line.job is not None
    assert line.job.state == Job.State.RUNNING, "killed work counts as under way"
    Job.objects.filter(pk=line.job.pk).update(state=Job.State.QUEUED, owner="")
    run_job(line.job.pk)
