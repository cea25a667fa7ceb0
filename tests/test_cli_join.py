"""Pictures joined by the command line."""

from pathlib import Path

import numpy as np
import pytest
from typer.testing import CliRunner

from tallpage.cli import app
from tests.command import read_answer
from tests.core.stitch.sequences import scrolled, under_header
from tests.pictures import as_png, decoded, text_page

PAGE = text_page(480, 1_800)


def _files(folder: Path, tops_px: list[float]) -> list[str]:
    views = under_header(scrolled(PAGE, tops_px, 400), 40)
    paths = [folder / f"screen {number}.png" for number in range(len(tops_px))]
    for path, view in zip(paths, views.views, strict=True):
        path.write_bytes(as_png(view))
    return [str(path) for path in paths]


def test_pictures_in_any_order_become_one(tmp_path: Path) -> None:
    tops = [500.0, 0.0, 250.0]
    files, out = _files(tmp_path, tops), tmp_path / "page.png"
    run = CliRunner().invoke(app, ["join", *files, "--out", str(out), "--json"])
    assert run.exit_code == 0, run.output
    told = read_answer("join", run.output)
    assert told["order"] == [files[1], files[2], files[0]]
    assert (told["tops"], told["height"], told["missing"]) == ([0, 250, 500], 900, [])
    whole = under_header(scrolled(PAGE, tops, 400), 40).whole
    assert np.array_equal(decoded(out.read_bytes()), whole)
    assert told["bytes"] == out.stat().st_size


def test_a_missing_piece_is_named_and_nothing_is_written(tmp_path: Path) -> None:
    files, out = _files(tmp_path, [0.0, 250.0, 900.0]), tmp_path / "page.png"
    run = CliRunner().invoke(app, ["join", *files, "--out", str(out), "--in-order"])
    assert run.exit_code == 3
    assert f"missing between {files[1]} and {files[2]}: they share too little" in run.output
    assert not out.exists()
    told = CliRunner().invoke(app, ["join", *files, "--out", str(out), "--in-order", "--json"])
    assert read_answer("join", told.output)["missing"] == [
        {"below": files[1], "above": files[2], "why": "nothing_shared"}
    ]


@pytest.mark.parametrize(
    ("sizes", "out", "sentence"),
    [
        ([480], "page.png", "at least 2 pictures"),
        ([480, 300], "page.png", "Picture 2 is 300 px wide and picture 1 480 px"),
        ([480, 480], "page.jpg", "not that of a PNG"),
    ],
)
def test_what_cannot_be_joined_is_said_in_one_line(
    tmp_path: Path, sizes: list[int], out: str, sentence: str
) -> None:
    files = []
    for number, width_px in enumerate(sizes):
        files.append(tmp_path / f"{number}.png")
        files[-1].write_bytes(as_png(text_page(width_px, 200)))
    run = CliRunner().invoke(app, ["join", *map(str, files), "--out", str(tmp_path / out)])
    assert run.exit_code == 2
    assert sentence in run.output
