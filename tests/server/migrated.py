"""An empty database of this version, migrated once for all processes of a test run, and for the next runs.

Migrating takes some eight seconds of processor time; four processes of the tests need such a database.
"""

from __future__ import annotations

import fcntl
import hashlib
import os
import sqlite3
import subprocess
import sys
import tempfile
from contextlib import closing
from pathlib import Path

_ROOT = Path(__file__).resolve().parents[2]
_KEPT_IN = _ROOT / ".pytest_cache" / "d" / "migrated"
_MIGRATE = (
    "import django; django.setup()\n"
    "from django.core.management import call_command; call_command('migrate', verbosity=0)"
)


def migrated_database() -> Path:
    """The file of the database; it is only ever copied."""
    _KEPT_IN.mkdir(parents=True, exist_ok=True)
    file = _KEPT_IN / f"{_state_of_the_migrations()}.sqlite3"
    with (_KEPT_IN / "lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)  # another process may be making it just now
        if not file.exists():
            _make(file)
    return file


def _state_of_the_migrations() -> str:
    """A name that changes with any migration, and with Django."""
    state = hashlib.sha256((_ROOT / "requirements/runtime.txt").read_bytes())
    for path in sorted((_ROOT / "src/tallpage/server").glob("*/migrations/*.py")):
        state.update(path.relative_to(_ROOT).as_posix().encode() + path.read_bytes())
    return state.hexdigest()[:20]


def _make(file: Path) -> None:
    with tempfile.TemporaryDirectory(dir=_KEPT_IN) as home:
        told = {**os.environ, "DJANGO_SETTINGS_MODULE": "tallpage.server.settings", "TALLPAGE_HOME": home}
        subprocess.run([sys.executable, "-c", _MIGRATE], env=told, check=True)
        made = Path(home) / "tallpage.sqlite3"
        with closing(sqlite3.connect(made)) as database:
            database.execute("pragma wal_checkpoint(truncate)")
        made.rename(file)
