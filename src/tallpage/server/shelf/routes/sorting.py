"""HTTP API of folders and labels, and of what is done to many captures at once."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date
from typing import Annotated, Literal

from django.db import transaction
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Field, Router, Schema, Status
from pydantic import StringConstraints

from tallpage.core.rights import MOST_NOTE_CHARS, Rights, RightsState
from tallpage.server.jobs.models import Job
from tallpage.server.jobs.queue import request_stop
from tallpage.server.shelf.arriving.taking import order_retake
from tallpage.server.shelf.models import Capture, Folder, Label
from tallpage.server.shelf.routes.wanted import WantedIn
from tallpage.server.shelf.sorting import folders as sorting

router = Router(tags=["shelf"])
_MOST_RETAKEN = 200
_Name = Annotated[str, StringConstraints(strip_whitespace=True, max_length=80)]


class ShelfFolderIn(Schema):
    """A folder by name and place; without a parent it lies on the shelf itself."""

    name: _Name
    parent: int | None = None


class ShelfFolderOut(Schema):
    """A folder with the number of captures that lie in it itself."""

    id: int
    name: str
    parent: int | None = Field(alias="parent_id")
    count: int = 0


class LabelOut(Schema):
    """A label, and how many captures have it."""

    name: str
    count: int


class RightsIn(Schema):
    """What is known of the rights of a picture; ``until`` is the last day of a licence."""

    state: RightsState = ""
    until: date | None = None
    note: Annotated[str, StringConstraints(strip_whitespace=True, max_length=MOST_NOTE_CHARS)] = ""


class BatchIn(Schema):
    """Something that is done to captures: to those that are named, or to all that are looked for."""

    ids: list[int] = Field(default=[], max_length=sorting.MOST_AT_ONCE)
    wanted: WantedIn | None = None
    action: Literal["move", "label", "unlabel", "rights", "delete", "restore"]
    folder: int | None = None
    label: Annotated[str, StringConstraints(max_length=40)] = ""
    rights: RightsIn | None = None


class BatchOut(Schema):
    """To which captures it was done, so that it can be undone."""

    ids: list[int]


class CapturesAgainIn(Schema):
    """Captures that are taken once more. For more of them there are sweeps, which keep a pace."""

    ids: Annotated[list[int], Field(max_length=sorting.MOST_AT_ONCE)]


class RetakenOut(Schema):
    """The captures that are being taken, and how many were left out."""

    ids: list[int]
    left_out: int


@router.get("/folders", response=list[ShelfFolderOut], operation_id="list_folders")
def list_folders(request: HttpRequest) -> Iterable[Folder]:
    """All folders, by name."""
    return sorting.folders()


@router.post("/folders", response={201: ShelfFolderOut}, operation_id="make_folder")
def make_folder(request: HttpRequest, payload: ShelfFolderIn) -> Status[Folder]:
    """A new folder."""
    return Status(201, sorting.make_folder(payload.name, _folder(payload.parent)))


@router.put("/folders/{folder_id}", response=ShelfFolderOut, operation_id="change_folder")
def change_folder(request: HttpRequest, folder_id: int, payload: ShelfFolderIn) -> Folder:
    """Give a folder another name or place."""
    return sorting.change_folder(
        get_object_or_404(Folder, pk=folder_id), payload.name, _folder(payload.parent)
    )


@router.delete("/folders/{folder_id}", response={204: None}, operation_id="delete_folder")
def delete_folder(request: HttpRequest, folder_id: int) -> Status[None]:
    """Delete a folder; what lies in it moves up by one."""
    sorting.delete_folder(get_object_or_404(Folder, pk=folder_id))
    return Status(204, None)


@router.get("/labels", response=list[LabelOut], operation_id="list_labels")
def list_labels(request: HttpRequest) -> Iterable[Label]:
    """All labels that captures have."""
    return sorting.labels()


@router.post("/captures/batch", response=BatchOut, operation_id="change_captures")
def change_captures(request: HttpRequest, payload: BatchIn) -> dict[str, list[int]]:
    """Move, label, delete or restore many captures at once, or note their rights."""
    ids = payload.ids
    if payload.wanted is not None:
        ids = payload.wanted.wanted().ids("newest", sorting.MOST_AT_ONCE + 1)
    ids = sorting.require_some(ids)
    match payload.action:
        case "move":
            sorting.move(ids, _folder(payload.folder))
        case "label":
            sorting.label(ids, payload.label)
        case "unlabel":
            sorting.unlabel(ids, payload.label)
        case "rights":
            sorting.say_rights(ids, Rights(**(payload.rights or RightsIn()).model_dump()))
        case "delete":
            there = Capture.objects.filter(pk__in=ids, deleted_at=None)
            for job in Job.objects.filter(capture__in=there, state__in=(Job.State.QUEUED, Job.State.RUNNING)):
                request_stop(job)
            there.delete_from_shelf()
        case "restore":
            Capture.objects.filter(pk__in=ids).update(deleted_at=None)
    return {"ids": ids}


@router.post("/captures/retake", response={202: RetakenOut}, operation_id="retake_captures")
def retake_captures(request: HttpRequest, payload: CapturesAgainIn) -> Status[RetakenOut]:
    """Take pages once more, each with its screen and settings; what is no page is left out.

    Their cuts are carried over.
    """
    ids = list(dict.fromkeys(sorting.require_some(payload.ids, most=_MOST_RETAKEN)))
    found = Capture.objects.on_shelf().filter(source=Capture.Source.PAGE).in_bulk(ids)
    pages = [found[pk] for pk in ids if pk in found]
    with transaction.atomic():
        ordered = [order_retake(capture) for capture in pages]
    return Status(202, RetakenOut(ids=[capture.pk for capture in ordered], left_out=len(ids) - len(ordered)))


def _folder(folder_id: int | None) -> Folder | None:
    return get_object_or_404(Folder, pk=folder_id) if folder_id else None
