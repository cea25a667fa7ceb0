"""A file of a clip while the process that makes it is killed."""

from pathlib import Path

import pytest

from tests.server.processes import (
    environment,
    kill_family,
    make_home,
    rows,
    run_django,
    start_worker,
    until,
)

PATIENCE_S = 150
_READY = """
from tallpage.server.clips.making import order_output
from tallpage.server.clips.models import Clip
from tallpage.server.clips.schemas import ClipOutputIn
from tallpage.server.jobs.models import Job
from tallpage.server.storage import incoming_folder, publish_clip
from tests.core.clip.made_up import scrolled, write_frames
folder = incoming_folder()
frames = write_frames(folder, scrolled(40))
clip = Clip.objects.create(
    name="Board", address="http://skerrin.example/quay", asked={}, storage_key=publish_clip(folder),
    width_px=frames.width_px, height_px=frames.height_px, rate_fps=frames.rate_fps, frame_count=40,
    job=Job.objects.create(kind="take_clip", state="done"))
order_output(clip, ClipOutputIn(format="webp", limit_bytes=320_000, width_px=320))
"""
_MAKING = "select state, attempts from jobs_job where kind = 'make_clip'"


@pytest.mark.long
def test_a_file_whose_worker_is_killed_is_made_once_by_the_next(tmp_path: Path) -> None:
    make_home(tmp_path)
    told = environment(tmp_path, Q_CLUSTER_NAME="files", TALLPAGE_FILE_WORKERS="1")
    run_django(_READY, told)

    process = start_worker(tmp_path, told)
    try:
        under_way = "select count(*) from jobs_job where stage = 'fitting' and done > 2"
        until(lambda: rows(tmp_path, under_way) == [(1,)], timeout_s=PATIENCE_S)
    finally:
        kill_family(process)
    assert rows(tmp_path, _MAKING) == [("running", 1)]
    assert not list((tmp_path / "outputs").glob("*.webp"))

    process = start_worker(tmp_path, told)
    try:
        until(lambda: rows(tmp_path, _MAKING)[0][0] not in ("queued", "running"), timeout_s=PATIENCE_S)
    finally:
        kill_family(process)
    assert rows(tmp_path, _MAKING) == [("done", 2)]
    ((byte_count, key, is_met),) = rows(tmp_path, "select bytes, key, met from clips_clipoutput")
    assert is_met
    (file,) = (tmp_path / "outputs").rglob("*.webp")
    assert (file.stem, file.stat().st_size) == (key, byte_count)
    assert byte_count <= 320_000
