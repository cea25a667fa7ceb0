"""Pixels, and what is done to them.

A :class:`Raster` is a recipe for pixels, not the pixels: they are pulled through it a few rows at a time
when it is encoded or read.
"""

from __future__ import annotations

import functools
import hashlib
import itertools
from collections.abc import Sequence
from typing import Literal, Self

import numpy as np
import pyvips
from numpy.typing import NDArray

from tallpage.core.geometry import Box, Size, bands
from tallpage.core.picture._libvips import translated

Access = Literal["random", "sequential"]
Colour = tuple[int, int, int]
"""Red, green, blue, 0–255."""
WHITE: Colour = (255, 255, 255)

HELD_IN_MEMORY_BYTES = 16_000_000
_DIGESTED_AT_ONCE_PX = 1_024
_SOFTENING_PX = 0.4
"""Standard deviation. Less changes no pixel of 8 bits; more is seen on text at 1:1."""


class Raster:
    """8-bit sRGB pixels, with or without an alpha plane, pulled on demand."""

    __slots__ = ("_is_held", "image")

    def __init__(self, image: pyvips.Image, *, is_held: bool = False) -> None:
        self.image = image
        """As libvips has it; for this package alone."""
        self._is_held = is_held

    @classmethod
    def from_rows(cls, rows: NDArray[np.uint8]) -> Self:
        """A raster over an array of shape (height, width, 3 or 4)."""
        image = pyvips.Image.new_from_array(np.ascontiguousarray(rows))
        return cls(image.copy(interpretation="srgb"))

    @classmethod
    def stacked(cls, parts: Sequence[Self]) -> Self:
        """Rasters of one width, one under the other."""
        # An array gives every part the same room, so it is used for parts of one height only: joining
        # hundreds of parts pair by pair would be slow.
        stacks = [
            pyvips.Image.arrayjoin([part.image for part in run], across=1)
            for _, run in itertools.groupby(parts, key=lambda part: part.size.height_px)
        ]
        return cls(functools.reduce(lambda upper, lower: upper.join(lower, "vertical"), stacks))

    @classmethod
    def side_by_side(cls, parts: Sequence[Self]) -> Self:
        """Rasters of one height, from left to right."""
        return functools.reduce(
            lambda before, after: cls(before.image.join(after.image, "horizontal")), parts
        )

    @property
    def size(self) -> Size:
        """Width and height in pixels."""
        return Size(width_px=self.image.width, height_px=self.image.height)

    @property
    def has_alpha(self) -> bool:
        """Whether there is an alpha plane."""
        return bool(self.image.hasalpha())

    @property
    def is_opaque(self) -> bool:
        """Whether nothing shows through; reads every pixel when there is an alpha plane."""
        if not self.has_alpha:
            return True
        with translated("The picture"):
            return bool(self.image.extract_band(self.image.bands - 1).min() == 255)

    @property
    def shows(self) -> bool:
        """Whether there is anything to be seen; reads every pixel when there is an alpha plane."""
        if not self.has_alpha:
            return True
        with translated("The picture"):
            return bool(self.image.extract_band(self.image.bands - 1).max() > 0)

    def normalised(self) -> Self:
        """Upright, sRGB, 8 bits a channel, 3 or 4 channels, without profile or metadata."""
        with translated("The picture"):
            image = self.image.autorot()
            if image.get_typeof("icc-profile-data") and image.interpretation != "srgb16":
                image = image.icc_transform("srgb", embedded=True, intent="relative", depth=8)
            image = image.colourspace("srgb")
            if image.bands > 4:
                image = image.extract_band(0, n=4)
            if image.hasalpha() and image.bands == 2:
                image = image.colourspace("srgb")
            return type(self)(image.cast("uchar").copy(interpretation="srgb"))

    def with_xmp(self, xmp: bytes) -> Self:
        """The same pixels, with this XMP instead of what was there."""
        image = self.image.copy()
        image.set_type(pyvips.GValue.blob_type, "xmp-data", xmp)
        return type(self)(image)

    def cropped(self, box: Box) -> Self:
        """The part inside ``box``."""
        return type(self)(self.image.crop(box.x_px, box.y_px, box.width_px, box.height_px))

    def resized(self, size: Size) -> Self:
        """Brought to ``size`` exactly, by Lanczos; never softened by a detour over another size."""
        if size == self.size:
            return self
        with translated("The picture"):
            image = self.image.thumbnail_image(size.width_px, height=size.height_px, size="force")
            return type(self)(image)

    def softened(self) -> Self:
        """Softened by a hair, which saves bytes along every edge."""
        # Premultiplied, or the colour behind what shows through would bleed into what does not.
        image = self.image.premultiply() if self.has_alpha else self.image
        soft = image.gaussblur(_SOFTENING_PX, min_ampl=0.02, precision="float")
        soft = soft.unpremultiply() if self.has_alpha else soft
        return type(self)(soft.rint().cast("uchar").copy(interpretation="srgb"))

    def sharpened(self) -> Self:
        """With edges a little crisper: letters get back some of the contrast that resizing took."""
        sharp = self.image.sharpen(sigma=0.5, x1=2, m1=0, m2=0.6)
        return type(self)(sharp.cast("uchar").copy(interpretation="srgb"))

    def difference(self, other: Self, *, amplified: int) -> Self:
        """How far two rasters of one size are apart, seen over white; black where they are not."""
        first, second = (row.flattened(WHITE).without_alpha().image for row in (self, other))
        apart = (first - second).abs() * amplified
        return type(self)(apart.cast("uchar").copy(interpretation="srgb"))

    def on_canvas(self, canvas: Size, place: Box, background: Colour) -> Self:
        """On a larger canvas of a colour, with its upper left corner at ``place``."""
        if canvas == self.size:
            return self
        colour = [*background, 255][: self.image.bands]
        return type(self)(
            self.image.embed(
                place.x_px,
                place.y_px,
                canvas.width_px,
                canvas.height_px,
                extend="background",
                background=colour,
            )
        )

    def above(self, lower: Self) -> Self:
        """With another raster of the same width below."""
        upper = self.image
        if upper.bands > lower.image.bands:
            lower = lower.with_alpha()
        return type(self)(upper.join(lower.image, "vertical"))

    def flattened(self, background: Colour) -> Self:
        """Without alpha, over a colour."""
        return type(self)(self.image.flatten(background=list(background))) if self.has_alpha else self

    def with_alpha(self) -> Self:
        """With an alpha plane, opaque where there was none."""
        return self if self.has_alpha else type(self)(self.image.bandjoin(255))

    def without_alpha(self) -> Self:
        """Only the colour channels."""
        return type(self)(self.image.extract_band(0, n=3)) if self.image.bands > 3 else self

    def held(self) -> Self:
        """Pulled once, to be read often: kept in memory when small, else in a mapped temporary file.

        So the memory used does not grow with the height of a picture. The file goes with the raster.
        """
        if self._is_held:
            return self
        image = self.image
        with translated("The picture"):
            if image.width * image.height * image.bands <= HELD_IN_MEMORY_BYTES:
                return type(self)(image.copy_memory(), is_held=True)
            kept = pyvips.Image.new_temp_file("%s.v")
            image.write(kept)
            return type(self)(kept, is_held=True)

    def require_whole(self) -> None:
        """Read every row of it once.

        Raises:
            PictureUnreadable: it is damaged somewhere.
        """
        with translated("The picture"):
            self.image.avg()

    def digest(self) -> bytes:
        """A fingerprint of the pixels and their size; reads every row."""
        fingerprint = hashlib.blake2b(repr((self.size, self.image.bands)).encode(), digest_size=16)
        for top_px, height_px in bands(self.size.height_px, _DIGESTED_AT_ONCE_PX):
            fingerprint.update(np.ascontiguousarray(self.rows(top_px, height_px)).data)
        return fingerprint.digest()

    def rows(self, top_px: int, height_px: int) -> NDArray[np.uint8]:
        """Rows as an array of shape (height, width, channels)."""
        with translated("The picture"):
            array: NDArray[np.uint8] = self.image.crop(0, top_px, self.image.width, height_px).numpy()
        return array
