"""The driver's own scripts, compiled once for all browsers that are started."""

from __future__ import annotations

import os
import stat
from pathlib import Path

_VARIABLE = "NODE_COMPILE_CACHE"


def keep_compiled_driver() -> None:
    """Have drivers that are started from now on keep what they compile: halves the time they start in.

    It is kept below the user's cache folder, where nobody else can put anything; where there is no such
    folder, drivers start as slowly as before. Source: Node.js, module compile cache.
    """
    if _VARIABLE in os.environ:
        return
    named = os.environ.get("XDG_CACHE_HOME", "")
    root = Path(named) if named.startswith("/") else Path("~/.cache").expanduser()
    folder = root / "tallpage" / "driver"
    try:
        folder.mkdir(mode=0o700, parents=True, exist_ok=True)
        found = folder.lstat()
    except (OSError, RuntimeError):
        return
    if found.st_uid == os.geteuid() and stat.S_IMODE(found.st_mode) & 0o022 == 0:
        os.environ[_VARIABLE] = str(folder)
