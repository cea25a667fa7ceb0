"""HTTP API of pages before their frame: squares of them, a colour, the angle by which they are level."""

from __future__ import annotations

from typing import Literal

from django.http import HttpRequest, HttpResponse
from ninja import Field, Router, Schema

from tallpage.core.fields import FURTHEST_PX
from tallpage.core.geometry import Box
from tallpage.core.trimming import BlankStretch, blank_columns, blank_stretches
from tallpage.core.turning import edge_colour, find_angle
from tallpage.server.shelf.lookup import taken_capture
from tallpage.server.shelf.routes.cut_schemas import BoxSchema
from tallpage.server.shelf.showing import views
from tallpage.server.shelf.showing.prepared import prepared_page

router = Router(tags=["preparing"])


class PreparedIn(Schema):
    """How a page is turned and cleared, as JSON; empty where it is as it was taken."""

    preparation: str = ""


class SpotIn(PreparedIn):
    """A px of it."""

    x_px: int = Field(ge=0, le=FURTHEST_PX)
    y_px: int = Field(ge=0, le=FURTHEST_PX)


class BlankIn(PreparedIn):
    """A box of it, and how many rows or columns without anything are at least a stretch."""

    box: BoxSchema
    least_px: int = Field(ge=1, le=FURTHEST_PX)
    axis: Literal["across", "down"] = "across"


class BlankOut(Schema):
    """Rows of a page; or columns, where the stretches lie down it: then they count from the left."""

    top_px: int
    height_px: int


class ColourOut(Schema):
    """A colour as ``#rrggbb``."""

    colour: str


class LevelOut(ColourOut):
    """By how many degrees to turn a page clockwise so that its lines are level; the colour of its edges."""

    angle_deg: float


@router.get(
    "/captures/{capture_id}/tiles/{column}/{row}", operation_id="capture_tile", include_in_schema=False
)
def capture_tile(
    request: HttpRequest,
    capture_id: int,
    column: int,
    row: int,
    preparation: str,
    shrink: Literal["1", "2", "4"] = "1",
) -> HttpResponse:
    """A square of a page that a cut turns or clears."""
    page = prepared_page(taken_capture(capture_id), preparation)
    return views.tile_picture(page, column, row, int(shrink))


@router.post("/captures/{capture_id}/colour", response=ColourOut, operation_id="find_colour")
def post_colour(request: HttpRequest, capture_id: int, payload: SpotIn) -> ColourOut:
    """The colour of a px of a page."""
    page = prepared_page(taken_capture(capture_id), payload.preparation)
    px = page.region(Box(x_px=payload.x_px, y_px=payload.y_px, width_px=1, height_px=1)).rows(0, 1)[0, 0]
    return ColourOut(colour=_hex(*px[:3].tolist()))


@router.post("/captures/{capture_id}/level", response=LevelOut, operation_id="find_level")
def post_level(request: HttpRequest, capture_id: int, payload: PreparedIn) -> LevelOut:
    """How a page has to be turned to be level; by 0 where it is, or nothing says so."""
    page = prepared_page(taken_capture(capture_id), payload.preparation)
    raster = page.region(Box.whole(page.size)).held()
    return LevelOut(angle_deg=find_angle(raster), colour=_hex(*edge_colour(raster)))


@router.post("/captures/{capture_id}/blank", response=list[BlankOut], operation_id="find_blank")
def post_blank(request: HttpRequest, capture_id: int, payload: BlankIn) -> list[BlankStretch]:
    """The stretches of a box in which nothing stands."""
    page = prepared_page(taken_capture(capture_id), payload.preparation)
    box = Box(**payload.box.model_dump()).require_on(page.size)
    find = blank_stretches if payload.axis == "across" else blank_columns
    return find(box, page.region, least_px=payload.least_px)


def _hex(red: int, green: int, blue: int) -> str:
    return f"#{red:02x}{green:02x}{blue:02x}"
