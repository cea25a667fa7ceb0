"""Packages as mail: messages that keep to a limit."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Sequence
from contextlib import suppress
from dataclasses import dataclass
from email.headerregistry import Address
from email.message import EmailMessage
from email.utils import formatdate

from tallpage.core.errors import HandOverError
from tallpage.core.units import format_bytes

_ADDRESS = re.compile(r"[^\s@<>,;\"()\[\]\\]+@[^\s@<>,;\"()\[\]\\.]+(?:\.[^\s@<>,;\"()\[\]\\.]+)*")
_MOST_ADDRESSES = 50
_BASE64_GROWS = 4 / 3 * 78 / 76
"""Base64 stores three bytes in four letters, in lines of 76 with two to end each. Source: RFC 2045, 6.8."""
_HEADERS_BYTES = 4_000


@dataclass(frozen=True, slots=True)
class Attachment:
    """A file that goes along."""

    name: str
    data: bytes
    media_type: str

    @property
    def sent_bytes(self) -> int:
        """How much of a mail it takes."""
        return int(len(self.data) * _BASE64_GROWS) + len(self.name) * 4 + 300


@dataclass(frozen=True, slots=True, kw_only=True)
class Letter:
    """What is sent to whom."""

    sender: str
    to: tuple[str, ...]
    subject: str
    text: str
    key: str
    """Names it for ever: each of its mails has the same Message-ID however often it is sent."""


def read_addresses(text: str) -> tuple[str, ...]:
    """The mail addresses of a text that divides them by commas, semicolons, spaces or lines.

    Raises:
        HandOverError: there is none, or one that is not.
    """
    found = [part for part in re.split(r"[\s,;]+", text.strip()) if part]
    wrong = next((part for part in found if not _ADDRESS.fullmatch(part)), None)
    if wrong is not None or not found:
        raise HandOverError(
            f"“{wrong[:100]}” is no mail address." if wrong else "Nobody is named that the mail is for.",
            hint="Write addresses like desk@skerrin.example, several with commas between them.",
            code="mail_address",
        )
    if len(found) > _MOST_ADDRESSES:
        raise HandOverError(f"A mail goes to at most {_MOST_ADDRESSES} addresses.", code="mail_address")
    return tuple(dict.fromkeys(found))


def mails(letter: Letter, files: Sequence[Attachment], limit_bytes: int) -> Iterator[EmailMessage]:
    """The mails that a letter becomes: as few as its files fit into, none over the limit.

    Raises:
        HandOverError: one file alone is over it.
    """
    heavy = next((file for file in files if file.sent_bytes + _HEADERS_BYTES > limit_bytes), None)
    if heavy is not None:
        raise HandOverError(
            f"{heavy.name} has {format_bytes(len(heavy.data))}: more than fits into a mail of "
            f"{format_bytes(limit_bytes)}.",
            hint="Send a link instead, or fit it under a lower limit.",
            code="mail_too_heavy",
        )
    groups = list(_grouped(files, limit_bytes - _HEADERS_BYTES)) or [[]]
    for number, group in enumerate(groups, start=1):
        message = EmailMessage()
        message["From"] = _one(letter.sender)
        message["To"] = [_one(address) for address in letter.to]
        count = f" ({number} of {len(groups)})" if len(groups) > 1 else ""
        message["Subject"] = " ".join(letter.subject.split()) + count
        message["Date"] = formatdate(localtime=True)
        message["Message-ID"] = f"<{letter.key}.{number}@{letter.sender.rpartition('@')[2]}>"
        message.set_content(letter.text or "\n")
        for file in group:
            kind, _, subtype = file.media_type.partition("/")
            message.add_attachment(file.data, maintype=kind, subtype=subtype, filename=file.name)
        yield message


def _grouped(files: Iterable[Attachment], room_bytes: int) -> Iterator[list[Attachment]]:
    group: list[Attachment] = []
    for file in files:
        if group and sum(row.sent_bytes for row in (*group, file)) > room_bytes:
            yield group
            group = []
        group.append(file)
    if group:
        yield group


def _one(address: str) -> Address:
    user, _, host = address.rpartition("@")
    with suppress(UnicodeError):  # one that cannot be written so is refused by the server
        host = host.encode("idna").decode()
    return Address(username=user, domain=host)
