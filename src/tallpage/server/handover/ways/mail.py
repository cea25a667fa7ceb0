"""Mail through the server that the settings name."""

from __future__ import annotations

from collections.abc import Collection, Sequence

from tallpage.core.errors import HandOverError
from tallpage.core.handover import IN_DOUBT, Attachment, Letter, MailServer, mails, read_addresses
from tallpage.core.units import format_bytes
from tallpage.server.handover.mail_settings import mail_limit_bytes
from tallpage.server.handover.models import HandOver
from tallpage.server.handover.selection import Selection
from tallpage.server.handover.ways.base import Outcome, go_on, named_items, note_progress, only_files
from tallpage.server.handover.ways.link import LinkWay
from tallpage.server.jobs.queue import Signals
from tallpage.server.preferences.values import value_of

_MOST_HELD_BYTES = 500_000_000


class MailWay:
    """Files, or a link to them, in as many mails as the limit asks for."""

    def check(self, line: HandOver, selection: Selection) -> None:
        """Refuse when there is no server, nobody to send it to, or a file that fits into no mail."""
        mail_server()
        line.where = ", ".join(read_addresses(str(line.options.get("to", ""))))
        if line.options.get("as_link"):
            if not line.options.get("base"):
                raise HandOverError("A link needs the address of this server.", code="link_base")
            LinkWay().check(line, selection)

    def send(self, line: HandOver, selection: Selection, signals: Signals) -> Outcome:
        """Send what has not been sent. Where it is not known whether one mail arrived, nothing is sent again.

        Raises:
            HandOverError: the server did not take a mail, or it cannot be known.
        """
        server, options = mail_server(), line.options
        text, outcome, files = str(options.get("text", "")), None, []
        if options.get("as_link"):
            outcome = LinkWay().send(line, selection, signals)
            text = f"{text}\n\n{options['base']}{outcome.address}\n".lstrip()
        else:
            files = _attachments(line, selection, signals)
        letter = Letter(
            sender=value_of("mail.from"),
            to=read_addresses(line.where),
            subject=str(options.get("subject") or line.subject),
            text=text,
            key=f"hand-over-{line.pk}-{line.created_at:%Y%m%d%H%M%S}",
        )
        everything = list(mails(letter, files, mail_limit_bytes()))
        sent = int(line.progress.get("sent", 0))
        if line.progress.get("begun", 0) > sent:
            raise HandOverError(
                f"Mail {sent + 1} of {len(everything)} was on its way when the worker was stopped: whether "
                "it arrived is not known.",
                hint="Ask who it was for, and send it again if it is missing.",
                code=IN_DOUBT,
            )
        for number, message in enumerate(everything[sent:], start=sent + 1):
            go_on(signals)
            signals.report("sending", number - 1, len(everything))
            note_progress(line, begun=number)
            try:
                refused = server.send(message)
            except HandOverError as error:
                if error.code != IN_DOUBT:
                    note_progress(line, begun=number - 1)
                raise
            note_progress(line, sent=number, refused=sorted({*line.progress.get("refused", ()), *refused}))
        count = "1 mail" if len(everything) == 1 else f"{len(everything)} mails"
        answer = _told(count, letter.to, line.progress.get("refused", []))
        told = [{"name": file.name, "bytes": len(file.data)} for file in files]
        if outcome is None:
            return Outcome(answer=answer, files=told)
        outcome.answer = f"{answer} The link is open."
        return outcome


def _told(count: str, to: Sequence[str], refused: Collection[str]) -> str:
    """What became of some mails, as the log says it."""
    reached = ", ".join(address for address in to if address not in refused)
    if not refused:
        return f"{count} to {reached}."
    return f"Partly sent: {count} to {reached}. The mail server does not deliver to {', '.join(refused)}."


def mail_server() -> MailServer:
    """The server of the settings.

    Raises:
        HandOverError: none is named, or it is none.
    """
    named = value_of("mail.server")
    if not named:
        raise HandOverError(
            "No mail server is named.",
            hint="Name one under Settings, Mail, or start Tall Page with TALLPAGE_MAIL.",
            code="mail_server",
        )
    return MailServer.parse(named)


def _attachments(line: HandOver, selection: Selection, signals: Signals) -> list[Attachment]:
    found: list[Attachment] = []
    total = 0
    for item in only_files(named_items(line, selection)):
        go_on(signals)
        data = b"".join(item.pieces())
        total += len(data)
        if total > _MOST_HELD_BYTES:
            raise HandOverError(
                f"That is over {format_bytes(_MOST_HELD_BYTES)}: too much for mail.",
                hint="Send a link instead.",
                code="mail_too_heavy",
            )
        found.append(Attachment(item.path, data, item.media_type))
    if not found:
        raise HandOverError(
            "There is no file to be sent.", hint="Make files first, or send pictures.", code="nothing_chosen"
        )
    return found
