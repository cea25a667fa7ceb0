"""Simulated displays."""

from __future__ import annotations

import re
from dataclasses import dataclass

from tallpage.core.errors import ScreenError

_PATTERN = re.compile(r"(\d{1,6})\s*[x×]\s*(\d{1,6})(?:\s*@\s*(\d))?")


@dataclass(frozen=True, slots=True, kw_only=True)
class Screen:
    """CSS width × height and pixel scale (device px per CSS px).

    One with ``touch`` asks for pages as a phone or tablet does: by a finger, as a mobile browser.
    """

    width_px: int
    height_px: int
    scale: int = 1
    touch: bool = False

    def __post_init__(self) -> None:
        if not (200 <= self.width_px <= 4_000 and 200 <= self.height_px <= 4_000):
            raise ScreenError(f"A screen of {self.width_px} × {self.height_px} px cannot be simulated.")
        if self.scale not in (1, 2, 3):
            raise ScreenError(f"A pixel scale of {self.scale} cannot be simulated.")

    @classmethod
    def parse(cls, text: str) -> Screen:
        """A screen from ``1280x800`` or ``390x844@3``."""
        match = _PATTERN.fullmatch(text.strip())
        if match is None:
            raise ScreenError(f"“{text}” is not a screen.")
        return cls(width_px=int(match[1]), height_px=int(match[2]), scale=int(match[3] or 1))

    def __str__(self) -> str:
        return f"{self.width_px}×{self.height_px}" + (f" at {self.scale}" if self.scale != 1 else "")


PRESETS: dict[str, Screen] = {
    "desk": Screen(width_px=1280, height_px=800),
    "wide": Screen(width_px=1680, height_px=1050),
    "tablet": Screen(width_px=834, height_px=1112, scale=2, touch=True),
    "phone": Screen(width_px=390, height_px=844, scale=3, touch=True),
}
