"""HTTP API of bringing archives in. They leave as a way out: see the API of those."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from django.db.models import QuerySet
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import File, Router, Schema, Status
from ninja.files import UploadedFile

from tallpage.server.archives.bringing import order_archive
from tallpage.server.archives.models import BroughtArchive
from tallpage.server.jobs.queue import request_stop
from tallpage.server.jobs.schemas import JobOut

router = Router(tags=["archives"])
_MOST_TOLD = 20


class RefusedOut(Schema):
    """A capture of an archive that could not be brought in."""

    name: str
    sentence: str


class BroughtArchiveOut(Schema):
    """An archive that is, or was, brought in."""

    id: int
    name: str
    total: int
    brought: int
    refused: list[RefusedOut]
    job: JobOut
    created_at: datetime

    @staticmethod
    def resolve_brought(row: Any) -> int:
        """How many of its captures are there."""
        return len(row.brought)


@router.get("/archives", response=list[BroughtArchiveOut], operation_id="list_archives")
def list_archives(request: HttpRequest) -> QuerySet[BroughtArchive]:
    """The archives that were brought in lately, the last first."""
    return BroughtArchive.objects.select_related("job")[:_MOST_TOLD]


@router.post("/archives", response={202: BroughtArchiveOut}, operation_id="bring_archive")
def bring_archive(request: HttpRequest, archive: File[UploadedFile]) -> Status[BroughtArchive]:
    """Bring in an archive that a Tall Page has made."""
    return Status(202, order_archive(archive))


@router.post("/archives/{archive_id}/stop", response=BroughtArchiveOut, operation_id="stop_archive")
def stop_archive(request: HttpRequest, archive_id: int) -> BroughtArchive:
    """Stop bringing an archive in; what is there stays, and the same archive is gone on with later."""
    row = get_object_or_404(BroughtArchive.objects.select_related("job"), pk=archive_id)
    request_stop(row.job)
    return get_object_or_404(BroughtArchive.objects.select_related("job"), pk=archive_id)
