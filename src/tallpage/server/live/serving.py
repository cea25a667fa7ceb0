"""The process that live pages run in: connections come handed on from the web process."""

from __future__ import annotations

import asyncio
import signal
import socket
from collections.abc import Callable
from functools import cache
from typing import Any

import django

from tallpage.core.processes import have_forks_die_with_parent
from tallpage.server.home import home_folder
from tallpage.server.live.handing_on import handed_on, open_listener

MOST_MESSAGE_BYTES = 64_000
"""More is refused by the socket itself."""


def serve_live_pages() -> None:
    """Serve until told to end. Django is set up with the first who comes."""
    have_forks_die_with_parent()
    asyncio.run(_serve())


async def _serve() -> None:
    loop = asyncio.get_running_loop()
    listener = open_listener(home_folder())
    under_way = set()

    async def take_over(client: socket.socket) -> None:
        await loop.connect_accepted_socket(_protocol(), client)

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
    if _protocol.cache_info().currsize:
        from tallpage.server.live.visits import VISITS

        await VISITS.end_all()


@cache
def _protocol() -> Callable[[], Any]:
    """What answers a connection. Loaded with the first: mostly nobody comes, and it takes 50 MB."""
    django.setup()
    from channels.auth import AuthMiddlewareStack
    from uvicorn.config import Config
    from uvicorn.server import ServerState

    from tallpage.server.live.consumer import LiveConsumer

    config = Config(
        AuthMiddlewareStack(LiveConsumer.as_asgi()),
        interface="asgi3",
        lifespan="off",
        log_level="warning",
        access_log=False,
        proxy_headers=False,
        ws_max_size=MOST_MESSAGE_BYTES,
        ws_per_message_deflate=False,  # frames are as small as they get
    )
    config.load()
    protocol: Any = config.http_protocol_class
    state = ServerState()
    return lambda: protocol(config=config, server_state=state, app_state={})
