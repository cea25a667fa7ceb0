"""Clips made by the command line."""

import json
from pathlib import Path

import pytest
from PIL import Image

from tests.command import RunCommand, run_command
from tests.core.capture.plain_site import plain_site
from tests.core.capture.test_clip import PAGES


def test_a_page_is_scrolled_through_under_a_limit(run_capturing: RunCommand, tmp_path: Path) -> None:
    out = tmp_path / "clip.webp"
    with plain_site(PAGES) as pages:
        wanted = ["clip", f"{pages}/tall", "--out", str(out), "--limit", "400kB", "--width", "320"]
        run = run_capturing(*wanted, "--speed", "4000", "--rate", "8", "--json")
    assert run.returncode == 0, run.stderr
    told = run.answer()
    assert told["bytes"] == out.stat().st_size <= 400_000
    assert (told["format"], told["met"], told["title"]) == ("webp", True, "Tall")
    with Image.open(out) as picture:
        assert picture.size == (told["width"], told["height"])
        assert picture.n_frames == told["frames"]  # type: ignore[attr-defined]


@pytest.mark.long
def test_what_moves_is_watched_and_a_limit_that_cannot_be_met_says_what_would_help(
    run_capturing: RunCommand, tmp_path: Path
) -> None:
    out = tmp_path / "clip.gif"
    with plain_site(PAGES) as pages:
        wanted = ["clip", f"{pages}/moving", "--seconds", "1", "--rate", "6", "--out", str(out)]
        run = run_capturing(*wanted, "--limit", "600")
    assert run.returncode == 3, run.stderr
    assert "would do for all 1.0 s" in run.stdout + run.stderr


@pytest.mark.long
def test_a_cut_says_which_part_is_seen_and_what_is_hidden(run_capturing: RunCommand, tmp_path: Path) -> None:
    out, cut = tmp_path / "clip.gif", tmp_path / "cut.json"
    area = {"x_px": 100, "y_px": 0, "width_px": 200, "height_px": 100}
    cut.write_text(json.dumps({"version": 1, "frame": area, "hidden": [{**area, "colour": "#00AA00"}]}))
    with plain_site(PAGES) as pages:
        wanted = ["clip", f"{pages}/moving", "--seconds", "0.5", "--rate", "4", "--out", str(out)]
        run = run_capturing(*wanted, "--limit", "100kB", "--cut", str(cut))
    assert run.returncode == 0, run.stderr
    with Image.open(out) as picture:
        assert picture.size == (200, 100)
        assert picture.convert("RGB").getpixel((100, 50)) == (0, 0xAA, 0)


@pytest.mark.parametrize(
    ("options", "code", "words"),
    [
        (["--out", "clip.bmp", "--limit", "1kB"], 2, "not a format of clips"),
        (["--out", "clip.gif", "--limit", "1kB", "--scroll", "up"], 2, "from where to where"),
        (["--out", "clip.gif", "--limit", "1kB", "--seconds", "3", "--scroll", "0-"], 2, "Ask for one"),
        (["--out", "clip.gif", "--limit", "1kB", "--seconds", "300"], 2, "at most 60 s"),
        (["--out", "clip.gif", "--limit", "many"], 2, "not a size"),
        (["--out", "clip.gif", "--limit", "1kB", "--cut", "none.json"], 2, "cannot be read"),
        (["--out", "nowhere/clip.gif", "--limit", "1kB"], 1, "no folder"),
    ],
)
def test_what_makes_no_sense_is_told_before_a_browser_is_started(
    options: list[str], code: int, words: str, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.chdir(tmp_path)
    run = run_command("clip", "http://127.0.0.1:9/", *options)
    assert run.returncode == code, run.stderr
    assert words in run.stdout + run.stderr
