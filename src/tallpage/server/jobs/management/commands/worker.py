"""``worker``: serve one queue (named by Q_CLUSTER_NAME) and take up what killed workers left."""

from __future__ import annotations

import ctypes
import logging
import os
import signal
import time
from collections.abc import Callable
from typing import Any

from django.core.management.base import BaseCommand
from django.db import DatabaseError, close_old_connections
from django_q.cluster import Cluster

from tallpage.server.jobs.recovery import recover_abandoned, recover_lost_tickets
from tallpage.server.jobs.ticking import ticks_of
from tallpage.server.storage import sweep_incoming

_log = logging.getLogger(__name__)
_RECOVERY_SECONDS = 5.0
_STEP_SECONDS = 0.4
_LEFTOVERS_AFTER_SECONDS = 24 * 3_600
_PR_SET_PDEATHSIG = 1


class Command(BaseCommand):
    """Runs until it is told to stop."""

    help = "Serves one queue and takes up work that a killed worker left behind."

    def handle(self, *_args: Any, **_options: Any) -> None:
        """Start the queue's processes, then look for abandoned work again and again."""
        # A killed worker must not leave processes behind that nobody watches.
        os.register_at_fork(after_in_child=_die_with_parent)
        sweep_incoming(older_than_seconds=_LEFTOVERS_AFTER_SECONDS)
        cluster = Cluster()
        cluster.start()
        ticks = ticks_of(os.environ.get("Q_CLUSTER_NAME", ""))
        next_look_s = 0.0
        while not cluster.has_stopped:
            if not cluster.sentinel.is_alive() and not cluster.has_stopped:
                # Somebody killed the process that watches over the others, and they went with it.
                cluster = Cluster()
                cluster.start()
            if time.monotonic() >= next_look_s:
                _safely(recover_abandoned)
                _safely(recover_lost_tickets)
                next_look_s = time.monotonic() + _RECOVERY_SECONDS
            for tick in ticks:
                _safely(tick)
            time.sleep(_STEP_SECONDS)


def _safely(step: Callable[[], object]) -> None:
    """Do something small with the database; when it is busy, the next round does it."""
    try:
        step()
    except DatabaseError:
        _log.warning("%s did not work; trying again", step.__name__, exc_info=True)
    finally:
        close_old_connections()


def _die_with_parent() -> None:
    ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, signal.SIGKILL)
