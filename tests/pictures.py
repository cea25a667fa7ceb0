"""Pictures made in code, and how two of them are compared."""

from __future__ import annotations

import io
import zlib
from functools import cache, lru_cache
from pathlib import Path

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageDraw, ImageFont

from tallpage.core.cut import Cut, Frame
from tallpage.core.geometry import Box
from tallpage.core.picture import Raster, StripManifest, StripWriter
from tallpage.core.render import CaptureSource, Rendering, RenderRules
from tallpage.core.sizing import Sizing
from tallpage.demo.photographs import paint

Pixels = NDArray[np.uint8]

_MOST_KEPT_BYTES = 1_000_000


def gradient(width_px: int, height_px: int) -> Pixels:
    """Every pixel tells its place: red the column, green and blue the row."""
    rows, columns = np.mgrid[0:height_px, 0:width_px]
    return np.stack([columns % 256, rows % 256, rows // 256 % 256], axis=2).astype(np.uint8)


def noise(width_px: int, height_px: int, *, seed: int = 1) -> Pixels:
    """The hardest picture to compress."""
    return np.random.default_rng(seed).integers(0, 256, (height_px, width_px, 3), dtype=np.uint8)


def text_page(width_px: int, height_px: int, *, seed: int = 1) -> Pixels:
    """Lines of letters on paper, as a page shows them."""
    picture = Image.new("RGB", (width_px, height_px), (250, 248, 244))
    pen = ImageDraw.Draw(picture)
    rng = np.random.default_rng(seed)
    for top in range(6, height_px, 20):
        letters = "".join(chr(97 + int(code)) for code in rng.integers(0, 26, width_px // 8))
        pen.text((8, top), letters, fill=(29, 43, 42), font=ImageFont.load_default(13))
    return np.asarray(picture)


@cache
def photograph(width_px: int, height_px: int, *, seed: int = 1) -> Pixels:
    """A seascape with a ferry. It is painted once: hundreds of tests put the same one on the shelf."""
    return np.asarray(
        paint(f"test-{seed}", subject="ferry", weather="clear", width_px=width_px, height_px=height_px)
    )


def as_png(pixels: Pixels) -> bytes:
    """PNG bytes of an array."""
    if pixels.nbytes <= _MOST_KEPT_BYTES:
        return _png_of(pixels.tobytes(), pixels.shape)
    return _packed(pixels)


@lru_cache(maxsize=64)
def _png_of(data: bytes, shape: tuple[int, ...]) -> bytes:
    return _packed(np.frombuffer(data, dtype=np.uint8).reshape(shape))


def _packed(pixels: Pixels) -> bytes:
    buffer = io.BytesIO()
    # Packed as tightly as usual, a picture would take longer than most of what is tested with it.
    Image.fromarray(pixels).save(buffer, "PNG", compress_level=1)
    return buffer.getvalue()


def decoded(data: bytes) -> Pixels:
    """Pixels of any picture file, read by another library than the one under test."""
    with Image.open(io.BytesIO(data)) as picture:
        return np.asarray(picture.convert("RGB"))


def strips_of(pixels: Pixels, folder: Path, *, strip_px: int = 2_048) -> StripManifest:
    """A stored capture of an array."""
    folder.mkdir(parents=True, exist_ok=True)
    writer = StripWriter(folder, width_px=pixels.shape[1])
    for top in range(0, pixels.shape[0], strip_px):
        piece = pixels[top : top + strip_px]
        writer.add(as_png(piece), height_px=piece.shape[0])
    return writer.finish()


def rendered(folder: Path, manifest: StripManifest, frame: Box, *, width_px: int) -> Raster:
    """A frame of a capture at a width."""
    rules = RenderRules(sizing=Sizing(width_px=width_px, enlarge=True))
    rendering = Rendering(CaptureSource(folder, manifest), Cut(frame=Frame.of(frame)), rules)
    return rendering.draw(rendering.whole())


def raster_of(pixels: Pixels) -> Raster:
    """A raster over an array."""
    return Raster.from_rows(pixels)


def assert_same_pixels(found: Pixels, expected: Pixels) -> None:
    """Both are equal to the last bit; says where they first differ."""
    assert found.shape == expected.shape
    different = np.argwhere(found != expected)
    assert not len(different), f"{len(different)} values differ, the first at (y, x, channel) {different[0]}"


def assert_close(found: Pixels, expected: Pixels, *, mean: float) -> None:
    """Mean absolute difference of all values is at most ``mean`` of 255."""
    assert found.shape == expected.shape
    difference = float(np.mean(np.abs(found.astype(int) - expected.astype(int))))
    assert difference <= mean, f"mean difference {difference:.2f}"


def lying_png(width_px: int, height_px: int) -> bytes:
    """A small PNG file whose header claims another size."""
    header = b"IHDR" + width_px.to_bytes(4, "big") + height_px.to_bytes(4, "big") + b"\x08\x02\x00\x00\x00"
    body = zlib.compress(b"\x00" * 300)
    chunks = [header, b"IDAT" + body, b"IEND"]
    packed = [len(row) - 4 for row in chunks]
    return b"\x89PNG\r\n\x1a\n" + b"".join(
        length.to_bytes(4, "big") + row + zlib.crc32(row).to_bytes(4, "big")
        for length, row in zip(packed, chunks, strict=True)
    )
