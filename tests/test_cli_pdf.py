"""PDFs by the command line."""

import json
from pathlib import Path
from typing import Any

import pypdfium2
import pytest
from typer.testing import CliRunner

from tallpage.cli import app
from tests.command import RunCommand
from tests.pictures import as_png, photograph, text_page


@pytest.fixture(scope="module")
def folder(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A folder as a sweep leaves it, and a picture beside it."""
    made = tmp_path_factory.mktemp("files")
    (made / "swept" / "pages").mkdir(parents=True)
    (made / "swept" / "pages" / "fares.png").write_bytes(as_png(text_page(300, 500)))
    rows = [
        {"file": "pages/fares.png", "title": "Fares", "address": "http://skerrin.example/fares"},
        {"file": "", "title": "", "address": "http://skerrin.example/gone"},
    ]
    (made / "swept" / "manifest.json").write_text(json.dumps(rows))
    (made / "ferry.png").write_bytes(as_png(photograph(400, 300)))
    return made


def _run(*arguments: object) -> Any:
    return CliRunner().invoke(app, ["pdf", *map(str, arguments)])


def _pages(file: Path) -> list[str]:
    with pypdfium2.PdfDocument(file) as document:
        return [page.get_textpage().get_text_bounded() for page in document]


@pytest.mark.long
def test_a_page_a_picture_and_a_sweep_become_one_document(
    run_capturing: RunCommand, site: str, folder: Path, tmp_path: Path
) -> None:
    out = tmp_path / "all.pdf"
    run = run_capturing(
        "pdf", f"{site}/offices", str(folder / "ferry.png"), str(folder / "swept"), "--out", str(out),
        "--paper", "A4", "--caption", "{title} – {address}", "--json",
    )  # fmt: skip
    assert run.returncode == 0, run.stderr
    facts = run.answer()
    pages = _pages(out)
    assert (facts["sheets"], facts["bytes"], facts["met"]) == (len(pages), out.stat().st_size, True)
    assert "hello@skerrin-ferries.example" in pages[0]
    assert "ferry" in pages[-2]
    assert "Fares – http://skerrin.example/fares" in pages[-1]


def test_a_limit_that_cannot_be_kept_is_told_by_the_exit_code(folder: Path, tmp_path: Path) -> None:
    run = _run(folder / "ferry.png", "--out", tmp_path / "ferry.pdf", "--limit", "2kB")
    assert run.exit_code == 3
    assert "as light as it gets; 2.0 kB were asked for" in run.output


@pytest.mark.parametrize(
    ("arguments", "said", "code"),
    [
        (("none.png",), "There is no picture", 1),
        (("ferry.png", "--paper", "B9"), "is no paper", 2),
        (("ferry.png", "--caption", "{pier}"), "there is no field {pier}", 2),
        (("ferry.png", "--limit", "none"), "is not a size in bytes", 2),
        ((".",), "holds no manifest.json", 2),
    ],
)
def test_what_is_wrong_is_said_in_a_line(
    folder: Path, tmp_path: Path, arguments: tuple[str, ...], said: str, code: int
) -> None:
    run = _run(folder / arguments[0], *arguments[1:], "--out", tmp_path / "out.pdf")
    assert run.exit_code == code
    assert said in run.output
    assert run.output.count("\n") == 1
    assert not (tmp_path / "out.pdf").exists()


def test_a_manifest_that_names_a_file_elsewhere_is_refused(folder: Path, tmp_path: Path) -> None:
    rows = [{"file": "../ferry.png", "title": "", "address": ""}]
    (tmp_path / "manifest.json").write_text(json.dumps(rows))
    run = _run(tmp_path, "--out", tmp_path / "out.pdf")
    assert run.exit_code == 2
    assert "names a file elsewhere" in run.output
