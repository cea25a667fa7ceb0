"""The one door to libvips: what it may read, what it may keep, its errors in our words.

File names given to libvips are always ours, since it reads options out of square brackets in a name.
Pixels can turn out damaged as late as when they are pulled, so every pull is inside :func:`translated`.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

import pyvips

from tallpage.core.errors import PictureUnreadable, StorageError

_READABLE = ("Png", "Jpeg", "Webp", "Nsgif", "Heif", "Tiff")

# Nothing else is ever decoded: no vector, document or script format, wherever a file comes from.
pyvips.operation_block_set("VipsForeignLoad", True)
for _name in _READABLE:
    pyvips.operation_block_set(f"VipsForeignLoad{_name}", False)

# Results are kept by us, by content; libvips' own cache would only hold strips in memory.
pyvips.cache_set_max(0)


def libvips_version() -> str:
    """Version of the library in use, like ``8.18``."""
    return f"{pyvips.version(0)}.{pyvips.version(1)}"


@contextmanager
def translated(subject: str) -> Iterator[None]:
    """Turn libvips' errors into ours: our intent, its detail."""
    try:
        yield
    except pyvips.Error as error:
        detail = " ".join(str(error.detail or error.message).split())
        if "No space left" in detail:
            raise StorageError("The disk that holds the data folder is full.", code="storage_full") from error
        if "not in a known format" in detail or "not a known file format" in detail:
            raise PictureUnreadable("The file is not a picture that Tall Page can read.") from error
        raise PictureUnreadable(
            f"{subject} is damaged or incomplete ({detail[:120]}).", code="picture_damaged"
        ) from error
