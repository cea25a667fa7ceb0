"""Which recipes are worth a look for a picture under a limit, found out on its sample."""

from __future__ import annotations

import math
from collections.abc import Sequence

from tallpage.core.fit.encoding._cached_encoder import CachedEncoder, Sample
from tallpage.core.fit.encoding._formats import Format
from tallpage.core.fit.encoding._recipes import (
    JPEG_FULL_COLOUR,
    LOSSLESS,
    LOSSY,
    Choice,
    Recipe,
    finer_palette,
)
from tallpage.core.geometry import Size
from tallpage.core.once import once

_CAREFUL_PNG = 0.6
"""A careful PNG may be as light as this share of a quickly made one."""
_CAREFUL_WEBP = 0.9
"""The same for lossless WebP."""
_WEBP_SAVES, _WEBP_SAVES_AT_MOST = 3.0, 9.0
"""Lossless WebP is so many times lighter than a quickly made PNG at most: usually, and where a drawing
repeats itself (5.2 on a page of code, which its sample does not show)."""
_LIGHTER_THAN_ITS_SAMPLE = 0.5
"""A lossless file of letters and drawings may be as light as this share of what its sample tells: shapes
that come again and again are stored once in the whole, and a sample holds fewer of them."""
_WHOLE_UP_TO_PIXELS = 1_500_000
"""Letters and drawings up to this size are looked at whole where a sample would tell too little."""
_LIGHTER_THAN_LOSSLESS = Choice(format="jpeg", quality=82, subsampled=True)
"""A photograph or smooth shade that is too heavy in this choice is too heavy in a lossless file as well."""
_PALETTE_SAVES = 6.0
"""Palettes that leave a picture acceptable make it so many times lighter than lossless at most."""
_PALETTE_SAVES_AT_MOST = 12.0
"""The same where only JPEG stands beside them, which damages letters sooner."""
_PALETTE_SAVES_OF_SMALL, _SMALL_PIXELS = 15.0, 250_000
"""And of drawings as small as this, of which four colours may be enough, and palettes are soon tried."""
_HALVED_BELOW_BITS = 1.25
"""Bits a pixel below which photographs never look better with full colour planes."""


class Options:
    """The recipes that are worth a look. Without the ``whole`` that is found out on the sample alone."""

    def __init__(
        self,
        sample: Sample,
        size: Size,
        usable: Sequence[Format],
        limit_bytes: int,
        *,
        whole: CachedEncoder | None,
    ) -> None:
        self._sample = sample
        self._size = size
        self._usable = usable
        self._limit_bytes = limit_bytes
        self._whole = whole

    @property
    def lossless(self) -> list[Recipe]:
        """Those that keep the pixels, where a quick look does not rule them out."""
        wanted = {"png": self._png_may_fit, "webp": self._webp_may_fit}
        return [row for row in LOSSLESS if row.format in self._usable and wanted[row.format]()]

    def exact_bytes(self, recipe: Recipe) -> float:
        """About how light a careful lossless file may be."""
        return self._quick_png * _CAREFUL_PNG if recipe.format == "png" else self._quick_webp * _CAREFUL_WEBP

    @once
    def likely_lossless(self) -> bool:
        """Whether a lossless file is likely to fit."""
        if self._quick_png <= self._limit_bytes:
            return True
        near = self._quick_png <= _WEBP_SAVES * self._limit_bytes
        return "webp" in self._usable and near and self._quick_webp <= self._limit_bytes

    @once
    def lossy(self) -> list[Recipe]:
        """The others: palettes where the picture is simple or nothing else is taken."""
        found = [self._finer(row) for row in LOSSY if row.format in self._usable]
        bits_a_pixel = 8 * self._limit_bytes / self._size.pixels
        if self._sample.picture.content_class.photographic and bits_a_pixel < _HALVED_BELOW_BITS:
            found = [row for row in found if row is not JPEG_FULL_COLOUR]
        without = [row for row in found if not row.palette]
        if not without or len(without) == len(found):
            return found
        saves = _PALETTE_SAVES if {"webp", "avif"} & set(self._usable) else _PALETTE_SAVES_AT_MOST
        if self._small_drawing is not None and self._size.pixels <= _SMALL_PIXELS:
            saves = _PALETTE_SAVES_OF_SMALL
        return found if self._quick_png <= saves * self._limit_bytes else without

    def sample_for(self, recipe: Recipe) -> Sample:
        """What a recipe is tried on: palettes of a small drawing on the whole."""
        if recipe.palette and self._small_drawing is not None:
            return Sample(picture=self._small_drawing, share=1.0)
        return self._sample

    def _finer(self, recipe: Recipe) -> Recipe:
        """The recipe as it is searched: palettes of small drawings have more numbers of colours."""
        finer = recipe.palette and recipe.format == "png" and self._small_drawing is not None
        return finer_palette(recipe) if finer else recipe

    @property
    def _small_drawing(self) -> CachedEncoder | None:
        """The whole, where it is so small, and of a kind, that a sample tells too little of it."""
        small = (
            self._size.pixels <= _WHOLE_UP_TO_PIXELS and not self._sample.picture.content_class.photographic
        )
        return self._whole if small else None

    def _png_may_fit(self) -> bool:
        return self._quick_png * _CAREFUL_PNG <= self._limit_bytes

    def _webp_may_fit(self) -> bool:
        if self._quick_png > _WEBP_SAVES_AT_MOST * self._limit_bytes:
            return False
        if self._small_drawing is None and self._whole is not None and self._sample.share < 1:
            if self._quick_webp * _LIGHTER_THAN_ITS_SAMPLE > self._limit_bytes:
                return False
            quick = len(self._whole.encoded(Choice(format="webp"), draft=True))
            return quick * _CAREFUL_WEBP <= self._limit_bytes
        return self._quick_webp * _CAREFUL_WEBP <= self._limit_bytes

    @once
    def _quick_png(self) -> float:
        """About how heavy the same pixels would be as PNG; of photographs, only where they may fit so."""
        photographic = self._sample.picture.content_class.photographic and "jpeg" in self._usable
        if photographic and self._quickly(_LIGHTER_THAN_LOSSLESS) > self._limit_bytes:
            return math.inf
        return self._quickly(Choice(format="png"))

    @once
    def _quick_webp(self) -> float:
        """The same as lossless WebP."""
        return self._quickly(Choice(format="webp"))

    def _quickly(self, choice: Choice) -> float:
        """About how heavy a hastily made file would be."""
        if self._small_drawing is not None:
            return len(self._small_drawing.encoded(choice, draft=True))
        return len(self._sample.picture.encoded(choice, draft=True)) / self._sample.share
