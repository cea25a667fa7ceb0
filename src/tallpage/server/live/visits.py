"""Live pages as long as they are open: one for each person, and a few in all."""

from __future__ import annotations

import asyncio
import logging
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any, Protocol

from asgiref.sync import sync_to_async
from channels.db import database_sync_to_async
from django.conf import settings

from tallpage.core.capture import FilteringProxy, normalise_address, require_public
from tallpage.core.capture.live import (
    Ended,
    Event,
    Frame,
    LivePage,
    NotTaken,
    Place,
    Taken,
    TakeOrder,
)
from tallpage.core.errors import PageError, TallPageError
from tallpage.core.geometry import Box
from tallpage.server.live.keeping import keep_taken, save_sign_in, settings_of
from tallpage.server.live.messages import Open, Take, frame_bytes, problem_of, told
from tallpage.server.shelf.routes.schemas import TakeSettings
from tallpage.server.signins.keeping import sign_in_for
from tallpage.server.storage import discard_folder, incoming_folder

IDLE_S, WARNING_S = 600.0, 60.0
"""A page that nobody uses is closed after so long, and its person warned so long before."""
ALONE_S = 120.0
"""How long a page stays open whose person is gone."""
_LOOK_S = 5.0
_log = logging.getLogger(__name__)


class Watcher(Protocol):
    """Somebody who sees a live page."""

    async def show(self, data: bytes) -> None:
        """Show a frame."""

    async def tell(self, message: dict[str, Any]) -> None:
        """Tell something."""

    async def leave(self) -> None:
        """The page is seen elsewhere now."""


class Visit:
    """One person's live page. Everything is called in the loop of the process."""

    def __init__(self, asked: Open, address: str, on_end: Callable[[Visit], None]) -> None:
        self.asked = asked
        self.address = address
        self.watcher: Watcher | None = None
        self.ended = asyncio.Event()
        """Set once its browser is gone."""
        self._on_end = on_end
        self._loop = asyncio.get_running_loop()
        self._page: LivePage | None = None
        self._proxy: FilteringProxy | None = None
        self._orders: dict[Path, Take] = {}
        self._used_at = self._seen_at = time.monotonic()
        self._warned = False
        self._sending: asyncio.Queue[Event] = asyncio.Queue()
        self._tasks = [self._loop.create_task(self._tell_all()), self._loop.create_task(self._watch())]

    @property
    def _settings(self) -> TakeSettings:
        return TakeSettings(scheme=self.asked.scheme, language=self.asked.language)

    @property
    def page(self) -> LivePage:
        """The page itself."""
        if self._page is None:
            raise PageError("The page is not there yet.", code="page_closed")
        return self._page

    async def begin(self) -> None:
        """Start a browser at the address.

        Raises:
            TallPageError: the address is none that is opened.
        """
        sign_in = await database_sync_to_async(sign_in_for)(self.address)
        request = self._settings.as_request(self.address, self.asked.screen.as_screen(), sign_in)
        if not settings.ALLOW_PRIVATE:
            self._proxy = FilteringProxy(settings.PRIVATE_HOSTS.allows).__enter__()
        self._page = LivePage(request, self._hear, filtering_proxy=self._proxy)
        self._page.start()

    def used(self) -> None:
        """Somebody did something."""
        self._used_at, self._warned = time.monotonic(), False

    async def seen_by(self, watcher: Watcher | None) -> None:
        """Show it to somebody else from now on, or to nobody."""
        before, self.watcher = self.watcher, watcher
        self._seen_at = time.monotonic()
        if before is not None and watcher is not None and before is not watcher:
            await before.leave()
        if watcher is not None:
            self.used()
            self.page.show_again()

    def take(self, asked: Take) -> None:
        """Take the page, with what was done so far as its steps.

        Raises:
            StorageError: there is no room for it.
        """
        folder = incoming_folder()
        self._orders[folder] = asked
        self.page.take(TakeOrder(extent=asked.extent, target=asked.target), folder)

    def keep_sign_in(self) -> None:
        """Save what the page's host has given the visit."""

        def heard(state: dict[str, Any]) -> None:
            self._loop.call_soon_threadsafe(
                lambda: self._tasks.append(self._loop.create_task(self._save_sign_in(state)))
            )

        self.page.tell_state(heard)

    async def end(self) -> None:
        """Close the page and its browser."""
        if self._page is not None:
            self._page.close()
            await sync_to_async(self._page.wait_closed, thread_sensitive=False)(10)
        self._let_go()

    def _let_go(self) -> None:
        if self._proxy is not None:
            self._proxy.__exit__(None, None, None)
            self._proxy = None
        for folder in self._orders:
            discard_folder(folder)
        self._orders.clear()
        self._on_end(self)
        self.ended.set()
        for task in self._tasks:
            if task is not asyncio.current_task():
                task.cancel()

    def _hear(self, event: Event) -> None:
        """From the page's thread."""
        self._loop.call_soon_threadsafe(self._sending.put_nowait, event)

    async def _tell_all(self) -> None:
        while True:
            event = await self._sending.get()
            try:
                await self._tell(event)
            except TallPageError as error:
                await self._say({"kind": "failed", **problem_of(error)})
            except Exception:
                _log.exception("A live page could not tell of something")
            if isinstance(event, Ended):
                return

    async def _tell(self, event: Event) -> None:
        match event:
            case Frame():
                if self.watcher is not None:
                    await self.watcher.show(frame_bytes(event))
            case Taken():
                await self._keep(event)
            case Ended(error):
                await self._say({"kind": "ended", **(problem_of(error) if error else {"sentence": ""})})
                self._let_go()
            case _:
                if isinstance(event, Place):
                    self.address = event.address
                if isinstance(event, NotTaken):
                    self._orders.pop(event.folder, None)
                    discard_folder(event.folder)
                message = told(event)
                if message is not None:
                    await self._say(message)

    async def _keep(self, taken: Taken) -> None:
        asked = self._orders.pop(taken.folder)
        how = settings_of(asked.extent, asked.target, taken.recording, self._settings)
        area: Box | None = asked.area.as_box() if asked.area else None
        try:
            capture = await database_sync_to_async(keep_taken)(taken, how, area)
        except TallPageError as error:
            await self._say({"kind": "not_taken", **problem_of(error)})
            return
        await self._say(
            {
                "kind": "taken",
                "capture": capture.pk,
                "name": capture.name,
                "width_px": capture.width_px,
                "height_px": capture.height_px,
                "warnings": capture.warnings,
            }
        )

    async def _save_sign_in(self, state: dict[str, Any]) -> None:
        try:
            saved = await database_sync_to_async(save_sign_in)(self.address, state)
        except TallPageError as error:
            await self._say({"kind": "failed", **problem_of(error)})
            return
        await self._say({"kind": "sign_in_kept", "host": saved.host})

    async def _say(self, message: dict[str, Any]) -> None:
        if self.watcher is not None:
            await self.watcher.tell(message)

    async def _watch(self) -> None:
        """Close it when nobody uses it, or nobody is there."""
        while True:
            await asyncio.sleep(_LOOK_S)
            now = time.monotonic()
            if self.watcher is None and now - self._seen_at > ALONE_S:
                await self.end()
                return
            idle_s = now - self._used_at
            if idle_s > IDLE_S:
                await self._say(
                    {"kind": "ended", "sentence": "The page was closed: nobody used it for ten minutes."}
                )
                await self.end()
                return
            if idle_s > IDLE_S - WARNING_S and not self._warned:
                self._warned = True
                await self._say({"kind": "idle", "closes_in_s": round(WARNING_S)})


async def address_to_open(typed: str) -> str:
    """The address that was typed, where it may be opened.

    Raises:
        AddressError: it is none, or of a kind that is not opened.
        PageUnreachable: its host is not known.
    """
    address = normalise_address(typed)
    if not settings.ALLOW_PRIVATE:
        await sync_to_async(require_public, thread_sensitive=False)(address, settings.PRIVATE_HOSTS)
    return address


class Visits:
    """All that are open in this process."""

    def __init__(self) -> None:
        self._open: dict[str, Visit] = {}

    def of(self, person: str) -> Visit | None:
        """A person's live page, if one is open."""
        return self._open.get(person)

    async def begin(self, person: str, asked: Open) -> Visit:
        """Open an address for a person who has no page open.

        Raises:
            AddressError: it is none, or of a kind that is not opened.
            PageError: as many are open as can be.
        """
        address = await address_to_open(asked.address)
        if len(self._open) >= settings.LIVE_PAGES:
            raise PageError(
                f"{settings.LIVE_PAGES} live pages are open already, and no more can be.",
                hint="Wait until one is closed. Whoever runs the server sets how many: TALLPAGE_LIVE_PAGES.",
                code="live_full",
            )

        def forget(visit: Visit) -> None:
            if self._open.get(person) is visit:
                del self._open[person]

        visit = Visit(asked, address, forget)
        self._open[person] = visit
        try:
            await visit.begin()
        except BaseException:
            await visit.end()
            raise
        return visit

    async def end_all(self) -> None:
        """Close everything: the process ends."""
        for visit in list(self._open.values()):
            await visit.end()


VISITS = Visits()
