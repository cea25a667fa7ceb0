"""Ways out: each takes the items of a package, and gives back what has become of them."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from pathlib import Path
from typing import Protocol, TypeVar

from zipstream import ZIP_STORED, ZipStream

from tallpage.core.files import storage_errors, write_whole
from tallpage.core.handover._package import Item

Outcome = TypeVar("Outcome", covariant=True)


class Channel(Protocol[Outcome]):
    """One way out."""

    def send(self, items: Iterable[Item]) -> Outcome:
        """Send everything, in order; an item's data are read before the next is asked for."""


class ZipChannel:
    """A ZIP, made while it is read. Nothing is compressed: pictures are."""

    def send(self, items: Iterable[Item]) -> Iterator[bytes]:
        """The bytes of the archive, piece by piece."""
        stream = ZipStream(compress_type=ZIP_STORED)
        for item in items:
            stream.add(item.pieces(), item.path)
            yield from stream.all_files()
        yield from stream.finalize()


class FolderChannel:
    """A folder on this machine. ``on_item`` hears how many are there, before each, and may raise."""

    def __init__(self, folder: Path, *, on_item: Callable[[int], None] = lambda _: None) -> None:
        self._folder = folder
        self._on_item = on_item

    def send(self, items: Iterable[Item]) -> Path:
        """The folder. Each file appears whole or not at all; what is there stays when the rest fails.

        Raises:
            StorageError: the disk is full or the folder cannot be written.
        """
        for number, item in enumerate(items):
            self._on_item(number)
            target = self._folder / item.path
            with storage_errors(self._folder):
                target.parent.mkdir(parents=True, exist_ok=True)
            write_whole(target, item.pieces())
        return self._folder


class FileChannel:
    """One file by itself; several as a ZIP of the name that is given."""

    def __init__(self, archive_name: str) -> None:
        self._archive_name = archive_name

    def send(self, items: Iterable[Item]) -> Item:
        """The one item, or the archive."""
        everything = list(items)
        if len(everything) == 1:
            return everything[0]
        return Item(path=self._archive_name, data=ZipChannel().send(everything), media_type="application/zip")


class MemoryChannel:
    """Nowhere: what would be sent, by its path. For tests of what goes into a package."""

    def send(self, items: Iterable[Item]) -> dict[str, bytes]:
        """Everything."""
        return {item.path: b"".join(item.pieces()) for item in items}
