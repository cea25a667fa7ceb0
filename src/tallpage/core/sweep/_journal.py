"""What a sweep into a folder has done so far, so that it can go on after any end.

A line a fact, appended and flushed: the plan's fingerprint first, then outcomes, then names given.
A line that was cut off by a kill is not read.
"""

from __future__ import annotations

import hashlib
import json
import os
from pathlib import Path
from typing import Any

from tallpage.core.errors import ListError
from tallpage.core.files import storage_errors
from tallpage.core.sweep._shots import Outcome

HIDDEN = ".sweep"


class Journal:
    """The journal of a folder; ``outcomes`` and ``names`` hold what it told when it was opened."""

    def __init__(self, folder: Path, plan: object, *, resume: bool) -> None:
        """Begin, or with ``resume`` go on with, the sweep of ``plan`` (plain types) in ``folder``.

        Raises:
            ListError: another sweep is in the folder, or one is and ``resume`` was not asked for.
            StorageError: the folder cannot be written.
        """
        self.parts = folder / HIDDEN
        self.outcomes: dict[str, Outcome] = {}
        self.names: dict[str, str] = {}
        """Final path of each part that has one."""
        self._path = self.parts / "journal.jsonl"
        self._cut_off = False
        fingerprint = hashlib.sha256(json.dumps(plan, sort_keys=True).encode()).hexdigest()
        known = self._read() if self._path.exists() else None
        if known is not None and known != fingerprint:
            raise ListError(
                f"{folder} holds a sweep of another list, or with other settings.",
                hint="Choose another folder.",
                code="sweep_other",
            )
        if known is not None and not resume:
            raise ListError(
                f"{folder} holds this sweep already.",
                hint="Go on with it by --resume, or choose another folder.",
                code="sweep_there",
            )
        if known is None:
            with storage_errors(folder):
                self.parts.mkdir(parents=True, exist_ok=True)
            self._append({"plan": fingerprint})

    def note(self, outcome: Outcome) -> None:
        """Remember what became of a shot."""
        self.outcomes[outcome.key] = outcome
        self._append({"outcome": outcome.as_json()})

    def note_name(self, part: str, path: str) -> None:
        """Remember the name a part is about to get."""
        self.names[part] = path
        self._append({"part": part, "path": path})

    def _append(self, fact: dict[str, Any]) -> None:
        with storage_errors(self.parts), self._path.open("ab") as file:
            # After a line that a kill cut off, begin a new one.
            file.write(
                (b"\n" if self._cut_off else b"") + json.dumps(fact, ensure_ascii=False).encode() + b"\n"
            )
            self._cut_off = False
            file.flush()
            os.fsync(file.fileno())

    def _read(self) -> str:
        fingerprint = ""
        data = self._path.read_bytes()
        self._cut_off = not data.endswith(b"\n")
        for line in data.splitlines():
            try:
                fact = json.loads(line)
            except ValueError:
                continue
            if "plan" in fact:
                fingerprint = fact["plan"]
            elif "outcome" in fact:
                outcome = Outcome.from_json(fact["outcome"])
                self.outcomes[outcome.key] = outcome
            else:
                self.names[fact["part"]] = fact["path"]
        return fingerprint
