"""Many pages from the command line: names, manifest, going on after a kill."""

import csv
import json
import os
import signal
import subprocess
import sys
import time
from collections.abc import Iterator
from pathlib import Path

import numpy as np
import pytest

from tests.command import RunCommand
from tests.pictures import decoded

SWEEP = [sys.executable, "-m", "tallpage", "sweep"]
QUICK = ["--at-once", "4", "--pause", "0", "--workers", "2"]
SECONDS = 120


def _list(folder: Path, *lines: str) -> str:
    path = folder / "list.txt"
    path.write_text("\n".join(lines), "utf-8")
    return str(path)


def _manifest(folder: Path) -> list[dict]:
    rows: list[dict] = json.loads((folder / "manifest.json").read_text("utf-8"))
    return rows


def _files(folder: Path) -> set[str]:
    found = (path for path in folder.rglob("*") if path.is_file() and ".sweep" not in path.parts)
    return {str(path.relative_to(folder)) for path in found} - {"manifest.json", "manifest.csv"}


def test_a_list_becomes_pictures_with_a_manifest_and_bad_lines_do_not_stop_it(
    run_capturing: RunCommand, site: str, tmp_path: Path
) -> None:
    pages = _list(tmp_path, f"{site}/notices/1, {site}/timetable", "no address", "http://nobody.invalid/x")
    out = tmp_path / "out"
    screens = "800x600,390x844@2"
    run = run_capturing(
        "sweep",
        pages,
        "--out",
        str(out),
        "--screens",
        screens,
        "--name",
        "{section}/{title} {screen}",
        *QUICK,
        "--json",
    )
    assert run.returncode == 1
    facts = run.answer()
    assert (facts["pages"], facts["pictures"], facts["failed"], facts["bad_lines"]) == (3, 4, 3, 1)
    rows = _manifest(out)
    assert list(rows[0]) == [
        "address", "final_address", "title", "status", "screen", "width_px", "height_px", "bytes", "file",
        "whole", "warnings", "error", "rights", "slot", "fidelity", "met",
    ]  # fmt: skip
    taken = [row for row in rows if row["file"]]
    assert _files(out) == {row["file"] for row in taken}
    for row in taken:
        pixels = decoded((out / row["file"]).read_bytes())
        assert pixels.shape[:2] == (row["height_px"], row["width_px"])
        assert row["bytes"] == (out / row["file"]).stat().st_size
    assert {row["file"].split("/")[0] for row in taken} == {"notices", "top"}
    assert "Line 2" in next(row["error"] for row in rows if row["address"] == "no address")
    with (out / "manifest.csv").open(encoding="utf-8-sig", newline="") as table:
        assert [row["file"] for row in csv.DictReader(table)] == [row["file"] for row in rows]


@pytest.mark.long
def test_slots_are_made_of_a_sitemaps_pages(run_capturing: RunCommand, site: str, tmp_path: Path) -> None:
    out = tmp_path / "out"
    pages = _list(tmp_path, f"{site}/notices/5", f"{site}/notices/9")
    run = run_capturing(
        "sweep", pages, "--out", str(out), "--slot", "360:40kB", "--name", "{number}-{slot}", *QUICK
    )
    assert run.returncode == 0, run.stderr
    rows = _manifest(out)
    assert [Path(row["file"]).stem for row in rows] == ["1-360px", "2-360px"]
    assert all(row["width_px"] == 360 and row["bytes"] <= 40_000 for row in rows)


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (["--screens", "10x10"], "cannot be simulated"),
        (["--name", "{nothing}"], "is no field of a name"),
        (["--slot", "wide"], "is no slot"),
        (["--at-once", "0"], "not possible"),
    ],
)
def test_what_cannot_be_done_is_said_in_a_line(
    run_capturing: RunCommand, tmp_path: Path, arguments: list[str], words: str
) -> None:
    run = run_capturing(
        "sweep", _list(tmp_path, "skerrin.example"), "--out", str(tmp_path / "out"), *arguments
    )
    assert run.returncode == 2
    assert words in run.stderr
    assert run.stderr.count("\n") == 1


def test_an_empty_list_and_a_list_that_is_not_there_are_refused(
    run_capturing: RunCommand, tmp_path: Path
) -> None:
    for source, words in (
        (_list(tmp_path, ""), "no page to take"),
        (str(tmp_path / "gone"), "cannot be read"),
    ):
        run = run_capturing("sweep", source, "--out", str(tmp_path / "out"))
        assert (run.returncode, words in run.stderr) == (1, True)


@pytest.fixture
def pages(site: str, tmp_path: Path) -> str:
    """Two of one title among them."""
    return _list(tmp_path, *(f"{site}/notices/{number}" for number in (0, 1, 2, 3, 28, 29)))


@pytest.fixture
def killed(pages: str, tmp_path: Path) -> Iterator[Path]:
    """A folder in which a sweep was killed when at least one picture was taken, and not all."""
    out = tmp_path / "killed"
    process = subprocess.Popen(
        [*SWEEP, pages, "--out", str(out), "--name", "{title}", *QUICK], stderr=subprocess.DEVNULL
    )
    journal = out / ".sweep" / "journal.jsonl"
    end_s = time.monotonic() + SECONDS
    while not (journal.exists() and b'"outcome"' in journal.read_bytes()):
        assert time.monotonic() < end_s, "nothing was taken"
        time.sleep(0.02)
    os.kill(process.pid, signal.SIGKILL)
    process.wait()
    return out


@pytest.mark.long
def test_a_killed_sweep_goes_on_and_ends_as_if_it_had_not_been_killed(
    run_capturing: RunCommand, pages: str, killed: Path, tmp_path: Path
) -> None:
    assert not (killed / "manifest.json").exists()
    refused = run_capturing("sweep", pages, "--out", str(killed), "--name", "{title}", *QUICK)
    assert "--resume" in refused.stderr
    other = run_capturing("sweep", pages, "--out", str(killed), "--name", "{number}", *QUICK, "--resume")
    assert "another list, or with other settings" in other.stderr
    gone_on = run_capturing("sweep", pages, "--out", str(killed), "--name", "{title}", *QUICK, "--resume")
    assert gone_on.returncode == 0, gone_on.stderr
    straight = tmp_path / "straight"
    assert run_capturing("sweep", pages, "--out", str(straight), "--name", "{title}", *QUICK).returncode == 0
    assert _manifest(killed) == _manifest(straight)
    assert _files(killed) == _files(straight)
    assert len(_files(killed)) == 6


@pytest.mark.long
def test_a_cut_is_shown_of_every_page_that_it_lies_on(
    run_capturing: RunCommand, site: str, tmp_path: Path
) -> None:
    frame = {"x_px": 0, "y_px": 0, "width_px": 900, "height_px": 700}
    cut = tmp_path / "cut.json"
    cut.write_text(
        json.dumps({"version": 1, "frame": {**frame, "folds": [{"top_px": 80, "height_px": 200}]}})
    )
    pages = _list(tmp_path, f"{site}/notices/5", f"{site}/notices/9")
    whole, shown = tmp_path / "whole", tmp_path / "shown"
    for folder, more in ((whole, []), (shown, ["--cut", str(cut)])):
        run = run_capturing("sweep", pages, "--out", str(folder), "--name", "{number}", *more, *QUICK)
        assert run.returncode == 0, run.stderr
    for name in ("1.png", "2.png"):
        page, part = (decoded((folder / name).read_bytes()) for folder in (whole, shown))
        assert (part == np.vstack([page[:80, :900], page[280:700, :900]])).all()
    narrow = run_capturing(
        "sweep", pages, "--out", str(tmp_path / "n"), "--cut", str(cut), "--screens", "390x844", *QUICK
    )
    assert narrow.returncode == 1
    assert "does not lie on the picture" in narrow.stdout
