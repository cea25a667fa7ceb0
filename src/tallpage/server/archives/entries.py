"""What an archive says of a capture, from its row and into one."""

from __future__ import annotations

from typing import Any

from tallpage.core.archive import CaptureEntry, CutEntry
from tallpage.server.shelf.models import Capture, Cut, Folder

_SAME = (
    "source",
    "name",
    "named_by_hand",
    "address",
    "final_address",
    "title",
    "host",
    "screen_width_px",
    "screen_height_px",
    "scale",
    "touch",
    "status",
    "truncated",
    "whole",
    "warnings",
    "report",
    "settings",
    "one_of_many",
    "rights_state",
    "licensed_until",
    "rights_note",
    "taken_at",
)
"""What is called the same in both, and means the same wherever it is."""


def entry_of(capture: Capture, *, renews: int | None) -> CaptureEntry:
    """A capture as an archive tells it; its cuts are told beside."""
    return CaptureEntry(
        **{name: getattr(capture, name) for name in _SAME},
        created_at=capture.created_at,
        folder=_path_of(capture.shelf_folder),
        labels=sorted(label.name for label in capture.labels.all()),
        renews=renews,
    )


def cut_entry_of(cut: Cut, *, carried_from: tuple[int, int] | None) -> CutEntry:
    """A cut as an archive tells it, besides its file."""
    return CutEntry(
        name=cut.name, review=cut.review, needs_a_look=cut.needs_a_look, carried_from=carried_from
    )


def fields_of(entry: CaptureEntry) -> dict[str, Any]:
    """What an entry says, as a capture's row holds it."""
    return {name: getattr(entry, name) for name in _SAME}


def _path_of(folder: Folder | None) -> list[str]:
    names: list[str] = []
    while folder is not None:
        names.insert(0, folder.name)
        folder = folder.parent
    return names
