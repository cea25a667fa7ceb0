import json
import os
import subprocess
import sys
from pathlib import Path

import numpy as np
import pytest
from typer.testing import CliRunner

from tallpage.cli import COMMANDS, app
from tests.command import RunCommand, run_command
from tests.pictures import as_png, decoded, noise, photograph, text_page


def test_capture_writes_one_png_and_says_what_it_is(
    run_capturing: RunCommand, site: str, tmp_path: Path
) -> None:
    out = tmp_path / "home.png"
    run = run_capturing(
        "capture", f"{site}/", "--out", str(out), "--width", "800", "--height", "600", "--json"
    )
    assert run.returncode == 0
    assert run.stderr == ""
    facts = run.answer()
    assert set(facts) == {
        "url", "final_url", "title", "status", "width", "height", "scale", "file", "bytes", "truncated",
        "whole", "lacking", "left_out", "warnings", "seconds",
    }  # fmt: skip
    pixels = decoded(out.read_bytes())
    assert pixels.shape == (facts["height"], facts["width"], 3)
    assert facts["width"] == 800
    assert facts["bytes"] == out.stat().st_size
    assert (facts["status"], facts["file"], facts["truncated"]) == (200, str(out), False)
    assert (facts["whole"], facts["lacking"]) == (True, [])


@pytest.mark.long
def test_a_series_is_numbered_and_spread_over_time(
    run_capturing: RunCommand, site: str, tmp_path: Path
) -> None:
    said = ("--width", "400", "--count", "2", "--every", "0.1", "--json")
    run = run_capturing("capture", f"{site}/notices/3", "--out", str(tmp_path / "pier.png"), *said)
    assert run.returncode == 0, run.stderr
    pictures = run.answer()["pictures"]
    assert [Path(row["file"]).name for row in pictures] == ["pier-1.png", "pier-2.png"]
    assert [row["bytes"] for row in pictures] == [Path(row["file"]).stat().st_size for row in pictures]
    alone = run_capturing("capture", f"{site}/", "--out", str(tmp_path / "alone.png"), "--every", "5")
    assert alone.returncode == 1
    assert "Give --count too" in alone.stderr


def test_a_page_that_is_not_whole_says_what_it_lacks(
    run_capturing: RunCommand, site: str, tmp_path: Path
) -> None:
    run = run_capturing("capture", f"{site}/departures", "--out", str(tmp_path / "board.png"), "--json")
    facts = run.answer()
    assert not facts["whole"]
    assert facts["lacking"][0]["why"] == "panel"
    assert facts["warnings"][0].startswith("Not whole")


@pytest.mark.parametrize("seconds", ["59", "301"])
def test_more_time_than_can_be_given_is_refused(seconds: str, site: str, tmp_path: Path) -> None:
    out = tmp_path / "home.png"
    run = run_command("capture", f"{site}/", "--out", str(out), "--busy", seconds)
    assert run.returncode == 1
    assert "Give 60 to 300 s" in run.stderr
    assert not out.exists()


def test_a_page_that_cannot_be_taken_is_one_line_and_exit_1(
    run_capturing: RunCommand, tmp_path: Path, closed_port: int
) -> None:
    out = tmp_path / "never.png"
    run = run_capturing("capture", f"http://127.0.0.1:{closed_port}/", "--out", str(out), "--json")
    assert run.returncode == 1
    assert run.stdout == ""
    assert len(run.stderr.strip().splitlines()) == 1
    assert f"127.0.0.1:{closed_port} refused" in run.stderr
    assert not out.exists()


@pytest.mark.parametrize(
    "arguments",
    [
        ("capture",),
        ("capture", "file:///etc/passwd", "--out", "x.png"),
        ("capture", "http://a.example/", "--out", "x.png", "--scale", "9"),
        ("capture", "http://a.example/", "--out", "x.png", "--extent", "half"),
        ("fit", "in.png", "--width", "0", "--limit", "9kB", "--out", "x"),
        ("fit", "in.png", "--width", "10000000", "--limit", "9kB", "--out", "x"),
        ("fit", "in.png", "--width", "100", "--limit", "0", "--out", "x"),
        ("fit", "in.png", "--width", "100", "--limit", "9 apples", "--out", "x"),
        ("fit", "in.png", "--width", "100", "--limit", "9kB", "--formats", "bmp", "--out", "x"),
        ("nonsense",),
    ],
)
def test_wrong_usage_is_exit_2_and_writes_nothing(
    arguments: tuple[str, ...], tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.chdir(tmp_path)
    (tmp_path / "in.png").write_bytes(as_png(photograph(60, 40)))
    run = run_command(*arguments)
    assert run.returncode == 2
    assert run.stderr
    assert [row.name for row in tmp_path.iterdir()] == ["in.png"]


def test_fit_writes_the_best_file_under_the_limit(tmp_path: Path) -> None:
    source = tmp_path / "in.png"
    source.write_bytes(as_png(photograph(400, 300)))
    out = tmp_path / "v1.2 final"
    run = run_command("fit", str(source), "--width", "200", "--limit", "9kB", "--out", str(out), "--json")
    assert run.returncode == 0
    facts = run.answer()
    keys = {
        "file",
        "format",
        "width",
        "height",
        "bytes",
        "limit",
        "quality",
        "score",
        "met",
        "seconds",
        "tries",
    }
    assert keys <= set(facts)
    file = Path(facts["file"])
    assert file.parent == tmp_path
    assert file.name.startswith("v1.2 final.")
    assert facts["bytes"] == file.stat().st_size <= facts["limit"] == 9_000
    assert decoded(file.read_bytes()).shape == (150, 200, 3)
    assert facts["met"] is True
    assert 50 <= facts["score"] <= 100


@pytest.mark.parametrize(
    ("asked", "shape"),
    [
        (["--height", "30"], (30, 40, 3)),
        (["--width", "30", "--height", "30"], (30, 30, 3)),
        (["--width", "30", "--height", "30", "--pad"], (30, 30, 3)),
        (["--percent", "50"], (30, 40, 3)),
        (["--width", "160"], (60, 80, 3)),
        (["--width", "160", "--enlarge"], (120, 160, 3)),
        ([], (60, 80, 3)),
    ],
)
def test_fit_sizes_by_width_height_box_or_share(
    asked: list[str], shape: tuple[int, int, int], tmp_path: Path
) -> None:
    source = tmp_path / "in.png"
    source.write_bytes(as_png(photograph(80, 60)))
    run = run_command("fit", str(source), *asked, "--limit", "30kB", "--out", str(tmp_path / "x"), "--json")
    facts = run.answer()
    assert decoded(Path(facts["file"]).read_bytes()).shape == shape
    assert (facts["height"], facts["width"]) == shape[:2]
    assert facts["kept_small"] is (asked == ["--width", "160"])


def test_a_limit_that_cannot_be_met_is_exit_3_with_what_would_help(tmp_path: Path) -> None:
    source = tmp_path / "in.png"
    source.write_bytes(as_png(noise(300, 300)))
    run = run_command(
        "fit", str(source), "--limit", "1kB", "--formats", "jpeg", "--out", str(tmp_path / "x"), "--json"
    )
    assert run.returncode == 3
    facts = run.answer()
    assert facts["met"] is False
    assert facts["file"] is None or facts["bytes"] <= 1_000
    assert {row["kind"] for row in facts["advice"]} >= {"limit"}


@pytest.mark.parametrize("content", [b"", b"not a picture", as_png(photograph(90, 60))[:3_000]])
def test_a_picture_that_cannot_be_read_is_exit_1(content: bytes, tmp_path: Path) -> None:
    source = tmp_path / "in.png"
    source.write_bytes(content)
    run = run_command("fit", str(source), "--width", "50", "--limit", "9kB", "--out", str(tmp_path / "x"))
    assert run.returncode == 1
    assert len(run.stderr.strip().splitlines()) == 1
    assert [row.name for row in tmp_path.iterdir()] == ["in.png"]


def test_help_names_every_command() -> None:
    text = run_command("--help").stdout
    assert all(command in text for command in ("capture", "fit", "serve"))


def test_the_list_of_commands_says_what_each_says_of_itself() -> None:
    listed = CliRunner().invoke(app, ["--help"]).stdout
    for name, words in COMMANDS.items():
        assert words.split()[0] in listed
        own = CliRunner().invoke(app, [name, "--help"]).stdout
        assert " ".join(words.split()) in " ".join(own.split())


def test_help_loads_neither_pictures_nor_browser() -> None:
    code = "import sys; from tallpage.cli import app; app(['--help'], standalone_mode=False); "
    code += "print([name for name in ('numpy', 'pyvips', 'playwright', 'django') if name in sys.modules])"
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert done.stdout.rstrip().endswith("[]")


def _completed(words: str) -> list[str]:
    """What a shell offers after some words, and which of the large libraries that loads."""
    code = (
        "import sys; from tallpage.cli import app\ntry: app(prog_name='tallpage')\nexcept SystemExit: pass\n"
    )
    code += "print(*(name for name in ('numpy', 'pyvips', 'playwright', 'django') if name in sys.modules))"
    asked = {"_TALLPAGE_COMPLETE": "complete_bash", "COMP_WORDS": words, "COMP_CWORD": str(words.count(" "))}
    command = [sys.executable, "-c", code]
    done = subprocess.run(command, env={**os.environ, **asked}, capture_output=True, text=True, check=True)
    return done.stdout.split()


def test_a_shell_completes_commands_without_loading_them_and_their_options() -> None:
    assert _completed("tallpage s") == ["snippet", "sweep", "serve", "send"]
    assert "--formats" in _completed("tallpage fit --fo")
    assert "--install-completion" in _completed("tallpage --in")


def _page_and_cut(tmp_path: Path) -> tuple[Path, Path, np.ndarray]:
    """A tall picture, and the cut of a part of it with a fold."""
    page = np.vstack([text_page(300, 700, seed=seed) for seed in range(3)])
    source, cut = tmp_path / "page.png", tmp_path / "cut.json"
    source.write_bytes(as_png(page))
    frame = {"x_px": 20, "y_px": 100, "width_px": 250, "height_px": 1_500}
    folds = [{"top_px": 400, "height_px": 300}]
    cut.write_text(json.dumps({"version": 1, "frame": {**frame, "folds": folds}}))
    return source, cut, np.vstack([page[100:400, 20:270], page[700:1_600, 20:270]])


def test_fit_frames_and_folds_by_the_file_of_a_cut(tmp_path: Path) -> None:
    source, cut, shown = _page_and_cut(tmp_path)
    out = tmp_path / "part"
    run = run_command(
        "fit", str(source), "--cut", str(cut), "--limit", "9MB", "--formats", "png", "--out", str(out)
    )
    assert run.returncode == 0, run.stderr
    assert (decoded(out.with_suffix(".png").read_bytes()) == shown).all()


def test_fit_divides_into_leaves_that_show_everything_once(tmp_path: Path) -> None:
    source, cut, shown = _page_and_cut(tmp_path)
    asked = ["--cut", str(cut), "--greatest-height", "500", "--limit", "9MB", "--formats", "png", "--json"]
    facts = run_command("fit", str(source), *asked, "--out", str(tmp_path / "part")).answer()
    files = [Path(leaf["file"]) for leaf in facts["leaves"]]
    assert [file.name for file in files] == [
        f"part-{n}-of-{len(files)}.png" for n in range(1, len(files) + 1)
    ]
    assert all(leaf["height"] <= 500 for leaf in facts["leaves"])
    assert (np.vstack([decoded(file.read_bytes()) for file in files]) == shown).all()


@pytest.mark.parametrize(
    ("content", "code", "word"),
    [
        (
            '{"version": 1, "frame": {"x_px": 0, "y_px": 0, "width_px": 9, "height_px": 9}, "tone": 1}',
            2,
            "tone",
        ),
        ('{"version": 7}', 2, "version 7"),
        (None, 2, "cannot be read"),
        (
            '{"version": 1, "frame": {"x_px": 0, "y_px": 0, "width_px": 900, "height_px": 9}}',
            1,
            "does not lie",
        ),
    ],
)
def test_a_cut_that_is_not_known_or_does_not_lie_on_the_picture_is_refused(
    content: str | None, code: int, word: str, tmp_path: Path
) -> None:
    source, _, _ = _page_and_cut(tmp_path)
    cut = tmp_path / "other.json"
    if content is not None:
        cut.write_text(content)
    run = run_command("fit", str(source), "--cut", str(cut), "--limit", "9kB", "--out", str(tmp_path / "x"))
    assert (run.returncode, len(run.stderr.splitlines())) == (code, 1)
    assert word in run.stderr


def test_pictures_go_through_pipes_and_what_is_told_goes_beside() -> None:
    page = text_page(400, 600)
    command = [sys.executable, "-m", "tallpage", "cut", "-", "--box", "0,0,200,300", "--out", "-"]
    part = subprocess.run(command, input=as_png(page), capture_output=True, check=True)
    assert np.array_equal(decoded(part.stdout), page[:300, :200])
    assert b"200 \xc3\x97 300 px" in part.stderr
    words = ("fit", "-", "--limit", "20kB", "--width", "100", "--formats", "png", "--out", "-", "--json")
    fitted = run_command(*words, stdin=part.stdout)
    assert fitted.returncode == 0
    assert decoded(fitted.printed).shape == (150, 100, 3)
    told = json.loads(fitted.stderr)
    assert (told["file"], told["bytes"]) == ("-", len(fitted.printed))


def test_what_does_not_go_through_a_pipe_is_refused() -> None:
    tall = as_png(text_page(200, 900))
    leaves = run_command("fit", "-", "--limit", "90kB", "--leaves", "2", "--out", "-", stdin=tall)
    assert (leaves.returncode, leaves.printed) == (2, b"")
    assert "2 files cannot leave by standard output" in leaves.stderr
    nothing = run_command("fit", "-", "--limit", "90kB", "--out", "-")
    assert (nothing.returncode, nothing.printed) == (1, b"")
    series = run_command("capture", "skerrin.example", "--count", "2", "--out", "-")
    assert series.returncode == 1
    assert "Several pictures cannot leave by standard output" in series.stderr
