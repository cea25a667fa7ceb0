"""HTTP API of marks: how they look, and the small pictures in them."""

from __future__ import annotations

from typing import Annotated, Any, Literal, get_args

from django.http import FileResponse, Http404, HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Field, File, Router, Schema, Status, UploadedFile

from tallpage.core.cut.models import MOST_STYLES
from tallpage.core.fields import Name
from tallpage.core.marks import MOST_MARKS, DrawnMark, Mark, Shape, Style, draw_marks, signs, styled
from tallpage.core.paths import Extent
from tallpage.server.shelf.cuts.pictures import keep_picture, stored_pictures
from tallpage.server.shelf.cuts.styles import keep_style
from tallpage.server.shelf.models import KeptStyle
from tallpage.server.storage import sticker_file

router = Router(tags=["marks"])

Kind = Literal["arrow", "line", "box", "ellipse", "pen", "highlighter", "text", "dim", "badge", "sticker"]


class ExtentOut(Schema):
    """A rectangle in px with fractions."""

    left_px: float
    top_px: float
    right_px: float
    bottom_px: float


class PartOut(Schema):
    """One outline, as path data in px of the page; or a picture, turned about the middle of its box."""

    path: str | None = None
    fill: str | None = None
    stroke: str | None = None
    stroke_px: float = 0
    dashes: list[float] = []
    even_odd: bool = False
    picture: str | None = None
    box: ExtentOut | None = None
    angle_deg: float = 0


class DrawnOut(Schema):
    """A mark as it is drawn: its parts one over the other."""

    parts: list[PartOut]
    opacity: float
    blend: Literal["over", "multiply", "blur"]
    blur_px: float
    extent: ExtentOut | None
    held: ExtentOut | None
    missing: list[str]


class DrawIn(Schema):
    """Marks to be drawn on a plane of a size. The labels are those of the badges among them, by position."""

    width_px: Annotated[int, Field(ge=1, le=1_000_000)]
    height_px: Annotated[int, Field(ge=1, le=1_000_000)]
    marks: Annotated[list[Annotated[Mark, Field(discriminator="kind")]], Field(max_length=MOST_MARKS)]
    labels: dict[int, str] = {}
    styles: Annotated[dict[Name, Style], Field(max_length=MOST_STYLES)] = {}


class StyleIn(Schema):
    """A look, and the kinds of marks that begin with it."""

    name: Name
    look: Style
    usual_for: Annotated[list[Kind], Field(max_length=20)] = []


class StyleOut(Schema):
    """A look with its name."""

    name: str
    look: dict[str, Any]
    usual_for: list[Kind]


class PictureOut(Schema):
    """A stored picture; its size is that of its pixels."""

    name: str


@router.post("/marks/drawn", response=list[DrawnOut], operation_id="draw_marks")
def post_drawn(request: HttpRequest, payload: DrawIn) -> list[DrawnOut]:
    """What marks look like. All that is dimmed is one of them, where the first of those stands."""
    marks = [styled(mark, payload.styles) for mark in payload.marks]
    page = Extent(0, 0, payload.width_px, payload.height_px)
    return [_as_out(drawn) for drawn in draw_marks(marks, page, labels=payload.labels)]


@router.get("/marks/usual", response=dict[str, dict[str, Any]], operation_id="usual_looks")
def usual_looks(request: HttpRequest) -> dict[str, dict[str, Any]]:
    """How each kind of mark looks where it does not say so itself: its fields with their usual values."""
    return {
        kind.model_fields["kind"].annotation.__args__[0]: {
            name: field.default
            for name, field in kind.model_fields.items()
            if not field.is_required() and name not in ("id", "style")
        }
        for kind in get_args(Mark)
    }


@router.get("/marks/styles", response=list[StyleOut], operation_id="list_styles")
def list_styles(request: HttpRequest) -> Any:
    """Looks with a name, in the order of their names."""
    return KeptStyle.objects.all()


@router.put("/marks/styles", response=list[StyleOut], operation_id="keep_style")
def put_style(request: HttpRequest, payload: StyleIn) -> Any:
    """Keep a look under a name, which may hold any character. Cuts that use it keep the copy they have."""
    keep_style(payload.name, payload.look, payload.usual_for)
    return KeptStyle.objects.all()


@router.delete("/marks/styles", response=list[StyleOut], operation_id="delete_style")
def delete_style(request: HttpRequest, name: str) -> Any:
    """Forget the look of a name; marks that have it stay as they are."""
    get_object_or_404(KeptStyle, name=name).delete()
    return KeptStyle.objects.all()


@router.get("/signs", response=dict[str, str], operation_id="list_signs")
def list_signs(request: HttpRequest) -> dict[str, str]:
    """The signs that ship, as path data in a square of 24 units; they are drawn with a stroke of 2."""
    return {name: path.data() for name, path in signs().items()}


@router.post("/stickers", response={201: PictureOut}, operation_id="keep_sticker")
def post_sticker(request: HttpRequest, picture: File[UploadedFile]) -> Status[PictureOut]:
    """Store a picture for stickers and stamps."""
    return Status(201, PictureOut(name=keep_picture(picture.read())))


@router.get("/stickers/{name}", operation_id="get_sticker", include_in_schema=False)
def get_sticker(request: HttpRequest, name: str) -> FileResponse:
    """A stored picture."""
    if name not in stored_pictures():
        raise Http404
    headers = {"Cache-Control": "private, max-age=31536000, immutable"}
    return FileResponse(sticker_file(name).open("rb"), content_type="image/png", headers=headers)


def _as_out(drawn: DrawnMark) -> DrawnOut:
    return DrawnOut(
        parts=[_part(part) for part in drawn.parts],
        opacity=drawn.opacity,
        blend=drawn.blend,
        blur_px=drawn.blur_px,
        extent=_extent(drawn.extent()),
        held=_extent(drawn.held),
        missing=list(drawn.missing),
    )


def _part(part: Any) -> PartOut:
    if not isinstance(part, Shape):
        return PartOut(picture=part.name, box=_extent(part.box), angle_deg=part.angle_deg)
    return PartOut(
        path=part.path.data(),
        fill=part.fill,
        stroke=part.stroke,
        stroke_px=part.stroke_px,
        dashes=list(part.dashes),
        even_odd=part.even_odd,
    )


def _extent(extent: Extent | None) -> ExtentOut | None:
    if extent is None:
        return None
    return ExtentOut(
        left_px=extent.left_px,
        top_px=extent.top_px,
        right_px=extent.right_px,
        bottom_px=extent.bottom_px,
    )
