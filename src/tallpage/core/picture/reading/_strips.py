"""A capture as a stack of strips, so that nothing ever needs a whole tall page in memory."""

from __future__ import annotations

import json
import struct
from dataclasses import asdict, dataclass
from pathlib import Path
from typing import Self

from tallpage.core.errors import PictureUnreadable
from tallpage.core.files import storage_errors, write_whole
from tallpage.core.geometry import Box, Size

MAX_STRIP_HEIGHT_PX = 2_048
MANIFEST_NAME = "manifest.json"
_PNG_HEADER = struct.Struct(">8s4x4sII")
_PNG_SIGNATURE = b"\x89PNG\r\n\x1a\n"


@dataclass(frozen=True, slots=True, kw_only=True)
class Strip:
    """One lossless piece: its file and the page rows it holds."""

    file: str
    top_px: int
    height_px: int
    bytes: int


@dataclass(frozen=True, slots=True, kw_only=True)
class StripManifest:
    """The strips of one capture from top to bottom; together they cover its size exactly."""

    width_px: int
    height_px: int
    strips: tuple[Strip, ...]

    @property
    def size(self) -> Size:
        """Width and height in page pixels."""
        return Size(width_px=self.width_px, height_px=self.height_px)

    @property
    def bytes(self) -> int:
        """Bytes of all strips."""
        return sum(strip.bytes for strip in self.strips)

    def strips_under(self, box: Box) -> tuple[Strip, ...]:
        """The strips that hold any row of ``box``."""
        return tuple(
            strip
            for strip in self.strips
            if strip.top_px < box.bottom_px and strip.top_px + strip.height_px > box.y_px
        )

    def to_json(self) -> str:
        """The text of the manifest file."""
        return json.dumps({"version": 1, **asdict(self)}, indent=1)

    @classmethod
    def load(cls, folder: Path) -> Self:
        """Read the manifest of a capture's folder.

        Raises:
            PictureUnreadable: there is none, or it is damaged.
        """
        try:
            data = json.loads((folder / MANIFEST_NAME).read_text("utf-8"))
            strips = tuple(Strip(**row) for row in data["strips"])
            return cls(width_px=data["width_px"], height_px=data["height_px"], strips=strips)
        except (OSError, ValueError, KeyError, TypeError) as error:
            raise PictureUnreadable(
                "The strips of this capture cannot be found.",
                hint="Take the page again, or restore the data folder from a copy.",
                code="strips_missing",
            ) from error


def strips_so_far(folder: Path) -> StripManifest | None:
    """The strips of a capture that is still being taken; None before the first is there."""
    strips: list[Strip] = []
    width_px = top_px = 0
    for path in sorted(folder.glob("[0-9]*.png")):
        try:
            with path.open("rb") as file:
                size = png_size(file.read(_PNG_HEADER.size))
            weight = path.stat().st_size
        except FileNotFoundError:  # the folder has just got its final name
            return None
        strips.append(Strip(file=path.name, top_px=top_px, height_px=size.height_px, bytes=weight))
        width_px, top_px = size.width_px, top_px + size.height_px
    if not strips:
        return None
    return StripManifest(width_px=width_px, height_px=top_px, strips=tuple(strips))


class StripWriter:
    """Writes strips into a folder from top to bottom, then the manifest.

    The folder is nobody's yet: what is in it is made durable when it gets its final name
    (:func:`tallpage.core.files.move_folder_whole`).
    """

    def __init__(self, folder: Path, *, width_px: int) -> None:
        self._folder = folder
        self._width_px = width_px
        self._strips: list[Strip] = []
        self._next_top_px = 0

    def add(self, png: bytes, *, height_px: int) -> None:
        """Append a strip of PNG bytes.

        Raises:
            PictureUnreadable: the PNG is not of the width and height that were said.
            StorageError: it cannot be written.
        """
        expected = Size(width_px=self._width_px, height_px=height_px)
        found = png_size(png)
        if found != expected:
            raise PictureUnreadable(
                f"A strip came out {found.width_px} × {found.height_px} px "
                f"instead of {expected.width_px} × {expected.height_px} px.",
                hint="Take the page again.",
                code="strip_size",
            )
        name = f"{len(self._strips):04d}.png"
        with storage_errors(self._folder):
            part = self._folder / f".{name}"
            part.write_bytes(png)
            part.replace(self._folder / name)
        self._strips.append(Strip(file=name, top_px=self._next_top_px, height_px=height_px, bytes=len(png)))
        self._next_top_px += height_px

    @property
    def count(self) -> int:
        """How many strips are written."""
        return len(self._strips)

    def finish(self) -> StripManifest:
        """Write the manifest; from now on the folder is a capture."""
        manifest = StripManifest(
            width_px=self._width_px, height_px=self._next_top_px, strips=tuple(self._strips)
        )
        write_whole(self._folder / MANIFEST_NAME, manifest.to_json().encode())
        return manifest


def png_size(png: bytes) -> Size:
    """Size from a PNG's header, without decoding.

    Source: PNG specification (W3C), 11.2.1 IHDR: width and height are the first two fields.
    """
    if len(png) < _PNG_HEADER.size:
        raise PictureUnreadable("A strip is not a PNG picture.")
    signature, chunk, width_px, height_px = _PNG_HEADER.unpack_from(png)
    if signature != _PNG_SIGNATURE or chunk != b"IHDR" or width_px < 1 or height_px < 1:
        raise PictureUnreadable("A strip is not a PNG picture.")
    return Size(width_px=width_px, height_px=height_px)
