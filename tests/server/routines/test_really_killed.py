"""A run while the processes that carry it on are killed: nothing doubled, nothing lost."""

import random
import time
from pathlib import Path

import pytest

from tests.server.processes import environment, kill_family, make_home, rows, run_django, start_worker, until

PATIENCE_S = 150
_RUNNING = "select count(*) from jobs_job where state = 'running'"
_READY = """
from tallpage.core.routine import routine_of
from tallpage.server.routines.keeping import keep_routine
from tallpage.server.routines.runs import start_run
from tallpage.server.jobs.models import Job
from tallpage.server.shelf.models import Capture
from tallpage.server.shelf.arriving.taking import first_cut
from tallpage.server.storage import incoming_folder, publish_capture
from tests.pictures import strips_of, text_page
ids = []
for number in range(count):
    folder = incoming_folder()
    strips = strips_of(text_page(640, 900, seed=number), folder)
    capture = Capture.objects.create(
        source="picture", name=f"Notice {number}", storage_key=publish_capture(folder), bytes=strips.bytes,
        width_px=640, height_px=900, job=Job.objects.create(kind="take", state="done"))
    first_cut(capture)
    ids.append(capture.pk)
steps = [
    {"kind": "trim"},
    {"kind": "dress", "dressing": {"border": {"width_px": 2}}},
    {"kind": "slot", "name": "Narrow", "width_px": 240, "limit_bytes": 40_000, "formats": ["jpeg"]},
    {"kind": "out", "way": "folder", "folder": "For print"},
]
chain = routine_of({"version": 1, "name": "Killed", "steps": steps})
start_run(keep_routine(chain), captures=ids)
"""


@pytest.mark.long
@pytest.mark.parametrize(
    ("count", "kills"), [(6, 3), pytest.param(40, 25, marks=pytest.mark.long)], ids=["some", "many"]
)
def test_whatever_is_killed_each_picture_is_made_once(tmp_path: Path, count: int, kills: int) -> None:
    seed = random.randrange(10_000)
    print(f"seed {seed}")  # pytest shows it when the test fails
    chance = random.Random(seed)
    home = tmp_path / "home"
    home.mkdir()
    make_home(home)
    told = environment(
        home, Q_CLUSTER_NAME="files", TALLPAGE_FILE_WORKERS="1", TALLPAGE_OUT=str(home / "out")
    )
    run_django(f"count = {count}\n{_READY}", told)

    def is_finished() -> bool:
        # In this order: with its end a run puts the work of handing over on the queue.
        ended = rows(home, "select count(*) from routines_run where finished_at is not null")
        pending = rows(home, "select count(*) from jobs_job where state in ('queued', 'running')")
        return (pending, ended) == ([(0,)], [(1,)])

    for number in range(kills + 1):
        process = start_worker(home, told)
        try:
            if number == kills:
                until(is_finished, timeout_s=PATIENCE_S)
            else:
                until(lambda: is_finished() or rows(home, _RUNNING)[0][0] > 0, timeout_s=PATIENCE_S)
                time.sleep(chance.random() * 1.5)
        finally:
            kill_family(process)

    print(rows(home, "select count(*) from jobs_job where attempts > 1"), "begun anew")
    assert rows(home, "select state, count(*) from routines_runitem group by state") == [("done", count)]
    made = rows(home, "select count(*) from shelf_cut where name = 'Killed' group by capture_id")
    assert made == [(1,)] * count
    assert rows(home, "select count(*) from outlets_output") == [(count,)]
    assert rows(home, "select count(*) from outlets_outputfile") == [(count,)]
    assert [path.name for path in (home / "out").iterdir()] == ["For print"]
    assert len(list((home / "out" / "For print").glob("*.jpg"))) == count
