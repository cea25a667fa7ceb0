"""The process that live pages run in: connections come handed on from the web process."""

from __future__ import annotations

import asyncio
import signal
import socket
from functools import cache
from typing import TYPE_CHECKING

import django

from tallpage.core.processes import have_forks_die_with_parent
from tallpage.server.home import home_folder
from tallpage.server.live.handing_on import handed_on, open_listener

if TYPE_CHECKING:
    from tallpage.server.live.connections import Connections


def serve_live_pages() -> None:
    """Serve until told to end. Django is set up with the first who comes."""
    have_forks_die_with_parent()
    asyncio.run(_serve())


async def _serve() -> None:
    loop = asyncio.get_running_loop()
    listener = open_listener(home_folder())
    under_way = set()

    async def take_over(client: socket.socket) -> None:
        await loop.connect_accepted_socket(_connections().answer, client)

    def hear() -> None:
        client = handed_on(listener)
        if client is not None:
            task = loop.create_task(take_over(client))
            under_way.add(task)
            task.add_done_callback(under_way.discard)

    loop.add_reader(listener.fileno(), hear)
    told_to_end = asyncio.Event()
    for number in (signal.SIGTERM, signal.SIGINT):
        loop.add_signal_handler(number, told_to_end.set)
    await told_to_end.wait()
    loop.remove_reader(listener.fileno())
    if _connections.cache_info().currsize:
        await _connections().end_all()


@cache
def _connections() -> Connections:
    """Loaded with the first: mostly nobody comes, and it takes 50 MB."""
    django.setup()
    from tallpage.server.live.connections import Connections

    return Connections()
