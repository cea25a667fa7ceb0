"""Routines from the command line: over pages, pictures, folders and lists; left out, ended, killed."""

import json
import os
import signal
import subprocess
import sys
import time
from pathlib import Path
from typing import Any

import pytest

from tallpage.core.routine import starter_names
from tests.command import RunCommand, run_command
from tests.long import long_but
from tests.pictures import as_png, assert_same_pixels, decoded, photograph, text_page

QUICK = ["--at-once", "4", "--pause", "0", "--workers", "2"]
SECONDS = 180
SLOT = {"kind": "slot", "name": "Narrow", "width_px": 90, "limit_bytes": 9_000, "formats": ["png", "jpeg"],
        "ask": [{"name": "width", "field": "width_px", "words": "How wide?"}]}  # fmt: skip
TABLE = {"kind": "frame_block", "block": {"role": "table"}}


def _routine(folder: Path, *steps: dict[str, Any]) -> str:
    path = folder / "routine.json"
    path.write_text(json.dumps({"version": 1, "name": "Tried", "steps": steps}), "utf-8")
    return str(path)


def _pictures(folder: Path, count: int = 3) -> Path:
    pictures = folder / "pictures"
    pictures.mkdir()
    for number in range(count):
        (pictures / f"boat {number}.png").write_bytes(as_png(photograph(200, 150, seed=number)))
    return pictures


def _manifest(folder: Path) -> list[dict[str, Any]]:
    rows: list[dict[str, Any]] = json.loads((folder / "manifest.json").read_text("utf-8"))
    return rows


def test_pictures_folders_lists_and_pages_come_to_files_with_a_manifest(
    run_capturing: RunCommand, site: str, tmp_path: Path
) -> None:
    folder = _pictures(tmp_path)
    (folder / "notes.md").write_text("no picture")
    alone = tmp_path / "harbour.png"
    alone.write_bytes(as_png(text_page(300, 200)))
    pages = tmp_path / "pages.txt"
    pages.write_text(f"{site}/timetable\nno address\n")
    out = tmp_path / "out"
    sources = [f"{site}/notices/5", str(pages), str(folder), str(alone)]
    made = run_capturing(
        "run", *QUICK, _routine(tmp_path, SLOT), *sources, "--out", str(out), "--set", "width=120", "--json"
    )
    facts = made.answer()
    assert made.returncode == 1, "a line of the list is no address"
    assert (facts["sources"], facts["files"], facts["met"], facts["failed"]) == (6, 6, 6, 1)
    rows = [row for row in _manifest(out) if row["file"]]
    assert {row["width_px"] for row in rows} == {120}
    assert all(row["met"] and row["fidelity"] > 50 and row["slot"] == "Narrow" for row in rows)
    assert {"boat 0-120", "boat 2-120", "harbour-120"} <= {Path(row["file"]).stem for row in rows}


@pytest.mark.long
def test_a_page_that_lacks_the_block_is_left_out_with_a_warning_or_ends_the_run(
    run_capturing: RunCommand, site: str, tmp_path: Path
) -> None:
    pages = [f"{site}/timetable", f"{site}/notices/5"]
    out = tmp_path / "out"
    made = run_capturing("run", *QUICK, _routine(tmp_path, TABLE, SLOT), *pages, "--out", str(out))
    assert made.returncode == 0, made.stderr
    assert "1 left out" in made.stdout
    assert "there is no table on the page" in made.stdout
    rows = {row["address"]: row for row in _manifest(out)}
    assert rows[pages[0]]["file"]
    assert (rows[pages[1]]["file"], rows[pages[1]]["error"]) == ("", "")
    ended = run_capturing(
        "run",
        *QUICK,
        _routine(tmp_path, {**TABLE, "if_missing": "stop"}, SLOT),
        pages[1],
        "--out",
        str(tmp_path / "e"),
    )
    assert ended.returncode == 1
    assert "there is no table" in ended.stderr


def test_the_pixels_are_those_of_a_fit_by_hand(run_here: RunCommand, tmp_path: Path) -> None:
    picture = tmp_path / "quay.png"
    picture.write_bytes(as_png(text_page(300, 400)))
    frame = {"kind": "frame_corner", "x_px": 10, "y_px": 20, "width_px": 200, "height_px": 300}
    steps = (
        frame,
        {"kind": "tone", "tone": {"grey": True}},
        {**SLOT, "formats": ["png"], "limit_bytes": 90_000},
    )
    out = tmp_path / "out"
    assert (
        run_here("run", *QUICK, _routine(tmp_path, *steps), str(picture), "--out", str(out)).returncode == 0
    )
    by_hand = tmp_path / "by-hand"
    fit = ["fit", str(picture), "--box", "10,20,200,300", "--grey", "--width", "90"]
    run_command(*fit, "--limit", "90kB", "--formats", "png", "--out", str(by_hand))
    assert_same_pixels(
        decoded((out / "quay-90.png").read_bytes()), decoded(by_hand.with_suffix(".png").read_bytes())
    )


@pytest.mark.long
@pytest.mark.parametrize("name", long_but(["article-picture"], starter_names()))
def test_each_routine_that_ships_runs_on_any_picture(run_here: RunCommand, tmp_path: Path, name: str) -> None:
    picture = tmp_path / "ferry.png"
    picture.write_bytes(as_png(photograph(700, 900)))
    made = run_here("run", *QUICK, name, str(picture), "--out", str(tmp_path / "out"), "--json")
    assert made.returncode == 0, made.stderr + made.stdout
    assert json.loads(made.stdout)["files"] >= 1
    for row in _manifest(tmp_path / "out"):
        assert (tmp_path / "out" / row["file"]).stat().st_size == row["bytes"]


def test_a_picture_or_a_list_comes_in_on_standard_input(run_capturing: RunCommand, tmp_path: Path) -> None:
    routine = _routine(tmp_path, SLOT)
    picture = run_capturing(
        "run", *QUICK, routine, "-", "--out", str(tmp_path / "a"), stdin=as_png(photograph(200, 100))
    )
    assert picture.returncode == 0, picture.stderr
    assert _manifest(tmp_path / "a")[0]["width_px"] == 90
    listed = run_capturing(
        "run",
        *QUICK,
        routine,
        "-",
        "--out",
        str(tmp_path / "b"),
        "--json",
        stdin=b"http://nobody.invalid/x\n",
    )
    assert json.loads(listed.stdout)["failed"] == 1


def test_damaged_pictures_fail_by_themselves(run_here: RunCommand, tmp_path: Path) -> None:
    pictures = _pictures(tmp_path)
    whole = (pictures / "boat 1.png").read_bytes()
    (pictures / "boat 1.png").write_bytes(whole[: len(whole) // 2])
    made = run_here("run", *QUICK, _routine(tmp_path, SLOT), str(pictures), "--out", str(tmp_path / "out"))
    assert made.returncode == 1
    errors = {Path(row["address"]).stem: row["error"] for row in _manifest(tmp_path / "out")}
    assert errors["boat 1"]
    assert not errors["boat 0"]
    assert not errors["boat 2"]


def test_a_file_that_cannot_be_as_asked_is_told(run_here: RunCommand, tmp_path: Path) -> None:
    pictures = _pictures(tmp_path, 1)
    routine = _routine(tmp_path, {**SLOT, "limit_bytes": 300, "formats": ["png"]})
    made = run_here("run", *QUICK, routine, str(pictures), "--out", str(tmp_path / "out"), "--json")
    facts = made.answer()
    assert made.returncode in (1, 3)
    assert facts["not_met"] + facts["failed"] == 1


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (["gone.json", "x.png"], "There is no routine gone.json. Give its file, or one of article-picture"),
        (["{routine}", "x.png"], "There is no file or folder x.png"),
        (["{routine}", "{pictures}", "--set", "height=9"], "does not ask for “height”. It asks for width."),
        (["{routine}", "{pictures}", "--set", "width"], "“width” is no value"),
        (["{routine}", "{pictures}", "--name", "{colour}"], "is no field of a name"),
    ],
)
def test_what_cannot_be_done_is_said_in_a_line(
    run_here: RunCommand, tmp_path: Path, arguments: list[str], words: str
) -> None:
    names = {"{routine}": _routine(tmp_path, SLOT), "{pictures}": str(_pictures(tmp_path, 1))}
    made = run_here(
        "run", *QUICK, *(names.get(text, text) for text in arguments), "--out", str(tmp_path / "out")
    )
    assert made.returncode in (1, 2)
    assert words in made.stderr
    assert made.stderr.count("\n") == 1


@pytest.mark.long
def test_a_killed_run_goes_on_and_ends_as_if_it_had_not_been_killed(
    run_here: RunCommand, tmp_path: Path
) -> None:
    routine, pictures = _routine(tmp_path, {"kind": "trim"}, SLOT), str(_pictures(tmp_path, 12))
    killed, straight = tmp_path / "killed", tmp_path / "straight"
    command = [sys.executable, "-m", "tallpage", "run", routine, pictures, "--out", str(killed), *QUICK]
    process = subprocess.Popen(command)
    journal = killed / ".sweep" / "journal.jsonl"
    end_s = time.monotonic() + SECONDS
    while not (journal.exists() and journal.read_bytes().count(b'"outcome"') >= 3):
        assert time.monotonic() < end_s, "nothing was made"
        time.sleep(0.02)
    os.kill(process.pid, signal.SIGKILL)
    process.wait()
    assert not (killed / "manifest.json").exists()
    assert run_here("run", *QUICK, routine, pictures, "--out", str(killed), "--resume").returncode == 0
    assert run_here("run", *QUICK, routine, pictures, "--out", str(straight)).returncode == 0
    assert _manifest(killed) == _manifest(straight)
    assert len({row["file"] for row in _manifest(killed)}) == 12
    other = run_here("run", *QUICK, _routine(tmp_path, SLOT), pictures, "--out", str(killed), "--resume")
    assert "another list, or with other settings" in other.stderr
