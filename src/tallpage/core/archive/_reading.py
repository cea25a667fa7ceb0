"""An archive from outside: nothing in it is trusted. What is unpacked has been read and decoded."""

from __future__ import annotations

import gzip
import io
import json
import zipfile
import zlib
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from types import TracebackType
from typing import Self

from pydantic import ValidationError

from tallpage.core.archive._names import (
    ARCHIVE_VERSION,
    BESIDE_STRIPS,
    CONTENTS,
    MOST_JSON_BYTES,
    MOST_STRIP_BYTES,
    STRIP,
    capture_folder,
    cut_file,
)
from tallpage.core.archive.models import ArchiveFile, CaptureEntry
from tallpage.core.errors import ArchiveError, PictureError
from tallpage.core.files import write_whole
from tallpage.core.page_map import PageMap
from tallpage.core.page_words import PageWords
from tallpage.core.picture import MAX_PICTURE_PIXELS, MAX_STRIP_HEIGHT_PX, StripManifest, open_file

_MOST_FILES = 400_000


class Archive:
    """An archive that is open for reading; a context manager."""

    def __init__(self, path: Path) -> None:
        """Read what it says that it holds.

        Raises:
            ArchiveError: it is no archive of ours, of a newer version, damaged, or says the impossible.
        """
        with _damage("The archive"):
            self._zip = zipfile.ZipFile(path)
        try:
            self._contents = self._read_contents()
        except BaseException:
            self._zip.close()
            raise

    def __enter__(self) -> Self:
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        self._zip.close()

    @property
    def id(self) -> str:
        """Its own, the same wherever it is brought in."""
        return self._contents.id

    @property
    def captures(self) -> list[CaptureEntry]:
        """What it says of its captures; the first is number 1."""
        return self._contents.captures

    def unpack(self, number: int, folder: Path) -> StripManifest:
        """Write the strips of a capture, and what its page said, into an empty folder.

        Every strip has been decoded to its last row, and what the page said has been read.

        Raises:
            ArchiveError: something of the capture is missing, damaged or not what is said of it.
            StorageError: it cannot be written; the folder holds a part of it.
        """
        name = self.captures[number - 1].name
        inside = capture_folder(number)
        with _damage(f"“{name}” in the archive"):
            write_whole(folder / "manifest.json", self._json(f"{inside}/manifest.json"))
            manifest = _checked(StripManifest.load(folder), name)
            for strip in manifest.strips:
                self._copy(f"{inside}/{strip.file}", folder / strip.file, MOST_STRIP_BYTES)
                _decode(folder / strip.file, manifest.width_px, strip.height_px)
            for beside in BESIDE_STRIPS:
                if f"{inside}/{beside}" in self._zip.NameToInfo:
                    self._copy(f"{inside}/{beside}", folder / beside, MOST_JSON_BYTES)
            _read_what_the_page_said(folder)
        return manifest

    def cut(self, number: int, cut_number: int) -> bytes:
        """The file of a cut, both counted from 1; not looked into.

        Raises:
            ArchiveError: it is missing or damaged.
        """
        with _damage(f"A cut of “{self.captures[number - 1].name}” in the archive"):
            return self._json(cut_file(number, cut_number))

    def _read_contents(self) -> ArchiveFile:
        with _damage("The archive"):
            if CONTENTS not in self._zip.NameToInfo:
                raise ArchiveError("This ZIP is no archive of captures.")
            if len(self._zip.namelist()) > _MOST_FILES:
                raise ArchiveError("The archive holds far more files than captures have.")
            said = json.loads(self._json(CONTENTS))
            version = said.get("tall_page_archive") if isinstance(said, dict) else None
            if isinstance(version, int) and version > ARCHIVE_VERSION:
                raise ArchiveError(
                    f"The archive is of version {version}; this program reads up to {ARCHIVE_VERSION}.",
                    hint="Bring it in with the program that wrote it, or a newer one than this.",
                    code="archive_too_new",
                )
            return ArchiveFile.model_validate(said)

    def _json(self, name: str) -> bytes:
        buffer = io.BytesIO()
        for piece in self._pieces(name, MOST_JSON_BYTES):
            buffer.write(piece)
        return buffer.getvalue()

    def _copy(self, name: str, target: Path, most: int) -> None:
        write_whole(target, self._pieces(name, most))

    def _pieces(self, name: str, most: int) -> Iterator[bytes]:
        read = 0
        with self._zip.open(name) as stream:
            while piece := stream.read(256_000):
                read += len(piece)
                if read > most:
                    raise ArchiveError(f"“{name}” in the archive is larger than such a file can be.")
                yield piece


def _checked(manifest: StripManifest, name: str) -> StripManifest:
    """A manifest whose strips lie one under the other and are called as strips are.

    Raises:
        ArchiveError: they do not.
    """
    top_px = 0
    most_px = MAX_STRIP_HEIGHT_PX
    for strip in manifest.strips:
        if not STRIP.fullmatch(strip.file) or strip.top_px != top_px or not 0 < strip.height_px <= most_px:
            raise ArchiveError(f"The strips of “{name}” in the archive do not fit together.")
        top_px += strip.height_px
    pixels = manifest.width_px * manifest.height_px
    if not manifest.strips or top_px != manifest.height_px or not 0 < pixels <= MAX_PICTURE_PIXELS:
        raise ArchiveError(f"The strips of “{name}” in the archive do not fit together.")
    return manifest


def _decode(file: Path, width_px: int, height_px: int) -> None:
    picture = open_file(file, access="sequential")
    size = picture.size
    if (size.width_px, size.height_px) != (width_px, height_px):
        raise ArchiveError(f"A strip in the archive is not {width_px} × {height_px} px.")
    picture.require_whole()


def _read_what_the_page_said(folder: Path) -> None:
    words = folder / "words.json.gz"
    if words.exists():
        with gzip.open(words) as stream:
            if len(stream.read(MOST_JSON_BYTES + 1)) > MOST_JSON_BYTES:
                raise ArchiveError("The words of a page in the archive are more than any page has.")
    PageWords.load(folder)
    PageMap.load(folder)
    report = folder / "report.json"
    if report.exists():
        json.loads(report.read_bytes())


@contextmanager
def _damage(what: str) -> Iterator[None]:
    """What is wrong with a ZIP, its JSON or its pictures, told of what it was found in."""
    try:
        yield
    except PictureError as error:
        raise ArchiveError(f"{what}: {error.sentence}") from error
    except ValidationError as error:
        first = error.errors()[0]
        place = ".".join(str(part) for part in first["loc"])
        raise ArchiveError(f"{what} says something that is not known, at {place}: {first['msg']}.") from error
    except KeyError as error:
        raise ArchiveError(f"{what} lacks a file: {error.args[0]}.") from error
    except (
        zipfile.BadZipFile,
        zlib.error,
        gzip.BadGzipFile,
        EOFError,
        NotImplementedError,  # a compression that is not known
        RecursionError,
        RuntimeError,  # a password would be needed
        TypeError,
        ValueError,
    ) as error:
        raise ArchiveError(f"{what} is damaged or incomplete.") from error
