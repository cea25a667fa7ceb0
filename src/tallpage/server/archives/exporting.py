"""Captures of the shelf as an archive, made while it is sent."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from django.utils import timezone

from tallpage.core.archive import HeldCapture, HeldCut, archive_items
from tallpage.core.cut import write_cut
from tallpage.core.handover import Item
from tallpage.server.archives.entries import cut_entry_of, entry_of
from tallpage.server.shelf.models import Capture, with_pictures


def archived(captures: Sequence[Capture]) -> Iterator[Item]:
    """The files of an archive of captures that are taken.

    Raises:
        PictureUnreadable: the strips of one cannot be found.
    """
    numbers = {capture.pk: number for number, capture in enumerate(captures, start=1)}
    cuts = {capture.pk: list(capture.cuts.all()) for capture in captures}
    places = {
        cut.pk: (numbers[pk], number) for pk, rows in cuts.items() for number, cut in enumerate(rows, start=1)
    }
    held = [
        HeldCapture(
            entry=entry_of(capture, renews=numbers.get(capture.renews_id or 0)),
            folder=capture.folder,
            cuts=tuple(
                HeldCut(
                    entry=cut_entry_of(cut, carried_from=places.get(cut.carried_from_id or 0)),
                    file=write_cut(with_pictures(cut.as_cut())),
                )
                for cut in cuts[capture.pk]
            ),
        )
        for capture in captures
    ]
    return archive_items(held, made_at=timezone.now())
