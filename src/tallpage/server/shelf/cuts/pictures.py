"""Small pictures that stickers and stamps show. Each is stored once, under the fingerprint of its bytes."""

from __future__ import annotations

import hashlib
import re
from collections.abc import Container, Iterable

from tallpage.core.files import storage_errors, write_whole
from tallpage.core.picture import small_png
from tallpage.server.storage import sticker_file

_KEY = re.compile(r"[0-9a-f]{32}")


def keep_picture(data: bytes) -> str:
    """Store a picture as it will be drawn; returns its name.

    Raises:
        PictureTooLarge, PictureUnreadable: it is none that can be drawn.
        StorageError: it cannot be stored.
    """
    png = small_png(data)
    name = hashlib.sha256(png).hexdigest()[:32]
    path = sticker_file(name)
    with storage_errors(path.parent.parent):
        path.parent.mkdir(exist_ok=True)
    write_whole(path, png)
    return name


def pictures_named(names: Iterable[str]) -> dict[str, bytes]:
    """The stored pictures of some names; those that are gone are left out."""
    stored = stored_pictures()
    return {name: sticker_file(name).read_bytes() for name in names if name in stored}


def stored_pictures() -> Container[str]:
    """The names of all pictures that are stored."""
    return _Stored()


class _Stored:
    def __contains__(self, name: object) -> bool:
        return isinstance(name, str) and bool(_KEY.fullmatch(name)) and sticker_file(name).exists()
