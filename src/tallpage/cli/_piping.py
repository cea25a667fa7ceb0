"""``-`` in place of a file: pictures and lists come in on standard input, files leave by standard output."""

from __future__ import annotations

import shutil
import sys
import tempfile
from collections.abc import Iterator
from contextlib import AbstractContextManager, contextmanager, nullcontext, redirect_stdout
from pathlib import Path

from tallpage.core.errors import StorageError
from tallpage.core.files import storage_errors

STANDARD = Path("-")


@contextmanager
def input_file(file: Path) -> Iterator[Path]:
    """A file to be read; what comes in on standard input lies in one meanwhile.

    Raises:
        StorageError: nothing does, or the disk is full.
    """
    if file != STANDARD:
        yield file
        return
    if sys.stdin.isatty():
        raise StorageError(
            "Nothing comes in on standard input.", hint="Pipe a file into it, or name one.", code="no_input"
        )
    with tempfile.TemporaryDirectory(prefix="tallpage-") as scratch:
        copy = Path(scratch) / "standard input"
        with storage_errors(copy.parent), copy.open("wb") as target:
            shutil.copyfileobj(sys.stdin.buffer, target)
        yield copy


@contextmanager
def output_file(out: Path, name: str) -> Iterator[Path]:
    """Where to write a file; one that leaves by standard output is called ``name`` until then.

    Raises:
        StorageError: there are several files.
    """
    if out != STANDARD:
        yield out
        return
    with tempfile.TemporaryDirectory(prefix="tallpage-") as scratch:
        yield Path(scratch) / name
        made = sorted(Path(scratch).iterdir())
        if len(made) > 1:
            raise StorageError(
                f"{len(made)} files cannot leave by standard output.",
                hint="Name a file to write.",
                code="several_files",
            )
        for file in made:
            with file.open("rb") as source:
                shutil.copyfileobj(source, sys.stdout.buffer)
            sys.stdout.buffer.flush()


def messages_beside(out: Path) -> AbstractContextManager[object]:
    """Where standard output holds a file, what is told goes to standard error."""
    return redirect_stdout(sys.stderr) if out == STANDARD else nullcontext()
