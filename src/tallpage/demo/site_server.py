"""The demo site, served on loopback: Skerrin Sound Ferries, with pages that behave and some that do not.

/slow answers after four seconds, /missing is not there, /never begins and does not end;
at /desk the next edition is published.
"""

from __future__ import annotations

import argparse
import re
import secrets
import string
import sys
import time
import zlib
from http import HTTPStatus
from http.cookies import SimpleCookie
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from importlib import resources
from pathlib import Path
from typing import Any
from urllib.parse import parse_qs, urlsplit

from tallpage.core.processes import die_with_parent
from tallpage.demo.editions import as_of
from tallpage.demo.notices import amendment, notice_numbers, notice_title, notices_from
from tallpage.demo.photo_store import PhotoStore
from tallpage.demo.sitemaps import sitemap_file
from tallpage.server.supervisor import supervisor_id

PAGES = {
    "/": "home",
    "/timetable": "timetable",
    "/fleet": "fleet",
    "/islands": "islands",
    "/notices": "notices",
    "/archive": "archive",
    "/departures": "departures",
    "/quay": "quay",
    "/planning": "planning",
    "/offices": "offices",
    "/crew": "crew",
    "/sign-in": "sign-in",
}
NOTICES_AT_ONCE = 12
NOTICES_SHOWN = {"notices": NOTICES_AT_ONCE, "archive": 220}
SLOW_SECONDS = 4.0
PHOTO_SECONDS = 0.12
_FILES = resources.files("tallpage.demo").joinpath("site")
_TITLE = re.compile(r"<!-- title: (.*?) -->")


def render_page(name: str, edition: int = 1) -> str:
    """A page's HTML in an edition: its own part inside the layout that all share."""
    layout = string.Template(_FILES.joinpath("layout.html").read_text("utf-8"))
    part = as_of(name, _FILES.joinpath(f"{name}.html").read_text("utf-8"), edition)
    title = _TITLE.match(part)
    if name in NOTICES_SHOWN:
        part = string.Template(part).substitute(notices=notices_from(0, NOTICES_SHOWN[name]))
    return layout.substitute(title=title[1] if title else "", main=part)


def render_notice(number: int, edition: int) -> str:
    """The page of one notice."""
    heading = notice_title(number)
    layout = string.Template(_FILES.joinpath("layout.html").read_text("utf-8"))
    part = string.Template(_FILES.joinpath("notice.html").read_text("utf-8")).substitute(
        heading=heading,
        notice=notices_from(number, 1) + amendment(number, edition),
        earlier=notices_from(number + 1, 1 + number % 9),
    )
    return layout.substitute(title=heading, main=part)


def render_desk(edition: int) -> str:
    """Where the site's next edition is published."""
    layout = string.Template(_FILES.joinpath("layout.html").read_text("utf-8"))
    part = string.Template(_FILES.joinpath("desk.html").read_text("utf-8")).substitute(edition=edition)
    return layout.substitute(title="The editor's desk", main=part)


def _notice_number(path: str, edition: int) -> int | None:
    word = path.removeprefix("/notices/")
    there = path.startswith("/notices/") and word.isdigit() and int(word) in notice_numbers(edition)
    return int(word) if there else None


def _far_away_seconds(path: str) -> float:
    """50 to 400 ms, always the same for an address."""
    return 0.05 + 0.35 * (zlib.crc32(path.encode()) % 1_000) / 1_000


class DemoSite(ThreadingHTTPServer):
    """A server on loopback; each answer in a thread of its own. ``far_away`` answers take 50–400 ms."""

    daemon_threads = True

    def __init__(self, port: int, photos: PhotoStore, *, far_away: bool = False) -> None:
        super().__init__(("127.0.0.1", port), _Handler)
        self.photos = photos
        self.far_away = far_away
        self.edition = 1
        self.sign_in_token = secrets.token_hex(8)

    def handle_error(self, request: Any, client_address: Any) -> None:
        """A reader that went away in the middle is everyday; anything else is told as usual."""
        if not isinstance(sys.exc_info()[1], ConnectionError):
            super().handle_error(request, client_address)

    @property
    def address(self) -> str:
        """Its root, like ``http://skerrin-ferries.localhost:8610``."""
        return f"http://skerrin-ferries.localhost:{self.server_port}"


class _Handler(BaseHTTPRequestHandler):
    protocol_version = "HTTP/1.1"
    server: DemoSite

    def do_GET(self) -> None:
        parts = urlsplit(self.path)
        path = parts.path.rstrip("/") or "/"
        if self.server.far_away:
            time.sleep(_far_away_seconds(self.path))
        if path == "/crew" and not self._signed_in():
            self._redirect("/sign-in")
        elif path in PAGES:
            self._send(render_page(PAGES[path], self.server.edition))
        elif path == "/notices/more":
            start = int(parse_qs(parts.query).get("from", ["0"])[0])
            self._send(notices_from(start, NOTICES_AT_ONCE))
        elif (number := _notice_number(path, self.server.edition)) is not None:
            self._send(render_notice(number, self.server.edition))
        elif path == "/desk":
            self._send(render_desk(self.server.edition))
        elif path.startswith("/photos/"):
            self._send_photo(path.removeprefix("/photos/"))
        elif path == "/slow":
            time.sleep(SLOW_SECONDS)
            self._send(render_page("home"))
        elif path == "/never":
            self._never_end()
        else:
            self._send_other(path)

    def do_POST(self) -> None:
        length = min(int(self.headers.get("Content-Length", 0)), 10_000)
        form = parse_qs(self.rfile.read(length).decode("utf-8", "replace"))
        if self.path == "/desk":
            self.server.edition += 1
            self._redirect("/desk")
        elif self.path == "/sign-in" and form.get("word") == ["kettle"]:
            self._redirect(
                "/crew", cookie=f"crew={self.server.sign_in_token}; HttpOnly; SameSite=Lax; Path=/"
            )
        else:
            self._send(render_page("sign-in"), status=HTTPStatus.FORBIDDEN)

    def _signed_in(self) -> bool:
        cookie = SimpleCookie(self.headers.get("Cookie", "")).get("crew")
        return cookie is not None and secrets.compare_digest(cookie.value, self.server.sign_in_token)

    def _send_photo(self, name: str) -> None:
        time.sleep(PHOTO_SECONDS)
        data = self.server.photos.get(name)
        if data is None:
            self._send("no such photograph", status=HTTPStatus.NOT_FOUND, media_type="text/plain")
        else:
            self._send(data, media_type="image/jpeg")

    def _send_other(self, path: str) -> None:
        if path == "/site.css":
            self._send(_FILES.joinpath("site.css").read_text("utf-8"), media_type="text/css")
        elif path == "/site.js":
            self._send(_FILES.joinpath("site.js").read_text("utf-8"), media_type="text/javascript")
        elif (sitemap := self._sitemap(path)) is not None:
            self._send(sitemap, media_type="application/gzip" if path.endswith("gz") else "application/xml")
        elif path == "/sailings.csv":
            self._send("leaves,reaches\n06:10,06:45\n", media_type="text/csv")
        elif path == "/robots.txt":
            self._send(
                f"User-agent: *\nDisallow: /crew\nSitemap: {self.server.address}/sitemap.xml\n",
                media_type="text/plain",
            )
        else:
            self._send(render_page("missing"), status=HTTPStatus.NOT_FOUND)

    def _sitemap(self, path: str) -> bytes | None:
        listed = (page for page in PAGES if page not in ("/offices", "/crew", "/sign-in", "/quay"))
        return sitemap_file(path, self.server.address, listed, self.server.edition)

    def _never_end(self) -> None:
        self.send_response(HTTPStatus.OK)
        self.send_header("Content-Type", "text/html; charset=utf-8")
        self.send_header("Connection", "close")
        self.end_headers()
        self.close_connection = True
        head = "<!doctype html><title>The log that never ends</title><h1>Ship's log</h1>"
        try:
            self.wfile.write(head.encode())
            for hour in range(100_000):
                self.wfile.write(f"<p>Hour {hour}: sea moderate, kettle on.</p>".encode())
                self.wfile.flush()
                time.sleep(0.5)
        except OSError:
            pass  # the reader had enough

    def _redirect(self, place: str, *, cookie: str | None = None) -> None:
        self.send_response(HTTPStatus.SEE_OTHER)
        self.send_header("Location", place)
        self.send_header("Content-Length", "0")
        if cookie:
            self.send_header("Set-Cookie", cookie)
        self.end_headers()

    def _send(
        self, body: str | bytes, *, status: HTTPStatus = HTTPStatus.OK, media_type: str = "text/html"
    ) -> None:
        data = body.encode() if isinstance(body, str) else body
        self.send_response(status)
        self.send_header(
            "Content-Type", media_type if isinstance(body, bytes) else f"{media_type}; charset=utf-8"
        )
        self.send_header("Content-Length", str(len(data)))
        self.end_headers()
        self.wfile.write(data)

    def log_message(self, format: str, *args: object) -> None:  # noqa: A002  (the base class names it so)
        """Stay quiet: the demo's terminal is for Tall Page."""


def main() -> None:
    """Serve until ended."""
    parser = argparse.ArgumentParser(description="Serve the demo site.")
    parser.add_argument("--port", type=int, default=8610)
    parser.add_argument(
        "--photos", type=Path, required=True, help="folder where painted photographs are kept"
    )
    options = parser.parse_args()
    die_with_parent(supervisor_id())
    with DemoSite(options.port, PhotoStore(options.photos)) as site:
        site.serve_forever()


if __name__ == "__main__":
    main()
