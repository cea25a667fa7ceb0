import errno
import os
from pathlib import Path

import pytest

from tallpage.core.errors import StorageError
from tallpage.core.files import move_folder_whole, write_whole


def test_a_file_is_replaced_as_a_whole(tmp_path: Path) -> None:
    path = tmp_path / "a.png"
    write_whole(path, b"old")
    write_whole(path, b"newer")
    assert path.read_bytes() == b"newer"
    assert [row.name for row in tmp_path.iterdir()] == ["a.png"]


def test_a_full_disk_leaves_what_was_there(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    path = tmp_path / "a.png"
    write_whole(path, b"old")

    def full(_handle: int) -> None:
        raise OSError(errno.ENOSPC, "No space left on device")

    monkeypatch.setattr(os, "fsync", full)
    with pytest.raises(StorageError) as refused:
        write_whole(path, b"new")
    assert refused.value.code == "storage_full"
    assert path.read_bytes() == b"old"
    assert [row.name for row in tmp_path.iterdir()] == ["a.png"]


def test_a_folder_that_cannot_be_written_is_named(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    def denied(*_args: object, **_options: object) -> None:
        raise PermissionError(errno.EACCES, "Permission denied")

    monkeypatch.setattr("tempfile.mkstemp", denied)
    with pytest.raises(StorageError) as refused:
        write_whole(tmp_path / "a.png", b"x")
    assert refused.value.folder == tmp_path
    assert str(tmp_path) not in refused.value.sentence


def test_a_finished_folder_gets_its_name_with_everything_in_it(tmp_path: Path) -> None:
    (tmp_path / "incoming").mkdir()
    (tmp_path / "incoming" / "0000.png").write_bytes(b"x")
    move_folder_whole(tmp_path / "incoming", tmp_path / "captures" / "key")
    assert (tmp_path / "captures" / "key" / "0000.png").read_bytes() == b"x"
    assert not (tmp_path / "incoming").exists()
