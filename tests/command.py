"""Commands run in this process: starting one of its own takes longer than most of what is tested."""

from __future__ import annotations

import json
import logging
from collections.abc import Callable, Iterator
from concurrent.futures import Future
from contextlib import contextmanager
from dataclasses import dataclass
from typing import Any

from typer.testing import CliRunner

from tallpage.cli import app
from tallpage.cli._json import ANSWERS


@dataclass(frozen=True, slots=True, kw_only=True)
class Ran:
    """How a command ended, and what it printed."""

    command: str
    returncode: int
    printed: bytes
    """Standard output as it is: it may be a picture."""
    stderr: str

    @property
    def stdout(self) -> str:
        """Standard output as text."""
        return self.printed.decode()

    def answer(self) -> Any:
        """The one object that was printed; fails where it is not as the schema in ``docs`` says."""
        (line,) = self.stdout.splitlines()
        return read_answer(self.command, line)


def run_command(*arguments: str, stdin: bytes = b"") -> Ran:
    """Run ``tallpage`` with these arguments."""
    with _logging_as_at_start():
        result = CliRunner().invoke(app, arguments, input=stdin)
    if result.exception is not None and not isinstance(result.exception, SystemExit):
        raise result.exception
    return Ran(
        command=arguments[0],
        returncode=result.exit_code,
        printed=result.stdout_bytes,
        stderr=result.stderr,
    )


@contextmanager
def _logging_as_at_start() -> Iterator[None]:
    """Nobody has said where messages go, as in a process of its own: the server's settings have, here."""
    root = logging.getLogger()
    handlers, level = root.handlers, root.level
    root.handlers = []
    root.setLevel(logging.WARNING)
    yield
    root.handlers = handlers
    root.setLevel(level)


def read_answer(command: str, text: str) -> Any:
    """An object that a command printed with ``--json``, held to the schema in ``docs``."""
    answer = json.loads(text)
    ANSWERS[command].validate_json(text, strict=True)
    return answer


RunCommand = Callable[..., Ran]
"""``run(*arguments, stdin=b"")``"""


class InThisProcess:
    """Does at once what a pool of processes would do."""

    def __init__(self, *_: object, **__: object) -> None:
        pass

    def submit(self, work: Callable[..., Any], *given: object) -> Future[Any]:
        future: Future[Any] = Future()
        future.set_result(work(*given))
        return future

    def shutdown(self, **_: object) -> None:
        pass
