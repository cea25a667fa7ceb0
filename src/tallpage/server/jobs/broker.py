"""Tickets in the database, and a bell that tells at once when there is a new one.

Looking into the database again and again costs as much when nothing goes on, and the more the sooner a
ticket is to be found. With a bell it is looked into seldom. A ring that is lost delays a ticket, no more.
"""

from __future__ import annotations

import hashlib
import os
import select
import socket
from contextlib import suppress
from functools import cached_property

from django.db import transaction
from django_q.brokers.orm import ORM
from django_q.conf import Conf

from tallpage.server.home import home_folder


class BellBroker(ORM):  # type: ignore[misc]  # the package says nothing of its types
    """The package's own broker over the database, woken by :func:`ring`."""

    def enqueue(self, task: str) -> int:
        """Store a ticket; the bell is rung once it is there for others to see."""
        number: int = super().enqueue(task)
        queue = self.list_key
        transaction.on_commit(lambda: ring(queue), robust=True)
        return number

    def dequeue(self) -> list[tuple[int, str]] | None:
        """The next tickets, or None after a while without any."""
        if self._bell is not None and not self.queue_size():
            self._wait(self._bell)
            return None
        found: list[tuple[int, str]] | None = super().dequeue()
        return found

    @cached_property
    def _bell(self) -> socket.socket | None:
        """The bell of this queue; None where another process of this machine listens to it."""
        bell = socket.socket(socket.AF_UNIX, socket.SOCK_DGRAM | socket.SOCK_NONBLOCK)
        try:
            bell.bind(_address(self.list_key))
        except OSError:
            bell.close()
            return None
        return bell

    def _wait(self, bell: socket.socket) -> None:
        if not select.select([bell], [], [], Conf.POLL)[0]:
            return
        with suppress(BlockingIOError):
            while True:
                bell.recv(1)


def ring(queue: str) -> None:
    """Wake whoever waits for tickets of a queue on this machine, if somebody does."""
    with socket.socket(socket.AF_UNIX, socket.SOCK_DGRAM | socket.SOCK_NONBLOCK) as bell, suppress(OSError):
        bell.sendto(b".", _address(queue))


def _address(queue: str) -> bytes:
    """A name that is no file: nothing is left of it when its process ends, however that ends."""
    digest = hashlib.sha256(os.fsencode(home_folder())).hexdigest()[:16]
    return f"\0tallpage-{digest}-{queue}".encode()
