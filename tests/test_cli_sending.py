"""Mail and uploads by the command line."""

import subprocess
import sys
import threading
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from typer.testing import CliRunner

from tallpage.cli import app
from tallpage.core.picture import Raster, encode_jpeg
from tallpage.demo.stand_ins.mail import Letterbox, start_mail_server
from tallpage.demo.stand_ins.publishing import TOKEN, PublishingSite
from tests.command import read_answer
from tests.pictures import text_page
from tests.server.processes import environment, make_home, run_django

_PLACE = """
from tallpage.server.handover.models import UploadPlace
from tallpage.server.outlets.models import Outlet, Slot
from tallpage.server.signins.encryption import seal
outlet = Outlet.objects.create(name="Harbour News")
Slot.objects.create(outlet=outlet, name="Notice", width_px=400, limit_bytes=90_000, formats=["jpeg"])
sealed = seal({{"secret": {token!r}}})
UploadPlace.objects.create(outlet=outlet, kind="form", address={address!r}, sealed=sealed)
"""


@pytest.fixture
def picture(tmp_path: Path) -> Path:
    file = tmp_path / "fares.jpg"
    file.write_bytes(encode_jpeg(Raster.from_rows(text_page(400, 200)), quality=70, subsample=False))
    return file


@pytest.fixture
def publishing(tmp_path: Path) -> Iterator[PublishingSite]:
    server = PublishingSite(0, tmp_path / "published")
    threading.Thread(target=server.serve_forever, daemon=True).start()
    yield server
    server.shutdown()
    server.server_close()


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


def test_pictures_are_uploaded_once_and_only_those_that_fit(
    picture: Path, publishing: PublishingSite, tmp_path: Path
) -> None:
    home = tmp_path / "home"
    home.mkdir()
    make_home(home)
    address = f"http://127.0.0.1:{publishing.server_port}/media"
    run_django(_PLACE.format(address=address, token=TOKEN), environment(home))

    def run(*arguments: str) -> Any:
        command = [sys.executable, "-m", "tallpage", "upload", *arguments]
        return subprocess.run(command, env=environment(home), capture_output=True, text=True, check=False)

    told = [
        read_answer("upload", run(str(picture), "--outlet", "harbour news", "--json").stdout)["files"][0]
        for _ in range(2)
    ]
    assert [row["was_there"] for row in told] == [False, True]
    assert told[0]["address"] == told[1]["address"] == f"{address}/fares.jpg"
    assert [path.read_bytes() for path in publishing.published] == [picture.read_bytes()]
    wide = tmp_path / "wide.jpg"
    wide.write_bytes(encode_jpeg(Raster.from_rows(text_page(500, 100)), quality=70, subsample=False))
    refused = run(str(wide), "--outlet", "Harbour News")
    assert refused.returncode == 1
    assert "it is 500 px wide, and Harbour News: Notice takes 400." in refused.stderr
    assert "has an upload" in run(str(picture), "--outlet", "Nowhere").stderr
