"""Where data lives: one folder, named by ``TALLPAGE_HOME``."""

from __future__ import annotations

import os
import secrets
from collections.abc import Callable
from pathlib import Path


def home_folder() -> Path:
    """The data folder, made when missing; only its owner may look inside."""
    named = os.environ.get("TALLPAGE_HOME")
    folder = Path(named).expanduser() if named else Path.home() / ".local" / "share" / "tallpage"
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    return folder.resolve()


def secret_key(folder: Path) -> str:
    """The key that signs sessions."""
    return own_key(folder, "secret.key", lambda: secrets.token_urlsafe(48).encode()).decode()


def own_key(folder: Path, name: str, make: Callable[[], bytes]) -> bytes:
    """A key of this data folder's own, made when it is first needed; only its owner may read it."""
    path = folder / name
    try:
        handle = os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
    except FileExistsError:
        return path.read_bytes()
    with os.fdopen(handle, "wb") as file:
        key = make()
        file.write(key)
    return key
