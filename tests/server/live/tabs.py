"""Tabs that show a live page, as the interface opens them: the socket's protocol without a network."""

from __future__ import annotations

import asyncio
import json
import time
from collections.abc import Callable, Coroutine
from typing import Any

from asgiref.testing import ApplicationCommunicator
from channels.auth import AuthMiddlewareStack

from tallpage.server.live.consumer import LiveConsumer
from tallpage.server.live.visits import VISITS

DESK = {"width_px": 1280, "height_px": 800, "scale": 1, "touch": False}
PATIENCE_S = 60.0


class Tab:
    """One tab."""

    def __init__(
        self, *, origin: str = "http://localhost:8600", host: str = "localhost:8600", cookie: str = ""
    ) -> None:
        headers = [(b"origin", origin.encode()), (b"host", host.encode()), (b"cookie", cookie.encode())]
        scope = {"type": "websocket", "path": "/live/socket", "headers": headers, "query_string": b""}
        self._socket = ApplicationCommunicator(AuthMiddlewareStack(LiveConsumer.as_asgi()), scope)
        self.frames = 0
        self.heard: set[str] = set()
        """Kinds of messages so far."""

    async def connect(self) -> Tab:
        """Open the socket."""
        await self._socket.send_input({"type": "websocket.connect"})
        accepted = await self._socket.receive_output(timeout=PATIENCE_S)
        assert accepted["type"] == "websocket.accept"
        return self

    async def open(self, address: str, screen: dict[str, Any] = DESK) -> None:
        """Open an address, and wait until it is seen."""
        await self.send(kind="open", address=address, screen=screen)
        await self.until("place", lambda told: not told["loading"])

    async def click(self, number: int, x_px: int, y_px: int) -> None:
        """Click with the left button; two inputs, the first of that number."""
        place = {"kind": "pointer", "x_px": x_px, "y_px": y_px, "button": "left", "clicks": 1}
        await self.send(**place, number=number, act="down", buttons=1)
        await self.send(**place, number=number + 1, act="up")

    async def press(self, number: int, key: str, key_code: int, text: str = "") -> None:
        """Press a key."""
        await self.send(kind="key", number=number, act="down", key=key, key_code=key_code, text=text)

    async def send(self, **message: Any) -> None:
        """Say something."""
        await self.send_raw(json.dumps(message))

    async def send_raw(self, text: str) -> None:
        """Say something that may be no message."""
        await self._socket.send_input({"type": "websocket.receive", "text": text})

    async def until(
        self, kind: str, holds: Callable[[dict[str, Any]], bool] = lambda _: True
    ) -> dict[str, Any]:
        """The next message of a kind of which something holds."""
        last_s = time.monotonic() + PATIENCE_S
        while True:
            told = await self._heard(last_s - time.monotonic())
            if told.get("kind") == kind and holds(told):
                return told

    async def until_frame(self) -> None:
        """Wait for a frame more."""
        before, last_s = self.frames, time.monotonic() + PATIENCE_S
        while self.frames == before:
            await self._heard(last_s - time.monotonic())

    async def until_closed(self) -> int:
        """The code that the socket is closed with."""
        while True:
            output = await self._socket.receive_output(timeout=PATIENCE_S)
            if output["type"] == "websocket.close":
                return int(output["code"])

    async def leave(self) -> None:
        """Close the socket."""
        await self._socket.send_input({"type": "websocket.disconnect", "code": 1_000})
        await self._socket.wait(timeout=PATIENCE_S)

    async def _heard(self, left_s: float) -> dict[str, Any]:
        output = await self._socket.receive_output(timeout=max(0.01, left_s))
        assert output["type"] == "websocket.send", output
        if output.get("text") is not None:
            found: dict[str, Any] = json.loads(output["text"])
            self.heard.add(found["kind"])
            return found
        self.frames += 1
        if not output["bytes"][0]:
            await self.send(kind="drawn")
        return {}


def in_tabs(story: Callable[[], Coroutine[Any, Any, None]]) -> None:
    """What happens in some tabs; every page is closed at its end."""

    async def told() -> None:
        try:
            await story()
        finally:
            await VISITS.end_all()
            await asyncio.sleep(0)

    asyncio.run(told())
