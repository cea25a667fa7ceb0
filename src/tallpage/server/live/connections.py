"""The connections of those who use live pages, and what answers them. Loaded once Django is set up."""

from __future__ import annotations

import asyncio
from typing import Any

from channels.auth import AuthMiddlewareStack
from uvicorn.config import Config
from uvicorn.server import ServerState

from tallpage.server.live.consumer import LiveConsumer
from tallpage.server.live.visits import VISITS

_MOST_MESSAGE_BYTES = 64_000
"""More is refused by the socket itself."""
_FAREWELL_S = 2.0


class Connections:
    """All that are open in this process."""

    def __init__(self) -> None:
        self._state = ServerState()
        self._config = Config(
            AuthMiddlewareStack(LiveConsumer.as_asgi()),
            interface="asgi3",
            lifespan="off",
            log_level="warning",
            access_log=False,
            proxy_headers=False,
            ws_max_size=_MOST_MESSAGE_BYTES,
            ws_per_message_deflate=False,  # frames are as small as they get
        )
        self._config.load()

    def answer(self) -> Any:
        """The protocol that answers one more."""
        protocol: Any = self._config.http_protocol_class
        return protocol(config=self._config, server_state=self._state, app_state={})

    async def end_all(self) -> None:
        """End the live pages, and then what is open; who is there is told that the server goes."""
        await VISITS.end_all()
        for connection in list(self._state.connections):
            connection.shutdown()
        if self._state.tasks:
            await asyncio.wait(self._state.tasks, timeout=_FAREWELL_S)
