"""HTTP API of the shelf: thin; each endpoint parses, calls one function, returns a schema."""

from __future__ import annotations

from dataclasses import asdict
from pathlib import Path
from typing import Annotated, Literal

from django.db import transaction
from django.db.models import Sum
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Field, File, Query, Router, Status, UploadedFile

from tallpage.core.cut import MOST_BYTES, write_cut
from tallpage.core.errors import CutError
from tallpage.core.geometry import Box
from tallpage.core.naming import cut_file_name
from tallpage.core.trimming import trimmed
from tallpage.server.jobs.queue import enqueue, request_stop
from tallpage.server.people.guarding import person_of
from tallpage.server.shelf import purge
from tallpage.server.shelf.arriving.importing import order_picture
from tallpage.server.shelf.arriving.taking import KIND as TAKE_KIND
from tallpage.server.shelf.arriving.taking import order_further, order_page, order_retake
from tallpage.server.shelf.arriving.usual import for_address
from tallpage.server.shelf.cuts.changing import (
    change_cut,
    delete_cut,
    duplicate_cut,
    open_cut,
    order_cuts,
    restore_cut,
    start_cut,
)
from tallpage.server.shelf.cuts.renewing import end_review, settle
from tallpage.server.shelf.lookup import shelf_capture, taken_capture
from tallpage.server.shelf.models import Capture, Cut, with_pictures
from tallpage.server.shelf.routes.cut_schemas import (
    BoxSchema,
    CutChangeIn,
    CutOrderIn,
    CutOut,
    PieceIn,
    ReviewIn,
    TrimIn,
)
from tallpage.server.shelf.routes.schemas import (
    BlockOut,
    CaptureDetailOut,
    CaptureOut,
    DeletedOut,
    RenameIn,
    ShelfOut,
    TakeIn,
)
from tallpage.server.shelf.routes.wanted import WantedIn
from tallpage.server.shelf.showing import views
from tallpage.server.shelf.showing.blocks import blocks_of
from tallpage.server.shelf.showing.detail import detail_of
from tallpage.server.shelf.showing.prepared import prepared_page
from tallpage.server.shelf.signals import page_ordered
from tallpage.server.shelf.sorting.searching import index_name, passages

router = Router(tags=["shelf"])
_MOST_AT_ONCE = 200
_BLOCK_CHARS = 200


@router.get("/captures", response=ShelfOut, operation_id="list_captures")
def list_captures(
    request: HttpRequest, wanted: Query[WantedIn], limit: int = 60, before: int | None = None
) -> dict[str, object]:
    """Captures, newest first, ``limit`` (1–200) at a time; only those that are looked for.

    With ``alone``, without those that were taken with a whole list of pages.
    """
    limit = min(max(limit, 1), _MOST_AT_ONCE)
    shelf = wanted.wanted().found().order_by("-pk")
    # The numbers come from an index; putting whole rows in order would read all of them.
    ids = list((shelf.filter(pk__lt=before) if before else shelf).values_list("pk", flat=True)[: limit + 1])
    rows = Capture.objects.on_shelf().prefetch_related("labels").in_bulk(ids)
    page = [rows[pk] for pk in ids if pk in rows]
    more = len(ids) > limit
    said = passages(wanted.words, [capture.pk for capture in page])
    for capture in page:
        capture.passage = said.get(capture.pk, "")
    return {
        "captures": page[:limit],
        "total": shelf.count(),
        "next_before": ids[limit - 1] if more else None,
    }


@router.get("/captures/deleted", response=DeletedOut, operation_id="list_deleted")
def list_deleted(request: HttpRequest) -> dict[str, object]:
    """Captures that were deleted and can be put back; the latest 200 of them are told one by one."""
    found = purge.deleted()
    return {
        "captures": found.select_related("job").prefetch_related("labels")[:_MOST_AT_ONCE],
        "total": found.count(),
        "bytes": found.aggregate(total=Sum("bytes"))["total"] or 0,
        "kept_days": purge.kept_for().days,
    }


@router.delete("/captures/deleted", response={204: None}, operation_id="clear_deleted")
def clear_deleted(request: HttpRequest) -> Status[None]:
    """Clear all deleted captures from the disk, for good."""
    purge.clear_all()
    return Status(204, None)


@router.post("/captures", response={202: CaptureOut}, operation_id="take_page")
def take_page(request: HttpRequest, payload: TakeIn) -> Status[Capture]:
    """Queue a page to be taken. What ``settings`` does not say is as the person's own settings have it."""
    person = person_of(request)
    settings = for_address(payload.settings, payload.address, person)
    with transaction.atomic():
        capture = order_page(payload.address, payload.screen.as_screen(), settings)
        page_ordered.send(Capture, capture=capture, person=person)
    return Status(202, capture)


@router.post("/pictures", response={202: CaptureOut}, operation_id="add_picture")
def add_picture(request: HttpRequest, picture: File[UploadedFile]) -> Status[Capture]:
    """Queue an uploaded picture to be taken in."""
    return Status(202, order_picture(picture))


@router.get("/captures/{capture_id}", response=CaptureDetailOut, operation_id="get_capture")
def get_capture(request: HttpRequest, capture_id: int) -> CaptureDetailOut:
    """One capture with its strips and cuts."""
    return detail_of(shelf_capture(capture_id))


@router.patch("/captures/{capture_id}", response=CaptureOut, operation_id="rename_capture")
def rename_capture(request: HttpRequest, capture_id: int, payload: RenameIn) -> Capture:
    """Give a capture another name."""
    capture = shelf_capture(capture_id)
    capture.name, capture.named_by_hand = payload.name.strip() or capture.name, True
    capture.save(update_fields=["name", "named_by_hand"])
    index_name(capture)
    return capture


@router.delete("/captures/{capture_id}", response={204: None}, operation_id="delete_capture")
def delete_capture(request: HttpRequest, capture_id: int) -> Status[None]:
    """Take a capture off the shelf; it can be restored."""
    capture = shelf_capture(capture_id)
    request_stop(capture.job)
    Capture.objects.filter(pk=capture.pk).delete_from_shelf()
    return Status(204, None)


@router.post("/captures/{capture_id}/restore", response=CaptureOut, operation_id="restore_capture")
def restore_capture(request: HttpRequest, capture_id: int) -> Capture:
    """Put a deleted capture back."""
    purge.deleted().filter(pk=capture_id).update(deleted_at=None)
    return shelf_capture(capture_id)


@router.post("/captures/{capture_id}/stop", response=CaptureOut, operation_id="stop_capture")
def stop_capture(request: HttpRequest, capture_id: int, keep: bool = False) -> Capture:
    """Stop taking a page; with ``keep``, what there is of it stays."""
    request_stop(shelf_capture(capture_id).job, keep=keep)
    return shelf_capture(capture_id)


@router.post("/captures/{capture_id}/again", response={202: CaptureOut}, operation_id="take_again")
def take_again(request: HttpRequest, capture_id: int) -> Status[Capture]:
    """Take a failed or stopped page once more, in its place on the shelf."""
    with transaction.atomic():
        capture = shelf_capture(capture_id)
        if capture.source == Capture.Source.PAGE and not capture.storage_key and not capture.job.pending:
            capture.job = enqueue(TAKE_KIND)
            capture.save(update_fields=["job"])
    return Status(202, capture)


@router.post("/captures/{capture_id}/retake", response={202: CaptureOut}, operation_id="retake")
def retake(request: HttpRequest, capture_id: int) -> Status[Capture]:
    """Take a page once more with the same screen and settings, beside the earlier capture.

    Its cuts are carried over.
    """
    return Status(202, order_retake(shelf_capture(capture_id)))


@router.post("/captures/{capture_id}/further", response={202: CaptureOut}, operation_id="take_further")
def take_further(request: HttpRequest, capture_id: int) -> Status[Capture]:
    """Take what lies below a capture that was cut off."""
    return Status(202, order_further(shelf_capture(capture_id)))


@router.get("/captures/{capture_id}/map", response=list[BlockOut], operation_id="get_map")
def get_map(request: HttpRequest, capture_id: int, preparation: str = "") -> list[BlockOut]:
    """The visible blocks of a page, from outer to inner; of a dropped picture those found in its pixels."""
    blocks = blocks_of(taken_capture(capture_id), preparation)
    return [
        BlockOut(
            role=block.role,
            level=block.level,
            text=block.text[:_BLOCK_CHARS],
            link=block.link,
            alt=block.alt,
            **asdict(block.box),
        )
        for block in blocks
    ]


@router.get("/captures/{capture_id}/thumbnail", operation_id="capture_thumbnail", include_in_schema=False)
def capture_thumbnail(
    request: HttpRequest, capture_id: int, size: views.ThumbnailSize = "usual"
) -> HttpResponse:
    """Small picture of the upper part, also of what is deleted and can be put back."""
    capture = get_object_or_404(Capture.objects.exclude(storage_key=""), pk=capture_id)
    return views.thumbnail_view(capture, size)


@router.get("/captures/{capture_id}/so-far", operation_id="capture_so_far", include_in_schema=False)
def capture_so_far(request: HttpRequest, capture_id: int) -> HttpResponse:
    """Small picture of what there is of a page that is being taken."""
    return views.so_far_view(shelf_capture(capture_id))


@router.get("/captures/{capture_id}/so-far/{number}", operation_id="strip_so_far", include_in_schema=False)
def strip_so_far(request: HttpRequest, capture_id: int, number: int) -> HttpResponse:
    """One strip of a page that is being taken."""
    return views.strip_so_far(shelf_capture(capture_id), number)


@router.get("/captures/{capture_id}/spine", operation_id="capture_spine", include_in_schema=False)
def capture_spine(request: HttpRequest, capture_id: int, preparation: str = "") -> HttpResponse:
    """Small picture of the whole page."""
    capture = taken_capture(capture_id)
    if preparation:
        return views.prepared_spine_view(prepared_page(capture, preparation))
    return views.spine_view(capture)


@router.get("/captures/{capture_id}/strips/{number}", operation_id="capture_strip", include_in_schema=False)
def capture_strip(
    request: HttpRequest, capture_id: int, number: int, shrink: Literal["1", "2", "4"] = "1"
) -> HttpResponse:
    """One strip."""
    capture = taken_capture(capture_id)
    if not 0 <= number < len(capture.manifest().strips):
        raise Http404
    return views.strip_picture(capture, number, int(shrink))


@router.post("/captures/{capture_id}/cuts", response={201: CutOut}, operation_id="start_cut")
def post_cut(request: HttpRequest, capture_id: int) -> Status[Cut]:
    """Start another cut."""
    return Status(201, start_cut(shelf_capture(capture_id)))


@router.post("/captures/{capture_id}/trim", response=BoxSchema, operation_id="trim")
def post_trim(request: HttpRequest, capture_id: int, payload: TrimIn) -> Box:
    """A box without the plain edges of what it shows; the box itself where all of it is plain."""
    source = prepared_page(taken_capture(capture_id), payload.preparation)
    box = Box(**payload.box.model_dump()).require_on(source.size)
    return trimmed(box, source.region, payload.sides)


@router.post("/captures/{capture_id}/cuts/file", response={201: CutOut}, operation_id="open_cut")
def post_cut_file(request: HttpRequest, capture_id: int, cut: File[UploadedFile]) -> Status[Cut]:
    """Another cut, as a file says that the Bench saved or somebody wrote."""
    if (cut.size or 0) > MOST_BYTES:
        raise CutError(f"The cut has {cut.size:,} bytes; at most {MOST_BYTES:,} are read.")
    return Status(201, open_cut(shelf_capture(capture_id), cut.read(), Path(cut.name or "").stem))


@router.get("/cuts/{cut_id}", response=CutOut, operation_id="get_cut")
def get_cut(request: HttpRequest, cut_id: int) -> Cut:
    """One cut as it stands."""
    return get_object_or_404(Cut, pk=cut_id)


@router.patch("/cuts/{cut_id}", response=CutOut, operation_id="change_cut")
def patch_cut(request: HttpRequest, cut_id: int, payload: CutChangeIn) -> Cut:
    """Change what it shows, or its name."""
    cut = get_object_or_404(Cut.objects.select_related("capture"), pk=cut_id)
    shown = payload.document.as_cut() if payload.document else None
    return change_cut(cut, version=payload.version, shown=shown, name=payload.name, person=person_of(request))


@router.get("/cuts/{cut_id}/file", operation_id="cut_file", include_in_schema=False)
def cut_file(request: HttpRequest, cut_id: int) -> HttpResponse:
    """A cut as a file, for the command line."""
    cut = get_object_or_404(Cut.objects.select_related("capture"), pk=cut_id)
    name = cut_file_name(capture_name=cut.capture.name, cut_name=cut.name)
    headers = {"Content-Disposition": f'attachment; filename="{name}"', "Cache-Control": "no-store"}
    return HttpResponse(
        write_cut(with_pictures(cut.as_cut())), content_type="application/json", headers=headers
    )


@router.get("/cuts/{cut_id}/dressed", operation_id="dressed_cut", include_in_schema=False)
def dressed_cut(
    request: HttpRequest, cut_id: int, width_px: Annotated[int, Field(ge=1, le=4_000)] = 720
) -> HttpResponse:
    """A cut as a file of a width shows it, with what is around it; of a tall one, both of its ends."""
    cut = get_object_or_404(Cut.objects.select_related("capture"), pk=cut_id)
    return views.dressed_picture(cut, width_px)


@router.get("/cuts/{cut_id}/piece", operation_id="piece_of_cut", include_in_schema=False)
def piece_of_cut(request: HttpRequest, cut_id: int, box: Query[PieceIn]) -> HttpResponse:
    """A piece of the page with what the cut hides and marks."""
    cut = get_object_or_404(Cut.objects.select_related("capture"), pk=cut_id)
    return views.piece_picture(cut, Box(**box.model_dump()))


@router.post("/cuts/{cut_id}/review", response=CutOut, operation_id="settle_review")
def post_review(request: HttpRequest, cut_id: int, payload: ReviewIn) -> Cut:
    """Say of some parts of a cut that was carried over that they have been looked at."""
    cut = get_object_or_404(Cut, pk=cut_id)
    return settle(cut, [(row.part, row.id) for row in payload.settled])


@router.delete("/cuts/{cut_id}/review", response=CutOut, operation_id="end_review")
def delete_review(request: HttpRequest, cut_id: int) -> Cut:
    """Let go of what there was to be looked at."""
    return end_review(get_object_or_404(Cut, pk=cut_id))


@router.delete("/cuts/{cut_id}", response={204: None}, operation_id="delete_cut")
def delete_one(request: HttpRequest, cut_id: int) -> Status[None]:
    """Delete a cut, which can be put back for a while; the capture stays, and so does its last cut."""
    delete_cut(get_object_or_404(Cut.objects.select_related("capture"), pk=cut_id))
    return Status(204, None)


@router.post("/cuts/{cut_id}/restore", response=CutOut, operation_id="restore_cut")
def post_restored(request: HttpRequest, cut_id: int) -> Cut:
    """Put a deleted cut back."""
    return restore_cut(get_object_or_404(Cut.with_deleted, pk=cut_id))


@router.post("/cuts/{cut_id}/duplicate", response={201: CutOut}, operation_id="duplicate_cut")
def post_duplicate(request: HttpRequest, cut_id: int) -> Status[Cut]:
    """Another cut that shows the same."""
    return Status(201, duplicate_cut(get_object_or_404(Cut.objects.select_related("capture"), pk=cut_id)))


@router.put("/cuts/{cut_id}/name", response=CutOut, operation_id="rename_cut")
def put_name(request: HttpRequest, cut_id: int, payload: RenameIn) -> Cut:
    """Call a cut otherwise; what it shows may be changed elsewhere meanwhile."""
    cut = get_object_or_404(Cut, pk=cut_id)
    Cut.objects.filter(pk=cut.pk).update(name=payload.name.strip()[:80] or cut.name)
    cut.refresh_from_db()
    return cut


@router.put("/captures/{capture_id}/cuts/order", response={204: None}, operation_id="order_cuts")
def put_order(request: HttpRequest, capture_id: int, payload: CutOrderIn) -> Status[None]:
    """Put the cuts of a capture in an order."""
    order_cuts(shelf_capture(capture_id), payload.cut_ids)
    return Status(204, None)
