"""Uploads by the command line, to the place that an outlet names."""

from pathlib import Path

from tallpage.core.picture import Raster, encode_jpeg
from tallpage.demo.stand_ins.publishing import TOKEN, PublishingSite
from tallpage.server.handover.models import UploadPlace
from tallpage.server.outlets.models import Outlet, Slot
from tallpage.server.signins.encryption import seal
from tests.command import run_command
from tests.pictures import text_page


def _picture(file: Path, width_px: int) -> Path:
    page = Raster.from_rows(text_page(width_px, 200))
    file.write_bytes(encode_jpeg(page, quality=70, subsample=False))
    return file


def test_pictures_are_uploaded_once_and_only_those_that_fit(
    transactional_db: None, publishing: PublishingSite, tmp_path: Path
) -> None:
    address = f"http://127.0.0.1:{publishing.server_port}/media"
    outlet = Outlet.objects.create(name="Harbour News")
    Slot.objects.create(outlet=outlet, name="Notice", width_px=400, limit_bytes=90_000, formats=["jpeg"])
    UploadPlace.objects.create(outlet=outlet, kind="form", address=address, sealed=seal({"secret": TOKEN}))
    picture = _picture(tmp_path / "fares.jpg", 400)

    order = ("upload", str(picture), "--outlet", "harbour news", "--json")
    told = [run_command(*order).answer()["files"][0] for _ in range(2)]
    assert [row["was_there"] for row in told] == [False, True]
    assert told[0]["address"] == told[1]["address"] == f"{address}/fares.jpg"
    assert [path.read_bytes() for path in publishing.published] == [picture.read_bytes()]

    refused = run_command("upload", str(_picture(tmp_path / "wide.jpg", 500)), "--outlet", "Harbour News")
    assert refused.returncode == 1
    assert "it is 500 px wide, and Harbour News: Notice takes 400." in refused.stderr
    assert "has an upload" in run_command("upload", str(picture), "--outlet", "Nowhere").stderr
