"""The signs that ship, for stickers: icons of lucide (ISC licence), written by ``setup/signs.py``."""

from __future__ import annotations

import json
from functools import lru_cache
from pathlib import Path as FilePath

from tallpage.core.marks._drawn import Shape
from tallpage.core.paths import Extent, Path

_FILE = FilePath(__file__).with_name("signs") / "signs.json"
_UNITS = 24.0
_STROKE_UNITS = 2.0


@lru_cache
def signs() -> dict[str, Path]:
    """Outlines by name, in a square of 24 units."""
    rows = json.loads(_FILE.read_text("utf-8"))
    return {
        name: Path.of((command, tuple(numbers)) for command, numbers in steps) for name, steps in rows.items()
    }


def draw_sign(name: str, box: Extent, *, angle_deg: float, colour: str) -> tuple[Shape, ...]:
    """A sign as large as a rectangle allows, in its middle; on lines so broad as its size asks."""
    scale = min(box.right_px - box.left_px, box.bottom_px - box.top_px) / _UNITS
    x, y = box.middle
    path = signs()[name].moved(-_UNITS / 2, -_UNITS / 2).scaled(scale).moved(x, y).turned(angle_deg, (x, y))
    return (Shape(path=path, stroke=colour, stroke_px=scale * _STROKE_UNITS),)
