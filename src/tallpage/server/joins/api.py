"""HTTP API of joins: captures put together, their seams, and the whole kept as one capture."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Field, Router, Schema, Status

from tallpage.core.errors import JoinError
from tallpage.core.fields import FURTHEST_PX
from tallpage.core.geometry import bands
from tallpage.core.picture import Raster, encode_webp
from tallpage.core.stitch import Join as Found
from tallpage.core.stitch import join_rows, moved_seam
from tallpage.server.jobs.schemas import JobOut
from tallpage.server.joins.finding import order_join, rasters_of
from tallpage.server.joins.keeping import keep
from tallpage.server.joins.models import Join, as_plan

router = Router(tags=["joins"])
_SHOWN_WIDTH_PX = 640
_SHOWN_ROWS = 1_024


class JoinIn(Schema):
    """Captures to be put together; ``in_order`` when each was taken after the one before it."""

    captures: list[int] = Field(max_length=1_000)
    in_order: bool = False


class SeamIn(Schema):
    """A seam, from 1 on, and the row it is to lie at."""

    number: int = Field(ge=1, le=1_000)
    at_px: int = Field(ge=0, le=FURTHEST_PX)


class PieceOut(Schema):
    """A capture of a join, and where its first row lies in the run it hangs together with."""

    capture: int
    name: str
    width_px: int
    height_px: int
    top_px: int | None


class SeamOut(Schema):
    """Where one piece goes over into the next, by their places among the pieces, and how far it can move."""

    number: int
    above: int
    below: int
    at_px: int
    least_px: int
    most_px: int


class MissingOut(Schema):
    """Where a piece is missing: below one and above another, by their places among the pieces."""

    below: int
    above: int
    why: Literal["nothing_shared", "repeats", "blank", "contradicts"]


class JoinOut(Schema):
    """Captures put together. ``pieces`` are from top to bottom once it is known where they lie."""

    id: int
    state: Literal["finding", "missing", "whole", "failed"]
    job: JobOut
    in_order: bool
    pieces: list[PieceOut]
    width_px: int | None
    height_px: int | None
    seams: list[SeamOut]
    missing: list[MissingOut]
    parts: list[int]
    """How many rows each part of the picture has, as it is looked at."""
    capture: int | None
    """The capture that was kept of it."""


@router.post("/joins", response={202: JoinOut}, operation_id="join_captures")
def post_join(request: HttpRequest, payload: JoinIn) -> Status[JoinOut]:
    """Put captures together: where each lies is found from their pixels."""
    return Status(202, _told(order_join(payload.captures, in_order=payload.in_order)))


@router.get("/joins/{int:join_id}", response=JoinOut, operation_id="read_join")
def read_join(request: HttpRequest, join_id: int) -> JoinOut:
    """Where the pieces lie, or where some are missing."""
    return _told(_join(join_id))


@router.post("/joins/{int:join_id}/seam", response=JoinOut, operation_id="move_seam")
def post_seam(request: HttpRequest, join_id: int, payload: SeamIn) -> JoinOut:
    """Move a seam to another row, within those that both pieces show."""
    with transaction.atomic():
        join = get_object_or_404(Join.objects.select_for_update(), pk=join_id)
        found = _whole(join)
        try:
            stretches = moved_seam(found.stretches, payload.number, payload.at_px)
        except ValueError as error:
            raise JoinError(str(error), hint="Both pieces show the same there.", code="seam") from error
        join.plan = as_plan(replace(found, stretches=stretches))
        join.save(update_fields=["plan"])
    return _told(_join(join_id))


@router.post("/joins/{int:join_id}/keep", response={202: JoinOut}, operation_id="keep_join")
def post_keep(request: HttpRequest, join_id: int) -> Status[JoinOut]:
    """Keep the whole as a capture of its own."""
    keep(_join(join_id))
    return Status(202, _told(_join(join_id)))


@router.get("/joins/{int:join_id}/parts/{int:number}", include_in_schema=False)
def read_part(request: HttpRequest, join_id: int, number: int) -> HttpResponse:
    """A part of the picture as it is looked at."""
    join = _join(join_id)
    found = _whole(join)
    parts = list(bands(found.height_px, _SHOWN_ROWS))
    if number >= len(parts):
        raise Http404("There is no such part.")
    top_px, height_px = parts[number]
    rows = Raster.from_rows(join_rows(found, rasters_of(join.captures()), top_px, height_px))
    size = rows.size.at_width(min(_SHOWN_WIDTH_PX, found.width_px))
    answer = HttpResponse(encode_webp(rows.resized(size), quality=82), content_type="image/webp")
    answer["Cache-Control"] = "private, max-age=300"
    return answer


def _join(join_id: int) -> Join:
    return get_object_or_404(Join.objects.select_related("job", "capture"), pk=join_id)


def _whole(join: Join) -> Found:
    found = join.found
    if found is None or not found.is_whole:
        raise JoinError("Pieces are missing: there is no picture yet.", code="join_missing")
    return found


def _told(join: Join) -> JoinOut:
    captures = join.captures()
    are_there = len(captures) == len(join.pieces)
    found = join.found if are_there else None
    order = range(len(captures)) if found is None else found.order
    places = {view: place for place, view in enumerate(order)}
    state: Literal["finding", "missing", "whole", "failed"] = "finding"
    if found is not None:
        state = "whole" if found.is_whole else "missing"
    elif not are_there or join.job.state in ("failed", "stopped"):
        state = "failed"
    kept = join.capture
    return JoinOut(
        id=join.pk,
        state=state,
        job=JobOut.from_orm(join.job),
        in_order=join.in_order,
        pieces=[
            PieceOut(
                capture=captures[view].pk,
                name=captures[view].name,
                width_px=captures[view].width_px,
                height_px=captures[view].height_px,
                top_px=found.tops_px[view] if found else None,
            )
            for view in order
        ],
        width_px=found.width_px if found else None,
        height_px=found.height_px if found and found.is_whole else None,
        seams=_seams(found, places) if found else [],
        missing=[
            MissingOut(below=places[gap.below], above=places[gap.above], why=gap.doubt)
            for gap in (found.gaps if found else ())
        ],
        parts=[rows for _, rows in bands(found.height_px, _SHOWN_ROWS)] if state == "whole" and found else [],
        capture=kept.pk if kept is not None and kept.deleted_at is None else None,
    )


def _seams(found: Found, places: dict[int, int]) -> list[SeamOut]:
    seams = []
    for number in range(1, len(found.stretches)):
        above, below = found.stretches[number - 1], found.stretches[number]
        seams.append(
            SeamOut(
                number=number,
                above=places[above.view],
                below=places[below.view],
                at_px=below.top_px,
                least_px=max(below.least_px, above.top_px),
                most_px=min(below.most_px, below.bottom_px),
            )
        )
    return seams
