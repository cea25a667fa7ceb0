"""HTTP API of hiding: what a page says where, how it is hidden, and how coarse that has to be."""

from __future__ import annotations

from dataclasses import asdict

from django.http import HttpRequest, HttpResponse
from ninja import Field, Query, Router, Schema

from tallpage.core.cut.models import HiddenArea, How
from tallpage.core.fields import FURTHEST_PX
from tallpage.core.finding import FoundPlace, Kind, Sought, find_places
from tallpage.core.geometry import Box
from tallpage.core.page_words import PageWords
from tallpage.core.render import asked_strength_px
from tallpage.server.shelf.lookup import taken_capture
from tallpage.server.shelf.routes.cut_schemas import BoxSchema
from tallpage.server.shelf.showing import views
from tallpage.server.shelf.showing.prepared import prepared_page

router = Router(tags=["hiding"])


class AreaIn(Schema):
    """An area of a page in the query of an address, where numbers are text."""

    x_px: int = Field(ge=0, le=FURTHEST_PX)
    y_px: int = Field(ge=0, le=FURTHEST_PX)
    width_px: int = Field(ge=1, le=FURTHEST_PX)
    height_px: int = Field(ge=1, le=FURTHEST_PX)


class HiddenAreaIn(AreaIn):
    """A hidden area in the query of an address, where numbers are text."""

    how: How
    strength_px: int | None = Field(default=None, ge=2, le=400)


class SoughtIn(Schema):
    """What is looked for on a page."""

    kind: Kind
    words: str = Field(default="", max_length=5_000)
    preparation: str = ""
    """How the page is turned, as JSON."""

    def as_sought(self) -> Sought:
        """What is looked for, as the core knows it."""
        return Sought(kind=self.kind, words=self.words)


class FoundPlaceOut(Schema):
    """A place that says what is sought, with a box for each line that it stands on."""

    text: str
    boxes: list[BoxSchema]

    @classmethod
    def of(cls, place: FoundPlace) -> FoundPlaceOut:
        """The place on the wire."""
        return cls(text=place.text, boxes=[BoxSchema(**asdict(box)) for box in place.boxes])


class FoundOut(Schema):
    """All places of a page. Of a picture, and of a capture from before words were kept, none are known."""

    known: bool
    places: list[FoundPlaceOut]


class CoarsenessOut(Schema):
    """How coarse squares and blur have to be; what is less can be guessed."""

    asked_px: int


@router.post("/captures/{capture_id}/found", response=FoundOut, operation_id="find_words")
def post_found(request: HttpRequest, capture_id: int, payload: SoughtIn) -> FoundOut:
    """Every place of a page that says what is sought."""
    capture = taken_capture(capture_id)
    words = PageWords.load(capture.folder)
    if payload.preparation:
        words = prepared_page(capture, payload.preparation).words()
    places = find_places(words, payload.as_sought()) if words else []
    return FoundOut(known=words is not None, places=[FoundPlaceOut.of(place) for place in places])


@router.get("/captures/{capture_id}/coarseness", response=CoarsenessOut, operation_id="coarseness")
def coarseness(
    request: HttpRequest, capture_id: int, area: Query[AreaIn], preparation: str = ""
) -> CoarsenessOut:
    """How coarse squares and blur have to be in a box, so that what it shows cannot be read."""
    page = prepared_page(taken_capture(capture_id), preparation)
    return CoarsenessOut(asked_px=asked_strength_px(Box(**area.model_dump()), page))


@router.get("/captures/{capture_id}/hidden", operation_id="hidden_area", include_in_schema=False)
def hidden_area(
    request: HttpRequest, capture_id: int, area: Query[HiddenAreaIn], preparation: str = ""
) -> HttpResponse:
    """What the files show of an area that is hidden."""
    page = prepared_page(taken_capture(capture_id), preparation)
    return views.hidden_picture(page, HiddenArea(**area.model_dump(exclude_none=True)))
