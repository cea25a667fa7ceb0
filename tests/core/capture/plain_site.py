"""A few pages on loopback, each as it is written down."""

from __future__ import annotations

import mimetypes
import re
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
    """Answers; of a file, the part that was asked for, unless its address ends with ``?whole``."""

    server: _Site

    def do_GET(self) -> None:
        path = self.path.partition("?")[0]
        file = self.server.files.get(path)
        page = self.server.pages.get(path)
        body = file if file is not None else (page or "nothing").encode()
        part = re.fullmatch(r"bytes=(\d+)-(\d*)", self.headers.get("Range", ""))
        if file is not None and part and not self.path.endswith("?whole"):
            first, last = int(part[1]), int(part[2] or len(file) - 1)
            body = file[first : last + 1]
            self.send_response(206)
            self.send_header("Content-Range", f"bytes {first}-{last}/{len(file)}")
        else:
            self.send_response(404 if file is None and page is None else 200)
        kind = "text/html; charset=utf-8" if file is None else mimetypes.guess_type(path)[0]
        self.send_header("Content-Type", kind or "application/octet-stream")
        self.send_header("Content-Length", str(len(body)))
        self.end_headers()
        self.wfile.write(body)

    def log_message(self, *_: object) -> None:
        """Say nothing."""


@contextmanager
def plain_site(pages: Mapping[str, str], files: Mapping[str, bytes] | None = None) -> Iterator[str]:
    """The address of a site of pages by path, and of other files, while it runs."""
    with _Site(pages, files or {}) as server:
        threading.Thread(target=server.serve_forever, daemon=True).start()
        yield f"http://127.0.0.1:{server.server_address[1]}"
        server.shutdown()
