"""A few pages on loopback, each as it is written down."""

from __future__ import annotations

import threading
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer


class _Site(ThreadingHTTPServer):
    daemon_threads = True

    def __init__(self, pages: Mapping[str, str], files: Mapping[str, bytes]) -> None:
        super().__init__(("127.0.0.1", 0), _Handler)
        self.pages, self.files = pages, files


class _Handler(BaseHTTPRequestHandler):
    server: _Site

    def do_GET(self) -> None:
        path = self.path.partition("?")[0]
        file = self.server.files.get(path)
        page = self.server.pages.get(path)
        body = file if file is not None else (page or "nothing").encode()
        self.send_response(404 if file is None and page is None else 200)
        self.send_header("Content-Type", "text/html; charset=utf-8" if file is None else "application/zip")
        self.send_header("Content-Length", str(len(body)))
        self.end_headers()
        self.wfile.write(body)

    def log_message(self, *_: object) -> None:
        """Say nothing."""


@contextmanager
def plain_site(pages: Mapping[str, str], files: Mapping[str, bytes] | None = None) -> Iterator[str]:
    """The address of a site of pages by path, and of files to be downloaded, while it runs."""
    with _Site(pages, files or {}) as server:
        threading.Thread(target=server.serve_forever, daemon=True).start()
        yield f"http://127.0.0.1:{server.server_address[1]}"
        server.shutdown()
