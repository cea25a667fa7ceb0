"""The one door to libvips.

A :class:`Raster` is a recipe for pixels, not the pixels: they are pulled through it a few rows at
a time when it is encoded or read. File names given to libvips are always ours, since it reads
options out of square brackets in a name. Pixels can turn out damaged as late as when they are
pulled, so every pull is inside :func:`_translated`.
"""

from __future__ import annotations

import bisect
import functools
import hashlib
import itertools
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from pathlib import Path
from typing import Literal, Self

import numpy as np
import pyvips
from numpy.typing import NDArray

from tallpage.core.errors import PictureUnreadable, StorageError
from tallpage.core.geometry import Box, Size, bands
from tallpage.core.picture._tall_avif import tall_avif

_READABLE = ("Png", "Jpeg", "Webp", "Nsgif", "Heif", "Tiff")
Access = Literal["random", "sequential"]
PngFilter = Literal["none", "sub", "all"]
"""What a PNG stores of a row: its pixels; how they differ from those on the left; or what is likely to
come out lightest, row by row. Source: PNG specification (W3C), 9.2 filter types, 12.7 filter selection."""
Colour = tuple[int, int, int]
"""Red, green, blue, 0–255."""
WHITE: Colour = (255, 255, 255)

_GREATEST_AVIF_PX = 16_384
"""libvips writes none with a longer side."""
_PATIENT_EFFORT = 3
_PALETTE_QUALITIES = (97, 94, 90, 85, 80, 74, 67, 60, 50, 40, 30, 20)
_HELD_IN_MEMORY_BYTES = 16_000_000
_DIGESTED_AT_ONCE_PX = 1_024
_SOFTENING_PX = 0.4
"""Standard deviation. Less changes no pixel of 8 bits; more is seen on text at 1:1."""

# Nothing else is ever decoded: no vector, document or script format, wherever a file comes from.
pyvips.operation_block_set("VipsForeignLoad", True)
for _name in _READABLE:
    pyvips.operation_block_set(f"VipsForeignLoad{_name}", False)

# Results are kept by us, by content; libvips' own cache would only hold strips in memory.
pyvips.cache_set_max(0)


def libvips_version() -> str:
    """Version of the library in use, like ``8.18``."""
    return f"{pyvips.version(0)}.{pyvips.version(1)}"


class Raster:
    """8-bit sRGB pixels, with or without an alpha plane, pulled on demand."""

    __slots__ = ("_image", "_is_held")

    def __init__(self, image: pyvips.Image, *, is_held: bool = False) -> None:
        self._image = image
        self._is_held = is_held

    # -- in ---------------------------------------------------------------

    @classmethod
    def open_file(cls, path: Path, *, access: Access = "random") -> Self:
        """Open a picture file of ours; damage shows as an error, never as grey rows."""
        with _translated(path.name):
            return cls(pyvips.Image.new_from_file(str(path), access=access, fail_on="error"))

    @classmethod
    def open_foreign(cls, path: Path) -> Self:
        """Open a picture from outside, to be pulled once.

        Raises:
            PictureUnreadable: not a picture of a format that is taken in, or damaged.
        """
        with _translated("The picture"):
            return cls(pyvips.Image.new_from_file(str(path), access="sequential", fail_on="error"))

    def normalised(self) -> Self:
        """Upright, sRGB, 8 bits a channel, 3 or 4 channels, without profile or metadata."""
        with _translated("The picture"):
            image = self._image.autorot()
            if image.get_typeof("icc-profile-data") and image.interpretation != "srgb16":
                image = image.icc_transform("srgb", embedded=True, intent="relative", depth=8)
            image = image.colourspace("srgb")
            if image.bands > 4:
                image = image.extract_band(0, n=4)
            if image.hasalpha() and image.bands == 2:
                image = image.colourspace("srgb")
            return type(self)(image.cast("uchar").copy(interpretation="srgb"))

    @classmethod
    def from_rows(cls, rows: NDArray[np.uint8]) -> Self:
        """A raster over an array of shape (height, width, 3 or 4)."""
        image = pyvips.Image.new_from_array(np.ascontiguousarray(rows))
        return cls(image.copy(interpretation="srgb"))

    @classmethod
    def decode(cls, data: bytes) -> Self:
        """Open an encoded picture of ours."""
        with _translated("The file"):
            image = pyvips.Image.new_from_buffer(data, "", access="sequential", fail_on="error")
            if image.bands < 3:
                image = image.colourspace("srgb")
            return cls(image)

    @classmethod
    def stacked(cls, parts: Sequence[Self]) -> Self:
        """Rasters of one width, one under the other."""
        # An array gives every part the same room, so it is used for parts of one height only: joining
        # hundreds of parts pair by pair would be slow.
        stacks = [
            pyvips.Image.arrayjoin([part._image for part in run], across=1)
            for _, run in itertools.groupby(parts, key=lambda part: part.size.height_px)
        ]
        return cls(functools.reduce(lambda upper, lower: upper.join(lower, "vertical"), stacks))

    # -- facts ------------------------------------------------------------

    @property
    def size(self) -> Size:
        """Width and height in pixels."""
        return Size(width_px=self._image.width, height_px=self._image.height)

    @property
    def has_alpha(self) -> bool:
        """Whether there is an alpha plane."""
        return bool(self._image.hasalpha())

    @property
    def is_opaque(self) -> bool:
        """Whether nothing shows through; reads every pixel when there is an alpha plane."""
        if not self.has_alpha:
            return True
        with _translated("The picture"):
            return bool(self._image.extract_band(self._image.bands - 1).min() == 255)

    # -- changes ----------------------------------------------------------

    def cropped(self, box: Box) -> Self:
        """The part inside ``box``."""
        return type(self)(self._image.crop(box.x_px, box.y_px, box.width_px, box.height_px))

    def resized(self, size: Size) -> Self:
        """Brought to ``size`` exactly, by Lanczos; never softened by a detour over another size."""
        if size == self.size:
            return self
        with _translated("The picture"):
            image = self._image.thumbnail_image(size.width_px, height=size.height_px, size="force")
            return type(self)(image)

    def softened(self) -> Self:
        """Softened by a hair, which saves bytes along every edge."""
        # Premultiplied, or the colour behind what shows through would bleed into what does not.
        image = self._image.premultiply() if self.has_alpha else self._image
        soft = image.gaussblur(_SOFTENING_PX, min_ampl=0.02, precision="float")
        soft = soft.unpremultiply() if self.has_alpha else soft
        return type(self)(soft.rint().cast("uchar").copy(interpretation="srgb"))

    def sharpened(self) -> Self:
        """With edges a little crisper: letters get back some of the contrast that resizing took."""
        sharp = self._image.sharpen(sigma=0.5, x1=2, m1=0, m2=0.6)
        return type(self)(sharp.cast("uchar").copy(interpretation="srgb"))

    def difference(self, other: Self, *, amplified: int) -> Self:
        """How far two rasters of one size are apart, seen over white; black where they are not."""
        first, second = (row.flattened(WHITE).without_alpha()._image for row in (self, other))
        apart = (first - second).abs() * amplified
        return type(self)(apart.cast("uchar").copy(interpretation="srgb"))

    def on_canvas(self, canvas: Size, place: Box, background: Colour) -> Self:
        """On a larger canvas of a colour, with its upper left corner at ``place``."""
        if canvas == self.size:
            return self
        colour = [*background, 255][: self._image.bands]
        return type(self)(
            self._image.embed(
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
        upper = self._image
        if upper.bands > lower._image.bands:
            lower = type(self)(lower._image.bandjoin(255))
        return type(self)(upper.join(lower._image, "vertical"))

    def flattened(self, background: Colour) -> Self:
        """Without alpha, over a colour."""
        return type(self)(self._image.flatten(background=list(background))) if self.has_alpha else self

    def without_alpha(self) -> Self:
        """Only the colour channels."""
        return type(self)(self._image.extract_band(0, n=3)) if self._image.bands > 3 else self

    def held(self) -> Self:
        """Pulled once, to be read often: kept in memory when small, else in a mapped temporary file.

        So the memory used does not grow with the height of a picture. The file goes with the raster.
        """
        if self._is_held:
            return self
        image = self._image
        with _translated("The picture"):
            if image.width * image.height * image.bands <= _HELD_IN_MEMORY_BYTES:
                return type(self)(image.copy_memory(), is_held=True)
            kept = pyvips.Image.new_temp_file("%s.v")
            image.write(kept)
            return type(self)(kept, is_held=True)

    def digest(self) -> bytes:
        """A fingerprint of the pixels and their size; reads every row."""
        fingerprint = hashlib.blake2b(repr((self.size, self._image.bands)).encode(), digest_size=16)
        for top_px, height_px in bands(self.size.height_px, _DIGESTED_AT_ONCE_PX):
            fingerprint.update(np.ascontiguousarray(self.rows(top_px, height_px)).data)
        return fingerprint.digest()

    # -- out --------------------------------------------------------------

    def rows(self, top_px: int, height_px: int) -> NDArray[np.uint8]:
        """Rows as an array of shape (height, width, channels)."""
        with _translated("The picture"):
            array: NDArray[np.uint8] = self._image.crop(0, top_px, self._image.width, height_px).numpy()
        return array

    def as_png(self, *, compression: int = 3, row_filter: PngFilter = "none") -> bytes:
        """Lossless PNG."""
        return self._encoded(".png", compression=compression, filter=row_filter, keep="none")

    def as_palette_png(self, *, colours: int, dithered: bool) -> bytes:
        """PNG with at most ``colours`` colours, 2 to 256, each pixel's the nearest or ``dithered``.

        Greater effort takes five times as long over photographs and finds no better palette.
        """
        bits = next(bits for bits in (1, 2, 4, 8) if colours <= 2**bits)
        careful = self._palette_png(bits, dithered=dithered)
        if _palette_size(careful) <= colours:
            return careful
        # libvips takes no number of colours: a palette of lower quality has fewer.
        count = bisect.bisect_left(
            _PALETTE_QUALITIES,
            -colours,
            key=lambda quality: (
                -_palette_size(self._palette_png(bits, dithered=dithered, quality=quality, compression=1))
            ),
        )
        if count == len(_PALETTE_QUALITIES):
            return self.as_palette_png(colours=2 ** (bits // 2), dithered=dithered)
        return self._palette_png(bits, dithered=dithered, quality=_PALETTE_QUALITIES[count])

    def _palette_png(self, bits: int, *, dithered: bool, quality: int = 100, compression: int = 9) -> bytes:
        return self._encoded(
            ".png",
            palette=True,
            Q=quality,
            bitdepth=bits,
            dither=1.0 if dithered else 0.0,
            effort=4,
            compression=compression,
            keep="none",
        )

    def as_gif(self, *, colours: int, dithered: bool) -> bytes:
        """GIF with at most ``colours`` (2, 4, 16 or 256) colours; a pixel is transparent or is not."""
        bits = {2: 1, 4: 2, 16: 4, 256: 8}[colours]
        dither = 1.0 if dithered else 0.0
        return self._encoded(".gif", bitdepth=bits, dither=dither, effort=4, keep="none")

    def as_jpeg(self, *, quality: int, subsample: bool, draft: bool = False) -> bytes:
        """Progressive JPEG with trellis quantisation; ``subsample`` halves the colour planes.

        A draft is some 20 % heavier and made ten times as fast: good enough to predict sizes.
        """
        careful = not draft
        return self._encoded(
            ".jpg",
            Q=quality,
            subsample_mode="on" if subsample else "off",
            optimize_coding=True,
            interlace=careful,
            trellis_quant=careful,
            overshoot_deringing=careful,
            optimize_scans=careful,
            quant_table=2,
            keep="none",
        )

    def as_webp(
        self,
        *,
        quality: int,
        draft: bool = False,
        sharp_colour: bool = True,
        thorough: bool = False,
        deblocked: bool = False,
    ) -> bytes:
        """Lossy WebP; the alpha plane is compressed at about the same quality.

        ``sharp_colour`` keeps coloured edges sharp, and takes twice the time. A ``thorough`` file is up
        to a point better, and takes an eighth longer. With ``deblocked`` the encoder tries how much a
        viewer is to smooth between its blocks: as many bytes, mostly two points better, three times as long.
        """
        careful = 5 if thorough else 4
        effort = 0 if draft else careful
        return self._encoded(
            ".webp",
            Q=quality,
            alpha_q=max(quality, 80),
            effort=effort,
            smart_subsample=sharp_colour and not draft,
            smart_deblock=deblocked,
            keep="none",
        )

    def as_lossless_webp(self, *, draft: bool = False) -> bytes:
        """Lossless WebP."""
        return self._encoded(".webp", lossless=True, effort=1 if draft else 4, keep="none")

    def as_avif(
        self, *, quality: int, draft: bool = False, thorough: bool = True, patient: bool = False
    ) -> bytes:
        """AVIF with full colour planes.

        A ``thorough`` one looks up to four points better at the same bytes; of large pictures it takes
        several times as long. A ``patient`` one is on letters and drawings again a little lighter and up
        to eight points better, in twice the time; more effort still gains little more.
        """
        careful = 2 if thorough else 1
        effort = 0 if draft else _PATIENT_EFFORT if patient else careful
        if max(self._image.width, self._image.height) > _GREATEST_AVIF_PX:
            return tall_avif(self.rows(0, self._image.height), quality=quality, effort=effort)
        return self._encoded(
            ".avif",
            Q=quality,
            compression="av1",
            effort=effort,
            subsample_mode="off",
            bitdepth=8,
            keep="none",
        )

    def save_png(self, path: Path, *, compression: int = 3) -> None:
        """Write a lossless PNG file row by row."""
        with _translated("The picture"):
            self._image.write_to_file(str(path), compression=compression, keep="none")

    def _encoded(self, suffix: str, **options: object) -> bytes:
        with _translated("The picture"):
            data: bytes = self._image.write_to_buffer(suffix, **options)
        return data


def _palette_size(png: bytes) -> int:
    """Number of colours in a PNG's palette: three bytes each, their number before the chunk's name."""
    name_at = png.index(b"PLTE")
    return int.from_bytes(png[name_at - 4 : name_at]) // 3


@contextmanager
def _translated(subject: str) -> Iterator[None]:
    """Turn libvips' errors into ours: our intent, its detail."""
    try:
        yield
    except pyvips.Error as error:
        detail = " ".join(str(error.detail or error.message).split())
        if "No space left" in detail:
            raise StorageError("The disk that holds the data folder is full.", code="storage_full") from error
        if "not in a known format" in detail or "not a known file format" in detail:
            raise PictureUnreadable("The file is not a picture that Tall Page can read.") from error
        raise PictureUnreadable(
            f"{subject} is damaged or incomplete ({detail[:120]}).", code="picture_damaged"
        ) from error
