"""What several kinds of tests share: the demo site on a port of its own, and a browser to take pages with."""

from __future__ import annotations

import socket
import threading
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

import pytest
from hypothesis import settings

from tallpage.core.capture import Browser, PageReport, PageRequest, take_page
from tallpage.core.picture import StripManifest
from tallpage.demo.photo_store import PhotoStore
from tallpage.demo.site_server import DemoSite

# How long an example takes says nothing about whether it is right, least of all on a busy machine.
settings.register_profile("tallpage", deadline=None)
settings.load_profile("tallpage")

Take = Callable[..., tuple[StripManifest, PageReport]]
"""``take(request, folder, **what take_page is told besides)``"""


@pytest.fixture(scope="session")
def photo_store(request: pytest.FixtureRequest) -> PhotoStore:
    """The demo site's photographs, painted once and kept from run to run."""
    return PhotoStore(request.config.cache.mkdir("photographs"))  # type: ignore[union-attr]


@pytest.fixture(scope="session")
def site(photo_store: PhotoStore) -> Iterator[str]:
    """Root address of the demo site."""
    server = DemoSite(0, photo_store)
    thread = threading.Thread(target=server.serve_forever, daemon=True)
    thread.start()
    yield f"http://127.0.0.1:{server.server_port}"
    server.shutdown()
    server.server_close()


@pytest.fixture
def closed_port() -> Iterator[int]:
    """A port of this machine where nobody listens; it is held, so that nobody comes to."""
    with socket.socket() as holder:
        holder.bind(("127.0.0.1", 0))
        yield int(holder.getsockname()[1])


@pytest.fixture
def free_port() -> int:
    """A port of this machine for a server that is about to be started."""
    with socket.socket() as listener:
        listener.bind(("127.0.0.1", 0))
        return int(listener.getsockname()[1])


@pytest.fixture(scope="session")
def browser_thread() -> Iterator[ThreadPoolExecutor]:
    """The one thread that the browser belongs to: Django refuses its database where a browser runs."""
    with ThreadPoolExecutor(max_workers=1) as thread:
        yield thread


@pytest.fixture(scope="session")
def take(browser_thread: ThreadPoolExecutor) -> Iterator[Take]:
    """Takes a page into a folder, in a browser that all tests share."""
    browser = browser_thread.submit(lambda: Browser().__enter__()).result()

    def take_in_thread(request: PageRequest, folder: Path, **more: Any) -> tuple[StripManifest, PageReport]:
        folder.mkdir(parents=True, exist_ok=True)
        return browser_thread.submit(take_page, browser, request, folder, **more).result()

    yield take_in_thread
    browser_thread.submit(browser.__exit__, None, None, None).result()
