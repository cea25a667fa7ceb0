"""Bringing in an archive: each of its captures is there whole and once, whatever is killed meanwhile."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

from django.core.files.uploadedfile import UploadedFile
from django.db import connection, transaction

from tallpage.core.archive import Archive, CaptureEntry
from tallpage.core.errors import (
    ArchiveError,
    CutError,
    FitError,
    FrameError,
    HandOverError,
    ListError,
    PictureError,
    ScreenError,
    Stopped,
)
from tallpage.core.files import storage_errors
from tallpage.core.page_map import PageMap
from tallpage.core.picture import StripManifest
from tallpage.server.archives.entries import fields_of
from tallpage.server.archives.models import BroughtArchive
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import Signals, Work, enqueue
from tallpage.server.shelf.arriving.taking import first_cut
from tallpage.server.shelf.cuts.changing import open_cut
from tallpage.server.shelf.models import Capture, Cut, Folder
from tallpage.server.shelf.routes.schemas import TakeSettings
from tallpage.server.shelf.showing.detail import detail_of
from tallpage.server.shelf.sorting import folders as sorting
from tallpage.server.shelf.sorting.searching import index_capture
from tallpage.server.storage import (
    capture_folder,
    discard_folder,
    incoming_file,
    incoming_folder,
    incoming_upload,
    publish_capture,
)

KIND = "bring_archive"
_UNFIT = (
    CutError,
    FitError,
    FrameError,
    HandOverError,
    ListError,
    PictureError,
    ScreenError,
    AttributeError,
    KeyError,
    TypeError,
    ValueError,
)
"""What a part of a capture raises that no Tall Page has written so."""


def order_archive(upload: UploadedFile[bytes]) -> BroughtArchive:
    """Keep an uploaded archive, read what it says it holds, and queue its bringing in.

    One that was brought in halfway before is gone on with.

    Raises:
        ArchiveError: it is no archive, or a damaged one; nothing is kept.
        StorageError: it cannot be stored.
    """
    path = incoming_file()
    try:
        with storage_errors(path.parent), path.open("wb") as file:
            for chunk in upload.chunks():
                file.write(chunk)
        with Archive(path) as archive:
            archive_id, total = archive.id, len(archive.captures)
        with transaction.atomic():
            return BroughtArchive.objects.create(
                archive_id=archive_id,
                name=(upload.name or "archive.zip")[:200],
                upload_name=path.name,
                total=total,
                brought=_brought_before(archive_id),
                job=enqueue(KIND),
            )
    except BaseException:
        path.unlink(missing_ok=True)
        raise


def _brought_before(archive_id: str) -> dict[str, Any]:
    """What is still there of an archive that was not brought in to its end the last time."""
    last = BroughtArchive.objects.filter(archive_id=archive_id).select_related("job").first()
    if last is None or last.job.state not in (Job.State.FAILED, Job.State.STOPPED):
        return {}
    ids = [row["capture"] for row in last.brought.values()]
    there = set(Capture.objects.on_shelf().filter(pk__in=ids).values_list("pk", flat=True))
    return {number: row for number, row in last.brought.items() if row["capture"] in there}


def prepare(job: Job) -> Work:
    """How an archive is brought in. Rows are written as it goes, in a thread of their own."""
    row = BroughtArchive.objects.get(job=job)
    upload = incoming_upload(row.upload_name)

    def run(signals: Signals) -> list[dict[str, str]]:
        with ThreadPoolExecutor(max_workers=1) as thread:
            return thread.submit(_bring_all, row.pk, upload, signals).result()

    def commit(refused: list[dict[str, str]]) -> None:
        BroughtArchive.objects.filter(pk=row.pk).update(refused=refused, upload_name="")
        transaction.on_commit(lambda: upload.unlink(missing_ok=True))

    def rollback() -> None:
        # Somebody else may have taken it over; what has failed is not tried again.
        if Job.objects.filter(pk=job.pk, state__in=(Job.State.FAILED, Job.State.STOPPED)).exists():
            upload.unlink(missing_ok=True)

    return Work(run=run, commit=commit, rollback=rollback)


def _bring_all(row_id: int, upload: Path, signals: Signals) -> list[dict[str, str]]:
    try:
        with Archive(upload) as archive:
            refused: list[dict[str, str]] = []
            total = len(archive.captures)
            for number, entry in enumerate(archive.captures, start=1):
                if signals.stop_mode != "go_on":
                    raise Stopped("It was stopped.")
                signals.report("bringing in", number - 1, total)
                if str(number) in BroughtArchive.objects.get(pk=row_id).brought:
                    continue
                try:
                    _bring(row_id, archive, number, entry)
                except ArchiveError as error:
                    refused.append({"name": entry.name, "sentence": error.sentence})
            if len(refused) == total:
                raise ArchiveError(f"None of its captures can be brought in. {refused[0]['sentence']}")
            _relate(row_id, archive)
            return refused
    finally:
        connection.close()


def _bring(row_id: int, archive: Archive, number: int, entry: CaptureEntry) -> None:
    """One capture with its cuts: all of it, or nothing.

    Raises:
        ArchiveError: it is not as a Tall Page writes it.
        StorageError: it cannot be stored.
    """
    folder = incoming_folder()
    try:
        manifest = archive.unpack(number, folder)
        with transaction.atomic():
            row = BroughtArchive.objects.select_for_update().get(pk=row_id)
            if str(number) in row.brought:  # another worker had taken the job over
                discard_folder(folder)
                return
            capture, cuts = _stored(archive, number, entry, manifest, folder)
            told = {"capture": capture.pk, "cuts": [cut.pk for cut in cuts]}
            row.brought = {**row.brought, str(number): told}
            row.save(update_fields=["brought"])
    except BaseException:
        discard_folder(folder)
        discard_folder(capture_folder(folder.name))
        raise


def _stored(
    archive: Archive, number: int, entry: CaptureEntry, manifest: StripManifest, folder: Path
) -> tuple[Capture, list[Cut]]:
    try:
        TakeSettings.model_validate(entry.settings)
        capture = Capture.objects.create(
            **fields_of(entry),
            storage_key=publish_capture(folder),
            width_px=manifest.width_px,
            height_px=manifest.height_px,
            bytes=manifest.bytes,
            shelf_folder=_folder_named(entry.folder),
            job=Job.objects.create(kind=KIND, state=Job.State.DONE),
        )
        Capture.objects.filter(pk=capture.pk).update(created_at=entry.created_at)
        for name in entry.labels:
            sorting.label([capture.pk], name)
        cuts = []
        for cut_number, said in enumerate(entry.cuts, start=1):
            cut = open_cut(capture, archive.cut(number, cut_number), said.name)
            cut.review, cut.needs_a_look = said.review, said.needs_a_look
            cut.save(update_fields=["review", "needs_a_look"])
            cuts.append(cut)
        if not cuts:
            cuts = [first_cut(capture)]
        capture.refresh_from_db()
        detail_of(capture)  # what cannot be shown is not taken in
        index_capture(capture, PageMap.load_if_readable(capture.folder).text())
    except _UNFIT as error:
        said_so = getattr(error, "sentence", "It says something that no Tall Page writes.")
        raise ArchiveError(f"“{entry.name}” in the archive: {said_so}") from error
    return capture, cuts


def _folder_named(path: list[str]) -> Folder | None:
    """The folder of the shelf at a path, made where it is missing."""
    at: Folder | None = None
    for name in path:
        found = Folder.objects.filter(parent=at, name__iexact=name.strip()).first()
        at = found or sorting.make_folder(name, at)
    return at


def _relate(row_id: int, archive: Archive) -> None:
    """Say of what was brought in which capture renews which, and which cut was carried over from which."""
    brought = BroughtArchive.objects.get(pk=row_id).brought
    with transaction.atomic():
        for number, entry in enumerate(archive.captures, start=1):
            here, before = brought.get(str(number)), brought.get(str(entry.renews))
            if here and before:
                Capture.objects.filter(pk=here["capture"]).update(renews=before["capture"])
            for cut_number, cut in enumerate(entry.cuts):
                source = cut.carried_from and brought.get(str(cut.carried_from[0]))
                if here and source and cut.carried_from and cut.carried_from[1] <= len(source["cuts"]):
                    carried = source["cuts"][cut.carried_from[1] - 1]
                    Cut.objects.filter(pk=here["cuts"][cut_number]).update(carried_from=carried)
