"""``python -m tallpage.server.live.serving``: the process that live pages run in."""

from __future__ import annotations

import asyncio
import os
import signal
import socket
import sys
from pathlib import Path
from typing import Any

from tallpage.core.processes import die_with_parent, have_forks_die_with_parent
from tallpage.server.supervisor import supervisor_id


def main() -> int:
    """Serve until told to end."""
    die_with_parent(supervisor_id())
    have_forks_die_with_parent()
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "tallpage.server.settings")
    import django

    django.setup()
    asyncio.run(_serve())
    return 0


async def _serve() -> None:
    from channels.auth import AuthMiddlewareStack
    from django.conf import settings
    from uvicorn.config import Config
    from uvicorn.server import ServerState

    from tallpage.server.live.consumer import LiveConsumer
    from tallpage.server.live.handing_on import handed_on, open_listener
    from tallpage.server.live.messages import MOST_MESSAGE_BYTES
    from tallpage.server.live.visits import VISITS

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
    loop = asyncio.get_running_loop()
    listener = open_listener(Path(settings.HOME))
    under_way = set()

    async def take_over(client: socket.socket) -> None:
        await loop.connect_accepted_socket(
            lambda: protocol(config=config, server_state=state, app_state={}), client
        )

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
    await VISITS.end_all()


if __name__ == "__main__":
    sys.exit(main())
