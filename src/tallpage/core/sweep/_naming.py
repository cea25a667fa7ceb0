"""What the fields of a pattern stand for."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from urllib.parse import unquote, urlsplit

from tallpage.core.capture import Screen
from tallpage.core.naming import host_of
from tallpage.core.sweep._pages import section_of


@dataclass(frozen=True, slots=True, kw_only=True)
class Named:
    """What is known of a picture when it gets its name."""

    address: str
    """Empty for a picture: its title stands for the path then."""
    title: str
    screen: Screen | None
    taken_at: datetime
    number: int
    """Number of its page in the list, from 1."""
    of: int
    """Pages in the list: numbers are written as wide as the last of them."""
    width_px: int
    slot: str = ""

    def values(self) -> dict[str, str]:
        """The value of each field."""
        path = unquote(urlsplit(self.address).path).strip("/")
        without_ending = path.rpartition(".")[0] if path.endswith((".html", ".htm", ".php")) else path
        return {
            "host": host_of(self.address).replace(":", "-"),
            "path": (without_ending or "home") if self.address else self.title,
            "section": (section_of(self.address).strip("/") or "top") if self.address else "",
            "title": self.title or without_ending or "page",
            "screen": _in_a_name(self.screen),
            "width": str(self.width_px),
            "date": self.taken_at.strftime("%Y-%m-%d"),
            "time": self.taken_at.strftime("%H%M"),
            "number": str(self.number).zfill(len(str(self.of))),
            "slot": self.slot,
        }


def _in_a_name(screen: Screen | None) -> str:
    if screen is None:
        return ""
    size = f"{screen.width_px}x{screen.height_px}"
    return size if screen.scale == 1 else f"{size}@{screen.scale}"
