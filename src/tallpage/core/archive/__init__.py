"""Captures with their cuts as an open archive: a ZIP of strips as PNG, and JSON. docs/archive.md."""

from tallpage.core.archive._names import ARCHIVE_VERSION, MOST_CAPTURES
from tallpage.core.archive._reading import Archive
from tallpage.core.archive._writing import HeldCapture, HeldCut, archive_items
from tallpage.core.archive.models import ArchiveFile, CaptureEntry, CutEntry

__all__ = [
    "ARCHIVE_VERSION",
    "MOST_CAPTURES",
    "Archive",
    "ArchiveFile",
    "CaptureEntry",
    "CutEntry",
    "HeldCapture",
    "HeldCut",
    "archive_items",
]
