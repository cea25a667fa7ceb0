"""A page of its own for whoever has its address."""

from __future__ import annotations

from datetime import timedelta

from django.contrib.auth.hashers import make_password
from django.utils import timezone

from tallpage.core.errors import HandOverError
from tallpage.server.handover.models import HandOver, SharedLink
from tallpage.server.handover.selection import Selection
from tallpage.server.handover.sharing import link_path, snapshot
from tallpage.server.handover.ways.base import Outcome, go_on
from tallpage.server.jobs.queue import Signals

MOST_PICTURES = 200
_DAYS = (1, 7, None)


class LinkWay:
    """Pictures as they are now, until the link is taken back or runs out."""

    def check(self, line: HandOver, selection: Selection) -> None:
        """Refuse too many at once."""
        if line.options.get("days") not in _DAYS:
            raise HandOverError(
                "A link is open for a day, a week, or until it is taken back.", code="link_days"
            )
        count = len(selection.outputs) or len(selection.cuts())
        if count > MOST_PICTURES:
            raise HandOverError(f"A link shows at most {MOST_PICTURES} pictures.", code="too_many")
        word = str(line.options.pop("word", ""))
        if word:
            # The word itself is not kept: only whether one that is said is the same can be told.
            line.options["word_hash"] = make_password(word)

    def send(self, line: HandOver, selection: Selection, signals: Signals) -> Outcome:
        """Copy what it shows; the link leads somewhere once all of it is there."""
        options, days = line.options, line.options.get("days")
        link, _ = SharedLink.objects.get_or_create(
            hand_over=line,
            defaults={
                "title": str(options.get("title") or selection.cuts()[0].shown_title())[:200],
                "caption": str(options.get("caption", "")),
                "word_hash": options.get("word_hash", ""),
                "expires_at": timezone.now() + timedelta(days=days) if days else None,
            },
        )

        def on_picture(number: int) -> None:
            go_on(signals)
            signals.report("saving", number)

        pictures = snapshot(link, selection, on_picture)
        files = [{"name": row["name"], "bytes": row["bytes"]} for row in pictures]

        def publish() -> None:
            SharedLink.objects.filter(pk=link.pk).update(pictures=pictures)

        return Outcome(answer="The link is open.", address=link_path(link), files=files, rows=[publish])
