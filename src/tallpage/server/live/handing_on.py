"""Handing a client's connection from the web process to the one that live pages run in.

The connection itself is handed on, with all that was sent on it still to be read: frames go to the client
without passing through the web process, and outlive it. Source: unix(7), SCM_RIGHTS.
"""

from __future__ import annotations

import os
import re
import socket
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path

from tallpage.core.files import storage_errors

_ASKS = re.compile(rb"GET /live/socket(?:\?[^ ]*)? HTTP/1\.1\r\n")
_UPGRADES = re.compile(rb"(?im)^upgrade:[ \t]*websocket[ \t]*\r$")
_NAME = "live.sock"
_WAITING = 64
_TIMEOUT_S = 5.0


def asks_for_live(head: bytes) -> bool:
    """Whether a request asks for the socket of a live page."""
    return _ASKS.match(head) is not None and _UPGRADES.search(head) is not None


def hand_on(client: socket.socket, home: Path) -> bool:
    """Whether a connection was handed on; the caller then lets go of it without a word."""
    with socket.socket(socket.AF_UNIX, socket.SOCK_STREAM) as way, suppress(OSError):
        way.settimeout(_TIMEOUT_S)
        with _named(home / "run") as name:
            way.connect(name)
        socket.send_fds(way, [b"\0"], [client.fileno()])
        return way.recv(1) == b"\0"  # it is kept there now
    return False


def open_listener(home: Path) -> socket.socket:
    """Where connections are handed on to; only this user reaches it."""
    run = home / "run"
    with storage_errors(run):
        run.mkdir(parents=True, exist_ok=True)
        (run / _NAME).unlink(missing_ok=True)
    listener = socket.socket(socket.AF_UNIX, socket.SOCK_STREAM)
    with _named(run) as name:
        listener.bind(name)
    (run / _NAME).chmod(0o600)
    listener.listen(_WAITING)
    return listener


def handed_on(listener: socket.socket) -> socket.socket | None:
    """A connection that was handed on."""
    way, _ = listener.accept()
    with way:
        way.settimeout(_TIMEOUT_S)
        try:
            _, descriptors, _, _ = socket.recv_fds(way, 1, 1)
            if not descriptors:
                return None
            client = socket.socket(fileno=descriptors[0])
            way.sendall(b"\0")
        except OSError:
            return None
    return client


@contextmanager
def _named(folder: Path) -> Iterator[str]:
    """A name for the listener that is short enough, however long its folder's is. Source: unix(7)."""
    descriptor = os.open(folder, os.O_RDONLY | os.O_DIRECTORY)
    try:
        yield f"/proc/self/fd/{descriptor}/{_NAME}"
    finally:
        os.close(descriptor)
