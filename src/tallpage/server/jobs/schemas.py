"""A job on the wire."""

from __future__ import annotations

from typing import Literal

from ninja import Schema


class Fault(Schema):
    """Why a job failed: for a programme, for a person, and what to do."""

    code: str
    sentence: str
    hint: str


class FileTold(Schema):
    """A file that was made or is expected."""

    recipe: str
    bytes: int
    fidelity: float
    met: bool
    """Whether it looks acceptable."""


class Told(Schema):
    """What a fit under way says: what is tried, how many files may still be made at most, the best so far,
    and what the best is expected to be, from a sample."""

    trying: str = ""
    tries_left: int = 0
    expected: FileTold | None = None
    best: FileTold | None = None
    advising: bool = False
    """Whether it is looking for what would help."""


class JobOut(Schema):
    """State and progress; ``expected`` is 0 when nothing is counted."""

    state: Literal["queued", "running", "done", "failed", "stopped"]
    stage: str
    done: int
    expected: int
    told: Told | None = None
    error: Fault | None
