"""Names of captures and files: page, date and size, safe on every operating system."""

from __future__ import annotations

import re
from datetime import date
from urllib.parse import urlsplit

from slugify import slugify

MAX_NAME_CHARS = 160
_MAX_STEM_CHARS = 90
_PART_BREAK = re.compile(r"(\s[|–—·•:-]\s)")
"""What sites put between a page's title and their own name."""


def host_of(address: str) -> str:
    """Host of an address as people say it: without ``www.``, with a port where there is one."""
    return urlsplit(address).netloc.rpartition("@")[2].removeprefix("www.")


def capture_name(*, title: str, address: str, day: date) -> str:
    """The automatic name of a capture: page title, host without its port, and date.

    What a title says twice, like the name of its site, is said once. A page without a title is called
    by the last part of its path.
    """
    parts = urlsplit(address)
    host = (parts.hostname or "").removeprefix("www.")
    path_part = parts.path.rstrip("/").rpartition("/")[2]
    subject = _without_repeats(" ".join(title.split()), host) or path_part or "Page"
    tail = f" – {host} – {day.isoformat()}"
    room = MAX_NAME_CHARS - len(tail)
    return (subject if len(subject) <= room else subject[: room - 1].rstrip() + "…") + tail


def _without_repeats(title: str, host: str) -> str:
    """A title without the parts that it says again, or that are the host's name."""
    said = {host.casefold()}
    kept = ""
    for separator, part in zip(*[iter(["", *_PART_BREAK.split(title)])] * 2, strict=True):
        if part.casefold() not in said:
            said.add(part.casefold())
            kept += f"{separator}{part}" if kept else part
    return kept


def output_file_name(
    *, capture_name: str, width_px: int, height_px: int, extension: str, part: str = ""
) -> str:
    """File name of an output: ASCII letters, digits and hyphens, then size and extension.

    ``part`` says which of several files it is, like ``2-of-5``.

    >>> output_file_name(capture_name="Timetable – skerrin.example – 2026-11-24",
    ...                  width_px=720, height_px=4010, extension="jpg")
    'timetable-skerrin-example-2026-11-24-720x4010.jpg'
    """
    stem = slugify(capture_name, max_length=_MAX_STEM_CHARS) or "page"
    return f"{stem}{f'-{part}' if part else ''}-{width_px}x{height_px}.{extension}"


def cut_file_name(*, capture_name: str, cut_name: str) -> str:
    """File name of a cut's document.

    >>> cut_file_name(capture_name="Timetable – skerrin.example", cut_name="Cut 2")
    'timetable-skerrin-example-cut-2.json'
    """
    return f"{slugify(f'{capture_name} {cut_name}', max_length=_MAX_STEM_CHARS) or 'cut'}.json"
