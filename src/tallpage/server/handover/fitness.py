"""Whether files keep to the rules of the outlet that they are to be uploaded to."""

from __future__ import annotations

from dataclasses import dataclass

from tallpage.core.errors import HandOverError
from tallpage.core.fit import FORMATS
from tallpage.core.units import format_bytes
from tallpage.server.outlets.fitting import require_files
from tallpage.server.outlets.models import Outlet, Output, Slot


@dataclass(frozen=True, slots=True, kw_only=True)
class Measured:
    """What the rules of a place look at."""

    label: str
    width_px: int
    height_px: int
    byte_count: int
    format: str
    slot_id: int | None = None
    """The slot that it was made for."""


def measured(rows: list[Output]) -> list[Measured]:
    """The files of some rows.

    Raises:
        HandOverError: there are none.
        FitError: a row has no file.
    """
    if not rows:
        raise HandOverError(
            "Uploads are files that were made.",
            hint="Make a file for the outlet first.",
            code="nothing_chosen",
        )
    for row in rows:
        require_files(row)
    return [
        Measured(
            label=row.label,
            width_px=file.width_px,
            height_px=file.height_px,
            byte_count=file.bytes,
            format=file.format,
            slot_id=row.slot_id,
        )
        for row in rows
        for file in row.files.all()
    ]


def require_fitting(outlet: Outlet, files: list[Measured]) -> None:
    """Refuse files that no slot of an outlet takes. An outlet without slots takes any.

    Raises:
        HandOverError: one does not fit; the sentence says which and why, by the slot that it was made for.
    """
    slots = list(outlet.slots.all())
    for file in files:
        own = [slot for slot in slots if slot.pk == file.slot_id] or slots
        reasons = [_reason(file, slot) for slot in own]
        if own and all(reasons):
            raise HandOverError(
                f"{file.label}: {reasons[0]}",
                hint=f"Fit it to a slot of {outlet.name}, and upload that.",
                code="upload_unfit",
            )


def _reason(file: Measured, slot: Slot) -> str:
    """Why a slot does not take a file; empty where it does."""
    if slot.way in ("width", "fill", "pad") and file.width_px > slot.width_px:
        return f"it is {file.width_px:,} px wide, and {slot} takes {slot.width_px:,}."
    if slot.greatest_height_px is not None and file.height_px > slot.greatest_height_px:
        return f"it is {file.height_px:,} px high, and {slot} takes {slot.greatest_height_px:,}."
    if slot.limit_bytes is not None and file.byte_count > slot.limit_bytes:
        return f"it has {format_bytes(file.byte_count)}, and {slot} takes {format_bytes(slot.limit_bytes)}."
    if slot.formats and file.format not in slot.formats:
        names = ", ".join(FORMATS[name].name for name in slot.formats)
        return f"it is {FORMATS[file.format].name}, and {slot} takes {names}."  # type: ignore[index]
    return ""
