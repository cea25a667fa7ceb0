"""Packages through every channel: the same files arrive, each whole, in order."""

import io
import json
import zipfile
from collections.abc import Iterator
from pathlib import Path

import pytest

from tallpage.core.errors import StorageError
from tallpage.core.handover import (
    FileChannel,
    FolderChannel,
    Item,
    ManifestRow,
    MemoryChannel,
    ZipChannel,
    with_manifest,
)


def _row(path: str, **more: object) -> ManifestRow:
    return ManifestRow(address="https://skerrin.example/", file=path, **more)  # type: ignore[arg-type]


def _entries() -> Iterator[Item | ManifestRow]:
    yield Item(path="news/one.png", data=b"first", facts=_row("news/one.png", width_px=720))
    yield _row("", error="It could not be taken.")
    yield Item(path="two.jpg", data=iter([b"sec", b"ond"]), facts=_row("two.jpg"))
    yield Item(path="contact-sheet.html", data=b"<p>")


def test_the_manifest_has_a_row_for_each_picture_and_each_thing_without_one() -> None:
    files = MemoryChannel().send(with_manifest(_entries()))
    assert list(files) == ["news/one.png", "two.jpg", "contact-sheet.html", "manifest.json", "manifest.csv"]
    rows = json.loads(files["manifest.json"])
    assert [(row["file"], row["error"]) for row in rows] == [
        ("news/one.png", ""),
        ("", "It could not be taken."),
        ("two.jpg", ""),
    ]
    assert len(files["manifest.csv"].decode("utf-8-sig").splitlines()) == 4


def test_zip_and_folder_hold_what_the_package_holds(tmp_path: Path) -> None:
    expected = MemoryChannel().send(with_manifest(_entries()))
    packed = io.BytesIO(b"".join(ZipChannel().send(with_manifest(_entries()))))
    with zipfile.ZipFile(packed) as archive:
        assert {name: archive.read(name) for name in archive.namelist()} == expected
    folder = FolderChannel(tmp_path / "out").send(with_manifest(_entries()))
    files = [path for path in folder.rglob("*") if path.is_file()]
    assert {str(path.relative_to(folder)): path.read_bytes() for path in files} == expected


def test_a_zip_is_made_while_it_is_read() -> None:
    read = []

    def items() -> Iterator[Item]:
        for number in range(3):
            read.append(number)
            yield Item(path=f"{number}.png", data=bytes(1_000_000))

    stream = ZipChannel().send(items())
    next(stream)
    assert read == [0]


def test_one_file_goes_by_itself_and_several_as_an_archive() -> None:
    one = Item(path="page.png", data=b"pixels", media_type="image/png")
    assert FileChannel("all.zip").send([one]) is one
    several = FileChannel("all.zip").send([one, Item(path="page-2.png", data=b"more")])
    assert (several.path, several.media_type) == ("all.zip", "application/zip")
    with zipfile.ZipFile(io.BytesIO(b"".join(several.pieces()))) as archive:
        assert archive.namelist() == ["page.png", "page-2.png"]


def test_a_folder_that_is_stopped_or_cannot_be_written_keeps_what_is_there(tmp_path: Path) -> None:
    class Enough(Exception):
        pass

    def on_item(number: int) -> None:
        if number == 1:
            raise Enough

    with pytest.raises(Enough):
        FolderChannel(tmp_path / "out", on_item=on_item).send(with_manifest(_entries()))
    assert [path.name for path in (tmp_path / "out").rglob("*.*")] == ["one.png"]
    (tmp_path / "file").write_text("in the way")
    with pytest.raises(StorageError):
        FolderChannel(tmp_path / "file").send(with_manifest(_entries()))
