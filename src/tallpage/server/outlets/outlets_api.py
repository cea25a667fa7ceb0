"""HTTP API of outlets and their slots."""

from __future__ import annotations

from collections.abc import Iterable

from django.db import transaction
from django.db.models import Max, Prefetch, QuerySet
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from tallpage.core.errors import FitError
from tallpage.server.outlets.models import Outlet, Output, Slot
from tallpage.server.outlets.outlets_file import exported, import_outlets, write_facts, write_slot
from tallpage.server.outlets.schemas import (
    FactsSchema,
    ImportedOut,
    OrderIn,
    OutletIn,
    OutletOut,
    OutletsFile,
    SlotIn,
    SlotOut,
)

router = Router(tags=["outlets"])


@router.get("/outlets", response=list[OutletOut], operation_id="list_outlets")
def list_outlets(request: HttpRequest) -> QuerySet[Outlet]:
    """All outlets with their slots."""
    made = Output.objects.select_related("cut__capture").order_by("-pk")
    return Outlet.objects.prefetch_related("slots", Prefetch("slots__outputs", made))


@router.post("/outlets", response={201: OutletOut}, operation_id="add_outlet")
def add_outlet(request: HttpRequest, payload: OutletIn) -> Status[Outlet]:
    """A new outlet without slots."""
    _require_free_name(payload.name)
    return Status(201, Outlet.objects.create(name=payload.name.strip(), position=_next_position()))


@router.patch("/outlets/{int:outlet_id}", response=OutletOut, operation_id="rename_outlet")
def rename_outlet(request: HttpRequest, outlet_id: int, payload: OutletIn) -> Outlet:
    """Give an outlet another name."""
    outlet = get_object_or_404(Outlet, pk=outlet_id)
    _require_free_name(payload.name, besides=outlet)
    outlet.name = payload.name.strip()
    outlet.save(update_fields=["name"])
    return outlet


@router.put("/outlets/{int:outlet_id}/facts", response=OutletOut, operation_id="set_facts")
def set_facts(request: HttpRequest, outlet_id: int, payload: FactsSchema) -> Outlet:
    """Say which facts go along with an outlet's files; those that are made already stay as they are."""
    outlet = get_object_or_404(Outlet, pk=outlet_id)
    write_facts(outlet, payload)
    return outlet


@router.delete("/outlets/{int:outlet_id}", response={204: None}, operation_id="delete_outlet")
def delete_outlet(request: HttpRequest, outlet_id: int) -> Status[None]:
    """Delete an outlet and its slots; files made for it stay."""
    get_object_or_404(Outlet, pk=outlet_id).delete()
    return Status(204, None)


@router.post("/outlets/{outlet_id}/slots", response={201: SlotOut}, operation_id="add_slot")
def add_slot(request: HttpRequest, outlet_id: int, payload: SlotIn) -> Status[Slot]:
    """A new slot of an outlet."""
    outlet = get_object_or_404(Outlet, pk=outlet_id)
    return Status(201, write_slot(Slot(outlet=outlet, position=outlet.slots.count()), payload))


@router.put("/slots/{slot_id}", response=SlotOut, operation_id="change_slot")
def change_slot(request: HttpRequest, slot_id: int, payload: SlotIn) -> Slot:
    """Change a slot; files made for it before keep their rules."""
    return write_slot(get_object_or_404(Slot, pk=slot_id), payload)


@router.delete("/slots/{slot_id}", response={204: None}, operation_id="delete_slot")
def delete_slot(request: HttpRequest, slot_id: int) -> Status[None]:
    """Delete a slot; files made for it stay."""
    get_object_or_404(Slot, pk=slot_id).delete()
    return Status(204, None)


@router.put("/outlets/order", response={204: None}, operation_id="order_outlets")
def order_outlets(request: HttpRequest, payload: OrderIn) -> Status[None]:
    """Put the outlets into this order; those that are not named come after."""
    _put_in_order(Outlet.objects.all(), payload.ids)
    return Status(204, None)


@router.put("/outlets/{outlet_id}/slots/order", response={204: None}, operation_id="order_slots")
def order_slots(request: HttpRequest, outlet_id: int, payload: OrderIn) -> Status[None]:
    """Put the slots of an outlet into this order; those that are not named come after."""
    _put_in_order(get_object_or_404(Outlet, pk=outlet_id).slots.all(), payload.ids)
    return Status(204, None)


@router.post("/outlets/{outlet_id}/copy", response={201: OutletOut}, operation_id="copy_outlet")
def copy_outlet(request: HttpRequest, outlet_id: int) -> Status[Outlet]:
    """Another outlet with the same slots, under a name that is free."""
    outlet = get_object_or_404(Outlet, pk=outlet_id)
    with transaction.atomic():
        copy = Outlet.objects.create(
            name=_free_name(outlet.name),
            position=_next_position(),
            credit=outlet.credit,
            facts_in_file=outlet.facts_in_file,
            facts_beside=outlet.facts_beside,
        )
        for slot in outlet.slots.all():
            slot.pk, slot.outlet = None, copy
            slot.save()
    return Status(201, copy)


@router.get("/outlets/file", operation_id="export_outlets", include_in_schema=False)
def export_outlets(request: HttpRequest) -> HttpResponse:
    """All outlets as a JSON file."""
    name = 'attachment; filename="outlets.json"'
    return HttpResponse(exported(), content_type="application/json", headers={"Content-Disposition": name})


@router.post("/outlets/file", response=ImportedOut, operation_id="import_outlets")
def import_outlets_file(request: HttpRequest, payload: OutletsFile) -> ImportedOut:
    """Take outlets in from such a file. One that is there already gets the file's slots in addition."""
    return import_outlets(payload)


def _require_free_name(name: str, besides: Outlet | None = None) -> None:
    same = Outlet.objects.filter(name__iexact=name.strip())
    if (same.exclude(pk=besides.pk) if besides else same).exists():
        raise FitError(
            f"There is an outlet called “{name.strip()}” already.",
            hint="Choose another name.",
            code="name_taken",
        )


def _next_position() -> int:
    return (Outlet.objects.aggregate(last=Max("position"))["last"] or 0) + 1


def _free_name(name: str) -> str:
    taken = {row.lower() for row in Outlet.objects.values_list("name", flat=True)}
    names = (f"{name[:60]} copy{f' {number}' if number > 1 else ''}" for number in range(1, len(taken) + 2))
    return next(row for row in names if row.lower() not in taken)


def _put_in_order(rows: Iterable[Outlet] | Iterable[Slot], ids: list[int]) -> None:
    places = {row_id: place for place, row_id in enumerate(ids)}
    ordered: list[Outlet | Slot] = sorted(rows, key=lambda row: places.get(row.pk, len(ids)))
    with transaction.atomic():
        for position, row in enumerate(ordered):
            row.position = position
            row.save(update_fields=["position"])
