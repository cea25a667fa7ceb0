"""Data folders of earlier versions are migrated, and nothing in them is lost."""

import json
import os
import sqlite3
import subprocess
import sys
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest

FRAME = {"x_px": 0, "y_px": 100, "width_px": 300, "height_px": 900}
FOLDED = {**FRAME, "folds": [{"top_px": 200, "height_px": 300}]}
STRETCHES = [{"before": None, "now": {"x_px": 0, "y_px": 0, "width_px": 10, "height_px": 10}}]
MIGRATE = """
import os, sys, django
django.setup()
from django.core.management import call_command
for name in sys.argv[1:]:
    call_command("migrate", *name.split(), verbosity=0)
"""
READ = """
import json, django
django.setup()
from tallpage.server.outlets.models import Output
from tallpage.server.outlets.output_schemas import OutputOut
rows = [json.loads(OutputOut.from_orm(row).json()) for row in Output.objects.order_by("pk")]
print(json.dumps([rows, [row.cut.document for row in Output.objects.order_by("pk")]]))
"""


def _python(home: Path, code: str, *words: str) -> str:
    environment = {
        **os.environ,
        "TALLPAGE_HOME": str(home),
        "DJANGO_SETTINGS_MODULE": "tallpage.server.settings",
        "PYTHONPATH": "src",
    }
    command = [sys.executable, "-c", code, *words]
    return subprocess.run(command, env=environment, check=True, capture_output=True, text=True).stdout


def _insert(database: sqlite3.Connection, table: str, **values: Any) -> int:
    """A row with what is given, and something empty in every other column that must not be null."""
    for _, name, kind, needed, *_ in database.execute(f"pragma table_info({table})"):
        if needed and name != "id" and name not in values:
            values[name] = "" if kind.startswith(("varchar", "text")) else 0
    values = {name: json.dumps(v) if isinstance(v, dict | list) else v for name, v in values.items()}
    marks = ", ".join("?" for _ in values)
    command = f"insert into {table} ({', '.join(values)}) values ({marks})"  # noqa: S608
    cursor = database.execute(command, [*values.values()])
    return int(cursor.lastrowid or 0)


@pytest.fixture(scope="module")
def home(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A data folder of an earlier version, migrated."""
    folder = tmp_path_factory.mktemp("older")
    _python(folder, MIGRATE, "outlets 0005", "shelf 0007", "jobs", "sweeps 0001")
    with closing(sqlite3.connect(folder / "tallpage.sqlite3")) as database:
        _insert_outputs(database)
        _insert_sweep(database)
        database.commit()
    _python(folder, MIGRATE, "")
    return folder


def _insert_outputs(database: sqlite3.Connection) -> None:
    """A cut with a row of one file, one in leaves, one without a file, and one whose cut has changed."""
    now = "2026-11-20 10:00:00"
    job = {"kind": "fit_output", "state": "done", "created_at": now}
    common = {"name": "Ferry", "source": "page", "storage_key": "abc", "width_px": 300, "height_px": 2_000}
    for name in ("warnings", "report", "settings"):
        common[name] = "[]" if name == "warnings" else "{}"
    capture = _insert(
        database,
        "shelf_capture",
        **common,
        scale=1,
        job_id=_insert(database, "jobs_job", **job),
        created_at=now,
    )
    cut = _insert(
        database,
        "shelf_cut",
        capture_id=capture,
        name="Cut 1",
        frame=FOLDED,
        version=3,
        created_at=now,
        changed_at=now,
    )
    choice = {"format": "jpeg", "quality": 40}
    rules = {"cut_id": cut, "label": "150 px", "way": "width", "width_px": 150, "limit_bytes": 9_000}
    rules |= {"formats": ["jpeg"], "background": "#ffffff", "anchor": "start", "created_at": now}
    for name in ("candidates", "advice", "tradeoffs", "weights", "worst", "breaks", "leaves"):
        rules[name] = []
    made = {
        "format": "jpeg",
        "made_choice": choice,
        "made_width_px": 150,
        "made_height_px": 300,
        "bytes": 8_000,
        "fidelity": 71.5,
        "met": 1,
    }
    leaf = {"format": "jpeg", "bytes": 4_000, "fidelity": 70.0, "met": True, "height_px": 150, "rows_px": 300}
    leaves = [
        {**leaf, "top_px": 100, "page_height_px": 600, "row_px": 0, "file_key": "first"},
        {**leaf, "top_px": 700, "page_height_px": 300, "row_px": 300, "file_key": "second"},
    ]
    for more in (
        {**made, "file_key": "whole", "frame": FOLDED, "asked_frame": FOLDED},
        {
            **made,
            "file_key": "first",
            "frame": FOLDED,
            "asked_frame": FOLDED,
            "leaves": leaves,
            "leaf_count": 2,
        },
        {"frame": {}, "asked_frame": FOLDED},
        {**made, "file_key": "old", "frame": FRAME, "asked_frame": FRAME},
    ):
        _insert(database, "outlets_output", **{**rules, **more}, job_id=_insert(database, "jobs_job", **job))


def _insert_sweep(database: sqlite3.Connection) -> None:
    """A sweep of one page that changed since the time before."""
    now = "2026-11-20 10:00:00"
    jobs = [_insert(database, "jobs_job", kind="x", state="done", created_at=now) for _ in range(2)]
    settings = {"hanging": "keep", "wait_ms": 200}
    common = {"name": "Ferry", "warnings": "[]", "report": "{}", "settings": settings, "created_at": now}
    capture = _insert(database, "shelf_capture", **common, scale=1, job_id=jobs[0])
    sweep = _insert(database, "sweeps_sweep", created_at=now, screens="[]", settings=settings)
    page = _insert(database, "sweeps_sweeppage", sweep_id=sweep, address="http://a.example/")
    shot = _insert(database, "sweeps_shot", sweep_id=sweep, page_id=page, capture_id=capture, settings="{}")
    _insert(
        database,
        "sweeps_look",
        shot_id=shot,
        job_id=jobs[1],
        capture_id=capture,
        change="changed",
        stretches=STRETCHES,
        added="[]",
        removed="[]",
    )


@pytest.mark.long
def test_files_leaves_and_cuts_of_the_version_before_are_all_there(home: Path) -> None:
    (whole, leaves, empty, old), documents = json.loads(_python(home, READ))
    assert documents == [{"version": 1, "frame": FOLDED}] * 4
    told = ("file_key", "format", "bytes", "fidelity", "met", "made_width_px", "made_height_px", "stale")
    assert [whole[name] for name in told] == ["whole", "jpeg", 8_000, 71.5, True, 150, 300, False]
    assert (whole["made_choice"]["quality"], whole["leaves"]) == (40, [])
    stretches = [(row["top_px"], row["page_height_px"], row["bytes"]) for row in leaves["leaves"]]
    assert stretches == [(100, 600, 4_000), (700, 300, 4_000)]
    assert (leaves["file_key"], leaves["leaf_count"], leaves["stale"]) == ("first", 2, False)
    assert (empty["file_key"], empty["made_choice"], empty["fidelity"], empty["stale"]) == (
        "",
        None,
        None,
        False,
    )
    assert (old["file_key"], old["stale"]) == ("old", True)


def test_comparisons_and_settings_are_there_under_their_new_names(home: Path) -> None:
    read = """
import json, django
django.setup()
from tallpage.server.sweeps.models import Shot
shot = Shot.objects.get()
row = shot.comparison
print(json.dumps([row.change, row.stretches, row.capture.settings, shot.page.sweep.settings]))
"""
    now_named = {"fixed_overlays": "keep", "wait_ms": 200}
    assert json.loads(_python(home, read)) == ["changed", STRETCHES, now_named, now_named]
