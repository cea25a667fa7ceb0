"""Taking in pictures that were dropped, browsed for or pasted."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from django.core.files import File
from django.db import transaction
from django.utils import timezone

from tallpage.core.errors import PictureUnreadable
from tallpage.core.files import storage_errors
from tallpage.core.naming import MAX_NAME_CHARS
from tallpage.core.picture import StripManifest, check_picture, import_picture
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import Signals, Work, enqueue
from tallpage.server.shelf.arriving.taking import first_cut, folder_for
from tallpage.server.shelf.models import Capture
from tallpage.server.shelf.sorting.searching import index_capture
from tallpage.server.storage import (
    discard_folder,
    incoming_file,
    incoming_upload,
    publish_capture,
)

KIND = "import_picture"


def order_picture(upload: File[bytes]) -> Capture:
    """Keep a copy of a file, check what it claims to be, and queue its decoding.

    Raises:
        PictureUnreadable, PictureTooLarge: from its header alone; nothing is kept.
        StorageError: it cannot be stored.
    """
    with received(upload) as path:
        return order_received(path, upload.name or "")


@contextmanager
def received(upload: File[bytes]) -> Iterator[Path]:
    """A copy of a file that claims to be a picture; it goes unless what is done with it succeeds.

    Raises:
        PictureUnreadable, PictureTooLarge: from its header alone.
        StorageError: it cannot be stored.
    """
    path = incoming_file()
    try:
        with storage_errors(path.parent), path.open("wb") as file:
            for chunk in upload.chunks():
                file.write(chunk)
        _require_content(path)
        check_picture(path)
        yield path
    except BaseException:
        path.unlink(missing_ok=True)
        raise


def order_received(path: Path, file_name: str) -> Capture:
    """Queue the decoding of a file that was :func:`received`."""
    title = Path(file_name).stem.strip() or "Pasted picture"
    day = timezone.now().date().isoformat()
    with transaction.atomic():
        return Capture.objects.create(
            source=Capture.Source.PICTURE,
            name=f"{title[: MAX_NAME_CHARS - 13]} – {day}",
            title=title,
            upload_name=path.name,
            job=enqueue(KIND),
        )


def _require_content(path: Path) -> None:
    if path.stat().st_size == 0:
        raise PictureUnreadable("The file is empty.")


def prepare(job: Job) -> Work:
    """How a picture is decoded and stored."""
    capture = Capture.objects.get(job=job)
    upload = incoming_upload(capture.upload_name)
    folder = folder_for(capture)

    def run(signals: Signals) -> StripManifest:
        signals.report("taking")
        return import_picture(upload, folder)

    def commit(manifest: StripManifest) -> None:
        capture.storage_key, capture.incoming_key = publish_capture(folder), ""
        capture.width_px, capture.height_px = manifest.width_px, manifest.height_px
        capture.bytes = manifest.bytes
        capture.taken_at = timezone.now()
        capture.upload_name = ""
        capture.save()
        index_capture(capture, "")
        first_cut(capture)
        transaction.on_commit(lambda: upload.unlink(missing_ok=True))

    def rollback() -> None:
        discard_folder(folder)
        # Somebody else may have taken it over; what has failed is not tried again.
        if Job.objects.filter(pk=job.pk, state__in=(Job.State.FAILED, Job.State.STOPPED)).exists():
            upload.unlink(missing_ok=True)

    return Work(run=run, commit=commit, rollback=rollback)
