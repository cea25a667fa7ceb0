"""HTTP API of looking for captures: which, in which order, by what, and searches that are kept."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date
from typing import Annotated

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Query, Router, Schema, Status
from pydantic import Field, StringConstraints

from tallpage.core.errors import ListError
from tallpage.server.shelf.models import Capture, KeptSearch
from tallpage.server.shelf.routes.schemas import CaptureOut, ScreenOut
from tallpage.server.shelf.sorting import wanted
from tallpage.server.shelf.sorting.searching import passages
from tallpage.server.shelf.sorting.wanted import Order, State, Wanted

router = Router(tags=["shelf"])
_MOST_ROWS = 200
_MOST_SEARCHES = 100


class WantedIn(Schema):
    """Which captures are looked for; folder 0 is none, a screen is written ``1280x800@1``."""

    words: Annotated[str, StringConstraints(max_length=500)] = ""
    alone: bool = False
    folder: int | None = None
    label: Annotated[str, StringConstraints(max_length=40)] = ""
    host: Annotated[str, StringConstraints(max_length=255)] = ""
    screen: Annotated[str, StringConstraints(max_length=40)] = ""
    since: date | None = None
    until: date | None = None
    state: State = ""

    def wanted(self) -> Wanted:
        """As the server knows it."""
        return Wanted(**self.model_dump(include=set(WantedIn.model_fields)))


class FoundCapturesOut(Schema):
    """The numbers of captures in the order asked for, and of how many."""

    ids: list[int]
    total: int


class RowsIn(Schema):
    """Captures by their numbers, and the words that were looked for."""

    ids: Annotated[list[int], Field(max_length=_MOST_ROWS)]
    words: Annotated[str, StringConstraints(max_length=500)] = ""


class SiteOut(Schema):
    """A host with how many captures are of it."""

    host: str
    count: int


class UsedScreenOut(Schema):
    """A screen with how many captures were taken with it; ``key`` is what is looked for by."""

    key: str
    screen: ScreenOut
    count: int


class LookedForByOut(Schema):
    """By what captures can be looked for."""

    sites: list[SiteOut]
    screens: list[UsedScreenOut]


class KeptSearchIn(Schema):
    """A search that is kept: what is looked for, and in which order it is shown."""

    name: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]
    wanted: WantedIn
    order: Order = "newest"


class KeptSearchOut(KeptSearchIn):
    """A search that is kept."""

    id: int


@router.get("/captures/ids", response=FoundCapturesOut, operation_id="find_capture_ids")
def find_capture_ids(
    request: HttpRequest, looked: Query[WantedIn], order: Order = "newest"
) -> FoundCapturesOut:
    """The numbers of all captures that are looked for, in an order."""
    found = looked.wanted()
    ids = found.ids(order, wanted.MOST_TOLD)
    return FoundCapturesOut(ids=ids, total=len(ids) if len(ids) < wanted.MOST_TOLD else found.found().count())


@router.get("/captures/rows", response=list[CaptureOut], operation_id="captures_by_number")
def captures_by_number(request: HttpRequest, asked: Query[RowsIn]) -> list[Capture]:
    """At most 200 captures of the shelf by their numbers, in that order; those that are gone are left out."""
    found = Capture.objects.on_shelf().prefetch_related("labels").in_bulk(asked.ids)
    said = passages(asked.words, found)
    for pk, capture in found.items():
        capture.passage = said.get(pk, "")
    return [found[pk] for pk in dict.fromkeys(asked.ids) if pk in found]


@router.get("/captures/by", response=LookedForByOut, operation_id="looked_for_by")
def looked_for_by(request: HttpRequest) -> LookedForByOut:
    """The sites and the screens of the captures on the shelf."""
    return LookedForByOut(
        sites=[SiteOut(host=host, count=count) for host, count in wanted.sites()],
        screens=[
            UsedScreenOut(key=wanted.screen_key(screen), screen=ScreenOut.from_orm(screen), count=count)
            for screen, count in wanted.screens()
        ],
    )


@router.get("/searches", response=list[KeptSearchOut], operation_id="list_searches")
def list_searches(request: HttpRequest) -> Iterable[KeptSearch]:
    """The searches that are kept, by name."""
    return KeptSearch.objects.all()


@router.put("/searches", response=KeptSearchOut, operation_id="keep_search")
def keep_search(request: HttpRequest, payload: KeptSearchIn) -> KeptSearch:
    """Keep a search; one of the same name is replaced."""
    known = KeptSearch.objects.filter(name__iexact=payload.name).first()
    if known is None and KeptSearch.objects.count() >= _MOST_SEARCHES:
        raise ListError(
            f"At most {_MOST_SEARCHES} searches are kept.", hint="Delete one first.", code="too_many"
        )
    search = known or KeptSearch()
    search.name, search.order = payload.name, payload.order
    search.wanted = payload.wanted.model_dump(mode="json")
    search.save()
    return search


@router.delete("/searches/{search_id}", response={204: None}, operation_id="delete_search")
def delete_search(request: HttpRequest, search_id: int) -> Status[None]:
    """Keep a search no longer; the captures stay."""
    get_object_or_404(KeptSearch, pk=search_id).delete()
    return Status(204, None)
