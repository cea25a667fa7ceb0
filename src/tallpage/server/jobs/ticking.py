"""Small things that the workers' supervisors do again and again, besides serving their queue."""

from __future__ import annotations

from collections.abc import Callable

from tallpage.server.jobs.queue import Cluster

_TICKS: dict[Cluster, list[Callable[[], None]]] = {"pages": [], "files": []}


def every_moment(cluster: Cluster, tick: Callable[[], None]) -> None:
    """Have the supervisor of ``cluster`` call ``tick`` about twice a second.

    Several machines may do so at once: it has to be one short transaction.
    """
    _TICKS[cluster].append(tick)


def ticks_of(cluster: Cluster) -> list[Callable[[], None]]:
    """What the supervisor of a cluster is to call."""
    return _TICKS[cluster]
