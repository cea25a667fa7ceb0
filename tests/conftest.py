"""What several kinds of tests share: the demo site on a port of its own, and a browser to take pages with."""

from __future__ import annotations

import signal
import socket
import threading
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import nullcontext
from functools import partial
from pathlib import Path
from types import SimpleNamespace
from typing import Any

import pytest
from hypothesis import settings

from tallpage.core.capture import Browser, PageReport, PageRequest, take_page
from tallpage.core.picture import StripManifest
from tallpage.demo.photo_store import PhotoStore
from tallpage.demo.site_server import DemoSite
from tallpage.demo.stand_ins.publishing import PublishingSite
from tests.command import InThisProcess, Ran, run_command

# How long an example takes says nothing about whether it is right, least of all on a busy machine.
settings.register_profile("each change", deadline=None, max_examples=30)
settings.register_profile("thorough", deadline=None, max_examples=200)  # make test-long
settings.load_profile("each change")


def pytest_sessionstart() -> None:
    """Whoever ends a run that goes on beside others lets it clear up: it may have started an application."""
    signal.signal(signal.SIGTERM, signal.default_int_handler)


Take = Callable[..., tuple[StripManifest, PageReport]]
"""``take(request, folder, **what take_page is told besides)``"""


@pytest.fixture(scope="session")
def photographs(request: pytest.FixtureRequest) -> Path:
    """Folder of the demo site's photographs, kept from run to run."""
    return Path(request.config.cache.mkdir("small-photographs"))  # type: ignore[union-attr]


@pytest.fixture(scope="session")
def photo_store(photographs: Path) -> PhotoStore:
    """The demo site's photographs at half their size: painting them takes a quarter of the time."""
    return PhotoStore(photographs, width_px=500)


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
def publishing(tmp_path: Path) -> Iterator[PublishingSite]:
    """The simulated site that takes uploads."""
    server = PublishingSite(0, tmp_path / "published")
    threading.Thread(target=server.serve_forever, daemon=True).start()
    yield server
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
def open_browser(browser_thread: ThreadPoolExecutor) -> Iterator[Browser]:
    """The browser that all tests share; it is used in its thread alone."""
    browser = browser_thread.submit(lambda: Browser().__enter__()).result()
    yield browser
    browser_thread.submit(browser.__exit__, None, None, None).result()


@pytest.fixture(scope="session")
def take(open_browser: Browser, browser_thread: ThreadPoolExecutor) -> Take:
    """Takes a page into a folder, in the browser that all tests share."""

    def take_in_thread(request: PageRequest, folder: Path, **more: Any) -> tuple[StripManifest, PageReport]:
        folder.mkdir(parents=True, exist_ok=True)
        return browser_thread.submit(take_page, open_browser, request, folder, **more).result()

    return take_in_thread


@pytest.fixture
def run_here(monkeypatch: pytest.MonkeyPatch) -> Callable[..., Ran]:
    """Runs a command over pictures; what would be done by several processes is done in this one."""
    monkeypatch.setattr("tallpage.core.sweep._running.ProcessPoolExecutor", InThisProcess)
    return run_command


@pytest.fixture
def run_capturing(
    open_browser: Browser,
    browser_thread: ThreadPoolExecutor,
    run_here: Callable[..., Ran],
    monkeypatch: pytest.MonkeyPatch,
) -> Callable[..., Ran]:
    """Runs a command over pages, in the browser that is open already."""
    for module in ("_capture", "_clip", "_pdf"):
        monkeypatch.setattr(f"tallpage.cli.{module}.Browser", lambda: nullcontext(open_browser))
    pool = SimpleNamespace(take=partial(take_page, open_browser))
    monkeypatch.setattr("tallpage.core.sweep._shots._browser_pool", lambda: pool)

    def run_in_thread(*arguments: str, stdin: bytes = b"") -> Ran:
        return browser_thread.submit(run_here, *arguments, stdin=stdin).result()

    return run_in_thread
