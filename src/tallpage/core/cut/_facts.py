"""What the caption of a picture can say of its page."""

from __future__ import annotations

from datetime import date
from urllib.parse import urlsplit


def page_facts(*, title: str = "", address: str = "", name: str = "", taken_on: date) -> dict[str, str]:
    """The fields of a caption; the date as 2026-11-27, the host without its port."""
    return {
        "title": title,
        "address": address,
        "host": urlsplit(address).hostname or "",
        "date": taken_on.isoformat(),
        "name": name,
    }
