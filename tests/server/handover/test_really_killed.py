"""Every way out while the processes that walk it are killed: nothing is doubled, nothing is lost."""

from __future__ import annotations

import random
import time
from pathlib import Path
from typing import Any

import pytest

from tallpage.demo.stand_ins.mail import Letterbox
from tallpage.demo.stand_ins.publishing import PublishingSite
from tests.pictures import decoded
from tests.server.processes import environment, kill_family, make_home, rows, run_django, start_worker, until

PATIENCE_S = 150
_READY = """
from django.core.files.uploadedfile import SimpleUploadedFile
from tallpage.core.handover import ZipChannel
from tallpage.demo.stand_ins.publishing import TOKEN
from tallpage.server.archives.bringing import order_archive
from tallpage.server.archives.exporting import archived
from tallpage.server.handover.places import store_place
from tallpage.server.handover.schemas import UploadPlaceIn
from tallpage.server.handover.selection import Selection
from tallpage.server.handover.working import order
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.running import run_job
from tallpage.server.outlets.fitting import add_own_output
from tallpage.server.outlets.models import Outlet
from tallpage.server.shelf.arriving.taking import first_cut
from tallpage.server.shelf.models import Capture
from tallpage.server.storage import incoming_folder, publish_capture
from tests.pictures import strips_of, text_page
captures, outputs = [], []
for number in range(count):
    folder = incoming_folder()
    strips = strips_of(text_page(640, 1_800, seed=number), folder)
    captures.append(Capture.objects.create(
        source="picture", name=f"Notice {number}", storage_key=publish_capture(folder), bytes=strips.bytes,
        width_px=640, height_px=1_800, job=Job.objects.create(kind="take", state="done")))
    rules = {"width_px": 240, "limit_bytes": 40_000, "formats": ["jpeg"]}
    outputs.append(add_own_output(first_cut(captures[-1]), rules))
    run_job(outputs[-1].job_id)
outlet = Outlet.objects.create(name="Harbour News")
store_place(outlet, UploadPlaceIn(kind="form", address=site + "/media", secret=TOKEN))
files = Selection(outputs=tuple(row.pk for row in outputs))
pictures = Selection(captures=tuple(row.pk for row in captures), pictures=True)
for way, what, options in (
    ("folder", pictures, {"folder": "For print"}),
    ("link", pictures, {"days": 7}),
    ("mail", pictures, {"to": "isa@skerrin.example"}),
    ("upload", files, {"outlet": outlet.pk}),
    ("pdf", pictures, {"paper": "A4"}),
):
    order(way, what, options)
data = b"".join(ZipChannel().send(archived(captures)))
order_archive(SimpleUploadedFile("from-the-desk.zip", data))
"""
_UNDONE = "select count(*) from jobs_job where state in ('queued', 'running')"
_MIDDLE_S = 0.6


def _queued(home: Path) -> list[int]:
    return [job for (job,) in rows(home, "select id from jobs_job where state = 'queued' order by id")]


def _kill_in_the_middle(home: Path, told: dict[str, str], chance: random.Random, rounds: int) -> None:
    """Serve the queue of files to its end; all that serve it are killed while each work goes on.

    In no round at all every second work is let be.
    """
    goals = _queued(home)[1::2] if rounds == 0 else sorted(_queued(home) * rounds)
    for goal in (*goals, None):
        process = start_worker(home, told)
        try:
            if goal is None:
                until(lambda: rows(home, _UNDONE)[0][0] == 0, timeout_s=PATIENCE_S)
            else:
                until(lambda goal=goal: goal not in _queued(home), timeout_s=PATIENCE_S)  # type: ignore[misc]
                time.sleep(chance.random() * _MIDDLE_S)
        finally:
            kill_family(process)


@pytest.mark.long
@pytest.mark.parametrize(
    ("count", "rounds"), [(3, 0), pytest.param(12, 5, marks=pytest.mark.long)], ids=["some", "each"]
)
def test_whatever_is_killed_each_way_out_is_walked_once(
    tmp_path: Path, free_port: int, publishing: PublishingSite, letterbox: Letterbox, count: int, rounds: int
) -> None:
    seed = random.randrange(10_000)
    print(f"seed {seed}")  # pytest shows it when the test fails
    home = tmp_path / "home"
    home.mkdir()
    make_home(home)
    told = environment(
        home,
        Q_CLUSTER_NAME="files",
        TALLPAGE_FILE_WORKERS="1",
        TALLPAGE_MAIL=f"smtp://127.0.0.1:{free_port}",
        TALLPAGE_MAIL_FROM="desk@skerrin.example",
        TALLPAGE_MAIL_LIMIT_KB="400",
        TALLPAGE_OUT=str(home / "out"),
    )
    run_django(f"count, site = {count}, 'http://127.0.0.1:{publishing.server_port}'\n{_READY}", told)
    _kill_in_the_middle(home, told, random.Random(seed), rounds)

    again = rows(home, "select count(*) from jobs_job where attempts > 1")
    print(f"{again[0][0]} begun anew")
    lines = dict(
        rows(home, "select way, job.error from handover_handover left join jobs_job job on job.id = job_id")
    )
    in_doubt = lines.pop("mail")
    assert set(lines.values()) == {None}, lines
    folders = list((home / "out").iterdir())
    assert [folder.name for folder in folders] == ["For print"]
    pngs = list(folders[0].glob("*.png"))
    assert len(pngs) == count
    assert all(decoded(path.read_bytes()).shape == (1_800, 640, 3) for path in pngs)
    made = sorted(path.stat().st_size for path in (home / "outputs").rglob("*.jpg"))
    (pictures,) = rows(home, "select json_array_length(pictures) from handover_sharedlink")
    assert pictures == (count,)
    assert sorted(path.stat().st_size for path in publishing.published) == made
    assert rows(home, "select count(*) from handover_published") == [(count,)]
    assert rows(home, "select count(*) from handover_handover where made_key != ''") == [(1,)]
    names = [name for (name,) in rows(home, "select name from shelf_capture")]
    assert sorted(names) == sorted([f"Notice {number}" for number in range(count)] * 2)
    assert len(list((home / "captures").iterdir())) == 2 * count
    _assert_mails_left_once(letterbox, count, in_doubt)


def _assert_mails_left_once(letterbox: Letterbox, count: int, in_doubt: Any) -> None:
    mails = [message for _, message in letterbox.mails()]
    keys = [str(message["Message-ID"]) for message in mails]
    assert len(set(keys)) == len(keys)
    names = [part.get_filename() for message in mails for part in message.iter_attachments()]
    assert len(set(names)) == len(names)
    if in_doubt is None:
        assert len(names) == count
    else:
        assert "mail_in_doubt" in in_doubt
