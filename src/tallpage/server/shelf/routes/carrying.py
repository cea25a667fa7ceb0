"""HTTP API of cuts that are carried over to other captures: looked at first, then made."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Schema, Status

from tallpage.server.shelf.cuts.renewing import By, carried_to, carry_to
from tallpage.server.shelf.lookup import shelf_capture, taken_capture
from tallpage.server.shelf.models import Cut, with_pictures
from tallpage.server.shelf.routes.cut_schemas import CutOut
from tallpage.server.shelf.showing import views

router = Router(tags=["carrying"])

_PICTURE_PX = 240


class CarryIn(Schema):
    """Where a cut is carried over to, and by what its parts find their places."""

    capture_id: int
    by: By = "blocks"


class CarryLookOut(Schema):
    """How many parts of a cut go along to another capture, and which have no sure place there."""

    parts: int
    doubted: list[str]
    lost: list[str]


@router.post("/cuts/{cut_id}/carry", response={201: CutOut}, operation_id="carry_cut")
def carry_cut(request: HttpRequest, cut_id: int, payload: CarryIn) -> Status[Cut]:
    """Carry a cut over to another capture, as a new cut of it."""
    return Status(201, carry_to(_cut(cut_id), shelf_capture(payload.capture_id), payload.by))


@router.get("/cuts/{cut_id}/carry/{capture_id}", response=CarryLookOut, operation_id="look_at_carrying")
def look_at_carrying(request: HttpRequest, cut_id: int, capture_id: int, by: By = "blocks") -> dict[str, Any]:
    """Which parts of a cut would find their places on another capture; nothing is made."""
    parts = carried_to(_cut(cut_id), shelf_capture(capture_id), by).parts
    return {
        "parts": len(parts),
        "doubted": [row.part for row in parts if row.doubt and row.state != "lost"],
        "lost": [row.part for row in parts if row.state == "lost"],
    }


@router.get(
    "/cuts/{cut_id}/carry/{capture_id}/picture", operation_id="carried_picture", include_in_schema=False
)
def carried_picture(request: HttpRequest, cut_id: int, capture_id: int, by: By = "blocks") -> HttpResponse:
    """What a cut would show of another capture, small."""
    cut, capture = _cut(cut_id), taken_capture(capture_id)
    carried = carried_to(cut, capture, by).cut
    shown = with_pictures(replace(carried, dressing=None).resolved(capture.caption_facts()))
    return views.looked_at_picture(capture.pixel_source(), shown, _PICTURE_PX)


def _cut(cut_id: int) -> Cut:
    return get_object_or_404(Cut.objects.select_related("capture"), pk=cut_id)
