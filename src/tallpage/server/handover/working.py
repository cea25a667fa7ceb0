"""How what takes a while is handed over: ordered, worked on, written into the log."""

from __future__ import annotations

from collections.abc import Mapping
from concurrent.futures import ThreadPoolExecutor
from typing import Any

from django.db import connection, transaction

from tallpage.server.handover.models import HandOver
from tallpage.server.handover.selection import Selection
from tallpage.server.handover.ways.base import Outcome
from tallpage.server.handover.ways.registry import WAYS
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import Signals, Work, enqueue

KIND = "hand_over"


def order(way: str, selection: Selection, options: Mapping[str, Any], *, person: str = "") -> HandOver:
    """A line of the log, and the work that it stands for on the queue.

    Raises:
        TallPageError: it cannot go this way; nothing is stored.
    """
    captures = selection.require_captured()
    line = HandOver(
        way=way,
        what=selection.as_json(),
        options=dict(options),
        subject=selection.subject()[:200],
        person=person,
    )
    WAYS[way].check(line, selection)
    with transaction.atomic():
        line.job = enqueue(KIND)
        line.save()
        line.captures.set(captures)
    return line


def prepare(job: Job) -> Work:
    """How a line is worked on. Ways read and write rows as they go, in a thread of their own."""
    line = HandOver.objects.get(job=job)

    def run(signals: Signals) -> Outcome:
        with ThreadPoolExecutor(max_workers=1) as thread:
            return thread.submit(_sent, line, signals).result()

    def commit(outcome: Outcome) -> None:
        for write in outcome.rows:
            write()
        HandOver.objects.filter(pk=line.pk).update(
            answer=outcome.answer,
            address=outcome.address,
            files=outcome.files,
            facts=outcome.facts,
            made_key=outcome.made_key,
            made_name=outcome.made_name,
        )

    return Work(run=run, commit=commit)


def _sent(line: HandOver, signals: Signals) -> Outcome:
    try:
        return WAYS[line.way].send(line, Selection.from_json(line.what), signals)
    finally:
        connection.close()
