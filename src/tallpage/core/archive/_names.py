"""What the files in an archive are called, and how much of them is read."""

from __future__ import annotations

import re

ARCHIVE_VERSION = 1
CONTENTS = "archive.json"
MOST_CAPTURES = 2_000
STRIP = re.compile(r"\d{4}\.png")
BESIDE_STRIPS = ("map.json", "words.json.gz", "report.json")
"""What a capture may have besides its manifest and its strips."""
MOST_JSON_BYTES = 64_000_000
"""So much of a JSON file is read, unpacked: a page map of 100,000 blocks has a third of it."""
MOST_STRIP_BYTES = 200_000_000


def capture_folder(number: int) -> str:
    """Where a capture lies in an archive, counted from 1."""
    return f"captures/{number:04d}"


def cut_file(number: int, cut_number: int) -> str:
    """Where a cut lies in an archive, both counted from 1."""
    return f"{capture_folder(number)}/cuts/{cut_number:03d}.json"
