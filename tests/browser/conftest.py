"""One application and one window for all journeys; each journey begins with nothing remembered."""

from __future__ import annotations

import contextlib
import threading
from collections.abc import Iterator
from pathlib import Path

import numpy as np
import pytest
from selenium import webdriver
from selenium.common.exceptions import WebDriverException

from tallpage.demo.photo_store import PhotoStore
from tallpage.demo.site_server import DemoSite
from tests.browser.person import Person
from tests.browser.stack import Application, open_window, running_application


@pytest.fixture(scope="session")
def application(
    photo_store: PhotoStore, photographs: Path, tmp_path_factory: pytest.TempPathFactory
) -> Iterator[Application]:
    photo_store.paint_all()
    with running_application(tmp_path_factory.mktemp("home"), photographs) as started:
        yield started


@pytest.fixture(scope="session")
def window() -> Iterator[webdriver.Chrome]:
    with open_window() as driver:
        yield driver


@pytest.fixture
def person(window: webdriver.Chrome, application: Application, tmp_path: Path) -> Iterator[Person]:
    downloads = tmp_path / "downloads"
    downloads.mkdir()
    window.execute_cdp_cmd(
        "Browser.setDownloadBehavior", {"behavior": "allow", "downloadPath": str(downloads)}
    )
    yield Person(window, application, downloads)
    with contextlib.suppress(WebDriverException):  # an empty page has none
        window.execute_script("localStorage.clear()")
    for extra in window.window_handles[1:]:
        window.switch_to.window(extra)
        window.close()
    window.switch_to.window(window.window_handles[0])
    window.get("about:blank")
    complaints = [row for row in window.get_log("browser") if "Content Security Policy" in row["message"]]
    assert not complaints


@pytest.fixture
def own_site(photo_store: PhotoStore) -> Iterator[DemoSite]:
    """A demo site whose next edition may be published without anybody else noticing."""
    with DemoSite(0, photo_store) as site:
        threading.Thread(target=site.serve_forever, daemon=True).start()
        yield site
        site.shutdown()


@pytest.fixture
def picture_id(person: Person) -> int:
    """A dropped picture of 600 × 1,500 px: shown at 1:1, so that a px of the mouse is a px of the page."""
    return person.picture(np.full((1_500, 600, 3), 200, dtype=np.uint8))
