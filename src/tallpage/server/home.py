"""Where data lives: one folder, named by ``TALLPAGE_HOME``."""

from __future__ import annotations

import os
import secrets
import tempfile
from collections.abc import Callable
from contextlib import suppress
from pathlib import Path


def home_folder() -> Path:
    """The data folder, made when missing; only its owner may look inside."""
    named = os.environ.get("TALLPAGE_HOME")
    folder = Path(named).expanduser() if named else Path.home() / ".local" / "share" / "tallpage"
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    with suppress(PermissionError):  # somebody else's folder is as open as they made it
        folder.chmod(0o700)
    return folder.resolve()


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
