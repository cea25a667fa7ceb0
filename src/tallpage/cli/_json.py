"""What each command prints with ``--json``, as types: held by the code, and written down as JSON Schema.

The names are the ones that scripts rely on: sizes are px, ``bytes`` and ``limit`` bytes, ``seconds`` seconds.
"""

from __future__ import annotations

from typing import Any, Literal

from pydantic import ConfigDict, TypeAdapter, with_config
from typing_extensions import TypedDict

_EXACTLY = ConfigDict(extra="forbid")


@with_config(_EXACTLY)
class Lacking(TypedDict):
    """Words that a page has laid out and its picture lacks."""

    why: str
    words: int
    first: str
    target: str


@with_config(_EXACTLY)
class Taken(TypedDict):
    """A page that was taken. ``whole`` says whether the words of the page are in the picture."""

    file: str
    url: str
    final_url: str
    title: str
    status: int
    width: int
    height: int
    scale: int
    bytes: int
    truncated: bool
    whole: bool
    lacking: list[Lacking]
    left_out: list[str]
    warnings: list[str]
    seconds: float


@with_config(_EXACTLY)
class Series(TypedDict):
    """Several pictures in a row, with ``--count``."""

    pictures: list[Taken]


@with_config(_EXACTLY)
class Cut(TypedDict):
    """A part that was written."""

    file: str
    width: int
    height: int
    bytes: int


@with_config(_EXACTLY)
class Missing(TypedDict):
    """Where a piece is missing: below one picture and above another."""

    below: str
    above: str
    why: Literal["nothing_shared", "repeats", "blank", "contradicts"]


@with_config(_EXACTLY)
class ClipAdvice(TypedDict):
    """One thing that would help where a clip's limit cannot be met; ``value`` is bytes or ms."""

    kind: str
    value: int
    sentence: str


@with_config(_EXACTLY)
class Clip(TypedDict):
    """A few seconds of a page in a file."""

    file: str
    url: str
    final_url: str
    title: str
    status: int
    format: str
    width: int
    height: int
    bytes: int
    limit: int
    met: bool
    score: float
    """Fidelity over all of its time, 0 to 100."""
    frames: int
    """Pictures in the file; what shows the same longer is one."""
    frames_wanted: int
    """Pictures that there would be without a limit."""
    duration: float
    """Seconds that it plays, once through."""
    given_up: list[str]
    advice: list[ClipAdvice]
    left_out: list[str]
    warnings: list[str]
    seconds: float


@with_config(_EXACTLY)
class Joined(TypedDict):
    """Pictures joined into one. Nothing is written when a piece is missing."""

    file: str | None
    width: int
    height: int
    bytes: int | None
    order: list[str]
    """The pictures from top to bottom."""
    tops: list[int]
    """Where the first row of each of them lies."""
    seams: list[int]
    """The rows at which one picture goes over into the next."""
    missing: list[Missing]


@with_config(_EXACTLY)
class Leaf(TypedDict):
    """One file. Without a file nothing acceptable stays under the limit."""

    file: str | None
    format: Literal["jpeg", "png", "webp", "avif", "gif"] | None
    width: int
    height: int
    bytes: int | None
    quality: int | None
    score: float | None
    """Fidelity, 0 to 100."""
    met: bool


@with_config(_EXACTLY)
class Advice(TypedDict):
    """One thing that would help where the limit cannot be met."""

    kind: str
    value: int
    sentence: str
    format: str | None
    rows_px: tuple[int, int] | None


@with_config(_EXACTLY)
class Fit(Leaf):
    """A file that was fitted; of several leaves the figures of the one that looks worst."""

    kept_small: bool
    captions: str
    letters_missing: str
    smallest_letters: float | None
    """Height in px of the smallest letters that are written on the picture."""
    limit: int | None
    wanted_score: float | None
    tries: int
    advice: list[Advice]
    leaves: list[Leaf]
    seconds: float


@with_config(_EXACTLY)
class Pdf(TypedDict):
    """A document that was made."""

    file: str
    sheets: int
    bytes: int
    limit: int | None
    met: bool
    quality: int | None
    share_percent: int


@with_config(_EXACTLY)
class Sweep(TypedDict):
    """What became of many pages; each picture has its row in the manifest."""

    folder: str
    pages: int
    pictures: int
    failed: int
    bad_lines: int
    duplicates: int
    left_over: int
    forbidden: int
    problems: list[str]
    manifest: str


@with_config(_EXACTLY)
class Run(TypedDict):
    """What became of a routine over pages and pictures; each file has its row in the manifest."""

    folder: str
    routine: str
    sources: int
    files: int
    met: int
    not_met: int
    skipped: int
    failed: int
    problems: list[str]
    manifest: str


@with_config(_EXACTLY)
class Sent(TypedDict):
    """A file that is where an outlet's are published."""

    name: str
    address: str
    was_there: bool


@with_config(_EXACTLY)
class Upload(TypedDict):
    """What was uploaded."""

    outlet: str
    files: list[Sent]


ANSWERS: dict[str, TypeAdapter[Any]] = {
    "capture": TypeAdapter(Taken | Series),
    "cut": TypeAdapter(Cut),
    "clip": TypeAdapter(Clip),
    "join": TypeAdapter(Joined),
    "fit": TypeAdapter(Fit),
    "pdf": TypeAdapter(Pdf),
    "run": TypeAdapter(Run),
    "sweep": TypeAdapter(Sweep),
    "upload": TypeAdapter(Upload),
}
"""By command."""


def answers_schema() -> dict[str, Any]:
    """JSON Schema (draft 2020-12) of all of them: ``$defs`` holds a schema for each command."""
    definitions: dict[str, Any] = {}
    for name, adapter in ANSWERS.items():
        schema = adapter.json_schema(ref_template="#/$defs/{model}")
        definitions |= schema.pop("$defs", {})
        definitions[name] = schema
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "What the commands of Tall Page print with --json",
        "$defs": definitions,
    }
