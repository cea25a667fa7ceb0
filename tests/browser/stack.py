"""The whole application in processes of its own, and a browser in front of it."""

from __future__ import annotations

import contextlib
import json
import os
import socket
import subprocess
import sys
import urllib.error
import urllib.request
import uuid
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from functools import cached_property
from http.cookiejar import CookieJar
from pathlib import Path
from typing import Any

from selenium import webdriver
from selenium.webdriver.chrome.options import Options
from selenium.webdriver.chrome.service import Service
from selenium.webdriver.support.ui import WebDriverWait

from tests.server.processes import environment, kill_family, make_home, run_django

PATIENCE_S = 120
"""What is waited for comes in seconds. On a busy machine that is no reason to give up."""
_LOAD = "from tallpage.demo.run import load_outlets; load_outlets()\n"
_ARGUMENTS = [
    "--headless=new",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--disable-site-isolation-trials",
    "--renderer-process-limit=1",
    "--disable-features=ProactivelySwapBrowsingInstance,BackForwardCache,RenderDocument",
    "--window-size=1280,800",
]


@dataclass(frozen=True, kw_only=True)
class Application:
    """Where Tall Page and the demo site are, and requests that need no window."""

    address: str
    site: str
    publishing: str
    """The simulated site that takes uploads."""
    mail_page: str
    """Where arrived mail is shown."""
    board: str
    """The simulated programme that is told what has finished."""
    home: Path
    stored: dict[str, int] = field(default_factory=dict)
    """Ids of the captures that journeys get copies of, by what they show."""

    def fetch(self, path: str) -> bytes:
        """What the API answers, as it is."""
        with self._opener.open(f"{self.address}/api{path}", timeout=PATIENCE_S) as answer:
            return bytes(answer.read())

    def ask(self, path: str) -> Any:
        return json.loads(self.fetch(path))

    def change(self, method: str, path: str, body: object = None) -> Any:
        """Send a request that changes something; gives what is answered, also where it is refused."""
        data = None if body is None else json.dumps(body).encode()
        return self._send(method, path, data, "application/json")

    def upload_picture(self, png: bytes, name: str) -> int:
        """Put a picture on the shelf as a drop on Gather does; returns its capture's id."""
        edge = uuid.uuid4().hex
        head = f'--{edge}\r\nContent-Disposition: form-data; name="picture"; filename="{name}"\r\n'
        body = f"{head}Content-Type: image/png\r\n\r\n".encode() + png + f"\r\n--{edge}--\r\n".encode()
        return int(self._send("POST", "/pictures", body, f"multipart/form-data; boundary={edge}")["id"])

    def _send(self, method: str, path: str, data: bytes | None, content_type: str) -> Any:
        if not self._token:
            self._opener.open(f"{self.address}/", timeout=PATIENCE_S).close()
        headers = {"X-CSRFToken": self._token, "Content-Type": content_type}
        request = urllib.request.Request(f"{self.address}/api{path}", data, headers, method=method)
        try:
            with self._opener.open(request, timeout=PATIENCE_S) as answer:
                text = answer.read()
        except urllib.error.HTTPError as refused:
            text = refused.read()
        return json.loads(text) if text else None

    @property
    def _token(self) -> str:
        return next((row.value or "" for row in self._cookies if row.name == "csrftoken"), "")

    @cached_property
    def _cookies(self) -> CookieJar:
        return CookieJar()

    @cached_property
    def _opener(self) -> urllib.request.OpenerDirector:
        return urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self._cookies))


def _free_port() -> int:
    with socket.socket() as listener:
        listener.bind(("127.0.0.1", 0))
        return int(listener.getsockname()[1])


def _free_ports(count: int) -> int:
    """The first of some ports in a row that are free."""
    while True:
        first = _free_port()
        with contextlib.suppress(OSError), contextlib.ExitStack() as held:
            for port in range(first, first + count):
                held.enter_context(socket.create_server(("127.0.0.1", port)))
            return first


def _answers(address: str) -> bool:
    with contextlib.suppress(OSError), urllib.request.urlopen(address, timeout=2) as answer:
        return bool(answer.status == 200)
    return False


@contextmanager
def running_application(
    home: Path, photographs: Path, *, prepared: str = "", **more: str
) -> Iterator[Application]:
    """Started as `make demo` starts it, with the demo's outlets and an empty shelf; where it has run before,
    with what is there.

    ``prepared`` is run with Django set up before that; ``more`` goes into the environment.
    """
    port, site_port = _free_port(), _free_ports(5)
    told = environment(
        home,
        TALLPAGE_PORT=str(port),
        TALLPAGE_PAGE_WORKERS="2",  # two windows are driven at once beside them
        TALLPAGE_DEMO_SITE_PORT=str(site_port),
        **more,
    )
    if not (home / "demo-loaded").exists():
        (home / "demo-photographs").symlink_to(photographs)
        make_home(home)
        run_django(_LOAD + prepared, told)
        (home / "demo-loaded").touch()
        (home / "demo-published").mkdir()
    command = [sys.executable, "-m", "tallpage.demo.run"]
    with (home / "log.txt").open("w") as log:
        process = subprocess.Popen(command, env=told, stdout=log, stderr=log, start_new_session=True)
    started = Application(
        address=f"http://127.0.0.1:{port}",
        site=f"http://skerrin-ferries.localhost:{site_port}",
        publishing=f"http://127.0.0.1:{site_port + 1}",
        mail_page=f"http://127.0.0.1:{site_port + 2}",
        board=f"http://127.0.0.1:{site_port + 4}",
        home=home,
    )
    try:
        WebDriverWait(started, PATIENCE_S).until(lambda app: _answers(f"{app.address}/account/sign-in"))
        yield started
    finally:
        kill_family(process)  # the data folder is used to that, and nothing is waited for


@contextmanager
def open_window(*more: str) -> Iterator[webdriver.Chrome]:
    """A browser window of 1280 × 800 px, started with more arguments than usual."""
    options = Options()
    options.binary_location = os.environ.get("TALLPAGE_CHROMIUM", "/usr/bin/chromium")
    for argument in (*_ARGUMENTS, *more):
        options.add_argument(argument)
    options.set_capability("goog:loggingPrefs", {"browser": "ALL"})
    with webdriver.Chrome(options=options, service=Service("/usr/bin/chromedriver")) as driver:
        metrics = {"width": 1280, "height": 800, "deviceScaleFactor": 1, "mobile": False}
        driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
        yield driver
