"""Captures with their cuts as the items of a package, read from the disk while it is sent."""

from __future__ import annotations

import uuid
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path

from tallpage.core.archive._names import ARCHIVE_VERSION, BESIDE_STRIPS, CONTENTS, capture_folder, cut_file
from tallpage.core.archive.models import ArchiveFile, CaptureEntry, CutEntry
from tallpage.core.handover import Item
from tallpage.core.picture import StripManifest

_PIECE_BYTES = 256_000


@dataclass(frozen=True, slots=True, kw_only=True)
class HeldCut:
    """A cut that goes into an archive: what is said of it, and its file."""

    entry: CutEntry
    file: bytes


@dataclass(frozen=True, slots=True, kw_only=True)
class HeldCapture:
    """A capture that goes into an archive: what is said of it, the folder of its strips, its cuts."""

    entry: CaptureEntry
    folder: Path
    cuts: tuple[HeldCut, ...]


def archive_items(captures: Sequence[HeldCapture], *, made_at: datetime) -> Iterator[Item]:
    """The files of an archive, what it holds first.

    Raises:
        PictureUnreadable: the strips of a capture cannot be found.
    """
    entries = [held.entry.model_copy(update={"cuts": [cut.entry for cut in held.cuts]}) for held in captures]
    contents = ArchiveFile(
        tall_page_archive=ARCHIVE_VERSION, id=uuid.uuid4().hex, made_at=made_at, captures=entries
    )
    yield Item(path=CONTENTS, data=contents.model_dump_json(indent=1).encode(), media_type="application/json")
    for number, held in enumerate(captures, start=1):
        for name in (*_strips(held.folder), *BESIDE_STRIPS):
            file = held.folder / name
            if file.exists():
                media_type = "image/png" if name.endswith(".png") else "application/octet-stream"
                yield Item(path=f"{capture_folder(number)}/{name}", data=_pieces(file), media_type=media_type)
        for cut_number, cut in enumerate(held.cuts, start=1):
            yield Item(path=cut_file(number, cut_number), data=cut.file, media_type="application/json")


def _strips(folder: Path) -> Iterator[str]:
    yield "manifest.json"
    for strip in StripManifest.load(folder).strips:
        yield strip.file


def _pieces(file: Path) -> Iterator[bytes]:
    with file.open("rb") as stream:
        while piece := stream.read(_PIECE_BYTES):
            yield piece
