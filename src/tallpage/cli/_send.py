"""``tallpage send``: files by mail."""

from __future__ import annotations

import mimetypes
import os
import sys
import uuid
from pathlib import Path
from typing import Annotated

import typer

from tallpage.cli._output import each_with_bar, told_in_one_line
from tallpage.core.errors import HandOverError
from tallpage.core.handover import Attachment, Letter, MailServer, mails, read_addresses
from tallpage.core.units import format_bytes, parse_byte_count


def send(
    files: Annotated[list[Path], typer.Argument(help="Files that go along.")],
    to: Annotated[str, typer.Option(help="Mail addresses, divided by commas.")],
    subject: Annotated[str, typer.Option(help="Subject; else the first file's name.")] = "",
    text: Annotated[str, typer.Option(help="A line of text.")] = "",
    limit: Annotated[
        str, typer.Option(help="Greatest size of a mail; what is more goes in several.")
    ] = "10MB",
) -> None:
    """Send files by mail, through the server that TALLPAGE_MAIL names, from TALLPAGE_MAIL_FROM."""
    with told_in_one_line():
        server = MailServer.parse(os.environ.get("TALLPAGE_MAIL", ""))
        letter = Letter(
            sender=os.environ.get("TALLPAGE_MAIL_FROM") or "tallpage@localhost",
            to=read_addresses(to),
            subject=subject or files[0].name,
            text=text,
            key=uuid.uuid4().hex,
        )
        everything = list(mails(letter, [_attachment(path) for path in files], parse_byte_count(limit)))
        refused = {who for message in each_with_bar("sending", everything) for who in server.send(message)}
    total = format_bytes(sum(path.stat().st_size for path in files))
    count = "1 mail" if len(everything) == 1 else f"{len(everything)} mails"
    print(f"{count} to {', '.join(who for who in letter.to if who not in refused)}, {total}")
    if refused:
        sys.exit(f"The mail server does not deliver to {', '.join(sorted(refused))}.")


def _attachment(path: Path) -> Attachment:
    try:
        data = path.read_bytes()
    except OSError as error:
        raise HandOverError(f"{path} cannot be read.", hint="Check the path.", code="file_missing") from error
    return Attachment(path.name, data, mimetypes.guess_type(path.name)[0] or "application/octet-stream")
