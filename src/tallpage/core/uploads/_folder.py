"""A place that watches a folder of this machine."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

from tallpage.core.files import storage_errors, write_whole
from tallpage.core.uploads._answer import Answer
from tallpage.core.uploads._file import UploadFile


@dataclass(frozen=True, slots=True, kw_only=True)
class FolderTarget:
    """Files appear in a folder, whole, by their names; none that is there is written over."""

    folder: Path

    def put(self, file: UploadFile) -> Answer:
        """Write a file.

        Raises:
            StorageError: the disk is full, or the folder cannot be written.
        """
        place = self.folder / Path(file.name).name
        if place.exists():
            same = place.is_file() and place.read_bytes() == file.data
            return Answer(outcome="accepted" if same else "name_taken", address=str(place), was_there=same)
        with storage_errors(self.folder):
            self.folder.mkdir(parents=True, exist_ok=True)
        write_whole(place, file.data)
        return Answer(outcome="accepted", address=str(place))
