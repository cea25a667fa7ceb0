"""What every way out has in common."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, field
from typing import Any, Protocol

from django.db import transaction

from tallpage.core.errors import Stopped
from tallpage.core.handover import Item, ManifestRow
from tallpage.server.handover.models import HandOver
from tallpage.server.handover.names import FileNames
from tallpage.server.handover.selection import Selection
from tallpage.server.jobs.queue import Signals


@dataclass(kw_only=True)
class Outcome:
    """What came of a way out, to be written into its line of the log."""

    answer: str
    address: str = ""
    files: list[dict[str, Any]] = field(default_factory=list)
    facts: dict[str, Any] = field(default_factory=dict)
    made_key: str = ""
    made_name: str = ""
    rows: list[Callable[[], object]] = field(default_factory=list)
    """Further rows to be written together with the line."""


class WayOut(Protocol):
    """One way out."""

    def check(self, line: HandOver, selection: Selection) -> None:
        """Refuse what cannot go this way, before anything is done; may fill in ``line.where``.

        Raises:
            TallPageError: it cannot.
        """

    def send(self, line: HandOver, selection: Selection, signals: Signals) -> Outcome:
        """Do it. May be called again for the same line when a worker was killed: nothing goes out twice.

        Raises:
            TallPageError: it failed.
            Stopped: the person asked for that.
        """


def named_items(line: HandOver, selection: Selection, *, beside: bool = True) -> Iterator[Item | ManifestRow]:
    """The package of a line, its files named as was asked; with facts beside those that have them."""
    expected = len(selection.outputs) or len(selection.captures) or 1
    return selection.items(FileNames(str(line.options.get("pattern", "")), expected=expected), beside=beside)


def only_files(entries: Iterable[Item | ManifestRow]) -> Iterator[Item]:
    """The files of a package."""
    return (entry for entry in entries if isinstance(entry, Item))


def note_progress(line: HandOver, **progress: Any) -> None:
    """Remember which parts have left, at once: a worker may be killed the next moment."""
    line.progress = {**line.progress, **progress}
    with transaction.atomic():
        HandOver.objects.filter(pk=line.pk).update(progress=line.progress)


def go_on(signals: Signals) -> None:
    """End here when that was asked for.

    Raises:
        Stopped: it was.
    """
    if signals.stop_mode != "go_on":
        raise Stopped("It was stopped.")
