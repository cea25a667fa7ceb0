"""``python -m bench.faults [--at REVISION] [--only WORDS] [--list FILE]``: which faults the tests notice.

Each fault changes one line of a copy of the repository; then the tests of its part run there, quick ones
first, until one fails. The exit code is 1 where a fault went unnoticed.
"""

from __future__ import annotations

import argparse
import os
import shutil
import subprocess
import sys
import tempfile
import time
import tomllib
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]
FAULTS = Path(__file__).with_name("faults.toml")
_LONGEST_S = 900


@dataclass(frozen=True, slots=True, kw_only=True)
class Fault:
    """One line that is changed, and the tests that should notice."""

    name: str
    file: str
    line: str
    instead: str
    tests: tuple[str, ...]


def read_faults(path: Path) -> list[Fault]:
    """The faults of a list."""
    rows = tomllib.loads(path.read_text("utf-8"))["fault"]
    return [Fault(**{**row, "tests": tuple(row["tests"])}) for row in rows]


def noticed_by(copy: Path, fault: Fault) -> str:
    """The tests that fail with the fault; empty where all pass."""
    path = copy / fault.file
    before = path.read_text("utf-8")
    if before.count(f"{fault.line}\n") != 1:
        raise SystemExit(f"{fault.file} has not exactly one line {fault.line!r}")
    path.write_text(before.replace(f"{fault.line}\n", f"{fault.instead}\n"), "utf-8")
    try:
        there = [tests for tests in fault.tests if (copy / tests).exists()]
        return next((tests for tests in there if not _pass(copy, tests, fault)), "")
    finally:
        path.write_text(before, "utf-8")


def _pass(copy: Path, tests: str, fault: Fault) -> bool:
    """Whether tests pass; those that never end do not."""
    told = {**os.environ, "PYTHONPATH": str(copy / "src")}
    python = str(ROOT / ".venv/bin/python")
    if tests.startswith("frontend/"):
        command = ["npx", "vitest", "run", "--bail", "1", tests.removeprefix("frontend/")]
        told["PATH"] = f"{ROOT / '.venv/node'}{os.pathsep}{told['PATH']}"
        return _ends_well(command, copy / "frontend", told)
    if tests.startswith("tests/browser") and fault.file.startswith("frontend/"):
        built = {**told, "PATH": f"{ROOT / '.venv/node'}{os.pathsep}{told['PATH']}"}
        if not _ends_well(["npx", "vite", "build"], copy / "frontend", built):
            return False
    cache = f"cache_dir={ROOT / '.pytest_cache'}"
    return _ends_well([python, "-m", "pytest", "-x", "-q", "-o", cache, tests], copy, told)


def _ends_well(command: Sequence[str], folder: Path, told: dict[str, str]) -> bool:
    try:
        run = subprocess.run(
            command, cwd=folder, env=told, capture_output=True, timeout=_LONGEST_S, check=False
        )
    except subprocess.TimeoutExpired:
        return False
    return run.returncode == 0


def _copied(revision: str, folder: Path) -> Path:
    """A copy of the repository at a revision, with the packages of this one."""
    copy = folder / "copy"
    git = shutil.which("git") or "git"
    subprocess.run([git, "clone", "--quiet", str(ROOT), str(copy)], check=True)
    subprocess.run([git, "checkout", "--quiet", revision], cwd=copy, check=True)
    for name in ("frontend/node_modules", "tests/lists/dist"):
        (copy / name).symlink_to(ROOT / name)
    shutil.copytree(ROOT / "frontend/dist", copy / "frontend/dist")
    return copy


def main() -> int:
    """Try the faults of the list one after the other."""
    parser = argparse.ArgumentParser(prog="python -m bench.faults", description=__doc__)
    parser.add_argument("--at", default="HEAD", help="revision of the repository that is tried")
    parser.add_argument("--only", default="", help="only faults whose file or name holds these words")
    parser.add_argument("--list", type=Path, default=FAULTS, help="another list of faults")
    asked = parser.parse_args()
    faults = [row for row in read_faults(asked.list) if asked.only in f"{row.file} {row.name}"]
    unnoticed = 0
    with tempfile.TemporaryDirectory(prefix="tallpage-faults-") as folder:
        copy = _copied(asked.at, Path(folder))
        for fault in faults:
            began_s = time.monotonic()
            tests = noticed_by(copy, fault)
            unnoticed += not tests
            said = tests or "NOT NOTICED"
            print(f"{fault.name} ({fault.file}): {said}, {time.monotonic() - began_s:.0f} s", flush=True)
    print(f"{len(faults) - unnoticed} of {len(faults)} noticed")
    return 1 if unnoticed else 0


if __name__ == "__main__":
    sys.exit(main())
