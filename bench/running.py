"""The demo, started for a measurement, and somebody who asks it. All addresses are our own loopback."""
# ruff: noqa: S310

from __future__ import annotations

import json
import os
import socket
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any
from urllib.error import URLError
from urllib.request import HTTPCookieProcessor, Request, build_opener, urlopen


def _free_port() -> int:
    with socket.socket() as listener:
        listener.bind(("127.0.0.1", 0))
        return int(listener.getsockname()[1])


@contextmanager
def running_demo(home: Path) -> Iterator[tuple[str, str, dict[str, str]]]:
    """``(application, demo site, environment)``, running, with nothing on the shelf."""
    ports = _free_port(), _free_port()
    environment = {
        **os.environ,
        "DJANGO_SETTINGS_MODULE": "tallpage.server.settings",
        "TALLPAGE_HOME": str(home),
        "TALLPAGE_PORT": str(ports[0]),
        "TALLPAGE_DEMO_SITE_PORT": str(ports[1]),
    }
    (home / "demo-loaded").touch()
    command = [sys.executable, "-m", "tallpage.demo.run"]
    with subprocess.Popen(command, env=environment, stdout=subprocess.DEVNULL) as process:
        address = f"http://127.0.0.1:{ports[0]}"
        try:
            while process.poll() is None:
                try:
                    ask(f"{address}/api/sweeps")
                    break
                except (URLError, ConnectionError):
                    time.sleep(0.5)
            environment["TALLPAGE_BENCH_PROCESS"] = str(process.pid)
            yield address, f"http://skerrin-ferries.localhost:{ports[1]}", environment
        finally:
            process.terminate()


def ask(address: str) -> tuple[float, Any]:
    """Seconds until the answer was there, and what it says."""
    started = time.perf_counter()
    with urlopen(address) as answer:
        body = json.load(answer)
    return time.perf_counter() - started, body


class Visitor:
    """Somebody who works with the application in a browser, as far as its API sees."""

    def __init__(self, address: str) -> None:
        self._address = address
        self._cookies = HTTPCookieProcessor()
        self._opener = build_opener(self._cookies)
        self._opener.open(address).close()

    def get(self, path: str) -> Any:
        """What the API answers."""
        return self._ask(Request(f"{self._address}/api{path}"))

    def post(self, path: str, body: object) -> Any:
        """Send JSON; what the API answers."""
        return self._send(path, json.dumps(body).encode(), "application/json")

    def patch(self, path: str, body: object) -> Any:
        """Change something by JSON; what the API answers."""
        return self._send(path, json.dumps(body).encode(), "application/json", method="PATCH")

    def post_picture(self, name: str, data: bytes) -> Any:
        """Drop a picture; the capture that it becomes."""
        return self.post_file("/pictures", "picture", name, data)

    def post_file(self, path: str, field: str, name: str, data: bytes) -> Any:
        """Send a file of a form; what the API answers."""
        head = f'--mark\r\nContent-Disposition: form-data; name="{field}"; filename="{name}"\r\n\r\n'
        body = head.encode() + data + b"\r\n--mark--\r\n"
        return self._send(path, body, "multipart/form-data; boundary=mark")

    def _send(self, path: str, body: bytes, kind: str, *, method: str = "POST") -> Any:
        token = next(row.value for row in self._cookies.cookiejar if row.name == "csrftoken")
        headers = {"Content-Type": kind, "X-CSRFToken": token or "", "Origin": self._address}
        return self._ask(Request(f"{self._address}/api{path}", data=body, headers=headers, method=method))

    def _ask(self, request: Request) -> Any:
        with self._opener.open(request) as answer:
            return json.load(answer)
