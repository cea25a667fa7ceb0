"""What the pages of the stand-ins have in common."""

from __future__ import annotations

import sys
from html import escape
from http import HTTPStatus
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer

from tallpage.core.processes import die_with_parent
from tallpage.server.supervisor import supervisor_id

_STYLE = """
body { margin: 0; background: #fff; color: #17303b; font: 16px/1.5 system-ui, sans-serif; }
header { background: #17303b; color: #fff; padding: 18px 24px; } header h1 { margin: 0; font-size: 20px; }
header p { margin: 2px 0 0; } main { max-width: 1000px; margin: 0 auto; padding: 20px 24px 60px; }
table { border-collapse: collapse; width: 100%; } th, td { text-align: left; padding: 6px 12px 6px 0;
border-bottom: 1px solid #cfd8da; vertical-align: top; overflow-wrap: anywhere; }
ul.pictures { display: grid; grid-template-columns: repeat(auto-fill, minmax(200px, 1fr)); gap: 20px; padding: 0; }
ul.pictures li { list-style: none; } ul.pictures img { width: 100%; max-height: 260px; object-fit: cover;
object-position: top; border: 1px solid #cfd8da; } article { border: 1px solid #cfd8da; padding: 16px; margin: 0 0 16px; }
button { font: inherit; padding: 6px 12px; } button[aria-pressed=true] { background: #17303b; color: #fff; }
pre { white-space: pre-wrap; font: inherit; } .empty { padding: 40px 0; }
"""  # noqa: E501


def page(title: str, lead: str, body: str) -> bytes:
    """A whole page; ``body`` is HTML, the rest is text."""
    return (
        f'<!doctype html><html lang="en"><meta charset="utf-8"><title>{escape(title)}</title>'
        '<meta name="viewport" content="width=device-width, initial-scale=1"><link rel="icon" href="data:,">'
        f"<style>{_STYLE}</style><header><h1>{escape(title)}</h1><p>{escape(lead)}</p></header>"
        f"<main>{body}</main></html>"
    ).encode()


class Handler(BaseHTTPRequestHandler):
    """Answers with a body in one go, and logs nothing."""

    protocol_version = "HTTP/1.1"

    def answer(
        self, status: HTTPStatus, body: bytes, kind: str = "text/html; charset=utf-8", **headers: str
    ) -> None:
        """Send an answer; underscores in the names of headers become hyphens."""
        self.send_response(status)
        self.send_header("Content-Type", kind)
        self.send_header("Content-Length", str(len(body)))
        self.send_header("Cache-Control", "no-store")
        for name, value in headers.items():
            self.send_header(name.replace("_", "-"), value)
        self.end_headers()
        if self.command != "HEAD":
            self.wfile.write(body)

    def log_message(self, *_: object) -> None:
        """Nothing is said of requests."""


def serve_until_ended(server: ThreadingHTTPServer) -> None:
    """Serve until the process, or the one that started it, ends."""
    die_with_parent(supervisor_id())
    try:
        server.serve_forever()
    except KeyboardInterrupt:
        sys.exit(0)
