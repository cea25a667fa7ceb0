"""A folder on the server's disk, below the one that is kept for this."""

from __future__ import annotations

from collections.abc import Iterator

from django.conf import settings
from pathvalidate import sanitize_filename

from tallpage.core.handover import FolderChannel, Item, with_manifest
from tallpage.server.handover.models import HandOver
from tallpage.server.handover.selection import Selection
from tallpage.server.handover.ways.base import Outcome, go_on, named_items
from tallpage.server.jobs.queue import Signals
from tallpage.server.storage import new_out_folder

_MOST_CHARS = 80


class FolderWay:
    """Files with a manifest in a folder that was not there before."""

    def check(self, line: HandOver, selection: Selection) -> None:
        """The folder is made now: a worker that begins anew finds it, and no second one comes to be."""
        asked = sanitize_filename(
            str(line.options.get("folder", "")), platform="universal", max_len=_MOST_CHARS
        )
        name = asked.strip(" .") or sanitize_filename(selection.subject(), max_len=_MOST_CHARS).strip(" .")
        line.where = new_out_folder(name or "handed over").name

    def send(self, line: HandOver, selection: Selection, signals: Signals) -> Outcome:
        """Write everything; what was written stays when the rest fails."""
        names: list[str] = []

        def counted(items: Iterator[Item]) -> Iterator[Item]:
            for item in items:
                go_on(signals)
                signals.report("saving", len(names))
                names.append(item.path)
                yield item

        folder = settings.OUT / line.where
        FolderChannel(folder).send(counted(with_manifest(named_items(line, selection))))
        files = [{"name": name, "bytes": (folder / name).stat().st_size} for name in names]
        return Outcome(answer=f"Saved in {folder}.", address=str(folder), files=files)
