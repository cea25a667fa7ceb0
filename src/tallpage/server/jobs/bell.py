"""Waking a process of this machine that waits for something to do.

Looking into the database again and again costs something even when nothing goes on, and the more the
sooner news is to be found. With a bell it is looked into seldom. A ring that is lost delays, no more.
"""

from __future__ import annotations

import hashlib
import os
import select
import socket
import weakref
from contextlib import suppress

from tallpage.server.home import home_folder


class Bell:
    """What one process listens to. Where another one has the bell of that name, it is never heard."""

    def __init__(self, name: str) -> None:
        self._socket = socket.socket(socket.AF_UNIX, socket.SOCK_DGRAM | socket.SOCK_NONBLOCK)
        weakref.finalize(self, self._socket.close)
        with suppress(OSError):
            self._socket.bind(_address(name))

    def wait(self, at_most_s: float) -> None:
        """Wait until it is rung; at once when it was since the last time."""
        if not select.select([self._socket], [], [], at_most_s)[0]:
            return
        with suppress(BlockingIOError):
            while True:
                self._socket.recv(1)


def ring(name: str) -> None:
    """Wake whoever listens to a bell of this data folder on this machine, if somebody does."""
    with socket.socket(socket.AF_UNIX, socket.SOCK_DGRAM | socket.SOCK_NONBLOCK) as bell, suppress(OSError):
        bell.sendto(b".", _address(name))


def _address(name: str) -> bytes:
    """A name that is no file: nothing is left of it when its process ends, however that ends."""
    digest = hashlib.sha256(os.fsencode(home_folder())).hexdigest()[:16]
    return f"\0tallpage-{digest}-{name}".encode()
