"""Which recipes are worth a look for a picture under a limit, found out on its sample."""

from __future__ import annotations

import math
from collections.abc import Sequence

from tallpage.core.fit._formats import Format
from tallpage.core.fit._known import Sample
from tallpage.core.fit._recipes import JPEG_FULL_COLOUR, LOSSLESS, LOSSY, PALETTE_RECIPES, Choice, Recipe
from tallpage.core.geometry import Size
from tallpage.core.once import once

_LIGHTEST: dict[Format, float] = {"png": 0.6, "webp": 0.37}
"""As light as these shares of a quickly made PNG a careful lossless file may be."""
_LIGHTER_THAN_LOSSLESS = Choice(format="jpeg", quality=82, subsampled=True)
"""Where a photograph, even one of smooth shades, is too heavy so, it is too heavy losslessly as well."""
_PALETTE_SAVES = 6.0
"""Palettes that leave a picture acceptable make it so many times lighter than lossless at most."""
_FAR_OVER = 1.5
"""How far over the limit a quickly made lossless file must be for no careful one to be made."""
_HALVED_BELOW_BITS = 1.25
"""Bits a pixel below which photographs never look better with full colour planes."""


class Options:
    """The recipes that are worth a look."""

    def __init__(self, sample: Sample, size: Size, usable: Sequence[Format], limit_bytes: int) -> None:
        self._sample = sample
        self._size = size
        self._usable = usable
        self._limit_bytes = limit_bytes

    @property
    def lossless(self) -> list[Recipe]:
        """Those that keep the pixels, where a quick look does not rule them out."""
        found = [
            row
            for row in LOSSLESS
            if row.format in self._usable and self._quick_png * _LIGHTEST[row.format] <= self._limit_bytes
        ]
        return [row for row in found if row.format != "webp" or not self._far_over(row)]

    @property
    def likely_lossless(self) -> bool:
        """Whether a lossless file is likely to fit."""
        return self._quick_png <= self._limit_bytes

    @once
    def lossy(self) -> list[Recipe]:
        """The others: palettes where the picture is simple or nothing else is taken."""
        found = [row for row in LOSSY if row.format in self._usable]
        bits_a_pixel = 8 * self._limit_bytes / self._size.pixels
        if self._sample.picture.nature.photographic and bits_a_pixel < _HALVED_BELOW_BITS:
            found = [row for row in found if row is not JPEG_FULL_COLOUR]
        without = [row for row in found if row not in PALETTE_RECIPES]
        if not without or len(without) == len(found):
            return found
        return found if self._quick_png <= _PALETTE_SAVES * self._limit_bytes else without

    @once
    def _quick_png(self) -> float:
        """About how heavy the same pixels would be as PNG; of photographs, only where they may fit so."""
        photographic = self._sample.picture.nature.photographic and "jpeg" in self._usable
        if photographic and self._quickly(_LIGHTER_THAN_LOSSLESS) > self._limit_bytes:
            return math.inf
        return self._quickly(Choice(format="png"))

    def _far_over(self, recipe: Recipe) -> bool:
        return self._quickly(recipe.choice_at(0)) > _FAR_OVER * self._limit_bytes

    def _quickly(self, choice: Choice) -> float:
        """About how heavy a hastily made file would be."""
        return len(self._sample.picture.encoded(choice, draft=True)) / self._sample.share
