"""Saving a sweep straight into a folder on the server's disk."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor
from datetime import date
from pathlib import Path

from django.db import connection, transaction
from pathvalidate import sanitize_filename

from tallpage.core.errors import Stopped
from tallpage.core.handover import FolderChannel
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import Signals, Work, enqueue
from tallpage.server.preferences.out_folder import out_folder
from tallpage.server.storage import new_folder_in
from tallpage.server.sweeps.models import Saving, Sweep
from tallpage.server.sweeps.saving import Archive

KIND = "save_sweep"
_MOST_CHARS = 80


def order_saving(sweep: Sweep, folder: str, *, only_kept: bool) -> Saving:
    """Have a sweep saved into a new folder below the one that the server keeps for this.

    ``folder`` is only a name: whatever would lead elsewhere is taken out of it.
    """
    asked = sanitize_filename(folder, platform="universal", max_len=_MOST_CHARS).strip(" .")
    name = asked or f"{sanitize_filename(sweep.name, max_len=_MOST_CHARS)} {date.today():%Y-%m-%d}".strip()
    # Made now: a worker that begins anew after it was killed finds it, and no second one comes to be.
    folder = str(new_folder_in(out_folder(), name))
    with transaction.atomic():
        return Saving.objects.create(sweep=sweep, only_kept=only_kept, folder=folder, job=enqueue(KIND))


def prepare(job: Job) -> Work:
    """How a sweep is saved. What was written before it was stopped or failed stays."""
    saving = Saving.objects.select_related("sweep").get(job=job)

    def run(signals: Signals) -> Path:
        # Unlike other work this one reads the database as it goes, for which it has a thread of its own.
        with ThreadPoolExecutor(max_workers=1) as thread:
            return thread.submit(_write_and_let_go, saving, signals).result()

    return Work(run=run, commit=lambda _: None)


def _write_and_let_go(saving: Saving, signals: Signals) -> Path:
    try:
        return _write(saving, signals)
    finally:
        connection.close()


def _write(saving: Saving, signals: Signals) -> Path:
    archive = Archive(saving.sweep, only_kept=saving.only_kept)
    expected = archive.expected

    def on_item(number: int) -> None:
        signals.report("saving", number, expected)
        if signals.stop_mode != "go_on":
            raise Stopped("The saving was stopped.")

    return FolderChannel(out_folder() / saving.folder, on_item=on_item).send(archive.items())
