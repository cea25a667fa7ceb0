"""Tickets in the database, and a bell that tells at once when there is a new one."""

from __future__ import annotations

from functools import cached_property

from django.db import transaction
from django_q.brokers.orm import ORM
from django_q.conf import Conf

from tallpage.server.jobs.bell import Bell, ring


class BellBroker(ORM):  # type: ignore[misc]  # the package says nothing of its types
    """The package's own broker over the database, woken by a bell of its queue's name."""

    def enqueue(self, task: str) -> int:
        """Store a ticket; the bell is rung once it is there for others to see."""
        number: int = super().enqueue(task)
        queue = self.list_key
        transaction.on_commit(lambda: ring(queue), robust=True)
        return number

    def dequeue(self) -> list[tuple[int, str]] | None:
        """The next tickets, or None after a while without any."""
        if not self.queue_size():
            self._bell.wait(Conf.POLL)
            return None
        found: list[tuple[int, str]] | None = super().dequeue()
        return found

    @cached_property
    def _bell(self) -> Bell:
        return Bell(self.list_key)
