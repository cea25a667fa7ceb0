"""A capture once more, with rows and files of its own: journeys that are not about taking begin with one."""

from __future__ import annotations

import os
import shutil
import sqlite3
import uuid
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

_BUSY_S = 60


def copy_capture(home: Path, capture_id: int) -> int:
    """Put a capture that is as it was taken on the shelf again; returns the id of the new one."""
    key, now = uuid.uuid4().hex, datetime.now(UTC).strftime("%Y-%m-%d %H:%M:%S.%f")
    database = sqlite3.connect(home / "tallpage.sqlite3", timeout=_BUSY_S, isolation_level=None)
    with closing(database):
        database.row_factory = sqlite3.Row
        database.execute("begin immediate")
        capture = _row(database, "shelf_capture", capture_id)
        shutil.copytree(
            home / "captures" / capture["storage_key"], home / "captures" / key, copy_function=os.link
        )
        job = _row(database, "jobs_job", capture["job_id"])
        job_id = _insert(database, "jobs_job", {**job, "created_at": now})
        new = {**capture, "job_id": job_id, "storage_key": key, "created_at": now, "taken_at": now}
        new_id = _insert(database, "shelf_capture", new)
        cuts = database.execute("select * from shelf_cut where capture_id = ?", [capture_id]).fetchall()
        for cut in cuts:
            _insert(database, "shelf_cut", {**dict(cut), "capture_id": new_id})
        columns = "name, title, address, text"
        database.execute(
            f"insert into shelf_text (rowid, {columns}) select ?, {columns} from shelf_text where rowid = ?",  # noqa: S608
            [new_id, capture_id],
        )
        database.execute("commit")
    return new_id


def _row(database: sqlite3.Connection, table: str, row_id: int) -> dict[str, Any]:
    return dict(database.execute(f"select * from {table} where id = ?", [row_id]).fetchone())  # noqa: S608


def _insert(database: sqlite3.Connection, table: str, row: dict[str, Any]) -> int:
    """Insert a row under a number of its own; returns that."""
    given = {name: value for name, value in row.items() if name != "id"}
    names, places = ", ".join(given), ", ".join("?" * len(given))
    done = database.execute(f"insert into {table} ({names}) values ({places})", [*given.values()])  # noqa: S608
    return int(done.lastrowid or 0)
