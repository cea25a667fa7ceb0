"""A simulated site that publishes pictures: Skerrin Harbour News. It keeps to its rules, and says which.

Pictures come by a form to ``/media`` with a token, or by WebDAV to ``/files/`` with a name and a
password. On its page the rules are read, and how it behaves is chosen: slow, busy, or breaking off.
"""

from __future__ import annotations

import argparse
import base64
import io
import json
import re
import threading
import time
from dataclasses import dataclass
from email.parser import BytesParser
from email.policy import HTTP
from hashlib import sha256
from html import escape
from http import HTTPStatus
from http.server import ThreadingHTTPServer
from pathlib import Path
from urllib.parse import parse_qs, quote, unquote, urlsplit

from PIL import Image, UnidentifiedImageError

from tallpage.core.files import write_whole
from tallpage.core.units import format_bytes
from tallpage.demo.stand_ins.pages import Handler, page, serve_until_ended

TITLE = "Skerrin Harbour News"
TOKEN = "harbour-light"  # noqa: S105 - it is written on the page
USER, PASSWORD = "desk", "harbour-light"
MOST_WIDTH_PX, MOST_BYTES, FORMATS = 800, 150_000, ("JPEG", "PNG", "WEBP")
MOODS = {"well": "Answers well", "slow": "Is slow", "busy": "Is busy", "breaks": "Breaks off"}
_SLOW_S = 30.0
_MOST_SENT_BYTES = 50_000_000
_NAME = re.compile(r"[\w.-]{1,160}")
_LATEST = 12


@dataclass(frozen=True)
class Refusal(Exception):
    """Why a picture is not published."""

    status: HTTPStatus
    reason: str
    sentence: str


class PublishingSite(ThreadingHTTPServer):
    """What is published, on disk; and the last things that happened."""

    daemon_threads = True

    def __init__(self, port: int, folder: Path) -> None:
        super().__init__(("127.0.0.1", port), _Requests)
        self.folder = folder
        folder.mkdir(parents=True, exist_ok=True)
        self.mood = "well"
        self.happened: list[str] = []
        self._lock = threading.Lock()

    @property
    def published(self) -> list[Path]:
        """The pictures, the latest first."""
        files = [path for path in self.folder.iterdir() if not path.name.startswith(".")]
        return sorted(files, key=lambda path: path.stat().st_mtime, reverse=True)

    def publish(self, name: str, data: bytes, key: str) -> bool:
        """Publish a picture; whether it was there already.

        Raises:
            Refusal: it breaks a rule, or another picture has the name.
        """
        _require_fitting(name, data)
        with self._lock:
            place, keys = self.folder / name, self.folder / f".{name}.key"
            if place.exists():
                if keys.read_text() == key or place.read_bytes() == data:
                    self.note(f"{name} came again: it is published already.")
                    return True
                raise Refusal(HTTPStatus.CONFLICT, "name_taken", f"There is another {name} already.")
            keys.write_text(key)
            write_whole(place, data)
        self.note(f"{name} was published, {format_bytes(len(data))}.")
        return False

    def note(self, text: str) -> None:
        """Remember what happened."""
        self.happened = [f"{time.strftime('%H:%M:%S')} {text}", *self.happened][:_LATEST]


def _require_fitting(name: str, data: bytes) -> None:
    if not _NAME.fullmatch(name) or name.startswith("."):
        raise Refusal(
            HTTPStatus.UNPROCESSABLE_ENTITY, "refused", "The name has other signs than a-z, 0-9, - and _."
        )
    if len(data) > MOST_BYTES:
        sentence = f"It has {format_bytes(len(data))}; at most {format_bytes(MOST_BYTES)} are taken."
        raise Refusal(HTTPStatus.REQUEST_ENTITY_TOO_LARGE, "too_heavy", sentence)
    try:
        with Image.open(io.BytesIO(data)) as picture:
            width_px, kind = picture.width, picture.format or ""
    except (UnidentifiedImageError, OSError, Image.DecompressionBombError):
        width_px, kind = 0, ""
    if kind not in FORMATS:
        raise Refusal(
            HTTPStatus.UNSUPPORTED_MEDIA_TYPE, "wrong_format", f"Only {', '.join(FORMATS)} are taken."
        )
    if width_px > MOST_WIDTH_PX:
        sentence = f"It is {width_px:,} px wide; at most {MOST_WIDTH_PX} px are taken."
        raise Refusal(HTTPStatus.UNPROCESSABLE_ENTITY, "too_wide", sentence)


class _Requests(Handler):
    server: PublishingSite

    def do_GET(self) -> None:  # noqa: N802
        path = unquote(urlsplit(self.path).path)
        folder, _, name = path.rpartition("/")
        if path == "/":
            self.answer(HTTPStatus.OK, self._front())
        elif folder in ("/media", "/files") and (file := self._published(name)):
            self.answer(
                HTTPStatus.OK, file.read_bytes(), Image.MIME.get(_kind(file), "application/octet-stream")
            )
        else:
            self.answer(HTTPStatus.NOT_FOUND, page(TITLE, "That is not here.", ""))

    do_HEAD = do_GET  # noqa: N815

    def do_POST(self) -> None:  # noqa: N802
        path = urlsplit(self.path).path
        body = self._body()
        if path == "/mood":
            self.server.mood = parse_qs(body.decode(errors="replace")).get("mood", ["well"])[0]
            self.answer(HTTPStatus.SEE_OTHER, b"", Location="/")
        elif path == "/media":
            self._by_form(body)
        else:
            self.answer(HTTPStatus.NOT_FOUND, b"")

    def do_PUT(self) -> None:  # noqa: N802
        folder, _, name = unquote(urlsplit(self.path).path).rpartition("/")
        body = self._body()
        pair = base64.b64encode(f"{USER}:{PASSWORD}".encode()).decode()
        if self._in_a_mood():
            return
        if folder != "/files":
            self.answer(HTTPStatus.CONFLICT, b"")
        elif self.headers.get("Authorization") != f"Basic {pair}":
            self.answer(HTTPStatus.UNAUTHORIZED, b"", WWW_Authenticate='Basic realm="files"')
        elif self.headers.get("If-None-Match") == "*" and self._published(name):
            self.answer(HTTPStatus.PRECONDITION_FAILED, b"")
        else:
            try:
                self.server.publish(name, body, sha256(body).hexdigest())
                self.answer(HTTPStatus.CREATED, b"")
            except Refusal as refusal:
                self.server.note(f"{name} was refused. {refusal.sentence}")
                self.answer(refusal.status, refusal.sentence.encode(), "text/plain; charset=utf-8")

    def _by_form(self, body: bytes) -> None:
        if self._in_a_mood():
            return
        try:
            self._require_token()
            name, data = self._file_of(body)
            was_there = self.server.publish(name, data, self.headers.get("Idempotency-Key", ""))
        except Refusal as refusal:
            self.server.note(f"A picture was refused. {refusal.sentence}")
            said: dict[str, object] = {"reason": refusal.reason, "sentence": refusal.sentence}
            status = refusal.status
        else:
            address = f"http://{self.headers['Host']}/media/{quote(name)}"
            said, status = {"address": address, "was_there": was_there}, HTTPStatus.CREATED
        self.answer(status, json.dumps(said).encode(), "application/json")

    def _require_token(self) -> None:
        if self.headers.get("Authorization") != f"Bearer {TOKEN}":
            raise Refusal(HTTPStatus.UNAUTHORIZED, "signed_out", "The token is missing, or not known here.")

    def _file_of(self, body: bytes) -> tuple[str, bytes]:
        head = f"Content-Type: {self.headers.get('Content-Type', '')}\r\n\r\n".encode()
        for part in BytesParser(policy=HTTP).parsebytes(head + body).iter_parts():
            if part.get_filename():
                data = part.get_payload(decode=True)
                return Path(str(part.get_filename())).name, data if isinstance(data, bytes) else b""
        raise Refusal(HTTPStatus.BAD_REQUEST, "refused", "There is no file in the form.")

    def _body(self) -> bytes:
        length = min(int(self.headers.get("Content-Length") or 0), _MOST_SENT_BYTES)
        return self.rfile.read(length)

    def _in_a_mood(self) -> bool:
        """Whether it behaves badly just now, as it was told to."""
        match self.server.mood:
            case "slow":
                time.sleep(_SLOW_S)
            case "busy":
                self.server.note("Busy: a picture was sent away.")
                self.answer(HTTPStatus.SERVICE_UNAVAILABLE, b"{}", "application/json")
                return True
            case "breaks":
                self.server.note("The connection was broken off.")
                self.close_connection = True
                self.connection.close()
                return True
        return False

    def _published(self, name: str) -> Path | None:
        place = self.server.folder / Path(name).name
        return place if _NAME.fullmatch(name) and not name.startswith(".") and place.is_file() else None

    def _front(self) -> bytes:
        moods = " ".join(
            f'<button name="mood" value="{mood}" aria-pressed="{str(mood == self.server.mood).lower()}">'
            f"{words}</button>"
            for mood, words in MOODS.items()
        )
        pictures = "".join(
            f'<li><a href="/media/{quote(file.name)}"><img src="/media/{quote(file.name)}" alt=""></a>'
            f"<br>{escape(file.name)}<br>{format_bytes(file.stat().st_size)}</li>"
            for file in self.server.published
        )
        happened = "".join(f"<li>{escape(text)}</li>" for text in self.server.happened)
        nothing = "<p>Nothing yet.</p>"
        body = (
            f"<p>Takes {', '.join(FORMATS)}, at most {MOST_WIDTH_PX} px wide and {format_bytes(MOST_BYTES)}. "
            f"By a form: <b>/media</b>, token <b>{TOKEN}</b>. By WebDAV: <b>/files/</b>, name {USER}, "
            f'password {PASSWORD}.</p><form method="post" action="/mood">{moods}</form><h2>Published</h2>'
            + (f'<ul class="pictures">{pictures}</ul>' if pictures else nothing)
            + f"<h2>What happened</h2>{f'<ul>{happened}</ul>' if happened else nothing}"
        )
        return page(TITLE, "A simulated site that publishes pictures, for trying uploads", body)


def _kind(file: Path) -> str:
    try:
        with Image.open(file) as picture:
            return picture.format or ""
    except OSError:
        return ""


def main() -> None:
    """Serve until ended."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--port", type=int, required=True)
    parser.add_argument("--folder", type=Path, required=True)
    told = parser.parse_args()
    serve_until_ended(PublishingSite(told.port, told.folder))


if __name__ == "__main__":
    main()
