"""What a sweep made, a row a picture, as JSON and CSV."""

from __future__ import annotations

import csv
import io
import json
from collections.abc import Iterable
from dataclasses import asdict, dataclass, fields
from typing import Any


@dataclass(frozen=True, slots=True, kw_only=True)
class ManifestRow:
    """One picture, or a line of the list that gave none. Empty fields are unknown or do not apply."""

    address: str
    final_address: str = ""
    title: str = ""
    status: int | None = None
    screen: str = ""
    width_px: int | None = None
    height_px: int | None = None
    bytes: int | None = None
    file: str = ""
    """Relative to the manifest, with ``/`` between folders."""
    whole: bool | None = None
    """Whether the words of the page are in the picture."""
    warnings: tuple[str, ...] = ()
    error: str = ""
    rights: str = ""
    """What is known of them when it is handed over."""
    slot: str = ""
    """What it was made for; this and what follows is known where files were fitted."""
    fidelity: float | None = None
    """0–100."""
    met: bool | None = None
    """Whether it keeps to what was asked, and looks acceptable."""

    @property
    def failed(self) -> bool:
        """Whether there is no picture."""
        return bool(self.error)


_COLUMNS = tuple(field.name for field in fields(ManifestRow))


def manifest_json(rows: Iterable[ManifestRow]) -> bytes:
    """A list of objects."""
    return json.dumps([_plain(row) for row in rows], indent=1, ensure_ascii=False).encode()


def manifest_csv(rows: Iterable[ManifestRow]) -> bytes:
    """UTF-8 with a mark at its start, as spreadsheets like it; several warnings are divided by " | "."""
    text = io.StringIO(newline="")
    writer = csv.DictWriter(text, _COLUMNS)
    writer.writeheader()
    for row in rows:
        cells = {**_plain(row), "warnings": " | ".join(row.warnings)}
        writer.writerow({name: _harmless(value) for name, value in cells.items()})
    return text.getvalue().encode("utf-8-sig")


def _plain(row: ManifestRow) -> dict[str, Any]:
    return asdict(row)


def _harmless(value: object) -> object:
    """Text that a spreadsheet would take for a formula is marked as text: titles come from strangers."""
    if isinstance(value, str) and value.startswith(("=", "+", "-", "@", "\t", "\r")):
        return f"'{value}"
    return value
