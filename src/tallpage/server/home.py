"""Where data lives: one folder, named by ``TALLPAGE_HOME``."""

from __future__ import annotations

import hashlib
import os
import secrets
import stat
import tempfile
from collections.abc import Callable
from contextlib import suppress
from pathlib import Path

from tallpage.core.errors import StorageError
from tallpage.core.files import storage_errors


def home_folder() -> Path:
    """The data folder, made when missing; only its owner may look inside."""
    named = os.environ.get("TALLPAGE_HOME")
    folder = Path(named).expanduser() if named else Path.home() / ".local" / "share" / "tallpage"
    try:
        with storage_errors(folder):
            folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    except FileExistsError as error:
        raise StorageError(
            "The data folder is a file.",
            hint="Name a folder with TALLPAGE_HOME.",
            code="storage_denied",
            folder=folder,
        ) from error
    with suppress(OSError):  # somebody else's folder is as open as they made it
        folder.chmod(0o700)
    return folder.resolve()


def scratch_folder() -> Path | None:
    """Where browsers and encoders of this data folder's workers keep what they need for a while.

    It is beside other programmes' temporary files, since a browser cannot work below a long path. None
    where somebody else has made a folder of that name.
    """
    name = hashlib.sha256(os.fsencode(home_folder())).hexdigest()[:12]
    folder = Path(os.environ.get("TALLPAGE_SCRATCH") or f"{tempfile.gettempdir()}/tallpage-{name}")
    try:
        folder.mkdir(mode=0o700, exist_ok=True)
        found = folder.lstat()
    except OSError:
        return None
    return folder if found.st_uid == os.geteuid() and stat.S_ISDIR(found.st_mode) else None


def secret_key(folder: Path) -> str:
    """The key that signs sessions."""
    return own_key(folder, "secret.key", lambda: secrets.token_urlsafe(48).encode()).decode()


def own_key(folder: Path, name: str, make: Callable[[], bytes]) -> bytes:
    """A key of this data folder's own, made when it is first needed; only its owner may read it.

    It is there whole or not at all: a full disk leaves no half of a key. An empty file is no key. Of
    several processes that make one at once, the first one's counts for all.
    """
    path = folder / name
    found = path.read_bytes() if path.exists() else b""
    if found:
        return found
    with storage_errors(folder):
        path.unlink(missing_ok=True)
        handle, part = tempfile.mkstemp(dir=folder, prefix=f".{name}.")  # made for its owner alone
        try:
            with os.fdopen(handle, "wb") as file:
                file.write(make())
                file.flush()
                os.fsync(file.fileno())
            with suppress(FileExistsError):
                os.link(part, path)
        finally:
            Path(part).unlink(missing_ok=True)
    return path.read_bytes()
