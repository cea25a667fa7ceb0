"""Commands that take a while show a bar on a terminal, and nothing in a pipe."""

from __future__ import annotations

import os
import pty
import subprocess
import sys
import threading
from pathlib import Path

import pytest

from tests.pictures import as_png, photograph


def _on_a_terminal(*arguments: str) -> tuple[str, str]:
    """What a command writes to standard output, and to a terminal that is its standard error."""
    ours, terminal = pty.openpty()
    shown: list[bytes] = []

    def read() -> None:
        try:
            while piece := os.read(ours, 4_096):
                shown.append(piece)
        except OSError:  # the other end is closed
            pass

    reader = threading.Thread(target=read)
    reader.start()
    told = {**os.environ, "TERM": "xterm", "COLUMNS": "100"}
    command = [sys.executable, "-m", "tallpage", *arguments]
    run = subprocess.run(command, stdout=subprocess.PIPE, stderr=terminal, env=told, timeout=120, check=True)
    os.close(terminal)
    reader.join()
    os.close(ours)
    return run.stdout.decode(), b"".join(shown).decode()


@pytest.mark.parametrize(
    ("command", "stage"),
    [pytest.param(("fit", "{}", "--width", "200", "--limit", "30kB", "--out", "{}-fit"), "WebP",
                  marks=pytest.mark.long),
     (("pdf", "{}", "--paper", "A4", "--out", "{}.pdf"), "drawing")],
)  # fmt: skip
def test_a_bar_says_what_is_done_on_a_terminal_alone(
    tmp_path: Path, command: tuple[str, ...], stage: str
) -> None:
    picture = tmp_path / "ferry.png"
    picture.write_bytes(as_png(photograph(600, 900)))
    arguments = [part.format(picture) for part in command]
    told, shown = _on_a_terminal(*arguments)
    assert stage.lower() in shown.lower()
    piped = subprocess.run(
        [sys.executable, "-m", "tallpage", *arguments],
        capture_output=True,
        text=True,
        timeout=120,
        check=True,
    )
    assert piped.stderr == ""
    assert told == piped.stdout
