"""Serves the kinds, and what their pages ask for: slow pictures, a feed, redirects, faults."""

from __future__ import annotations

import mimetypes
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path
from typing import Any
from urllib.parse import parse_qs, unquote, urlsplit

from tests.core.capture.kinds import Kind, page, sections
from tests.core.capture.landmarks import mark_png

LISTS = Path(__file__).resolve().parents[2] / "lists" / "dist"


@contextmanager
def serving(pages: dict[str, Kind]) -> Iterator[KindsServer]:
    """A server of some kinds, while it runs."""
    with KindsServer(pages) as running:
        threading.Thread(target=running.serve_forever, daemon=True).start()
        yield running
        running.closing.set()
        running.shutdown()


class KindsServer(ThreadingHTTPServer):
    """A server on loopback; each answer in a thread of its own."""

    daemon_threads = True

    def __init__(self, pages: dict[str, Kind]) -> None:
        super().__init__(("127.0.0.1", 0), _Handler)
        self.pages = pages
        self.closing = threading.Event()

    @property
    def address(self) -> str:
        return f"http://127.0.0.1:{self.server_port}"

    def handle_error(self, request: Any, client_address: Any) -> None:
        """Readers go away in the middle here on purpose."""


class _Handler(BaseHTTPRequestHandler):
    protocol_version = "HTTP/1.1"
    server: KindsServer

    def do_GET(self) -> None:
        parts = urlsplit(self.path)
        query = {name: values[0] for name, values in parse_qs(parts.query).items()}
        path = unquote(parts.path)
        if path.startswith("/kind/"):
            self._send(self.server.pages[path.removeprefix("/kind/")].html)
        elif path.startswith("/lists/"):
            self._send_list(path.removeprefix("/lists/"))
        elif path.startswith("/mark/"):
            self.server.closing.wait(int(query["after"]) / 1_000)
            number = int(path.removeprefix("/mark/").removesuffix(".png"))
            self._send(mark_png(number), media_type="image/png")
        elif path == "/feed":
            self.server.closing.wait(int(query.get("after", 0)) / 1_000)
            self._send(sections(4, first=int(query["from"]) % 256))
        elif path == "/redirect":
            self._redirect("/redirect-again")
        elif path == "/redirect-again":
            self._redirect("/kind/plain")
        elif path.startswith("/to/"):
            self._redirect(path.removeprefix("/to/"))
        elif path == "/to-file":
            self._redirect("file:///etc/passwd")
        elif path == "/error":
            self._send(page(sections(2)), status=500)
        elif path == "/slow":
            self.server.closing.wait(2)
            self._send(page(sections(2)))
        elif path == "/hang":
            self._send(page(sections(2), script="setTimeout(()=>{for(;;);},0)"))
        elif path == "/silent" or path == "/never.png":
            self.server.closing.wait(60)
        elif path == "/reset":
            self.connection.close()
        else:
            self._send("nothing here", status=404)

    def _send_list(self, name: str) -> None:
        """A file of the lists in tests/lists, which ``make test`` builds."""
        found = {str(file.relative_to(LISTS)): file for file in LISTS.rglob("*") if file.is_file()}
        media_type = mimetypes.guess_type(name)[0] or "text/html"
        self._send(found[name].read_bytes(), media_type=media_type)

    def _redirect(self, place: str) -> None:
        self.send_response(302)
        self.send_header("Location", place)
        self.send_header("Content-Length", "0")
        self.end_headers()

    def _send(self, body: str | bytes, *, status: int = 200, media_type: str = "text/html") -> None:
        data = body.encode() if isinstance(body, str) else body
        self.send_response(status)
        self.send_header("Content-Type", media_type)
        self.send_header("Content-Length", str(len(data)))
        self.end_headers()
        self.wfile.write(data)

    def log_message(self, format: str, *args: object) -> None:  # noqa: A002  (the base class names it so)
        """Stay quiet."""
