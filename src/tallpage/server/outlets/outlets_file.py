"""Outlets in and out of a file, so that they can be kept, shared and taken elsewhere."""

from __future__ import annotations

from django.db import transaction
from django.db.models import Max

from tallpage.core.errors import FitError
from tallpage.server.outlets.models import RULES, Outlet, Slot
from tallpage.server.outlets.schemas import ImportedOut, OutletFile, OutletsFile, SlotIn, SlotOut

_ROWS_AT_ONCE = 500


def exported() -> str:
    """All outlets as the text of a file."""
    rows = Outlet.objects.prefetch_related("slots")
    outlets = [
        OutletFile(
            name=_named(row.name, f"Outlet {row.pk}"),
            slots=[
                SlotIn(**SlotOut.from_orm(slot).rules(), name=_named(slot.name, f"Slot {slot.pk}"))
                for slot in row.slots.all()
            ],
        )
        for row in rows
    ]
    return OutletsFile(outlets=outlets).model_dump_json(indent=2)


def _named(name: str, otherwise: str) -> str:
    """A name that can be read in again; earlier versions let blank ones through."""
    return name.strip() or otherwise


def import_outlets(file: OutletsFile) -> ImportedOut:
    """Add what a file holds: new outlets, and new slots of outlets that are there already by name.

    A slot of the same name takes over the file's rules. All of it, or nothing.

    Raises:
        FitError: a slot has rules that cannot be worked with.
    """
    added: list[str] = []
    changed: list[str] = []
    with transaction.atomic():
        position = Outlet.objects.aggregate(last=Max("position"))["last"] or 0
        for entry in file.outlets:
            name = entry.name.strip()
            outlet = Outlet.objects.filter(name__iexact=name).first()
            (changed if outlet else added).append(name)
            if outlet is None:
                position += 1
                outlet = Outlet.objects.create(name=name, position=position)
            known = {slot.name.casefold(): slot for slot in outlet.slots.all()}
            for rules in entry.slots:
                key = rules.name.strip().casefold()
                slot = known.setdefault(key, Slot(outlet=outlet, position=len(known)))
                try:
                    _take_over(slot, rules)
                except FitError as error:
                    where = f"In “{name}”, slot “{rules.name}”"
                    raise FitError(f"{where}: {error.sentence}", hint=error.hint, code=error.code) from error
            Slot.objects.bulk_create(
                known.values(),
                batch_size=_ROWS_AT_ONCE,
                update_conflicts=True,
                unique_fields=["pk"],
                update_fields=["name", *RULES],
            )
    return ImportedOut(added=added, changed=changed)


def write_slot(slot: Slot, payload: SlotIn) -> Slot:
    """Store a slot's rules.

    Raises:
        FitError: they cannot be worked with; nothing is stored.
    """
    _take_over(slot, payload)
    slot.save()
    return slot


def _take_over(slot: Slot, payload: SlotIn) -> None:
    slot.name = payload.name.strip()
    for name, value in payload.rules().items():
        setattr(slot, name, value)
    slot.require_possible()
