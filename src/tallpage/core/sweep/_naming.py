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
    title: str
    screen: Screen
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
        screen = f"{self.screen.width_px}x{self.screen.height_px}"
        return {
            "host": host_of(self.address).replace(":", "-"),
            "path": without_ending or "home",
            "section": section_of(self.address).strip("/") or "top",
            "title": self.title or without_ending or "page",
            "screen": screen if self.screen.scale == 1 else f"{screen}@{self.screen.scale}",
            "width": str(self.width_px),
            "date": self.taken_at.strftime("%Y-%m-%d"),
            "time": self.taken_at.strftime("%H%M"),
            "number": str(self.number).zfill(len(str(self.of))),
            "slot": self.slot,
        }
