"""The fonts that ship, and the outlines of their letters."""

from __future__ import annotations

from functools import lru_cache
from pathlib import Path as FilePath
from typing import Literal

import uharfbuzz as harfbuzz

from tallpage.core.paths import Path, Step

Weight = Literal[400, 600, 700]
Direction = Literal["ltr", "rtl"]

FONTS_FOLDER = FilePath(__file__).with_name("fonts")
_FILES: dict[Weight, tuple[str, ...]] = {
    400: ("IBMPlexSans-Regular.ttf", "DejaVuSans.ttf"),
    600: ("IBMPlexSans-SemiBold.ttf", "DejaVuSans-Bold.ttf"),
    700: ("IBMPlexSans-Bold.ttf", "DejaVuSans-Bold.ttf"),
}
"""The font of a weight, then the one that stands in for the letters it lacks."""


class Font:
    """One font; lengths are in em."""

    def __init__(self, file: FilePath) -> None:
        face = harfbuzz.Face(harfbuzz.Blob.from_file_path(file))
        self._font = harfbuzz.Font(face)
        self._em = float(face.upem)
        extents = self._font.get_font_extents("ltr")
        self.ascent_em = extents.ascender / self._em
        self.descent_em = -extents.descender / self._em
        self._glyphs: dict[int, Path] = {}

    def has(self, character: str) -> bool:
        """Whether it can draw a character."""
        return self._font.get_nominal_glyph(ord(character)) is not None

    def shaped(self, text: str, direction: Direction) -> tuple[Path, float]:
        """The outlines of a run of text that starts on the base line at 0, 0, and how far it goes, in em."""
        buffer = harfbuzz.Buffer()
        buffer.add_str(text)
        buffer.guess_segment_properties()
        buffer.direction = direction
        harfbuzz.shape(self._font, buffer)
        steps: list[Step] = []
        x_em = 0.0
        for glyph, place in zip(buffer.glyph_infos, buffer.glyph_positions, strict=True):
            outline = self._outline(glyph.codepoint)
            steps += outline.moved(x_em + place.x_offset / self._em, -place.y_offset / self._em).steps
            x_em += place.x_advance / self._em
        return Path.of(steps), x_em

    def _outline(self, glyph: int) -> Path:
        if glyph not in self._glyphs:
            pen = _Pen()
            self._font.draw_glyph_with_pen(glyph, pen)
            # Fonts count upwards, pictures downwards.
            self._glyphs[glyph] = Path.of(pen.steps).scaled(1 / self._em, -1 / self._em)
        return self._glyphs[glyph]


@lru_cache
def fonts_of(weight: Weight) -> tuple[Font, ...]:
    """The fonts of a weight, in the order in which they are asked for a letter."""
    return tuple(_font(name) for name in _FILES[weight])


@lru_cache
def _font(name: str) -> Font:
    return Font(FONTS_FOLDER / name)


class _Pen:
    """Takes down what HarfBuzz draws; the method names are HarfBuzz's."""

    def __init__(self) -> None:
        self.steps: list[Step] = []

    def moveTo(self, point: tuple[float, float]) -> None:  # noqa: N802
        self.steps.append(("M", point))

    def lineTo(self, point: tuple[float, float]) -> None:  # noqa: N802
        self.steps.append(("L", point))

    def qCurveTo(self, *points: tuple[float, float]) -> None:  # noqa: N802
        self.steps.append(("Q", tuple(number for point in points for number in point)))

    def curveTo(self, *points: tuple[float, float]) -> None:  # noqa: N802
        self.steps.append(("C", tuple(number for point in points for number in point)))

    def closePath(self) -> None:  # noqa: N802
        self.steps.append(("Z", ()))
