"""A job on the wire."""

from __future__ import annotations

from typing import Literal

from ninja import Schema


class Fault(Schema):
    """Why a job failed: for a programme, for a person, and what to do."""

    code: str
    sentence: str
    hint: str


class JobOut(Schema):
    """State and progress; ``expected`` is 0 when nothing is counted."""

    state: Literal["queued", "running", "done", "failed", "stopped"]
    stage: str
    done: int
    expected: int
    error: Fault | None
