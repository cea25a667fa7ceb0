"""Small things that the workers' supervisors do again and again, besides serving their queue."""

from __future__ import annotations

from collections.abc import Callable

from tallpage.server.jobs.bell import ring
from tallpage.server.jobs.queue import Cluster

Tick = Callable[[], bool]
"""Says whether it has something to do again soon."""
_TICKS: dict[Cluster, list[Tick]] = {"pages": [], "files": []}


def register_periodic(cluster: Cluster, tick: Tick) -> None:
    """Have the supervisor of ``cluster`` call ``tick``: about twice a second while that has something to do
    again soon, else every few seconds and whenever :func:`wake` is called.

    Several machines may do so at once: it has to be one short transaction.
    """
    _TICKS[cluster].append(tick)


def ticks_of(cluster: Cluster) -> list[Tick]:
    """What the supervisor of a cluster is to call."""
    return _TICKS[cluster]


def wake(cluster: Cluster) -> None:
    """Have the supervisor of ``cluster`` on this machine call what it calls now."""
    ring(bell_of(cluster))


def bell_of(cluster: Cluster) -> str:
    """The bell that the supervisor of a cluster listens to."""
    return f"supervisor-{cluster}"
