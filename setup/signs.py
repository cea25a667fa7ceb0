"""Write the signs that stickers can show, from the icons of the interface: ``python setup/signs.py``.

Run when the set of signs changes. The icons are those of lucide (ISC licence, kept beside the signs).
Their outlines, arcs and all, are brought to straight lines and curves in absolute coordinates.
"""

from __future__ import annotations

import json
import re
import shutil
from pathlib import Path
from typing import Any
from xml.sax.saxutils import quoteattr

from fontTools.pens.basePen import BasePen
from fontTools.svgLib import SVGPath

ROOT = Path(__file__).resolve().parent.parent
ICONS = ROOT / "frontend/node_modules/lucide-react"
SIGNS = ROOT / "src/tallpage/core/marks/signs"

NAMES = (
    "check", "x", "plus", "minus", "circle-question-mark", "circle-exclamation-point",
    "triangle-exclamation-point", "info", "ban", "star", "heart", "thumbs-up", "thumbs-down",
    "face-slightly-smiling", "face-slightly-frowning", "flag", "bookmark", "lightbulb", "eye", "search",
    "lock", "pencil", "clock", "ship", "mouse-pointer-click", "hand", "arrow-big-right", "target",
    "bell", "bug",
)  # fmt: skip


class StepsPen(BasePen):  # type: ignore[misc]
    """Takes down lines and curves as SVG's absolute commands; the method names are fontTools'."""

    def __init__(self) -> None:
        super().__init__(None)
        self.steps: list[tuple[str, list[float]]] = []

    def _moveTo(self, pt: tuple[float, float]) -> None:  # noqa: N802
        self._add("M", pt)

    def _lineTo(self, pt: tuple[float, float]) -> None:  # noqa: N802
        self._add("L", pt)

    def _curveToOne(self, *points: tuple[float, float]) -> None:  # noqa: N802
        self._add("C", *points)

    def _closePath(self) -> None:  # noqa: N802
        self._add("Z")

    def _add(self, command: str, *points: tuple[float, float]) -> None:
        self.steps.append((command, [round(number, 3) for point in points for number in point]))


def nodes_of(name: str) -> list[tuple[str, dict[str, Any]]]:
    """The elements of an icon."""
    source = (ICONS / f"dist/esm/icons/{name}.mjs").read_text()
    _, found, listed = source.partition("node: ")
    if not found:
        raise SystemExit(f"The icon {name} is written in another way than expected.")
    rows, _ = json.JSONDecoder().raw_decode(re.sub(r"(\w+|\"[\w-]+\"):", _quoted, listed))
    return [tuple(row) for row in rows]


def steps_of(name: str) -> list[tuple[str, list[float]]]:
    """The outlines of an icon, 24 units wide and high."""
    elements = "".join(
        f"<{tag} {' '.join(f'{key}={quoteattr(str(value))}' for key, value in fields.items())}/>"
        for tag, fields in nodes_of(name)
    )
    pen = StepsPen()
    SVGPath.fromstring(f'<svg xmlns="http://www.w3.org/2000/svg">{elements}</svg>'.encode()).draw(pen)
    return pen.steps


def _quoted(key: re.Match[str]) -> str:
    return key[0] if key[1].startswith('"') else f'"{key[1]}":'


def main() -> None:
    """Write them."""
    SIGNS.mkdir(exist_ok=True)
    rows = ",\n".join(
        f'"{name}":{json.dumps(steps_of(name), separators=(",", ":"))}' for name in sorted(NAMES)
    )
    (SIGNS / "signs.json").write_text(f"{{\n{rows}\n}}\n")
    shutil.copy(ICONS / "LICENSE", SIGNS / "LICENSE")


if __name__ == "__main__":
    main()
