"""HTTP API of the ways out, and of the log."""

from __future__ import annotations

from collections.abc import Iterable
from pathlib import Path
from typing import Any

from django.db.models import QuerySet
from django.http import FileResponse, Http404, HttpRequest, HttpResponse, StreamingHttpResponse
from django.http.response import HttpResponseBase
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router, Status
from slugify import slugify

from tallpage.core.errors import AccountError, HandOverError
from tallpage.core.handover import Item, ZipChannel, with_manifest
from tallpage.server.archives.exporting import archived
from tallpage.server.handover import saving, working
from tallpage.server.handover.mail_settings import mail_limit_bytes
from tallpage.server.handover.models import HandOver, SharedLink, UploadPlace
from tallpage.server.handover.own_settings import pattern_or_own
from tallpage.server.handover.places import forget_place, store_place
from tallpage.server.handover.rights import not_cleared, options_with_rights, sentence_of
from tallpage.server.handover.schemas import (
    AgainIn,
    FileNamesIn,
    FileNamesOut,
    HandOverIn,
    HandOverOut,
    NotClearedOut,
    UploadPlaceIn,
    UploadPlaceOut,
    WaysOut,
    WhatIn,
    options_of,
)
from tallpage.server.handover.selection import Selection
from tallpage.server.handover.sharing import remove_files_of
from tallpage.server.handover.ways.base import named_items, only_files
from tallpage.server.handover.ways.pdf import DOCUMENT
from tallpage.server.jobs.queue import request_stop
from tallpage.server.outlets.models import Outlet
from tallpage.server.outlets.saving import answered
from tallpage.server.people.guarding import person_of, role_here
from tallpage.server.preferences.out_folder import out_folder
from tallpage.server.preferences.values import value_of
from tallpage.server.shelf.lookup import shelf_capture
from tallpage.server.storage import made_folder

router = Router(tags=["hand over"])
_MOST_LINES = 200
_EXAMPLES = 3
_SAVED = (HandOver.Way.FILE, HandOver.Way.ZIP)


@router.get("/hand-over/ways", response=WaysOut, operation_id="ways_out")
def ways_out(request: HttpRequest) -> dict[str, Any]:
    """What can be gone by here."""
    return {
        "mail": bool(value_of("mail.server")),
        "mail_limit_bytes": mail_limit_bytes(),
        "folder": str(out_folder()),
    }


@router.post("/hand-over/names", response=FileNamesOut, operation_id="example_names")
def example_names(request: HttpRequest, payload: FileNamesIn) -> dict[str, Any]:
    """What the first few files would be called by a pattern."""
    selection = payload.what.selection()
    pattern = pattern_or_own(payload.pattern, person_of(request))
    return saving.examples(selection, pattern, most=_EXAMPLES)


@router.post("/hand-over/rights", response=NotClearedOut, operation_id="rights_of_choice")
def rights_of_choice(request: HttpRequest, payload: WhatIn) -> dict[str, str]:
    """What of a choice is not cleared: whoever hands it over is asked once."""
    return {"sentence": sentence_of(not_cleared(payload.selection().captured()))}


@router.post("/hand-overs", response={202: HandOverOut}, operation_id="hand_over")
def hand_over(request: HttpRequest, payload: HandOverIn) -> Status[HandOver]:
    """Hand something over; what takes a while is queued, what is fetched at once has its address."""
    order = payload.order
    selection = order.what.selection()
    person = person_of(request)
    if role_here(request) == "viewer" and order.way not in ("disk", "copied"):
        raise AccountError(
            "With this account you can look, search and save files.", hint="Ask a producer.", code="viewer"
        )
    captures = selection.require_captured()
    options = options_with_rights(captures, options_of(order), uncleared=order.uncleared)
    if "pattern" in options:
        options["pattern"] = pattern_or_own(str(options["pattern"]), person)
    if order.way == "disk":
        return Status(202, saving.note_saved(selection, options, person=person))
    if order.way == "copied":
        return Status(202, saving.note_copied(selection, order.thing, options, person=person))
    if order.way == "archive":
        return Status(202, saving.note_archive(selection, options, person=person))
    if order.way == "mail":
        options["base"] = request.build_absolute_uri("/").rstrip("/")
    return Status(202, working.order(order.way, selection, options, person=person))


@router.get("/hand-overs/{int:line_id}", response=HandOverOut, operation_id="get_hand_over")
def get_hand_over(request: HttpRequest, line_id: int) -> HandOver:
    """A line of the log, how far it is."""
    return _line(line_id)


@router.post("/hand-overs/{int:line_id}/again", response={202: HandOverOut}, operation_id="hand_over_again")
def hand_over_again(request: HttpRequest, line_id: int, payload: AgainIn | None = None) -> Status[HandOver]:
    """The same once more, with the newest files."""
    line = _line(line_id)
    if line.way == HandOver.Way.COPIED:
        raise HandOverError(
            "A clipboard is filled by the browser alone.", hint="Copy it anew from its row.", code="not_again"
        )
    selection, person = Selection.from_json(line.what), person_of(request)
    options = options_with_rights(
        selection.require_captured(), line.options, uncleared=payload is not None and payload.uncleared
    )
    if line.way == HandOver.Way.ARCHIVE:
        return Status(202, saving.note_archive(selection, options, person=person))
    if line.way in _SAVED:
        return Status(202, saving.note_saved(selection, options, person=person))
    return Status(202, working.order(line.way, selection, options, person=person))


@router.post("/hand-overs/{int:line_id}/stop", response=HandOverOut, operation_id="stop_hand_over")
def stop_hand_over(request: HttpRequest, line_id: int) -> HandOver:
    """End what is under way; what has left by then has left."""
    line = _line(line_id)
    if line.job:
        request_stop(line.job)
    return _line(line_id)


@router.post("/hand-overs/{int:line_id}/take-back", response=HandOverOut, operation_id="take_link_back")
def take_back(request: HttpRequest, line_id: int) -> HandOver:
    """Close a link at once, for good; its files go."""
    link = get_object_or_404(SharedLink, hand_over=line_id)
    if link.taken_back_at is None:
        SharedLink.objects.filter(pk=link.pk).update(taken_back_at=timezone.now(), pictures=[])
        remove_files_of(link)
    return _line(line_id)


@router.get("/hand-overs/{int:line_id}/package", operation_id="package", include_in_schema=False)
def package(request: HttpRequest, line_id: int) -> HttpResponseBase:
    """The file of a line; several as a ZIP with a manifest, made while it is sent."""
    line = get_object_or_404(HandOver, pk=line_id, way__in=(*_SAVED, HandOver.Way.ARCHIVE))
    selection = Selection.from_json(line.what)
    if line.way == HandOver.Way.FILE:
        return answered(next(only_files(named_items(line, selection))))
    if line.way == HandOver.Way.ARCHIVE:
        if role_here(request) == "viewer":
            raise AccountError("An archive holds what cuts hide.", hint="Ask a producer.", code="viewer")
        return _zip(archived(selection.captured()), saving.archive_name(line.subject))
    name = slugify(line.subject, max_length=80) or "files"
    return _zip(with_manifest(named_items(line, selection)), f"{name}.zip")


def _zip(items: Iterable[Item], name: str) -> StreamingHttpResponse:
    response = StreamingHttpResponse(ZipChannel().send(items), content_type="application/zip")
    response["Content-Disposition"] = f'attachment; filename="{name}"'
    response["Cache-Control"] = "no-store"
    return response


@router.get("/hand-overs/{int:line_id}/file", operation_id="made_file", include_in_schema=False)
def get_made_file(request: HttpRequest, line_id: int, shown: bool = False) -> FileResponse:
    """The document that was made: to be saved, or shown where the browser can."""
    line = _line(line_id)
    path = _made(line, DOCUMENT)
    response = FileResponse(
        path.open("rb"), as_attachment=not shown, filename=line.made_name, content_type="application/pdf"
    )
    response["Cache-Control"] = "private, max-age=3600"
    return response


@router.get(
    "/hand-overs/{int:line_id}/sheets/{int:number}", operation_id="sheet_picture", include_in_schema=False
)
def sheet_picture(request: HttpRequest, line_id: int, number: int) -> HttpResponse:
    """A sheet of a document as a small picture, counted from 1."""
    data = _made(_line(line_id), f"{number}.png").read_bytes()
    return HttpResponse(data, content_type="image/png", headers={"Cache-Control": "private, max-age=3600"})


@router.get("/captures/{int:capture_id}/log", response=list[HandOverOut], operation_id="capture_log")
def capture_log(request: HttpRequest, capture_id: int) -> Iterable[HandOver]:
    """What left of a capture, the latest first."""
    return _lines().filter(captures=shelf_capture(capture_id))[:_MOST_LINES]


@router.get("/outlets/uploads", response=list[UploadPlaceOut], operation_id="list_uploads")
def list_uploads(request: HttpRequest) -> QuerySet[UploadPlace]:
    """Where the files of outlets go, for those that have an upload."""
    return UploadPlace.objects.all()


@router.put("/outlets/{int:outlet_id}/upload", response=UploadPlaceOut, operation_id="set_upload")
def set_upload(request: HttpRequest, outlet_id: int, payload: UploadPlaceIn) -> UploadPlace:
    """Say where an outlet's files are uploaded to."""
    return store_place(get_object_or_404(Outlet, pk=outlet_id), payload)


@router.delete("/outlets/{int:outlet_id}/upload", response={204: None}, operation_id="remove_upload")
def remove_upload(request: HttpRequest, outlet_id: int) -> Status[None]:
    """An outlet has no upload any more; what was published stays there."""
    forget_place(outlet_id)
    return Status(204, None)


def _made(line: HandOver, name: str) -> Path:
    """A file of the document of a line.

    Raises:
        Http404: there is none, or none any more.
    """
    path = made_folder(line.made_key) / name
    if not line.made_key or not path.is_file():
        raise Http404
    return path


def _lines() -> QuerySet[HandOver]:
    return HandOver.objects.select_related("job", "link")


def _line(line_id: int) -> HandOver:
    return get_object_or_404(_lines(), pk=line_id)
