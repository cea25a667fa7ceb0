"""A simulated mail server: it takes every mail, delivers none, and shows what arrived, as a page."""

from __future__ import annotations

import argparse
import itertools
import threading
from email import message_from_bytes
from email.message import EmailMessage
from email.policy import default
from html import escape
from http import HTTPStatus
from http.server import ThreadingHTTPServer
from urllib.parse import quote, unquote, urlsplit

from aiosmtpd.controller import Controller
from aiosmtpd.smtp import SMTP, Envelope, Session

from tallpage.core.units import format_bytes
from tallpage.demo.stand_ins.pages import Handler, page, serve_until_ended

TITLE = "Skerrin mail room"
MOST_BYTES = 12_000_000
_KEPT = 50


class Letterbox:
    """The mails that arrived, the latest first; it is also what the mail server calls."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._numbers = itertools.count(1)
        self._arrived: dict[int, EmailMessage] = {}

    async def handle_RCPT(  # noqa: N802 - the mail server's name for it
        self, _server: SMTP, _session: Session, envelope: Envelope, address: str, _options: list[str]
    ) -> str:
        """Addresses that begin with “nobody” are refused, so that this can be seen too."""
        if address.startswith("nobody@"):
            return "550 Nobody of that name is here"
        envelope.rcpt_tos.append(address)
        return "250 OK"

    async def handle_DATA(self, _server: SMTP, _session: Session, envelope: Envelope) -> str:  # noqa: N802
        """Keep a mail."""
        data = envelope.original_content or b""
        with self._lock:
            self._arrived[next(self._numbers)] = message_from_bytes(data, policy=default)
            while len(self._arrived) > _KEPT:
                del self._arrived[min(self._arrived)]
        return "250 OK"

    def mails(self) -> list[tuple[int, EmailMessage]]:
        """Each with its number, the latest first."""
        with self._lock:
            return sorted(self._arrived.items(), reverse=True)

    def attachment(self, number: int, name: str) -> tuple[bytes, str] | None:
        """The data and media type of an attachment."""
        message = dict(self.mails()).get(number)
        for part in message.iter_attachments() if message else ():
            if part.get_filename() == name:
                return part.get_payload(decode=True), part.get_content_type()  # type: ignore[return-value]
        return None


class MailPage(ThreadingHTTPServer):
    """The page that shows what arrived."""

    daemon_threads = True

    def __init__(self, port: int, letterbox: Letterbox) -> None:
        super().__init__(("127.0.0.1", port), _Requests)
        self.letterbox = letterbox


class _Requests(Handler):
    server: MailPage

    def do_GET(self) -> None:  # noqa: N802
        path = unquote(urlsplit(self.path).path)
        if path == "/":
            self.answer(HTTPStatus.OK, _front(self.server.letterbox))
            return
        number, _, name = path.strip("/").partition("/")
        found = self.server.letterbox.attachment(int(number), name) if number.isdecimal() else None
        if found is None:
            self.answer(HTTPStatus.NOT_FOUND, page(TITLE, "That is not here.", ""))
        else:
            self.answer(HTTPStatus.OK, *found)


def _front(letterbox: Letterbox) -> bytes:
    articles = "".join(_mail(number, message) for number, message in letterbox.mails())
    body = articles or '<p class="empty">No mail has arrived yet. It keeps the latest fifty.</p>'
    return page(TITLE, "A simulated mail server: what arrives is shown here and goes nowhere", body)


def _mail(number: int, message: EmailMessage) -> str:
    text = message.get_body(("plain",))
    attachments = "".join(
        f'<li><a href="/{number}/{quote(name)}">{escape(name)}</a>, '
        f"{format_bytes(len(part.get_payload(decode=True) or b''))}</li>"
        for part in message.iter_attachments()
        if (name := part.get_filename() or "")
    )
    return (
        f"<article><h2>{escape(str(message['Subject'] or 'No subject'))}</h2>"
        f"<p>From {escape(str(message['From']))} to {escape(str(message['To']))}, "
        f"{escape(str(message['Date']))}</p>"
        f"<pre>{escape(text.get_content() if text else '')}</pre><ul>{attachments}</ul></article>"
    )


def start_mail_server(port: int, letterbox: Letterbox) -> Controller:
    """Take mails in a thread of its own until it is stopped."""
    controller = Controller(letterbox, hostname="127.0.0.1", port=port, data_size_limit=MOST_BYTES)
    controller.start()
    return controller


def main() -> None:
    """Serve until ended."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--smtp-port", type=int, required=True)
    parser.add_argument("--port", type=int, required=True)
    told = parser.parse_args()
    letterbox = Letterbox()
    start_mail_server(told.smtp_port, letterbox)
    serve_until_ended(MailPage(told.port, letterbox))


if __name__ == "__main__":
    main()
