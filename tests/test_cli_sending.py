"""Mail by the command line."""

from pathlib import Path

import pytest
from typer.testing import CliRunner

from tallpage.cli import app
from tallpage.core.picture import Raster, encode_jpeg
from tallpage.demo.stand_ins.mail import Letterbox, start_mail_server
from tests.pictures import text_page


@pytest.fixture
def picture(tmp_path: Path) -> Path:
    file = tmp_path / "fares.jpg"
    file.write_bytes(encode_jpeg(Raster.from_rows(text_page(400, 200)), quality=70, subsample=False))
    return file


def test_files_are_sent_by_mail(picture: Path, free_port: int, monkeypatch: pytest.MonkeyPatch) -> None:
    box = Letterbox()
    controller = start_mail_server(free_port, box)
    monkeypatch.setenv("TALLPAGE_MAIL", f"smtp://127.0.0.1:{free_port}")
    monkeypatch.setenv("TALLPAGE_MAIL_FROM", "desk@skerrin.example")
    try:
        run = CliRunner().invoke(app, ["send", str(picture), "--to", "isa@skerrin.example"])
    finally:
        controller.stop()
    assert run.exit_code == 0, run.output
    assert run.output.startswith("1 mail to isa@skerrin.example, ")
    ((number, message),) = box.mails()
    assert (message["Subject"], message["From"]) == ("fares.jpg", "desk@skerrin.example")
    assert box.attachment(number, "fares.jpg") == (picture.read_bytes(), "image/jpeg")


@pytest.mark.parametrize(
    ("server", "to", "said"),
    [
        ("", "isa@skerrin.example", "TALLPAGE_MAIL names no mail server"),
        ("smtp://h", "isa", "is no mail address"),
    ],
)
def test_what_keeps_mail_from_leaving_is_said_in_a_line(
    picture: Path, monkeypatch: pytest.MonkeyPatch, server: str, to: str, said: str
) -> None:
    monkeypatch.setenv("TALLPAGE_MAIL", server)
    run = CliRunner().invoke(app, ["send", str(picture), "--to", to])
    assert run.exit_code == 1
    assert said in run.output
    assert run.output.count("\n") == 1
