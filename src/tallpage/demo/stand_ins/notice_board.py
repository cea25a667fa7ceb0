"""A simulated programme that is told what has finished: it checks who says so, and shows it, as a page."""

from __future__ import annotations

import argparse
import json
import threading
import time
from collections import deque
from html import escape
from http import HTTPStatus
from http.server import ThreadingHTTPServer
from urllib.parse import urlsplit

from tallpage.core.signing import KEY_HEADER, is_ours
from tallpage.demo.stand_ins.pages import Handler, page, serve_until_ended

TITLE = "Skerrin notice board"
SECRET = "the-notice-board-of-the-demo"  # noqa: S105
"""Made up, and only good for the demo's own board."""
_KEPT = 50
_MOST_BYTES = 1_000_000


class NoticeBoard(ThreadingHTTPServer):
    """Takes messages at ``/told``, each once, and shows the latest fifty."""

    daemon_threads = True

    def __init__(self, port: int, secret: str = SECRET) -> None:
        super().__init__(("127.0.0.1", port), _Requests)
        self._lock = threading.Lock()
        self._secret = secret
        self._told: deque[tuple[str, dict[str, object]]] = deque(maxlen=_KEPT)

    def tell(self, headers: dict[str, str], body: bytes) -> HTTPStatus:
        """What a message is answered with; one that has come before is not shown twice."""
        if not is_ours(self._secret, headers, body, now_s=time.time()):
            return HTTPStatus.UNAUTHORIZED
        key = headers[KEY_HEADER]
        with self._lock:
            if all(key != known for known, _ in self._told):
                self._told.appendleft((key, json.loads(body)))
        return HTTPStatus.ACCEPTED

    def told(self) -> list[dict[str, object]]:
        """What was told, the latest first."""
        with self._lock:
            return [said for _, said in self._told]


class _Requests(Handler):
    server: NoticeBoard

    def do_GET(self) -> None:  # noqa: N802
        if urlsplit(self.path).path == "/":
            self.answer(HTTPStatus.OK, _front(self.server.told()))
        else:
            self.answer(HTTPStatus.NOT_FOUND, page(TITLE, "That is not here.", ""))

    def do_POST(self) -> None:  # noqa: N802
        size = int(self.headers.get("Content-Length") or 0)
        if urlsplit(self.path).path != "/told" or not 0 < size <= _MOST_BYTES:
            self.answer(HTTPStatus.NOT_FOUND, b"")
            return
        self.answer(self.server.tell(dict(self.headers.items()), self.rfile.read(size)), b"")


def _front(told: list[dict[str, object]]) -> bytes:
    articles = "".join(_notice(said) for said in told)
    body = articles or '<p class="empty">Nothing was told yet. The board keeps the latest fifty notices.</p>'
    return page(TITLE, "A simulated programme that hears what has finished", body)


def _notice(said: dict[str, object]) -> str:
    event = str(said.get("event", ""))
    text = json.dumps(said.get(event, {}), indent=1, ensure_ascii=False)
    return (
        f"<article><h2>{escape(event.capitalize())}</h2><p>{escape(str(said.get('happened_at', '')))}</p>"
        f"<pre>{escape(text)}</pre></article>"
    )


def main() -> None:
    """Serve until ended."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--port", type=int, required=True)
    serve_until_ended(NoticeBoard(parser.parse_args().port))


if __name__ == "__main__":
    main()
