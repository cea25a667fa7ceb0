"""Names of captures and files: page, date and size, safe on every operating system."""

from __future__ import annotations

from datetime import date
from urllib.parse import urlsplit

from slugify import slugify

MAX_NAME_CHARS = 160
_MAX_STEM_CHARS = 90


def host_of(address: str) -> str:
    """Host of an address as people say it: without ``www.``, with a port where there is one."""
    return urlsplit(address).netloc.rpartition("@")[2].removeprefix("www.")


def capture_name(*, title: str, address: str, day: date) -> str:
    """The automatic name of a capture: page title, host and date.

    A page without a title is called by the last part of its path.
    """
    path_part = urlsplit(address).path.rstrip("/").rpartition("/")[2]
    subject = " ".join(title.split()) or path_part or "Page"
    tail = f" – {host_of(address)} – {day.isoformat()}"
    room = MAX_NAME_CHARS - len(tail)
    return (subject if len(subject) <= room else subject[: room - 1].rstrip() + "…") + tail


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
