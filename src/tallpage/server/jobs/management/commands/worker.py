"""``worker``: serve one queue (named by Q_CLUSTER_NAME) and take up what killed workers left."""

from __future__ import annotations

import gc
import logging
import os
import signal
import time
from collections.abc import Callable
from typing import Any

from django.core.management.base import BaseCommand
from django_q.cluster import Cluster

from tallpage.core.processes import die_with_parent, have_forks_die_with_parent
from tallpage.server.jobs.apart import safely
from tallpage.server.jobs.bell import Bell
from tallpage.server.jobs.queue import Cluster as ClusterName
from tallpage.server.jobs.recovery import IDLE_AFTER, recover_abandoned, recover_lost_tickets
from tallpage.server.jobs.ticking import bell_of, ticks_of, wake
from tallpage.server.supervisor import supervisor_id

_log = logging.getLogger(__name__)
_RECOVERY_SECONDS = 5.0
_STUCK_WITHIN_SECONDS = 2 * IDLE_AFTER.total_seconds() + 2 * _RECOVERY_SECONDS
"""Tickets that go unheeded twice within this time: these processes do not draw any."""
_PATIENCE_AT_END_SECONDS = 4.0
_STEP_SECONDS, _REST_SECONDS = 0.4, 5.0


class Command(BaseCommand):
    """Runs until it is told to stop."""

    help = "Serves one queue and takes up work that a killed worker left behind."

    def handle(self, *_args: Any, **_options: Any) -> None:
        """Start the queue's processes, then look for abandoned work again and again."""
        # Whoever is killed must not leave processes behind that nobody watches.
        die_with_parent(supervisor_id())
        have_forks_die_with_parent()
        name: ClusterName = "files" if os.environ.get("Q_CLUSTER_NAME") == "files" else "pages"
        bell = Bell(bell_of(name))
        # What is loaded by now is not looked through for garbage again: each process would get a copy of it.
        gc.collect()
        gc.freeze()
        processes = _Processes(on_end=lambda: wake(name))
        next_look_s, lost_s = 0.0, -_STUCK_WITHIN_SECONDS
        while not processes.told_to_end:
            processes.keep_up()
            if time.monotonic() >= next_look_s:
                safely(recover_abandoned)
                if safely(lambda: recover_lost_tickets(name)):
                    if time.monotonic() - lost_s < _STUCK_WITHIN_SECONDS:
                        processes.replace()
                    lost_s = time.monotonic()
                next_look_s = time.monotonic() + _RECOVERY_SECONDS
            soon = [safely(tick) for tick in ticks_of(name)]
            bell.wait(_STEP_SECONDS if any(soon) else _REST_SECONDS)
        processes.end()


class _Processes:
    """The queue's processes: one that watches, those that work, those that carry tickets."""

    def __init__(self, *, on_end: Callable[[], None]) -> None:
        self.told_to_end = False
        self._on_end = on_end
        self._cluster = self._start()

    def keep_up(self) -> None:
        """Start them anew when somebody killed the one that watches: the others went with it."""
        if not self._cluster.sentinel.is_alive():
            self._cluster = self._start()

    def replace(self) -> None:
        """Start them anew, because they do nothing although there is work.

        A process that was killed may have held the lock with which all draw their tickets.
        """
        _log.warning("the queue's processes are stuck and are replaced")
        self._kill()
        self._cluster = self._start()

    def end(self) -> None:
        """Let what is under way come to its end, for a while; the rest is taken up at the next start."""
        self._cluster.stop_event.set()
        self._cluster.sentinel.join(timeout=_PATIENCE_AT_END_SECONDS)
        self._kill()

    def _start(self) -> Cluster:
        cluster = Cluster()  # listens to signals itself, and forgets one that comes at a wrong moment
        for number in (signal.SIGTERM, signal.SIGINT):
            signal.signal(number, self._hear)
        cluster.start()
        return cluster

    def _hear(self, *_: object) -> None:
        self.told_to_end = True
        self._on_end()

    def _kill(self) -> None:
        self._cluster.sentinel.kill()
        self._cluster.sentinel.join()
