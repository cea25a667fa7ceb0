"""How the commands tell what they did: a line, one JSON object, a bar, an exit code."""

from __future__ import annotations

import json
import os
import sys
from collections.abc import Callable, Iterator, Mapping, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING, Any, NoReturn, TypeVar

import typer

from tallpage.core.cut import Cut, read_cut
from tallpage.core.errors import CutError, StorageError, TallPageError

if TYPE_CHECKING:
    from tallpage.core.capture import Progress as PageProgress

Row = TypeVar("Row")
_FAILED, _USAGE, NOT_MET = 1, 2, 3
_USAGE_CODES = {
    "address_empty",
    "address_malformed",
    "address_scheme",
    "screen_impossible",
    "limit_malformed",
    "limit_impossible",
    "width_impossible",
    "share_impossible",
    "colour_malformed",
    "format_unknown",
    "element_malformed",
    "height_impossible",
    "language_malformed",
    "step_malformed",
    "wait_impossible",
    "pattern_malformed",
    "pace_impossible",
    "slot_malformed",
    "join_count",
    "clip_two_kinds",
    "clip_no_kind",
    "clip_malformed",
    "clip_impossible",
    "clip_too_long",
    "clip_box",
    "rate_impossible",
    "join_widths",
    "leaves_too_many",
    "leaves_impossible",
    "overlap_impossible",
    "box_malformed",
    "paper_malformed",
    "pdf_parts",
    "manifest_missing",
    "no_input",
    "several_files",
    "cut_missing",
    "cut_unreadable",
    "cut_too_new",
    "routine_missing",
    "routine_unreadable",
    "routine_too_new",
    "routine_value",
}


def require_folder(out: Path) -> None:
    """Refuse a place that could not be written in the end, before anything is done for it."""
    folder = out.absolute().parent
    if not folder.is_dir():
        raise StorageError(f"There is no folder {folder}.", hint="Make it first.", code="no_folder")
    if not os.access(folder, os.W_OK):
        raise StorageError(
            "The folder cannot be written.", hint="Check who owns it.", code="storage_denied", folder=folder
        )


def require_file(out: Path) -> None:
    """As :func:`require_folder`; what is a folder already is no file either."""
    require_folder(out)
    if out.is_dir():
        raise StorageError(f"{out} is a folder.", hint="Name a file in it.", code="no_folder")


def print_json(facts: Mapping[str, Any]) -> None:
    """One object on a line; :mod:`tallpage.cli._json` says what each command's holds."""
    print(json.dumps(facts, ensure_ascii=False))


def opened_cut(path: Path | None) -> Cut | None:
    """The cut in a file that was named, if one was.

    Raises:
        CutError: there is no such file, or it is no cut.
    """
    if path is None:
        return None
    try:
        data = path.read_bytes()
    except OSError as error:
        raise CutError(f"{path} cannot be read.", hint="Check the path.", code="cut_missing") from error
    return read_cut(data)


@contextmanager
def told_in_one_line() -> Iterator[None]:
    """Our errors end the command with one line on standard error."""
    try:
        yield
    except TallPageError as error:
        _fail(error)
    except KeyboardInterrupt:
        print("Stopped.", file=sys.stderr)
        raise typer.Exit(_FAILED) from None


def _fail(error: TallPageError) -> NoReturn:
    print(error.in_one_line(), file=sys.stderr)
    raise typer.Exit(_USAGE if error.code in _USAGE_CODES else _FAILED) from None


@dataclass(frozen=True, slots=True)
class Step:
    """How far a command is: what it does now, and how many of how many; 0 when that is not known."""

    stage: str
    done: int
    expected: int


def each_with_bar(stage: str, rows: Sequence[Row]) -> Iterator[Row]:
    """The rows, one after the other, with a bar of how many are done."""
    with progress_bar() as on_progress:
        for number, row in enumerate(rows):
            on_progress(Step(stage, number, len(rows)))
            yield row


@contextmanager
def progress_bar() -> Iterator[Callable[[Step | PageProgress], None]]:
    """A bar on a terminal, nothing in a pipe."""
    if not sys.stderr.isatty():
        yield lambda _: None
        return
    from rich.console import Console
    from rich.progress import BarColumn, MofNCompleteColumn, Progress, TextColumn, TimeRemainingColumn

    console = Console(stderr=True)
    columns = (TextColumn("{task.description}"), BarColumn(), MofNCompleteColumn(), TimeRemainingColumn())
    with Progress(*columns, console=console, transient=True) as bar:
        task = bar.add_task("starting", total=None)

        def on_progress(progress: Step | PageProgress) -> None:
            bar.update(
                task, description=progress.stage, completed=progress.done, total=progress.expected or None
            )

        yield on_progress
