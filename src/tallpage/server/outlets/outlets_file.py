"""Outlets in and out of a file, so that they can be kept, shared and taken elsewhere."""

from __future__ import annotations

from django.db import transaction
from django.db.models import Max

from tallpage.core.errors import FitError
from tallpage.core.facts import require_credit
from tallpage.server.outlets.models import RULES, Outlet, Slot
from tallpage.server.outlets.schemas import FactsSchema, ImportedOut, OutletFile, OutletsFile, SlotIn, SlotOut

_ROWS_AT_ONCE = 500


def exported() -> str:
    """All outlets as the text of a file."""
    rows = Outlet.objects.prefetch_related("slots")
    outlets = [
        OutletFile(
            name=_named(row.name, f"Outlet {row.pk}"),
            credit=row.credit,
            facts_in_file=row.facts_in_file,
            facts_beside=row.facts_beside,
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
            if entry.model_fields_set & FactsSchema.model_fields.keys():  # files of earlier versions say none
                write_facts(outlet, entry)
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


def write_facts(outlet: Outlet, payload: FactsSchema) -> None:
    """Store which facts go along with an outlet's files.

    Raises:
        FitError: the credit is too long; nothing is stored.
    """
    outlet.credit = require_credit(payload.credit)
    outlet.facts_in_file, outlet.facts_beside = payload.facts_in_file, payload.facts_beside
    outlet.save(update_fields=["credit", "facts_in_file", "facts_beside"])


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
