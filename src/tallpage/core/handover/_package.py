"""A package: files that are given away, one after the other, each with its facts."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from tallpage.core.handover._manifest import ManifestRow, manifest_csv, manifest_json

Data = bytes | Iterable[bytes]


@dataclass(frozen=True, slots=True, kw_only=True)
class Item:
    """One file. Its data are read once, and before the next item is asked for."""

    path: str
    """Relative, with ``/`` between folders."""
    data: Data
    media_type: str = "application/octet-stream"
    facts: ManifestRow | None = None
    """Its row of the manifest; None for what is no picture."""

    def pieces(self) -> Iterator[bytes]:
        """The data, piece by piece."""
        yield from (self.data,) if isinstance(self.data, bytes) else self.data


def with_manifest(entries: Iterable[Item | ManifestRow]) -> Iterator[Item]:
    """The items, then a manifest of them as JSON and CSV.

    A row alone stands for something of which there is no file.
    """
    rows: list[ManifestRow] = []
    for entry in entries:
        if isinstance(entry, ManifestRow):
            rows.append(entry)
            continue
        if entry.facts is not None:
            rows.append(entry.facts)
        yield entry
    yield Item(path="manifest.json", data=manifest_json(rows), media_type="application/json")
    yield Item(path="manifest.csv", data=manifest_csv(rows), media_type="text/csv")
