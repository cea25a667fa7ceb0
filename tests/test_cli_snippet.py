"""Snippets by the command line."""

from pathlib import Path
from typing import Any

import pytest
from typer.testing import CliRunner

from tallpage.cli import app
from tallpage.core.picture import Raster, encode_jpeg, encode_webp
from tests.pictures import as_png, text_page


@pytest.fixture(scope="module")
def folder(tmp_path_factory: pytest.TempPathFactory) -> Path:
    made = tmp_path_factory.mktemp("files")
    wide, narrow = text_page(400, 200), text_page(200, 100)
    (made / "ferry-400.jpg").write_bytes(encode_jpeg(Raster.from_rows(wide), quality=80, subsample=False))
    (made / "ferry-200.jpg").write_bytes(encode_jpeg(Raster.from_rows(narrow), quality=80, subsample=False))
    (made / "ferry-400.webp").write_bytes(encode_webp(Raster.from_rows(wide), quality=80))
    (made / "tall.png").write_bytes(as_png(text_page(200, 400)))
    (made / "ferry.tiff").write_bytes(as_png(narrow))
    return made


def _run(folder: Path, *arguments: str) -> Any:
    files = [str(folder / row) if "." in row and not row.startswith("-") else row for row in arguments]
    return CliRunner().invoke(app, ["snippet", *files])


def test_files_of_one_picture_become_one_snippet(folder: Path) -> None:
    run = _run(
        folder, "ferry-400.jpg", "ferry-200.jpg", "ferry-400.webp", "--alt", "A ferry", "--prefix", "/m/"
    )
    assert run.exit_code == 0, run.output
    assert 'srcset="/m/ferry-200.jpg 200w, /m/ferry-400.jpg 400w"' in run.output
    assert '<source type="image/webp" srcset="/m/ferry-400.webp">' in run.output
    assert 'width="200" height="100" alt="A ferry"' in run.output


def test_markdown_and_a_width_of_ones_own(folder: Path) -> None:
    run = _run(folder, "ferry-400.jpg", "--alt", "A [ferry]", "--markdown")
    assert run.output == "![A \\[ferry\\]](ferry-400.jpg)\n"
    assert 'width="300" height="150"' in _run(folder, "ferry-400.jpg", "--width", "300").output


@pytest.mark.parametrize(
    ("files", "words"),
    [
        (["ferry-400.jpg", "tall.png"], "another shape"),
        (["ferry-400.jpg", "ferry-400.jpg"], "again"),
        (["ferry.tiff"], "says no format"),
        (["gone.png"], "There is no picture"),
    ],
)
def test_what_makes_no_snippet_is_told(folder: Path, files: list[str], words: str) -> None:
    run = _run(folder, *files)
    assert run.exit_code in (1, 2)
    assert words in run.output
