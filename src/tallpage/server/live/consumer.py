"""The socket of a live page: who may have one, and what is done with each message."""

from __future__ import annotations

import json
from typing import Any
from urllib.parse import urlsplit

from channels.db import database_sync_to_async
from channels.generic.websocket import AsyncWebsocketConsumer
from django.conf import settings
from django.http.request import split_domain_port, validate_host

from tallpage.core.errors import PageError, TallPageError
from tallpage.server.live.messages import (
    Answer,
    Choose,
    Drawn,
    Forget,
    KeyIn,
    Message,
    Move,
    Open,
    Plain,
    Point,
    PointerIn,
    Take,
    TextIn,
    TouchIn,
    problem_of,
    read_message,
)
from tallpage.server.live.visits import VISITS, Visit, address_to_open
from tallpage.server.people.roles import role_of

NOT_ALLOWED, ELSEWHERE = 4_403, 4_409
"""Why a socket is closed: who asks may not have one, or the page is seen in another tab now."""


class LiveConsumer(AsyncWebsocketConsumer):  # type: ignore[misc]
    """One tab that shows a live page, or is about to open one."""

    _visit: Visit | None = None
    _person = ""

    async def connect(self) -> None:
        """Let in whoever comes from our own page and may take pictures."""
        headers = {name.decode("latin-1"): value.decode("latin-1") for name, value in self.scope["headers"]}
        may = is_same_origin(headers.get("origin", ""), headers.get("host", ""))
        user = self.scope["user"]
        if settings.ACCOUNTS:
            may = may and user.is_authenticated
            may = may and await database_sync_to_async(role_of)(user) != "viewer"
            self._person = str(user.pk)
        await self.accept()  # a socket that is refused before cannot say why
        if not may:
            await self.close(code=NOT_ALLOWED)
            return
        visit = VISITS.of(self._person)
        await self.tell({"kind": "hello", "open": _as_open(visit)})
        if visit is not None:
            self._visit = visit
            await visit.seen_by(self)

    async def disconnect(self, code: int) -> None:  # noqa: ARG002  (as Channels calls it)
        """The page waits a while for its person to come back."""
        visit, self._visit = self._visit, None
        if visit is not None and visit.watcher is self:
            await visit.seen_by(None)

    async def receive(self, text_data: str | None = None, bytes_data: bytes | None = None) -> None:
        """Do what a message says."""
        try:
            await self._do(read_message(text_data if text_data is not None else bytes_data or b""))
        except TallPageError as error:
            # What could not even be begun leaves the tab without a page.
            await self.tell({"kind": "failed", "open": self._visit is not None, **problem_of(error)})

    async def show(self, data: bytes) -> None:
        """Show a frame."""
        await self.send(bytes_data=data)

    async def tell(self, message: dict[str, Any]) -> None:
        """Tell something."""
        await self.send(text_data=json.dumps(message))

    async def leave(self) -> None:
        """The page is seen in another tab now."""
        self._visit = None
        await self.close(code=ELSEWHERE)

    async def _do(self, message: Message) -> None:
        if isinstance(message, Open):
            await self._open(message)
            return
        visit = self._visit
        if visit is None or VISITS.of(self._person) is not visit:
            raise PageError("No live page is open.", hint="Open an address.", code="page_closed")
        if isinstance(message, Drawn):
            visit.page.drawn()
            return
        visit.used()
        match message:
            case PointerIn() | TouchIn() | KeyIn() | TextIn():
                visit.page.do(message.as_input(), message.number)
            case Move():
                visit.page.move(message.by)
            case Point():
                visit.page.point(message.x_px, message.y_px, outer=message.outer, panel=message.panel)
            case Choose():
                visit.page.choose(message.number)
            case Answer():
                visit.page.answer(accept=message.accept, text=message.text)
            case Forget():
                visit.page.forget_step(message.number)
            case Take():
                visit.take(message)
            case Plain(kind="keep_sign_in"):
                visit.keep_sign_in()
            case Plain(kind="open_again"):
                again = visit.asked.model_copy(update={"address": visit.address})
                await self._end(visit)
                await self._open(again)
            case Plain(kind="close"):
                await self._end(visit)
                await self.tell({"kind": "ended", "sentence": ""})
            case _:
                pass  # it stays open

    async def _end(self, visit: Visit) -> None:
        """End a page that is not wanted any more; its end is no news to this tab."""
        if visit.watcher is self:
            visit.watcher = None
        self._visit = None
        await visit.end()

    async def _open(self, message: Open) -> None:
        visit = VISITS.of(self._person)
        if visit is not None and visit.asked.screen == message.screen:
            visit.used()
            visit.page.go(await address_to_open(message.address))
            return
        if visit is not None:
            await self._end(visit)
        self._visit = await VISITS.begin(self._person, message)
        self._visit.watcher = self


def is_same_origin(origin: str, host: str) -> bool:
    """Whether a socket was opened by a page of ours: other pages' scripts can open one too.

    Source: RFC 6455, 10.2.
    """
    if not validate_host(split_domain_port(host)[0], settings.ALLOWED_HOSTS):
        return False
    return urlsplit(origin).netloc.lower() == host.lower()


def _as_open(visit: Visit | None) -> dict[str, Any] | None:
    if visit is None:
        return None
    return {"address": visit.address, "screen": visit.asked.screen.model_dump()}
