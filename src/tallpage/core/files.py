"""Files that appear whole or not at all."""

from __future__ import annotations

import errno
import os
import tempfile
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from pathlib import Path

from tallpage.core.errors import StorageError


def write_whole(path: Path, data: bytes | Iterable[bytes]) -> None:
    """Write ``data``, or its pieces one by one, under a temporary name beside ``path``, then rename.

    It is flushed to disk before it has its name.

    Raises:
        StorageError: the disk is full or the folder cannot be written; ``path`` is untouched.
    """
    with storage_errors(path.parent):
        handle, temporary = tempfile.mkstemp(prefix=".part-", dir=path.parent)
        try:
            with os.fdopen(handle, "wb") as file:
                for piece in (data,) if isinstance(data, bytes) else data:
                    file.write(piece)
                file.flush()
                os.fsync(file.fileno())
            Path(temporary).replace(path)
        except BaseException:
            Path(temporary).unlink(missing_ok=True)
            raise


def move_folder_whole(source: Path, target: Path) -> None:
    """Make a finished folder's files durable, give it its final name on the same disk, and that too."""
    with storage_errors(target.parent):
        target.parent.mkdir(parents=True, exist_ok=True)
        for path in (*source.iterdir(), source):
            _flush_to_disk(path)
        source.rename(target)
        _flush_to_disk(target.parent)


def empty_folder(folder: Path) -> None:
    """Delete what is in a folder of work under way that begins anew."""
    for path in folder.iterdir():
        path.unlink()


def _flush_to_disk(path: Path) -> None:
    handle = os.open(path, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)


@contextmanager
def storage_errors(folder: Path) -> Iterator[None]:
    """Turn the system's refusals to write into ours."""
    try:
        yield
    except OSError as error:
        ours = refusal_to_write(error, folder)
        if ours is None:
            raise
        raise ours from error


def refusal_to_write(error: OSError, folder: Path | None = None) -> StorageError | None:
    """What a person is told when the system refuses to write; None when that is not what happened."""
    if error.errno in (errno.ENOSPC, errno.EDQUOT):
        return StorageError("The disk is full.", code="storage_full", folder=folder)
    if error.errno in (errno.EACCES, errno.EPERM, errno.EROFS, errno.ENOTDIR):
        return StorageError(
            "The folder cannot be written.", hint="Check who owns it.", code="storage_denied", folder=folder
        )
    return None
